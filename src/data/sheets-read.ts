import { type Machine, machineSchema } from "@/core/machine";
import type { Db } from "./connection";
import { AppError } from "./errors";

const parsed = new WeakMap<Db, Map<string, Machine>>();

/** A sheet as it stands in the record, parsed once: a version of a sheet never changes. */
export function sheetFrom(db: Db, row: { machine_id: string; version: number; sheet_json: string }): Machine {
  const sheets = parsed.get(db) ?? new Map<string, Machine>();
  parsed.set(db, sheets);
  const key = `${row.machine_id} ${row.version}`;
  const kept = sheets.get(key);
  // What was read in a change that is taken back must not stay under a version that another sheet may get.
  if (kept && !db.inTransaction) return kept;
  const machine = machineSchema.parse(JSON.parse(row.sheet_json));
  if (!db.inTransaction) sheets.set(key, machine);
  return machine;
}

/** The sheet a machine goes by now. Throws `machine-not-found`. */
export function sheetInForce(db: Db, machineId: string): Machine {
  const row = db
    .prepare("SELECT machine_id, version, sheet_json FROM machine_sheets WHERE machine_id = ? ORDER BY version DESC LIMIT 1")
    .get(machineId) as { machine_id: string; version: number; sheet_json: string } | undefined;
  if (!row) throw new AppError("machine-not-found");
  return sheetFrom(db, row);
}
