import * as z from "zod";
import { kindById } from "@/core/kinds";
import { type Machine, machineSchema, storedSheet } from "@/core/machine";
import type { Db } from "./connection";
import { audit, type Doing, once } from "./context";
import { AppError } from "./errors";
import { requireSound } from "./known";
import { whileUnchanged } from "./reads";
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
  meterHours?: number;
};

export const newMachineSchema = z.object({
  fleetNumber: z.string().trim().min(1).max(20),
  name: z.string().trim().min(1).max(60),
  site: z.string().trim().min(1).max(60),
  machine: machineSchema,
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
};

const SELECT = `
  SELECT m.id, m.fleet_number, m.name, m.site, s.version, s.sheet_json, s.reason, s.who, s.at,
    (SELECT h.meter_hours FROM hours h WHERE h.machine_id = m.id ORDER BY h.id DESC LIMIT 1) AS meter_hours
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
});

/** Every machine whose sheet can be read. */
export function listMachines(db: Db): MachineRecord[] {
  return allMachines(db).flatMap(({ record }) => record ?? []);
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

/** Every machine by its name, for lists to pick from. */
export function listMachineNames(db: Db): MachineName[] {
  const rows = db.prepare("SELECT id, fleet_number, name, site FROM machines ORDER BY fleet_number").all() as {
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
  const version = current.sheetVersion + 1;
  insertSheet(db, doing, { ...args, version });
  db.prepare("UPDATE machines SET kind = ? WHERE id = ?").run(args.machine.kind, args.machineId);
  touch(db, args.machineId);
  audit(db, doing, { action: "sheet-replaced", subject: `machine:${args.machineId}`, detail: { version, reason: args.reason } });
  return { sheetVersion: version };
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
    const { meterHours: before } = getMachine(db, args.machineId);
    if (before !== undefined && args.meterHours < before && !args.isCorrection) {
      throw new AppError("invalid", { issues: [{ code: "hours-run-backwards", path: ["meterHours"], beforeHours: before }] });
    }
    const last = db.prepare("SELECT id, at FROM hours WHERE machine_id = ? ORDER BY id DESC LIMIT 1").get(args.machineId) as
      | { id: number; at: string }
      | undefined;
    const gone =
      last === undefined ? Number.POSITIVE_INFINITY : Math.max(0, Date.parse(doing.now) - Date.parse(last.at)) / HOUR + SLACK_HOURS;
    if (before !== undefined && args.meterHours - before > gone && !args.isCorrection && args.isSure !== true) {
      throw new AppError("invalid", {
        issues: [{ code: "hours-run-too-fast", path: ["meterHours"], beforeHours: before, goneHours: Math.max(0, Math.round(gone)) }],
      });
    }
    const { lastInsertRowid } = db
      .prepare("INSERT INTO hours (machine_id, meter_hours, corrects_id, who, at) VALUES (?, ?, ?, ?, ?)")
      .run(args.machineId, args.meterHours, args.isCorrection ? (last?.id ?? null) : null, doing.who, doing.now);
    audit(db, doing, { action: "hours-logged", subject: `machine:${args.machineId}`, detail: { meterHours: args.meterHours } });
    return { hoursId: Number(lastInsertRowid) };
  });
}

/** The hour meter as it was read, one after the other, corrections in the place of what they correct. */
export function meterReadings(db: Db, machineId: string): { at: string; meterHours: number }[] {
  const rows = db
    .prepare(
      `SELECT h.at, h.meter_hours FROM hours h WHERE h.machine_id = ? AND NOT EXISTS (SELECT 1 FROM hours c WHERE c.corrects_id = h.id)
       ORDER BY h.id`,
    )
    .all(machineId) as { at: string; meter_hours: number }[];
  return rows.map(({ at, meter_hours }) => ({ at, meterHours: meter_hours }));
}
