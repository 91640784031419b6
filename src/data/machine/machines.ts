import * as z from "zod";
import { physicalOrNought } from "@/core/basics/units/physical";
import { type KindId, kindById } from "@/core/catalogue/kinds";
import { checkRow, isOffered } from "@/core/checks";
import type { Order } from "@/core/job/sequences/counted";
import { deckSteps } from "@/core/job/sequences/deck-off";
import { guidedOrder, roundsOf } from "@/core/job/sequences/guided";
import { type MachineState, mayRun, type OpenPlace, placesOpen } from "@/core/job/status";
import { gearboxes, type Machine, machineSchema, type PlaceSort, placesBySort, storedSheet } from "@/core/machine";
import { requireSound } from "@/data/catalogue/known";
import { once } from "@/data/projections/context";
import { stateOfMachine } from "@/data/projections/machine-state";
import { sheetFrom, unlessSpoilt } from "@/data/record/sheets-read";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError, type Issue } from "@/data/store/errors";
import { atOnce, eachMachine, ofMachine, putTogether, whileUnchanged } from "@/data/store/reads";
import { nextSeq } from "@/data/store/sequence";
import { insertHours } from "./hours";

export type MachineRecord = {
  id: string;
  fleetNumber: string;
  name: string;
  site: string;
  sheetVersion: number;
  /** Whose word the sheet in force is, and since when. */
  sheetBy: string;
  sheetAt: string;
  sheetReason: string;
  machine: Machine;
  /** What its meter shows. */
  meterHours?: number;
  /** All its meters together, where one was swapped. */
  totalHours?: number;
  /** Out of the fleet, since when and why; everything of it is kept. */
  retired?: { at: string; who: string; reason: string };
};

export const newMachineSchema = z.object({
  fleetNumber: z.string().trim().min(1).max(20),
  name: z.string().trim().min(1).max(60),
  site: z.string().trim().min(1).max(60),
  machine: machineSchema,
  meterHours: physicalOrNought("hours", 200_000).optional(),
});

type Row = {
  id: string;
  fleet_number: string;
  name: string;
  site: string;
  version: number;
  sheet_json: string;
  reason: string;
  who: string;
  at: string;
  meter_hours: number | null;
  offset_hours: number | null;
  standing: string | null;
};

const SELECT = `
  SELECT m.id, m.fleet_number, m.name, m.site, s.version, s.sheet_json, s.reason, s.who, s.at,
    (SELECT h.meter_hours FROM hours h WHERE h.machine_id = m.id ORDER BY h.id DESC LIMIT 1) AS meter_hours,
    (SELECT h.offset_hours FROM hours h WHERE h.machine_id = m.id ORDER BY h.id DESC LIMIT 1) AS offset_hours,
    (SELECT json_object('kind', t.kind, 'at', t.at, 'who', t.who, 'reason', t.reason) FROM machine_standing t
      WHERE t.machine_id = m.id ORDER BY t.id DESC LIMIT 1) AS standing
  FROM machines m
  JOIN machine_sheets s ON s.machine_id = m.id
    AND s.version = (SELECT max(version) FROM machine_sheets WHERE machine_id = m.id)`;

const fromRow = (db: Db, row: Row): MachineRecord => ({
  id: row.id,
  fleetNumber: row.fleet_number,
  name: row.name,
  site: row.site,
  sheetVersion: row.version,
  sheetBy: row.who,
  sheetAt: row.at,
  sheetReason: row.reason,
  machine: sheetFrom(db, { ...row, machine_id: row.id }),
  ...(row.meter_hours === null ? {} : { meterHours: row.meter_hours }),
  ...(row.meter_hours === null || !row.offset_hours ? {} : { totalHours: row.meter_hours + row.offset_hours }),
  ...retiredOf(row.standing),
});

function retiredOf(standing: string | null): Pick<MachineRecord, "retired"> {
  if (standing === null) return {};
  const { kind, ...since } = JSON.parse(standing) as { kind: "retired" | "back"; at: string; who: string; reason: string };
  return kind === "retired" ? { retired: since } : {};
}

/** Every machine of the fleet whose sheet can be read; those retired only when they are asked for. */
export function listMachines(db: Db, { withRetired = false } = {}): readonly MachineRecord[] {
  const all = allMachines(db);
  return putTogether(db, `machines ${withRetired}`, [all], () =>
    all.flatMap(({ record }) => (record && (withRetired || !record.retired) ? [record] : [])),
  );
}

/** Machines whose sheet in force cannot be read: nothing can be measured on them before it is mended. */
export function spoiltMachines(db: Db): MachineName[] {
  return allMachines(db).flatMap(({ name, record }) => (record ? [] : [name]));
}

type Listed = { name: MachineName; record: MachineRecord | undefined };

function allMachines(db: Db): readonly Listed[] {
  return atOnce(db, () => {
    const names = allNames(db);
    const records = eachMachine(db, "record", allIds(db), (id) => unlessSpoilt(() => getMachine(db, id)), {
      on: ["sheet", "hours"],
      of: ["fleet"],
    });
    return putTogether(db, "machines", [names, ...records], () =>
      names.map(({ kind: _, ...name }, k): Listed => ({ name, record: records[k] })),
    );
  });
}

/** Every machine there ever was, those retired too. */
export const allIds = (db: Db): readonly string[] => {
  const names = allNames(db);
  return putTogether(db, "ids of machines", [names], () => names.map(({ id }) => id));
};

/** Every machine there ever was, those retired too, in the order of their numbers. */
export function allNames(db: Db): (MachineName & { kind: KindId })[] {
  type NameRow = Omit<MachineName, "fleetNumber"> & { fleet_number: string; kind: KindId };
  const read = () =>
    (db.prepare("SELECT id, fleet_number, name, site, kind FROM machines ORDER BY fleet_number").all() as NameRow[]).map(
      ({ fleet_number, ...row }) => ({ ...row, fleetNumber: fleet_number }),
    );
  return whileUnchanged(db, "names of machines", read, { on: ["fleet"] });
}

/** Every machine that mows a site, those retired too. */
export function machinesAt(db: Db, site: string): readonly string[] {
  const names = allNames(db);
  return putTogether(db, `machines at ${site}`, [names], () => names.flatMap((one) => (one.site === site ? [one.id] : [])));
}

export type MachineName = Pick<MachineRecord, "id" | "fleetNumber" | "name" | "site">;

/** Of a machine `m`: it belongs to the fleet. One that was taken out is asked for by its own page alone. */
export const IN_FLEET =
  "coalesce((SELECT t.kind FROM machine_standing t WHERE t.machine_id = m.id ORDER BY t.id DESC LIMIT 1), 'back') = 'back'";

/** Every machine of the fleet by its name, for lists to pick from. */
export function listMachineNames(db: Db): MachineName[] {
  const rows = db
    .prepare(`SELECT m.id, m.fleet_number, m.name, m.site FROM machines m WHERE ${IN_FLEET} ORDER BY m.fleet_number`)
    .all() as {
    id: string;
    fleet_number: string;
    name: string;
    site: string;
  }[];
  return rows.map(({ fleet_number, ...row }) => ({ ...row, fleetNumber: fleet_number }));
}

/** Throws `machine-not-found`. */
export function getMachine(db: Db, id: string): MachineRecord {
  return whileUnchanged(
    db,
    `machine ${id}`,
    () => {
      const row = db.prepare(`${SELECT} WHERE m.id = ?`).get(id) as Row | undefined;
      if (!row) throw new AppError("machine-not-found");
      return fromRow(db, row);
    },
    { on: ofMachine(id, "sheet", "hours") },
  );
}

export function addMachine(db: Db, doing: Doing, input: z.output<typeof newMachineSchema>): { machineId: string } {
  return once(db, doing, "machine-added", () => {
    const id = input.fleetNumber
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "");
    requireSound(input.machine);
    const taken = db.prepare("SELECT 1 FROM machines WHERE fleet_number = ? OR id = ?").get(input.fleetNumber, id);
    if (taken || id === "") throw new AppError("fleet-number-taken", { issues: [{ code: "fleet-number-taken", path: ["fleetNumber"] }] });
    db.prepare("INSERT INTO machines (id, fleet_number, name, kind, site, created_at) VALUES (?, ?, ?, ?, ?, ?)").run(
      id,
      input.fleetNumber,
      input.name,
      input.machine.kind,
      input.site,
      doing.now,
    );
    insertSheet(db, doing, { machineId: id, version: 1, machine: input.machine, reason: "first sheet" });
    if (input.meterHours !== undefined) insertHours(db, doing, { machineId: id, meterHours: input.meterHours });
    audit(db, doing, { action: "machine-added", subject: `machine:${id}` });
    return { machineId: id };
  });
}

/** A new version of a machine's sheet, with the reason. Throws `changed-since` when another one came in between. */
export function replaceSheet(
  db: Db,
  doing: Doing,
  args: { machineId: string; basedOnVersion: number; machine: Machine; reason: string },
): { sheetVersion: number } {
  return once(db, doing, "sheet-replaced", () => writeSheet(db, doing, args));
}

/** The same within a transaction of the caller's. */
export function writeSheet(
  db: Db,
  doing: Doing,
  args: { machineId: string; basedOnVersion: number; machine: Machine; reason: string },
): { sheetVersion: number } {
  const current = getMachine(db, args.machineId);
  if (current.sheetVersion !== args.basedOnVersion) throw new AppError("changed-since");
  requireSound(args.machine);
  const [was, is] = [kindById(current.machine.kind).cutsWith, kindById(args.machine.kind).cutsWith];
  if (was !== is) throw new AppError("invalid", { issues: [{ code: "cuts-with-another", path: ["machine", "kind"] }] });
  const open = stateOfMachine(db, current.id);
  requireFree(open, current.machine, args.machine);
  requireSameOrder(open, current.machine, args.machine);
  requireReadable(open, current.machine, args.machine);
  const version = current.sheetVersion + 1;
  insertSheet(db, doing, { ...args, version });
  db.prepare("UPDATE machines SET kind = ? WHERE id = ?").run(args.machine.kind, args.machineId);
  audit(db, doing, { action: "sheet-replaced", subject: `machine:${args.machineId}`, detail: { version, reason: args.reason } });
  return { sheetVersion: version };
}

/** A place that something unsafe, unturned or apart is still written down of does not leave the sheet: it would be forgotten with it. */
function requireFree(state: MachineState, machine: Machine, next: Machine): void {
  const [was, is] = [sortedPlaces(machine), sortedPlaces(next)];
  const sorts = Object.keys(was) as PlaceSort[];
  const isLost = ({ place, sort }: OpenPlace) =>
    (sort ? [sort] : sorts).some((one) => was[one].includes(place) && !is[one].includes(place));
  const held = [
    ...new Set(
      placesOpen(state)
        .filter(isLost)
        .map(({ place }) => place),
    ),
  ];
  if (held.length > 0) throw new AppError("invalid", { issues: held.map((place) => ({ code: "place-in-use", path: ["machine"], place })) });
}

/** A blade and the hanger over it may go by one name: what is open at the one is not kept by the other. Boxes that nobody named count too. */
const sortedPlaces = (machine: Machine) => ({ ...placesBySort(machine), gearbox: gearboxes(machine).map(({ id }) => id) });

const partsOf = ({ off, on }: Order): string =>
  JSON.stringify([off.map(({ id, parts }) => [id, parts.map((part) => [part.id, part.count])]), on.map(({ id }) => id)]);

/**
 * What is coming off goes back by the order it came off in: that order, and what lies in the tray by it, stay until it is on. A blade's washers are no
 * fewer because the specification has fewer by now, and a spindle that is out stays one that is served.
 */
function requireSameOrder({ apart }: MachineState, machine: Machine, next: Machine): void {
  const issues = apart.flatMap((one): Issue[] => {
    if (one.what === "deck")
      return partsOf(deckSteps(machine)) === partsOf(deckSteps(next))
        ? []
        : [{ code: "deck-is-off", path: ["machine", "sheet", "deckOff"] }];
    if (one.what === "box") return [];
    const { what: round, place } = one;
    const isSame = partsOf(guidedOrder(machine, round)) === partsOf(guidedOrder(next, round));
    const hasIt = roundsOf(next).some((other) => other.round === round && other.place === place);
    return isSame && hasIt ? [] : [{ code: "work-is-open", path: ["machine", "sheet", "blade", "stack"], place }];
  });
  if (issues.length > 0) throw new AppError("invalid", { issues });
}

/** What keeps a machine from running until it is read stays a thing that can be read there. */
function requireReadable(state: MachineState, machine: Machine, next: Machine): void {
  const checks = mayRun(state, { to: "cut" }).reasons.flatMap((reason) => {
    if (reason.code === "struck-not-looked") return reason.checks;
    return reason.clears.do === "read" ? [reason.clears.check] : [];
  });
  const isLost = (check: string) => {
    const row = checkRow(check);
    return row !== undefined && isOffered(row, machine) && !isOffered(row, next);
  };
  const lost = [...new Set(checks)].filter(isLost);
  if (lost.length > 0)
    throw new AppError("invalid", { issues: lost.map((check) => ({ code: "read-first", path: ["machine", "kind"], check })) });
}

/** Renames a machine or moves it to another site; its number is what stands on it and stays. */
export const machineNameSchema = z.object({ name: z.string().trim().min(1).max(60), site: z.string().trim().min(1).max(60) });
export function renameMachine(
  db: Db,
  doing: Doing,
  args: { machineId: string } & z.output<typeof machineNameSchema>,
): { machineId: string } {
  return once(db, doing, "machine-renamed", () => {
    const before = getMachine(db, args.machineId);
    db.prepare("UPDATE machines SET name = ?, site = ? WHERE id = ?").run(args.name, args.site, args.machineId);
    if (before.site !== args.site)
      db.prepare("INSERT INTO events (machine_id, event, data_json, who, at, seq) VALUES (?, 'site-changed', ?, ?, ?, ?)").run(
        args.machineId,
        JSON.stringify({ words: `${before.site} to ${args.site}` }),
        doing.who,
        doing.now,
        nextSeq(db),
      );
    audit(db, doing, {
      action: "machine-renamed",
      subject: `machine:${args.machineId}`,
      detail: { from: { name: before.name, site: before.site } },
    });
    return { machineId: args.machineId };
  });
}

export const standingSchema = z.object({ kind: z.enum(["retired", "back"]), reason: z.string().trim().min(1, "say-why").max(300) });

/**
 * Takes a machine out of the fleet, or back into it: its book stays whole. Throws `invalid` with `jobs-open` while a job is open on it, `nothing-set` where
 * it stands so already.
 */
export function setStanding(db: Db, doing: Doing, args: { machineId: string } & z.output<typeof standingSchema>): { machineId: string } {
  return once(db, doing, "machine-standing", () => {
    const { retired } = getMachine(db, args.machineId);
    if ((retired !== undefined) === (args.kind === "retired"))
      throw new AppError("invalid", { issues: [{ code: "nothing-set", path: ["kind"] }] });
    const open = db.prepare("SELECT id FROM jobs WHERE machine_id = ? AND state <> 'closed'").all(args.machineId) as { id: number }[];
    if (args.kind === "retired" && open.length > 0)
      throw new AppError("invalid", { issues: [{ code: "jobs-open", path: ["kind"], jobs: open.map(({ id }) => id).join(", ") }] });
    db.prepare("INSERT INTO machine_standing (machine_id, kind, reason, who, at) VALUES (?, ?, ?, ?, ?)").run(
      args.machineId,
      args.kind,
      args.reason,
      doing.who,
      doing.now,
    );
    audit(db, doing, {
      action: "machine-standing",
      subject: `machine:${args.machineId}`,
      detail: { kind: args.kind, reason: args.reason },
    });
    return { machineId: args.machineId };
  });
}

function insertSheet(db: Db, doing: Doing, args: { machineId: string; version: number; machine: Machine; reason: string }): void {
  db.prepare("INSERT INTO machine_sheets (machine_id, version, sheet_json, reason, who, at, seq) VALUES (?, ?, ?, ?, ?, ?, ?)").run(
    args.machineId,
    args.version,
    JSON.stringify(storedSheet(args.machine)),
    args.reason,
    doing.who,
    doing.now,
    // Of a new machine it stands before everything.
    args.version === 1 ? 0 : nextSeq(db),
  );
}
