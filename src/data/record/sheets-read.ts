import { type Machine, machineSchema, upcastSheet } from "@/core/machine";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";

const parsed = new WeakMap<Db, Map<string, Machine>>();

/** A sheet as it stands in the record, parsed once: a version of a sheet never changes. Throws `sheet-spoilt` for one that cannot be read. */
export function sheetFrom(db: Db, row: { machine_id: string; version: number; sheet_json: string }): Machine {
  const sheets = parsed.get(db) ?? new Map<string, Machine>();
  parsed.set(db, sheets);
  const key = `${row.machine_id} ${row.version}`;
  const kept = sheets.get(key);
  // What was read in a change that is taken back must not stay under a version that another sheet may get: it is kept only outside of one.
  if (kept) return kept;
  const machine = readSheet(row);
  if (!db.inTransaction) sheets.set(key, machine);
  return machine;
}

function readSheet({ machine_id, version, sheet_json }: { machine_id: string; version: number; sheet_json: string }): Machine {
  try {
    return machineSchema.parse(upcastSheet(JSON.parse(sheet_json)));
  } catch (cause) {
    throw new AppError("sheet-spoilt", { issues: [{ code: "sheet-spoilt", path: [], machineId: machine_id, version }], cause });
  }
}

/** What is read of a machine; `undefined` where its sheet is spoilt: one machine must not take the others' page with it. */
export function unlessSpoilt<T>(read: () => T): T | undefined {
  try {
    return read();
  } catch (error) {
    if (error instanceof AppError && error.code === "sheet-spoilt") return undefined;
    throw error;
  }
}

/** The sheet a machine goes by now. Throws `machine-not-found`. */
export function sheetInForce(db: Db, machineId: string): Machine {
  const row = db
    .prepare("SELECT machine_id, version, sheet_json FROM machine_sheets WHERE machine_id = ? ORDER BY version DESC LIMIT 1")
    .get(machineId) as { machine_id: string; version: number; sheet_json: string } | undefined;
  if (!row) throw new AppError("machine-not-found");
  return sheetFrom(db, row);
}

/** A sheet as it stood in one of its versions. Throws `machine-not-found` where there is none. */
export function sheetOfVersion(db: Db, machineId: string, version: number): Machine {
  const row = db
    .prepare("SELECT machine_id, version, sheet_json FROM machine_sheets WHERE machine_id = ? AND version = ?")
    .get(machineId, version) as { machine_id: string; version: number; sheet_json: string } | undefined;
  if (!row) throw new AppError("machine-not-found");
  return sheetFrom(db, row);
}

/** Every version of a machine's sheet with its place in the log, the oldest first. */
export function sheetsInOrder(db: Db, machineId: string): { seq: number; at: string; who: string; machine: Machine }[] {
  const rows = db
    .prepare("SELECT machine_id, version, sheet_json, seq, at, who FROM machine_sheets WHERE machine_id = ? ORDER BY version")
    .all(machineId) as { machine_id: string; version: number; sheet_json: string; seq: number; at: string; who: string }[];
  return rows.map(({ seq, at, who, ...row }) => ({ seq, at, who, machine: sheetFrom(db, row) }));
}
