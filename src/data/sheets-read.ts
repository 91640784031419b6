import { type Machine, machineSchema } from "@/core/machine";
import type { Db } from "./connection";
import { AppError } from "./errors";

/** The sheet a machine goes by now. Throws `machine-not-found`. */
export function sheetInForce(db: Db, machineId: string): Machine {
  const row = db.prepare("SELECT sheet_json FROM machine_sheets WHERE machine_id = ? ORDER BY version DESC LIMIT 1").get(machineId) as
    | { sheet_json: string }
    | undefined;
  if (!row) throw new AppError("machine-not-found");
  return machineSchema.parse(JSON.parse(row.sheet_json));
}
