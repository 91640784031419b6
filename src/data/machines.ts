import * as z from "zod";
import { kindById } from "@/core/kinds";
import { isPlaceOf, type Machine, machineSchema, placesOf, storedSheet } from "@/core/machine";
import { deckSteps } from "@/core/sequences/deck-off";
import { type MachineState, placesOpen } from "@/core/state";
import type { Db } from "./connection";
import { audit, type Doing, once } from "./context";
import { AppError, type Issue } from "./errors";
import { requireSound } from "./known";
import { whileUnchanged } from "./reads";
import { nextSeq } from "./sequence";
import { sheetFrom, unlessSpoilt } from "./sheets-read";
import { touch } from "./touched";

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
  meterHours: z.number().min(0).max(200_000).optional(),
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
export function listMachines(db: Db, { withRetired = false } = {}): MachineRecord[] {
  return allMachines(db).flatMap(({ record }) => (record && (withRetired || !record.retired) ? [record] : []));
}

/** Machines whose sheet in force cannot be read: nothing can be measured on them before it is mended. */
export function spoiltMachines(db: Db): MachineName[] {
  return allMachines(db).flatMap(({ name, record }) => (record ? [] : [name]));
}

function allMachines(db: Db): { name: MachineName; record: MachineRecord | undefined }[] {
  return whileUnchanged(db, "machines", () =>
    (db.prepare(`${SELECT} ORDER BY m.fleet_number`).all() as Row[]).map((row) => ({
      name: { id: row.id, fleetNumber: row.fleet_number, name: row.name, site: row.site },
      record: unlessSpoilt(() => fromRow(db, row)),
    })),
  );
}

export type MachineName = Pick<MachineRecord, "id" | "fleetNumber" | "name" | "site">;

const IN_FLEET = "coalesce((SELECT t.kind FROM machine_standing t WHERE t.machine_id = m.id ORDER BY t.id DESC LIMIT 1), 'back') = 'back'";

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
  return whileUnchanged(db, `machine ${id}`, () => {
    const row = db.prepare(`${SELECT} WHERE m.id = ?`).get(id) as Row | undefined;
    if (!row) throw new AppError("machine-not-found");
    return fromRow(db, row);
  });
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
  const open = openState(db, current.id);
  requireFree(open, current.machine, args.machine);
  requireSameOrder(open, current.machine, args.machine);
  const version = current.sheetVersion + 1;
  insertSheet(db, doing, { ...args, version });
  db.prepare("UPDATE machines SET kind = ? WHERE id = ?").run(args.machine.kind, args.machineId);
  touch(db, args.machineId);
  audit(db, doing, { action: "sheet-replaced", subject: `machine:${args.machineId}`, detail: { version, reason: args.reason } });
  return { sheetVersion: version };
}

function openState(db: Db, machineId: string): MachineState | undefined {
  const row = db.prepare("SELECT state_json FROM machine_states WHERE machine_id = ?").get(machineId) as { state_json: string } | undefined;
  return row && (JSON.parse(row.state_json) as MachineState);
}

/** A place that something unsafe, unturned or apart is still written down of does not leave the sheet: it would be forgotten with it. */
function requireFree(state: MachineState | undefined, machine: Machine, next: Machine): void {
  const open = new Set(state ? placesOpen(state) : []);
  const held = placesOf(machine).filter((place) => !isPlaceOf(next, place) && open.has(place));
  if (held.length > 0) throw new AppError("invalid", { issues: held.map((place) => ({ code: "place-in-use", path: ["machine"], place })) });
}

/** A deck that is coming off goes back by the order it came off in: that order, and what lies in the tray by it, stay until it is on. */
function requireSameOrder(state: MachineState | undefined, machine: Machine, next: Machine): void {
  if (!state?.apart.some(({ what }) => what === "deck")) return;
  const told = ({ off, on }: ReturnType<typeof deckSteps>) =>
    JSON.stringify([off.map(({ id, parts }) => [id, parts.map((part) => [part.id, part.count])]), on.map(({ id }) => id)]);
  if (told(deckSteps(machine)) !== told(deckSteps(next)))
    throw new AppError("invalid", { issues: [{ code: "deck-is-off", path: ["machine", "sheet", "deckOff"] }] });
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
    touch(db, args.machineId);
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
    touch(db, args.machineId);
    audit(db, doing, {
      action: "machine-standing",
      subject: `machine:${args.machineId}`,
      detail: { kind: args.kind, reason: args.reason },
    });
    return { machineId: args.machineId };
  });
}

function insertSheet(db: Db, doing: Doing, args: { machineId: string; version: number; machine: Machine; reason: string }): void {
  db.prepare("INSERT INTO machine_sheets (machine_id, version, sheet_json, reason, who, at) VALUES (?, ?, ?, ?, ?, ?)").run(
    args.machineId,
    args.version,
    JSON.stringify(storedSheet(args.machine)),
    args.reason,
    doing.who,
    doing.now,
  );
}

export type HoursEntry = { id: number; meterHours: number; who: string; at: string };

const HOUR = 3_600_000;
/** A meter cannot run faster than the clock; a clock a little off, and one read before the machine was last logged, are let pass. */
const SLACK_HOURS = 24;

/**
 * Logs the hour meter. Throws `invalid` when it runs backwards and is not marked as a correction, or faster than hours went by and nobody is
 * sure: a digit too many makes every service overdue.
 */
export function logHours(
  db: Db,
  doing: Doing,
  args: { machineId: string; meterHours: number; isCorrection: boolean; isSure?: boolean | undefined },
): { hoursId: number } {
  return once(db, doing, "hours-logged", () => {
    const problem = hoursProblem(db, doing, args);
    if (problem) throw new AppError("invalid", { issues: [problem] });
    const last = lastHours(db, args.machineId);
    const hoursId = insertHours(db, doing, {
      ...args,
      offsetHours: last?.offset_hours ?? 0,
      correctsId: args.isCorrection ? last?.id : undefined,
    });
    return { hoursId };
  });
}

function insertHours(
  db: Db,
  doing: Doing,
  args: { machineId: string; meterHours: number; offsetHours?: number; correctsId?: number | undefined },
): number {
  const { lastInsertRowid } = db
    .prepare("INSERT INTO hours (machine_id, meter_hours, corrects_id, offset_hours, who, at) VALUES (?, ?, ?, ?, ?, ?)")
    .run(args.machineId, args.meterHours, args.correctsId ?? null, args.offsetHours ?? 0, doing.who, doing.now);
  audit(db, doing, { action: "hours-logged", subject: `machine:${args.machineId}`, detail: { meterHours: args.meterHours } });
  return Number(lastInsertRowid);
}

export const meterSwapSchema = z.object({
  /** What the old one showed when it came out, and the new one when it went in. */
  oldHours: z.number().min(0).max(200_000),
  newHours: z.number().min(0).max(200_000),
});

/** Another hour meter is fitted: the machine's hours go on where the old one stopped. Throws `invalid` with `hours-run-backwards`. */
export function swapMeter(
  db: Db,
  doing: Doing,
  args: { machineId: string } & z.output<typeof meterSwapSchema>,
): { hoursId: number; totalHours: number } {
  return once(db, doing, "meter-swapped", () => {
    const { meterHours: before } = getMachine(db, args.machineId);
    if (before !== undefined && args.oldHours < before)
      throw new AppError("invalid", { issues: [{ code: "hours-run-backwards", path: ["oldHours"], beforeHours: before }] });
    const last = lastHours(db, args.machineId);
    const totalHours = args.oldHours + (last?.offset_hours ?? 0);
    if (before !== args.oldHours)
      insertHours(db, doing, { machineId: args.machineId, meterHours: args.oldHours, offsetHours: last?.offset_hours ?? 0 });
    const hoursId = insertHours(db, doing, {
      machineId: args.machineId,
      meterHours: args.newHours,
      offsetHours: totalHours - args.newHours,
    });
    audit(db, doing, { action: "meter-swapped", subject: `machine:${args.machineId}`, detail: args });
    return { hoursId, totalHours };
  });
}

const lastHours = (db: Db, machineId: string) =>
  db.prepare("SELECT id, at, offset_hours FROM hours WHERE machine_id = ? ORDER BY id DESC LIMIT 1").get(machineId) as
    | { id: number; at: string; offset_hours: number }
    | undefined;

/** The machine's hours as they were read, all its meters together, one after the other, corrections in the place of what they correct. */
export function meterReadings(db: Db, machineId: string): { at: string; meterHours: number }[] {
  const rows = db
    .prepare(
      `SELECT h.at, h.meter_hours + h.offset_hours AS meter_hours FROM hours h WHERE h.machine_id = ? AND NOT EXISTS (SELECT 1 FROM hours c WHERE c.corrects_id = h.id)
       ORDER BY h.id`,
    )
    .all(machineId) as { at: string; meter_hours: number }[];
  return rows.map(({ at, meter_hours }) => ({ at, meterHours: meter_hours }));
}

export const hoursImportSchema = z.object({
  rows: z
    .array(z.object({ fleetNumber: z.string().trim().min(1).max(20), meterHours: z.number().min(0).max(200_000) }))
    .min(1, "nothing-set")
    .max(1000),
  isSure: z.boolean().optional(),
});

/**
 * Hour meters of many machines at once: all rows are written, or none. Throws `invalid` with an issue at every row that cannot be: `unknown-machine`,
 * `hours-run-backwards`, `hours-run-too-fast` unless it is sure, `machine-twice`.
 */
export function importHours(db: Db, doing: Doing, args: z.output<typeof hoursImportSchema>): { hoursIds: number[] } {
  return once(db, doing, "hours-imported", () => {
    const issues: Issue[] = [];
    const seen = new Set<string>();
    const hoursIds = args.rows.flatMap(({ fleetNumber, meterHours }, k): number[] => {
      const at = (code: string, detail: object = {}) => issues.push({ code, path: ["rows", k, "meterHours"], fleetNumber, ...detail });
      const found = db.prepare("SELECT id FROM machines WHERE fleet_number = ? COLLATE NOCASE").get(fleetNumber) as
        | { id: string }
        | undefined;
      if (!found) {
        at("unknown-machine");
        return [];
      }
      if (seen.has(found.id)) at("machine-twice");
      seen.add(found.id);
      const problem = hoursProblem(db, doing, { machineId: found.id, meterHours, isSure: args.isSure });
      if (problem) issues.push({ ...problem, path: ["rows", k, "meterHours"], fleetNumber });
      return issues.length > 0
        ? []
        : [insertHours(db, doing, { machineId: found.id, meterHours, offsetHours: lastHours(db, found.id)?.offset_hours ?? 0 })];
    });
    if (issues.length > 0) throw new AppError("invalid", { issues });
    return { hoursIds };
  });
}

/** What is wrong with a reading of the hour meter, if anything. */
function hoursProblem(
  db: Db,
  doing: Doing,
  args: { machineId: string; meterHours: number; isCorrection?: boolean; isSure?: boolean | undefined },
): Issue | undefined {
  const { meterHours: before } = getMachine(db, args.machineId);
  if (before === undefined || args.isCorrection) return undefined;
  if (args.meterHours < before) return { code: "hours-run-backwards", path: ["meterHours"], beforeHours: before };
  const last = lastHours(db, args.machineId);
  const gone =
    last === undefined ? Number.POSITIVE_INFINITY : Math.max(0, Date.parse(doing.now) - Date.parse(last.at)) / HOUR + SLACK_HOURS;
  if (args.meterHours - before > gone && args.isSure !== true)
    return { code: "hours-run-too-fast", path: ["meterHours"], beforeHours: before, goneHours: Math.max(0, Math.round(gone)) };
  return undefined;
}
