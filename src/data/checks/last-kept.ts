import type { CheckId } from "@/core/catalogue";
import { type Check, worksheetsFor } from "@/core/checks";
import { getMachine } from "@/data/machine/machines";
import { STANDING_TAKES } from "@/data/record/takes-read";
import type { Db } from "@/data/store/db";
import { ofMachine, whileUnchanged } from "@/data/store/reads";

/** So many takes are looked back for what stays true. */
const LOOKED_BACK = 10;

function keptOf(db: Db, machineId: string, check: Check): object | undefined {
  const { keeps } = check;
  if (!keeps) return undefined;
  const rows = db
    .prepare(`${STANDING_TAKES} AND t.machine_id = ? AND t.check_id = ? ORDER BY s.seq DESC LIMIT ?`)
    .all(machineId, check.id, LOOKED_BACK) as { input_json: string }[];
  for (const { input_json } of rows) {
    const parsed = check.readingsSchema.safeParse(JSON.parse(input_json));
    const kept = parsed.success ? keeps(parsed.data) : undefined;
    if (kept) return kept;
  }
  return undefined;
}

/** By check: what of a machine's last readings stays true for its next, such as the floor of the bay. */
export function lastKept(db: Db, machineId: string): Partial<Record<CheckId, object>> {
  return whileUnchanged(db, `kept of ${machineId}`, () => allKept(db, machineId), { on: ofMachine(machineId, "log", "sheet", "hours") });
}

function allKept(db: Db, machineId: string): Partial<Record<CheckId, object>> {
  return Object.fromEntries(
    worksheetsFor(getMachine(db, machineId).machine).flatMap((check) => {
      const kept = keptOf(db, machineId, check);
      return kept ? [[check.id, kept]] : [];
    }),
  );
}
