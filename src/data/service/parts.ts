import * as z from "zod";
import { emptyTable } from "@/core/basics/tables";
import {
  FIT_VERDICTS,
  type Fit,
  fitsMachine,
  type Part,
  partSchema,
  SET_KINDS,
  type SetEntry,
  type SetStanding,
  setStanding,
  sharpOn,
} from "@/core/fleet/parts";
import {
  cheaperLot,
  costAnHour,
  type Interval,
  type Lot,
  type LotVerdict,
  lifeBelief,
  lifeOf,
  workFactors,
} from "@/core/fleet/reliability";
import { meterAt } from "@/core/job/staleness";
import { meterReadings } from "@/data/machine/hours";
import { getMachine, listMachines, type MachineRecord } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { ofMachine, whileUnchanged } from "@/data/store/reads";
import { nextSeq } from "@/data/store/sequence";

export type PartRecord = {
  id: number;
  version: number;
  part: Part;
  stock: number;
  byLot: { lot?: string; stock: number }[];
  isLow: boolean;
};

type PartRow = { part_id: number; version: number; data_json: string };

const LATEST = `SELECT v.part_id, v.version, v.data_json FROM part_versions v
  WHERE v.version = (SELECT max(version) FROM part_versions w WHERE w.part_id = v.part_id)`;

function stockByPart(db: Db): Map<number, { lot?: string; stock: number }[]> {
  const rows = db.prepare("SELECT part_id, lot, sum(change) AS stock FROM part_moves GROUP BY part_id, lot ORDER BY min(id)").all() as {
    part_id: number;
    lot: string | null;
    stock: number;
  }[];
  const found = new Map<number, { lot?: string; stock: number }[]>();
  for (const { part_id, lot, stock } of rows)
    found.set(part_id, [...(found.get(part_id) ?? []), { stock, ...(lot === null ? {} : { lot }) }]);
  return found;
}

/** Every part the shop keeps, with what lies in stock. */
export function listParts(db: Db): PartRecord[] {
  return whileUnchanged(
    db,
    "parts",
    () => {
      const stock = stockByPart(db);
      return (db.prepare(`${LATEST} ORDER BY v.part_id`).all() as PartRow[]).map((row) => fromRow(row, stock.get(row.part_id) ?? []));
    },
    { on: ["parts", "stock"] },
  );
}

function fromRow({ part_id, version, data_json }: PartRow, byLot: PartRecord["byLot"]): PartRecord {
  const part = partSchema.parse(JSON.parse(data_json));
  const stock = byLot.reduce((sum, one) => sum + one.stock, 0);
  return { id: part_id, version, part, stock, byLot: byLot.filter((one) => one.stock !== 0), isLow: stock < part.lowMark };
}

/** Throws `part-not-found`. */
export function getPart(db: Db, id: number): PartRecord {
  const found = listParts(db).find((one) => one.id === id);
  if (!found) throw new AppError("part-not-found");
  return found;
}

export const newPartSchema = z.object({ part: partSchema });
export const changedPartSchema = z.object({ basedOnVersion: z.number().int(), part: partSchema });

export function addPart(db: Db, doing: Doing, { part }: z.output<typeof newPartSchema>): { partId: number } {
  return once(db, doing, "part-added", () => {
    const partId = Number(db.prepare("INSERT INTO parts (at) VALUES (?)").run(doing.now).lastInsertRowid);
    insertVersion(db, doing, { partId, version: 1, part });
    return { partId };
  });
}

/** A new version of a part. Throws `changed-since` when another one came in between. */
export function changePart(db: Db, doing: Doing, args: { partId: number } & z.output<typeof changedPartSchema>): { version: number } {
  return once(db, doing, "part-changed", () => {
    const before = getPart(db, args.partId);
    if (before.version !== args.basedOnVersion) throw new AppError("changed-since");
    const version = before.version + 1;
    insertVersion(db, doing, { partId: args.partId, version, part: args.part });
    return { version };
  });
}

function insertVersion(db: Db, doing: Doing, args: { partId: number; version: number; part: Part }): void {
  db.prepare("INSERT INTO part_versions (part_id, version, data_json, who, at) VALUES (?, ?, ?, ?, ?)").run(
    args.partId,
    args.version,
    JSON.stringify(args.part),
    doing.who,
    doing.now,
  );
  audit(db, doing, { action: "part-kept", subject: `part:${args.partId}`, detail: { version: args.version } });
}

const lotName = z.string().trim().max(40).optional();
export const partMoveSchema = z.discriminatedUnion("why", [
  z.object({ why: z.literal("bought"), count: z.number().int().min(1).max(10_000), lot: lotName }),
  z.object({ why: z.literal("fitted"), count: z.number().int().min(1).max(1000), lot: lotName, machineId: z.string().max(60).optional() }),
  z.object({ why: z.literal("thrown-out"), count: z.number().int().min(1).max(10_000), lot: lotName }),
  /** What lies there of the lot, counted; the difference is written down. */
  z.object({ why: z.literal("counted"), count: z.number().int().min(0).max(10_000), lot: lotName }),
]);

/** A lot as it was first written down: two that differ in capitals only are one. */
function spelt(db: Db, partId: number, lot: string | undefined): string | undefined {
  if (lot === undefined || lot === "") return undefined;
  const known = db
    .prepare(
      "SELECT lot FROM part_moves WHERE part_id = ? AND lot IS NOT NULL UNION SELECT lot FROM part_sets WHERE part_id = ? AND lot IS NOT NULL",
    )
    .all(partId, partId) as { lot: string }[];
  return known.find((one) => one.lot.toLowerCase() === lot.toLowerCase())?.lot ?? lot;
}

/** Writes a move of stock. Throws `invalid` with `not-so-many` where more leave than lie there, `nothing-set` where the count is what stands. */
export function movePart(
  db: Db,
  doing: Doing,
  args: { partId: number; move: z.output<typeof partMoveSchema> },
): { moveId: number; stock: number } {
  return once(db, doing, "part-moved", () => {
    const { move, partId } = args;
    const { byLot } = getPart(db, partId);
    const lot = spelt(db, partId, move.lot);
    const lies = byLot.find((one) => one.lot === lot)?.stock ?? 0;
    if (move.why === "fitted" && move.machineId !== undefined) getMachine(db, move.machineId);
    const change = move.why === "bought" ? move.count : move.why === "counted" ? move.count - lies : -move.count;
    if (change === 0) throw new AppError("invalid", { issues: [{ code: "nothing-set", path: ["count"] }] });
    if (lies + change < 0) throw new AppError("invalid", { issues: [{ code: "not-so-many", path: ["count"], stock: lies }] });
    const machineId = move.why === "fitted" ? move.machineId : undefined;
    const moveId = insertMove(db, doing, { partId, change, lot, why: move.why, machineId });
    return { moveId, stock: getPart(db, partId).stock };
  });
}

function insertMove(
  db: Db,
  doing: Doing,
  args: { partId: number; change: number; lot: string | undefined; why: string; machineId: string | undefined },
): number {
  const { partId, change, lot, why, machineId } = args;
  const { lastInsertRowid } = db
    .prepare("INSERT INTO part_moves (part_id, change, lot, why, machine_id, who, at) VALUES (?, ?, ?, ?, ?, ?, ?)")
    .run(partId, change, lot ?? null, why, machineId ?? null, doing.who, doing.now);
  audit(db, doing, { action: "part-moved", subject: `part:${partId}`, detail: { change, why, lot } });
  return Number(lastInsertRowid);
}

/** Which lot a set comes from: its own; where nobody said, one without a name, else the first of those that hold as many. */
function lotOfSet({ lot }: Pick<SetRecord, "lot">, byLot: PartRecord["byLot"], count: number): PartRecord["byLot"][number] | undefined {
  if (lot !== undefined) return byLot.find((one) => one.lot === lot);
  const lying = byLot.filter(({ stock }) => stock > 0);
  return lying.find((one) => one.lot === undefined) ?? lying.find(({ stock }) => stock >= count) ?? lying[0];
}

/** A set fitted for the first time comes off the shelf: as many of its lot as sit on the machine, as far as they lie there by the book. */
function offTheShelf(
  db: Db,
  doing: Doing,
  args: { set: SetRecord; machine: MachineRecord["machine"]; machineId: string; place: string | undefined },
): { moveId?: number } {
  const { set, machine, machineId, place } = args;
  if (set.log.some(({ kind }) => kind === "fitted")) return {};
  const wanted = place === undefined ? Math.max(machine.spindles.length, machine.units.length) : 1;
  const from = lotOfSet(set, getPart(db, set.partId).byLot, wanted);
  const count = Math.min(wanted, from?.stock ?? 0);
  return !from || count <= 0
    ? {}
    : { moveId: insertMove(db, doing, { partId: set.partId, change: -count, lot: from.lot, why: "fitted", machineId }) };
}

/** Takes a move back by a further one. Throws `nothing-to-undo`, and `invalid` with `not-so-many` where what it brought has left since. */
export function takeBackMove(db: Db, doing: Doing, args: { partId: number; moveId: number }): { moveId: number } {
  return once(db, doing, "part-move-taken-back", () => {
    const move = movesOf(db, args.partId).find(({ id }) => id === args.moveId);
    if (!move) throw new AppError("nothing-to-undo");
    const lies = getPart(db, args.partId).byLot.find((one) => one.lot === move.lot)?.stock ?? 0;
    if (lies - move.change < 0) throw new AppError("invalid", { issues: [{ code: "not-so-many", path: [], stock: lies }] });
    return { moveId: reverseMove(db, doing, args.partId, move) };
  });
}

function reverseMove(db: Db, doing: Doing, partId: number, move: PartMove): number {
  const { lastInsertRowid } = db
    .prepare("INSERT INTO part_moves (part_id, change, lot, why, takes_back_id, who, at) VALUES (?, ?, ?, 'taken-back', ?, ?, ?)")
    .run(partId, -move.change, move.lot ?? null, move.id, doing.who, doing.now);
  audit(db, doing, { action: "part-move-taken-back", subject: `part:${partId}`, detail: { moveId: move.id } });
  return Number(lastInsertRowid);
}

export type PartMove = { id: number; change: number; lot?: string; why: string; machineId?: string; who: string; at: string };

/** Moves that stand, newest first. */
export function movesOf(db: Db, partId: number): PartMove[] {
  const rows = db
    .prepare(
      `SELECT id, change, lot, why, machine_id, who, at FROM part_moves p WHERE part_id = ? AND why <> 'taken-back'
         AND NOT EXISTS (SELECT 1 FROM part_moves b WHERE b.takes_back_id = p.id) ORDER BY id DESC`,
    )
    .all(partId) as { id: number; change: number; lot: string | null; why: string; machine_id: string | null; who: string; at: string }[];
  return rows.map(({ lot, machine_id, ...row }) => ({
    ...row,
    ...(lot === null ? {} : { lot }),
    ...(machine_id === null ? {} : { machineId: machine_id }),
  }));
}

const byVerdict = (a: { fit: Fit }, b: { fit: Fit }): number => FIT_VERDICTS.indexOf(a.fit.verdict) - FIT_VERDICTS.indexOf(b.fit.verdict);

export type Fitting = { record: PartRecord; fit: Fit };

/** Of all parts those of the machine's sort, what fits first, what lies in stock before what does not. */
export function whatFits(db: Db, machine: MachineRecord["machine"]): Fitting[] {
  return listParts(db)
    .flatMap((record) => {
      const fit = fitsMachine(record.part, machine);
      return fit ? [{ record, fit }] : [];
    })
    .sort((a, b) => byVerdict(a, b) || Number(b.record.stock > 0) - Number(a.record.stock > 0));
}

/** Machines of the fleet of a part's sort: first those it goes on, then those where that is open. */
export function fitsWhere(db: Db, part: Part): { machine: Pick<MachineRecord, "id" | "fleetNumber" | "name">; fit: Fit }[] {
  return listMachines(db)
    .flatMap(({ id, fleetNumber, name, machine }) => {
      const fit = fitsMachine(part, machine);
      return fit ? [{ machine: { id, fleetNumber, name }, fit }] : [];
    })
    .sort(byVerdict);
}

export type SetRecord = { id: number; partId: number; mark: string; lot?: string; log: SetEntry[]; standing: SetStanding };

const setEntryData = z.object({
  place: z.string().max(60).optional(),
  work: z.string().trim().min(1).max(40).optional(),
  why: z.string().trim().max(80).optional(),
  isDull: z.boolean().optional(),
  where: z.string().trim().max(80).optional(),
  /** What left the shelf with it, the first time it was fitted. */
  moveId: z.number().int().optional(),
});

export const newSetSchema = z.object({
  partId: z.number().int().positive(),
  mark: z.string().trim().min(1, "say-what").max(20),
  lot: lotName,
});
export const setEntrySchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("fitted"),
    machineId: z.string().max(60),
    place: z.string().max(60).optional(),
    /** The kind of work it is fitted for: lots are compared like with like. */
    work: z.string().trim().min(1, "say-what").max(40),
  }),
  z.object({ kind: z.literal("came-off"), why: z.string().trim().min(1, "say-why").max(80) }),
  z.object({ kind: z.literal("sharpened") }),
  z.object({ kind: z.literal("looked"), isDull: z.boolean() }),
  z.object({ kind: z.literal("finished"), why: z.enum(["worn", "damaged", "lost"]) }),
  z.object({ kind: z.literal("put"), where: z.string().trim().min(1, "say-what").max(80) }),
]);

/** A physical set of a part that wears: a mark of its own. Throws `part-not-found`, and `invalid` with `mark-taken` or `not-of-this-sort`. */
export function addSet(db: Db, doing: Doing, args: z.output<typeof newSetSchema>): { setId: number } {
  return once(db, doing, "set-added", () => {
    const { part } = getPart(db, args.partId);
    if (!SET_KINDS.includes(part.kind)) throw new AppError("invalid", { issues: [{ code: "not-of-this-sort", path: ["partId"] }] });
    if (db.prepare("SELECT 1 FROM part_sets WHERE mark = ?").get(args.mark))
      throw new AppError("invalid", { issues: [{ code: "mark-taken", path: ["mark"] }] });
    const { lastInsertRowid } = db
      .prepare("INSERT INTO part_sets (part_id, mark, lot, who, at) VALUES (?, ?, ?, ?, ?)")
      .run(args.partId, args.mark, spelt(db, args.partId, args.lot) ?? null, doing.who, doing.now);
    audit(db, doing, { action: "set-added", subject: `set:${lastInsertRowid}`, detail: args });
    return { setId: Number(lastInsertRowid) };
  });
}

/** All of the machine's meters together, by what was read last. */
const totalHours = (db: Db, machineId: string, now: string): number | undefined => meterAt(meterReadings(db, machineId), now);

/**
 * Writes down what happened to a set. Throws `set-not-found`, `machine-not-found`; `invalid` with `fitted-elsewhere`, `not-fitted`, `set-finished`,
 * `not-of-this-sort`, `unknown-part`, `place-taken`.
 */
export function logSet(db: Db, doing: Doing, args: { setId: number; entry: z.output<typeof setEntrySchema> }): { entryId: number } {
  return once(db, doing, `set-${args.entry.kind}`, () => {
    const { entry } = args;
    const set = getSet(db, args.setId, doing.now);
    const { standing, partId } = set;
    let shelf: { moveId?: number } = {};
    const refuse = (code: string, detail: object = {}): never => {
      throw new AppError("invalid", { issues: [{ code, path: ["kind"], ...detail }] });
    };
    if (standing.finished) refuse("set-finished");
    if (entry.kind === "fitted") {
      const { machine } = getMachine(db, entry.machineId);
      if (standing.on) refuse("fitted-elsewhere", { machine: getMachine(db, standing.on.machineId).fleetNumber });
      if (fitsMachine(getPart(db, partId).part, machine) === undefined) refuse("not-of-this-sort");
      const places = [...machine.spindles, ...machine.units].map(({ id }) => id);
      if (entry.place !== undefined && !places.includes(entry.place)) refuse("unknown-part", { place: entry.place });
      const other = onTheSamePlace(db, doing.now, { ...entry, partId, setId: args.setId });
      if (other) refuse("place-taken", { mark: other.mark });
      shelf = offTheShelf(db, doing, { set, machine, machineId: entry.machineId, place: entry.place });
    }
    if (entry.kind === "came-off" && !standing.on) refuse("not-fitted");
    // A set that is finished where it sits has come off.
    if (entry.kind === "finished" && standing.on)
      insertSetEntry(db, doing, { setId: args.setId, kind: "came-off", why: entry.why, on: standing.on.machineId });
    const { kind, ...rest } = entry;
    const isAtMachine = entry.kind === "came-off" || entry.kind === "sharpened" || entry.kind === "looked";
    const on = entry.kind === "fitted" ? entry.machineId : isAtMachine ? standing.on?.machineId : undefined;
    return { entryId: insertSetEntry(db, doing, { setId: args.setId, kind, ...rest, ...shelf, on }) };
  });
}

/** What left the shelf with an entry lies there again once that is taken back, unless the move was taken back by itself. */
function putBackOnShelf(db: Db, doing: Doing, { partId, entryId }: { partId: number; entryId: number }): void {
  const { data_json } = db.prepare("SELECT data_json FROM set_log WHERE id = ?").get(entryId) as { data_json: string };
  const { moveId } = setEntryData.parse(JSON.parse(data_json));
  const move = moveId === undefined ? undefined : movesOf(db, partId).find(({ id }) => id === moveId);
  if (move) reverseMove(db, doing, partId, move);
}

/** A set of the same sort that sits where this one is to go: one goes on when the other is written down to have come off. */
function onTheSamePlace(
  db: Db,
  now: string,
  { machineId, place, partId, setId }: { machineId: string; place?: string | undefined; partId: number; setId: number },
): SetRecord | undefined {
  const { kind } = getPart(db, partId).part;
  return listSets(db, now, { machineId }).find(({ id, partId: of, standing: { on } }) => {
    if (id === setId || on?.machineId !== machineId || getPart(db, of).part.kind !== kind) return false;
    return place === undefined || on.place === undefined || on.place === place;
  });
}

function insertSetEntry(
  db: Db,
  doing: Doing,
  { setId, kind, on, ...rest }: { setId: number; kind: string; on?: string | undefined } & z.input<typeof setEntryData>,
): number {
  const { lastInsertRowid } = db
    .prepare("INSERT INTO set_log (set_id, kind, machine_id, machine_hours, data_json, who, at, seq) VALUES (?, ?, ?, ?, ?, ?, ?, ?)")
    .run(
      setId,
      kind,
      on ?? null,
      on === undefined ? null : (totalHours(db, on, doing.now) ?? null),
      JSON.stringify(setEntryData.parse(rest)),
      doing.who,
      doing.now,
      nextSeq(db),
    );
  audit(db, doing, { action: `set-${kind}`, subject: `set:${setId}`, detail: rest });
  return Number(lastInsertRowid);
}

/**
 * Takes the last entry of a set back. Throws `nothing-to-undo` for one that is not the last: what came after rests on it; `invalid` with `place-taken`
 * where another set sits by now.
 */
export function takeBackSetEntry(db: Db, doing: Doing, args: { setId: number; entryId: number }): { entryId: number } {
  return once(db, doing, "set-entry-taken-back", () => {
    const { log } = getSet(db, args.setId, doing.now);
    if (log.at(-1)?.id !== args.entryId) throw new AppError("nothing-to-undo");
    const { lastInsertRowid } = db
      .prepare("INSERT INTO set_log (set_id, kind, data_json, takes_back_id, who, at, seq) VALUES (?, 'taken-back', '{}', ?, ?, ?, ?)")
      .run(args.setId, args.entryId, doing.who, doing.now, nextSeq(db));
    const { standing, partId } = getSet(db, args.setId, doing.now);
    putBackOnShelf(db, doing, { partId, entryId: args.entryId });
    // It would sit again where another was put since.
    const other = standing.on && onTheSamePlace(db, doing.now, { ...standing.on, partId, setId: args.setId });
    if (other) throw new AppError("invalid", { issues: [{ code: "place-taken", path: ["entryId"], mark: other.mark }] });
    audit(db, doing, { action: "set-entry-taken-back", subject: `set:${args.setId}`, detail: { entryId: args.entryId } });
    return { entryId: Number(lastInsertRowid) };
  });
}

type SetRow = { id: number; part_id: number; mark: string; lot: string | null };
type SetLogRow = {
  id: number;
  set_id: number;
  kind: string;
  machine_id: string | null;
  machine_hours: number | null;
  data_json: string;
  who: string;
  at: string;
  seq: number;
};

function entryOf(row: SetLogRow): SetEntry {
  const { place, work, why, isDull, where } = setEntryData.parse(JSON.parse(row.data_json));
  const base = { id: row.id, seq: row.seq, at: row.at, who: row.who };
  const read = row.machine_hours === null ? {} : { machineHours: row.machine_hours };
  const of = { machineId: row.machine_id ?? "", ...read };
  switch (row.kind) {
    case "fitted":
      return { ...base, kind: "fitted", ...of, work: work ?? "", ...(place === undefined ? {} : { place }) };
    case "came-off":
      return { ...base, kind: "came-off", ...of, why: why ?? "" };
    case "looked":
      return { ...base, kind: "looked", ...read, isDull: isDull ?? false };
    case "finished":
      return { ...base, kind: "finished", why: (why ?? "lost") as "worn" | "damaged" | "lost" };
    case "put":
      return { ...base, kind: "put", where: where ?? "" };
    default:
      return { ...base, kind: "sharpened", ...read };
  }
}

type Which = { partId: number } | { machineId: string } | { id: number };

/** Which sets are meant, as a condition on `s` with what it is asked with. */
function whichSets(which: Which): { sql: string; given: (string | number)[] } {
  if ("id" in which) return { sql: "s.id = ?", given: [which.id] };
  if ("partId" in which) return { sql: "s.part_id = ?", given: [which.partId] };
  return {
    sql: "s.id IN (SELECT m.set_id FROM set_log m WHERE m.machine_id = ? AND NOT EXISTS (SELECT 1 FROM set_log b WHERE b.takes_back_id = m.id))",
    given: [which.machineId],
  };
}

/** The sets of a part, those that were ever on a machine, or one; each with its log and where it stands. */
export function listSets(db: Db, now: string, which: Which): SetRecord[] {
  const { sql, given } = whichSets(which);
  return whileUnchanged(db, `sets ${JSON.stringify(which)} ${now.slice(0, 13)}`, () => {
    const logs = new Map<number, SetEntry[]>();
    const rows = db
      .prepare(
        `SELECT l.id, l.set_id, l.kind, l.machine_id, l.machine_hours, l.data_json, l.who, l.at, l.seq FROM part_sets s JOIN set_log l ON l.set_id = s.id
         WHERE ${sql} AND l.kind <> 'taken-back' AND NOT EXISTS (SELECT 1 FROM set_log b WHERE b.takes_back_id = l.id) ORDER BY l.id`,
      )
      .all(...given) as SetLogRow[];
    for (const row of rows) {
      const log = logs.get(row.set_id) ?? [];
      log.push(entryOf(row));
      logs.set(row.set_id, log);
    }
    const hours = new Map<string, number | undefined>();
    const hoursNow = (machineId: string) => {
      if (!hours.has(machineId)) hours.set(machineId, totalHours(db, machineId, now));
      return hours.get(machineId);
    };
    return (db.prepare(`SELECT s.id, s.part_id, s.mark, s.lot FROM part_sets s WHERE ${sql} ORDER BY s.id`).all(...given) as SetRow[]).map(
      (row) => {
        const log = logs.get(row.id) ?? [];
        return {
          id: row.id,
          partId: row.part_id,
          mark: row.mark,
          ...(row.lot === null ? {} : { lot: row.lot }),
          log,
          standing: setStanding(log, hoursNow),
        };
      },
    );
  });
}

/** When a machine got sharp edges all over by a marked set, oldest first: what such a set was given stands for service that was done. */
export function sharpBySets(db: Db, machineId: string): SetEntry[] {
  return whileUnchanged(db, `sharp by sets ${machineId}`, () => readSharp(db, machineId), {
    on: [...ofMachine(machineId, "sets"), "parts"],
  });
}

function readSharp(db: Db, machineId: string): SetEntry[] {
  const sets = db
    .prepare(
      `SELECT DISTINCT s.id, v.data_json FROM set_log m JOIN part_sets s ON s.id = m.set_id JOIN part_versions v ON v.part_id = s.part_id
         AND v.version = (SELECT max(version) FROM part_versions WHERE part_id = s.part_id)
       WHERE m.machine_id = ? AND NOT EXISTS (SELECT 1 FROM set_log b WHERE b.takes_back_id = m.id) ORDER BY s.id`,
    )
    .all(machineId) as { id: number; data_json: string }[];
  return sets
    .filter(({ data_json }) => partSchema.parse(JSON.parse(data_json)).kind === "blade")
    .flatMap(({ id }) => sharpOn(logOf(db, id), machineId))
    .sort((a, b) => a.seq - b.seq);
}

/** What was written of one set and stands, oldest first. */
function logOf(db: Db, setId: number): SetEntry[] {
  const rows = db
    .prepare(
      `SELECT l.id, l.set_id, l.kind, l.machine_id, l.machine_hours, l.data_json, l.who, l.at, l.seq FROM set_log l
       WHERE l.set_id = ? AND l.kind <> 'taken-back' AND NOT EXISTS (SELECT 1 FROM set_log b WHERE b.takes_back_id = l.id) ORDER BY l.id`,
    )
    .all(setId) as SetLogRow[];
  return rows.map(entryOf);
}

/** How many marked sets there are of each part. */
export function setCounts(db: Db): Record<number, number> {
  const rows = db.prepare("SELECT part_id, count(*) AS n FROM part_sets GROUP BY part_id").all() as { part_id: number; n: number }[];
  return Object.fromEntries(rows.map(({ part_id, n }) => [part_id, n]));
}

/** Throws `set-not-found`. */
export function getSet(db: Db, id: number, now: string): SetRecord {
  const [found] = listSets(db, now, { id });
  if (!found) throw new AppError("set-not-found");
  return found;
}

/** An edge and how often it can be sharpened, where the part does not say. Estimates. */
const USUAL_EDGE_HOURS = 10;
const USUAL_SHARPENINGS = 5;

export type LotStanding = {
  lot: string;
  sets: number;
  finishedHours: number[];
  runningHours: number[];
  life: Interval;
  /** In the part's own money, where the part says what it costs. */
  costAnHour?: Interval;
};
export type Lots = {
  lots: LotStanding[];
  against: { a: string; b: string; verdict: LotVerdict }[];
  currency: string;
  work: Record<string, number>;
};

/**
 * How long each lot of a part lasted and what it costs an hour, and of every two which is the cheaper. Hours are weighed by the kind of work; a set that
 * was damaged or lost says only that it lasted so long.
 */
export function lotsOf(db: Db, partId: number, now: string): Lots {
  const on = db
    .prepare(
      "SELECT DISTINCT l.machine_id AS id FROM part_sets s JOIN set_log l ON l.set_id = s.id WHERE s.part_id = ? AND l.machine_id IS NOT NULL",
    )
    .all(partId) as { id: string }[];
  return whileUnchanged(db, `lots of ${partId} ${now.slice(0, 13)}`, () => readLots(db, partId, now), {
    on: ["sets", "parts", "stock", ...on.flatMap(({ id }) => ofMachine(id, "hours", "sheet"))],
  });
}

/** Reckoned once for the same hours, whatever else was written. */
function cheaperOf(db: Db, a: Lot, b: Lot, depotHours: number): LotVerdict {
  const told = ({ finishedHours, runningHours, hoursByWork, price, sharpening, fitting, hoursPerEdge }: Lot) =>
    JSON.stringify([finishedHours, runningHours, hoursByWork, price, sharpening, fitting, hoursPerEdge]);
  return whileUnchanged(db, `cheaper of ${told(a)} ${told(b)} ${depotHours}`, () => cheaperLot(a, b, depotHours), { on: [] });
}

function readLots(db: Db, partId: number, now: string): Lots {
  const { part } = getPart(db, partId);
  const sets = listSets(db, now, { partId });
  const work = workFactors(
    sets.map(({ standing }) => ({ hoursByWork: standing.hoursByWork, isFinished: standing.finished?.why === "worn" })),
  );
  const effective = ({ hoursByWork }: SetStanding) =>
    Object.entries(hoursByWork).reduce((sum, [kind, hours]) => sum + hours * (work[kind] ?? 1), 0);
  const depotHours = (part.hoursPerEdge ?? USUAL_EDGE_HOURS) * ((part.sharpenings ?? USUAL_SHARPENINGS) + 1);
  const cost =
    part.price === undefined
      ? undefined
      : {
          price: part.price,
          sharpening: part.sharpeningCost ?? 0,
          fitting: part.fittingCost ?? 0,
          hoursPerEdge: part.hoursPerEdge ?? USUAL_EDGE_HOURS,
        };
  const names = [...new Set(sets.map(({ lot }) => lot ?? "without a lot"))];
  const rows = names.map((lot) => {
    const own = sets.filter((one) => (one.lot ?? "without a lot") === lot);
    const isWorn = ({ standing }: SetRecord) => standing.finished?.why === "worn";
    const finishedHours = own.filter(isWorn).map(({ standing }) => effective(standing));
    const runningHours = own.filter((one) => !isWorn(one)).map(({ standing }) => effective(standing));
    const hoursByWork: Record<string, number> = emptyTable();
    for (const { standing } of own)
      for (const [kind, hours] of Object.entries(standing.hoursByWork)) hoursByWork[kind] = (hoursByWork[kind] ?? 0) + hours;
    const life = lifeOf(lifeBelief({ finishedHours, runningHours }, depotHours));
    return {
      lot,
      sets: own.length,
      finishedHours,
      runningHours,
      life,
      hoursByWork: { ...hoursByWork },
      ...(cost ? { costAnHour: costAnHour(cost, life) } : {}),
    };
  });
  const against = cost
    ? rows.flatMap((a, k) =>
        rows.slice(k + 1).map((b) => ({ a: a.lot, b: b.lot, verdict: cheaperOf(db, { ...a, ...cost }, { ...b, ...cost }, depotHours) })),
      )
    : [];
  return { lots: rows.map(({ hoursByWork: _, ...row }) => row), against, currency: part.currency, work };
}
