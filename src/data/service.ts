import * as z from "zod";
import { KIND_IDS, type KindId } from "@/core/kinds";
import { learntSeason, monthsSeen, paceOf, type Season, sharpenAfterHours } from "@/core/lasting";
import {
  hasTask,
  type LastSeen,
  type ServiceEntry,
  type ServiceStanding,
  type SetRule,
  serviceStandings,
  TASK_IDS,
  type TaskId,
  taskRow,
} from "@/core/service/tasks";
import { emptyTable } from "@/core/tables";
import { physical } from "@/core/units/physical";
import { localDay } from "./clock";
import type { Db } from "./connection";
import { audit, type Doing, once } from "./context";
import { dayText, isTooFar } from "./days";
import { edgeLooks } from "./edge-looks";
import { AppError } from "./errors";
import { byLetters } from "./grouped";
import { meterReadings } from "./hours";
import { lastSeenOf } from "./machine-state";
import { getMachine, listMachines, type MachineRecord, machinesAt } from "./machines";
import { sharpBySets } from "./parts";
import { atOnce, ofMachine, type Subject, whileUnchanged } from "./reads";
import { nextSeq } from "./sequence";
import { unlessSpoilt } from "./sheets-read";

const what = z.enum(TASK_IDS);
const words = z.string().trim().max(500).default("");

export const newRuleSchema = z
  .object({
    what,
    scope: z.enum(["fleet", "kind", "machine"]),
    kind: z.enum(KIND_IDS).optional(),
    machineId: z.string().max(60).optional(),
    isOff: z.boolean().default(false),
    everyHours: physical("hours", 5000).optional(),
    everyDays: physical("days", 1500).optional(),
    reason: z.string().trim().min(1, "say-why").max(300),
  })
  .refine(
    (rule) => (rule.scope === "kind") === (rule.kind !== undefined) && (rule.scope === "machine") === (rule.machineId !== undefined),
    {
      message: "scope-named",
      path: ["scope"],
    },
  )
  .refine((rule) => rule.isOff || rule.everyHours !== undefined || rule.everyDays !== undefined, {
    message: "say-how-often",
    path: ["everyHours"],
  });

/** Sets a rule; an earlier one of the same scope stays on the record and rules no more. Throws `machine-not-found`. */
export function addRule(db: Db, doing: Doing, args: z.output<typeof newRuleSchema>): { ruleId: number } {
  return once(db, doing, "service-rule", () => {
    if (args.machineId !== undefined) getMachine(db, args.machineId);
    const { lastInsertRowid } = db
      .prepare(
        `INSERT INTO service_rules (what, scope, kind, machine_id, is_off, every_hours, every_days, reason, who, at)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      )
      .run(
        args.what,
        args.scope,
        args.kind ?? null,
        args.machineId ?? null,
        args.isOff ? 1 : 0,
        args.isOff ? null : (args.everyHours ?? null),
        args.isOff ? null : (args.everyDays ?? null),
        args.reason,
        doing.who,
        doing.now,
      );
    audit(db, doing, { action: "service-rule", subject: args.machineId ? `machine:${args.machineId}` : "fleet", detail: args });
    return { ruleId: Number(lastInsertRowid) };
  });
}

export type RuleRecord = SetRule & { id: number; reason: string; who: string; at: string };

/** Every rule there is, the oldest first: of one scope the last rules. */
export function listRules(db: Db): RuleRecord[] {
  const rows = db.prepare("SELECT * FROM service_rules ORDER BY id").all() as {
    id: number;
    what: TaskId;
    scope: SetRule["scope"];
    kind: KindId | null;
    machine_id: string | null;
    is_off: number;
    every_hours: number | null;
    every_days: number | null;
    reason: string;
    who: string;
    at: string;
  }[];
  return rows.map((row) => ({
    id: row.id,
    what: row.what,
    scope: row.scope,
    ...(row.kind === null ? {} : { kind: row.kind }),
    ...(row.machine_id === null ? {} : { machineId: row.machine_id }),
    ...(row.is_off ? { isOff: true } : {}),
    ...(row.every_hours === null ? {} : { everyHours: row.every_hours }),
    ...(row.every_days === null ? {} : { everyDays: row.every_days }),
    reason: row.reason,
    who: row.who,
    at: row.at,
  }));
}

export const serviceDoneSchema = z.object({
  what,
  kind: z.enum(["done", "rechecked"]).default("done"),
  words,
  roundId: z.number().int().positive().optional(),
});
export const postponeSchema = z.object({ what, untilDay: dayText, words: z.string().trim().min(1, "say-why").max(500) });

/** Throws `invalid` with `not-of-this-sort` for a task such a machine does not have. */
function requireTask(db: Db, machineId: string, id: TaskId): void {
  const { machine } = getMachine(db, machineId);
  const task = taskRow(id);
  if (!task || !hasTask(task, machine)) throw new AppError("invalid", { issues: [{ code: "not-of-this-sort", path: ["what"] }] });
}

function insertEntry(
  db: Db,
  doing: Doing,
  args: {
    machineId: string;
    kind: string;
    what: string;
    words: string;
    untilDay?: string;
    roundId?: number | undefined;
    takesBackId?: number;
  },
): number {
  const { lastInsertRowid } = db
    .prepare(
      `INSERT INTO service_log (machine_id, kind, what, until_day, words, round_id, takes_back_id, who, at, seq) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    )
    .run(
      args.machineId,
      args.kind,
      args.what,
      args.untilDay ?? null,
      args.words,
      args.roundId ?? null,
      args.takesBackId ?? null,
      doing.who,
      doing.now,
      nextSeq(db),
    );
  audit(db, doing, {
    action: `service-${args.kind}`,
    subject: `machine:${args.machineId}`,
    detail: { what: args.what, words: args.words },
  });
  return Number(lastInsertRowid);
}

/**
 * Writes down that a task was done outside a job. Throws `round-not-found` for a round without that machine, `invalid` with `counted-in-a-job` for one that is
 * counted part by part: one grind is one fix, and its tally the knife's.
 */
export function logService(db: Db, doing: Doing, args: { machineId: string } & z.output<typeof serviceDoneSchema>): { entryId: number } {
  return once(db, doing, "service-done", () => {
    requireTask(db, args.machineId, args.what);
    if (taskRow(args.what)?.isCounted) throw new AppError("invalid", { issues: [{ code: "counted-in-a-job", path: ["what"] }] });
    if (args.roundId !== undefined) {
      const row = db.prepare("SELECT what, machines_json FROM rounds WHERE id = ?").get(args.roundId) as
        | { what: string; machines_json: string }
        | undefined;
      if (!row || row.what !== args.what || !(JSON.parse(row.machines_json) as string[]).includes(args.machineId))
        throw new AppError("round-not-found");
    }
    return { entryId: insertEntry(db, doing, args) };
  });
}

/** Puts what is due off to a day, with the reason. Throws `invalid` for a day that is not to come. */
export function postponeService(db: Db, doing: Doing, args: { machineId: string } & z.output<typeof postponeSchema>): { entryId: number } {
  return once(db, doing, "service-postponed", () => {
    requireTask(db, args.machineId, args.what);
    if (args.untilDay <= localDay(doing.now)) throw new AppError("invalid", { issues: [{ code: "day-gone", path: ["untilDay"] }] });
    if (isTooFar(args.untilDay, doing.now)) throw new AppError("invalid", { issues: [{ code: "date-too-far", path: ["untilDay"] }] });
    return { entryId: insertEntry(db, doing, { ...args, kind: "postponed" }) };
  });
}

/** Takes an entry back by a further one; the first stays. Throws `nothing-to-undo`. */
export function takeBackService(db: Db, doing: Doing, args: { machineId: string; entryId: number }): { entryId: number } {
  return once(db, doing, "service-taken-back", () => {
    const entry = serviceEntries(db, args.machineId).find(({ id }) => id === args.entryId);
    if (!entry) throw new AppError("nothing-to-undo");
    const entryId = insertEntry(db, doing, { ...args, kind: "taken-back", what: entry.what, words: "", takesBackId: args.entryId });
    return { entryId };
  });
}

type EntryRow = {
  id: number;
  machine_id: string;
  kind: ServiceEntry["kind"];
  what: string;
  until_day: string | null;
  words: string;
  round_id: number | null;
  who: string;
  at: string;
  seq: number;
};
export type EntryRecord = ServiceEntry & { machineId: string; roundId?: number };

const ENTRIES = `SELECT l.id, l.machine_id, l.kind, l.what, l.until_day, l.words, l.round_id, l.who, l.at, l.seq FROM service_log l
  WHERE l.kind <> 'taken-back' AND NOT EXISTS (SELECT 1 FROM service_log b WHERE b.takes_back_id = l.id)`;
const entryOf = (row: EntryRow): EntryRecord => ({
  id: row.id,
  machineId: row.machine_id,
  kind: row.kind,
  what: row.what,
  words: row.words,
  who: row.who,
  at: row.at,
  seq: row.seq,
  ...(row.until_day === null ? {} : { untilDay: row.until_day }),
  ...(row.round_id === null ? {} : { roundId: row.round_id }),
});

/** What was written down as service of one machine, oldest first, without what was taken back. */
export function serviceEntries(db: Db, machineId: string): EntryRecord[] {
  return (db.prepare(`${ENTRIES} AND l.machine_id = ? ORDER BY l.id`).all(machineId) as EntryRow[]).map(entryOf);
}

/** So many of a day are shown: whoever did more goes to the machine. */
const OF_A_DAY = 30;

/** What was written down today over the fleet and stands, the last first. */
export function entriesToday(db: Db, now: string): (EntryRecord & { fleetNumber: string })[] {
  const rows = db.prepare(`${ENTRIES} ORDER BY l.id DESC LIMIT ${OF_A_DAY}`).all() as EntryRow[];
  return rows
    .filter(({ at }) => localDay(at) === localDay(now))
    .map((row) => ({ ...entryOf(row), fleetNumber: getMachine(db, row.machine_id).fleetNumber }));
}

/** Of each task what says how it stands: when it was last done, and whether it was put off. */
function lastEntries(db: Db, machineId: string): EntryRecord[] {
  return TASK_IDS.flatMap((id) =>
    (db.prepare(`${ENTRIES} AND l.machine_id = ? AND l.what = ? ORDER BY l.id DESC LIMIT ${LAST_ENTRIES}`).all(machineId, id) as EntryRow[])
      .reverse()
      .map(entryOf),
  );
}

/** A marked set that made a machine's edges sharp all over, as service that was done; its undo is on the set's own page. */
function bySets(db: Db, machineId: string): EntryRecord[] {
  return sharpBySets(db, machineId).map(({ seq, at, who }) => ({
    ...{ id: 0, machineId, kind: "done" as const, what: "sharpen", words: "", who, at, seq },
  }));
}

/** Done, looked at again, put off: more of one task say nothing of today. */
const LAST_ENTRIES = 4;

/** What happens to the turf of a site raises its tasks on every machine that mows there. */
const OF_THE_TURF = ["event:top-dressed"] as const;

const seenHere = (db: Db, id: string): LastSeen =>
  whileUnchanged(db, `last seen of ${id}`, () => lastSeenOf(db, id), { on: ofMachine(id, "log"), size: "middling" });

/** What happened last to the turf of a site, by whichever machine that mows there it was told of. */
function turfOf(db: Db, site: string): LastSeen {
  const merged: Record<string, LastSeen[string]> = emptyTable();
  for (const id of machinesAt(db, site)) {
    const told = whileUnchanged(
      db,
      `turf told of ${id}`,
      () => OF_THE_TURF.map((key) => [key, unlessSpoilt(() => seenHere(db, id))?.[key]] as const),
      {
        on: ofMachine(id, "log"),
      },
    );
    for (const [key, seen] of told) if (seen && seen.seq > (merged[key]?.seq ?? 0)) merged[key] = seen;
  }
  return merged;
}

/** The depot's year, from all its meters as they stood when the month began: an hour read today does not move every due day of the fleet. */
function seasonOf(db: Db, now: string): Season {
  const month = `${now.slice(0, 7)}-01T00:00:00.000Z`;
  const seenOf = (id: string) =>
    whileUnchanged(db, `months of ${id} ${month}`, () => monthsSeen(meterReadings(db, id), month), { on: ofMachine(id, "hours") });
  return whileUnchanged(db, `season of ${month}`, () => learntSeason(listMachines(db).map(({ id }) => seenOf(id))), {
    on: ["every:hours", "every:sheet", "fleet"],
  });
}

/** What is the same for every machine of the fleet, worked out once for all of them. */
type Shared = { season: Season; turf: (site: string) => Turf; sharpenHours: (kind: KindId) => number; key: string };
/** With all of it as a text, which changes when it does. */
type Turf = { seen: LastSeen; key: string };

function sharedOf(db: Db, now: string): Shared {
  const season = seasonOf(db, now);
  const turfs = new Map<string, Turf>();
  const hours = new Map<KindId, number>();
  return {
    season,
    key: season.join(" "),
    turf: (site) => {
      const before = turfs.get(site);
      if (before) return before;
      const seen = turfOf(db, site);
      const turf = { seen, key: JSON.stringify(seen) };
      turfs.set(site, turf);
      return turf;
    },
    sharpenHours: (kind) => {
      const after = hours.get(kind) ?? sharpenHoursOf(db, kind);
      hours.set(kind, after);
      return after;
    },
  };
}

export type ServiceOf = { machineId: string; fleetNumber: string; name: string; site: string } & ServiceStanding;

/** What one machine's tasks are reckoned from, beside what the fleet shares. */
const serviceReads = (machineId: string): Subject[] => [
  ...ofMachine(machineId, "log", "sheet", "hours", "service", "sets"),
  "parts",
  "rules",
];

/** Every task of one machine, the most pressing first. */
export function serviceOf(db: Db, record: MachineRecord, now: string): ServiceStanding[] {
  return atOnce(db, () => standingsOf(db, record, now, sharedOf(db, now)));
}

/** Days are reckoned by the day: within one, nothing falls due without a word in the record. */
function standingsOf(db: Db, record: MachineRecord, now: string, shared: Shared): ServiceStanding[] {
  const { id, machine, site } = record;
  const [turf, sharpenHours, today] = [shared.turf(site), shared.sharpenHours(machine.kind), localDay(now)];
  const key = `service of ${id} ${today} ${sharpenHours} ${shared.key} ${turf.key}`;
  const read = () => {
    const meter = meterReadings(db, id);
    const seen = Object.assign(emptyTable<LastSeen[string]>(), seenHere(db, id), turf.seen);
    return serviceStandings({
      machineId: id,
      machine,
      rules: whileUnchanged(db, "service rules", () => listRules(db), { on: ["rules"] }),
      sharpenHours,
      seen,
      entries: [...lastEntries(db, id), ...bySets(db, id)].sort((a, b) => a.seq - b.seq),
      meter,
      use: paceOf(meter, now, shared.season),
      now,
      today,
    });
  };
  return whileUnchanged(db, key, read, { on: serviceReads(id) });
}

/** When edges of this kind of machine are to be sharpened, by what was seen of them. */
export function sharpenHoursOf(db: Db, kind: KindId): number {
  const looks = edgeLooks(db, kind);
  // The same looks come to the same hours, whatever else was written.
  const key = looks.map(({ hours, isDull }) => `${hours}${isDull ? "d" : "s"}`).join(" ");
  return whileUnchanged(db, `sharpened after, by ${key}`, () => sharpenAfterHours(looks), { on: [] });
}

/** Over the fleet what presses: overdue, due, soon and put off; the most pressing first. */
export function serviceDue(db: Db, now: string): ServiceOf[] {
  return atOnce(db, () => readServiceDue(db, now));
}

function readServiceDue(db: Db, now: string): ServiceOf[] {
  return whileUnchanged(db, `service on ${localDay(now)}`, () => {
    const shared = sharedOf(db, now);
    return listMachines(db)
      .flatMap((record) =>
        standingsOf(db, record, now, shared)
          .filter(({ state }) => state !== "good" && state !== "never")
          .map((standing) => ({
            machineId: record.id,
            fleetNumber: record.fleetNumber,
            name: record.name,
            site: record.site,
            ...standing,
          })),
      )
      .sort((a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state) || byLetters(a.day?.on ?? "", b.day?.on ?? ""));
  });
}

const ORDER: readonly ServiceStanding["state"][] = ["overdue", "due", "soon", "postponed"];
