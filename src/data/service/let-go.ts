import { goneBetween, type HeldReason, type MachineState } from "@/core/job/status";
import { explain } from "@/data/projections/explained";
import { requireSubstance, stateOfMachine } from "@/data/projections/machine-state";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { addLetGo } from "./owed";

/** What was read to be unsafe, and what a machine struck, is not let go of without a reason even by who wrote it down. */
const ALWAYS_WITH_REASON: readonly HeldReason["code"][] = ["unsafe", "struck-not-looked"];

/** The line of the log that what was let go of stays owed by. */
export type LetGoFrom = { jobId: number; stepId: number } | { eventId: number };

/**
 * Lets go of every reason that went by what was just written, which does not do away with any: who wrote down what is taken back may, anybody else with
 * a reason of substance, which is kept and stays owed. Throws `invalid` at the reason. Inside the transaction, after the line was written.
 */
export function letGo(
  db: Db,
  doing: Doing,
  args: { machineId: string; before: MachineState; of: string; reason: string; from: LetGoFrom },
): void {
  const { machineId, before, of, reason, from } = args;
  const gone = goneBetween(before, stateOfMachine(db, machineId));
  if (gone.length === 0) return;
  const isAnothers = of !== doing.who;
  if (isAnothers || gone.some(({ code }) => ALWAYS_WITH_REASON.includes(code))) requireSubstance(reason);
  if (isAnothers) addLetGo(db, doing, { machineId, of, reason, from, gone });
  explain(db, machineId, gone);
}
