import { goneBetween, type HeldReason, type MachineState } from "@/core/job/status";
import type { Db } from "./connection";
import type { Doing } from "./context";
import { DEEDS, type DeedId } from "./deeds";
import { AppError } from "./errors";
import { requireSubstance, stateOfMachine } from "./machine-state";
import { addLetGo } from "./owed";

const explained = new WeakMap<Db, Set<string>>();
const keyOf = (machineId: string, key: string) => `${machineId} ${key}`;

/** Forgets what an earlier change explained: a change that was rolled back explains nothing of the next. */
export function beginExplaining(db: Db): void {
  explained.delete(db);
}

function explain(db: Db, machineId: string, gone: readonly HeldReason[]): void {
  const keys = explained.get(db) ?? new Set();
  for (const { key } of gone) keys.add(keyOf(machineId, key));
  explained.set(db, keys);
}

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

/**
 * The one rule over everything that is written: throws `reason-stands` where a reason in `mayRun` went that this deed does not do away with, that nobody
 * let go of, and that is not the lock-out of who does it.
 */
export function requireExplained(db: Db, doing: Doing, deed: DeedId, moved: { machineId: string; gone: readonly HeldReason[] }): void {
  const clears: readonly HeldReason["code"][] = DEEDS[deed];
  const left = moved.gone.filter(
    ({ key, code, owner }) => !clears.includes(code) && owner !== doing.who && explained.get(db)?.has(keyOf(moved.machineId, key)) !== true,
  );
  if (left.length > 0)
    throw new AppError("reason-stands", {
      issues: left.map(({ key, ...reason }) => ({ code: "reason-stands", path: [], machineId: moved.machineId, reason, key })),
    });
}
