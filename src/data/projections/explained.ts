import type { HeldReason } from "@/core/job/status";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { DEEDS, type DeedId } from "./deeds";

const explained = new WeakMap<Db, Set<string>>();
const keyOf = (machineId: string, key: string) => `${machineId} ${key}`;

/** Forgets what an earlier change explained: a change that was rolled back explains nothing of the next. */
export function beginExplaining(db: Db): void {
  explained.delete(db);
}

/** Inside the transaction of what let go of them. */
export function explain(db: Db, machineId: string, gone: readonly HeldReason[]): void {
  const keys = explained.get(db) ?? new Set();
  for (const { key } of gone) keys.add(keyOf(machineId, key));
  explained.set(db, keys);
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
