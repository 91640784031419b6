import { isOffered } from "@/core/checks";
import type { Machine } from "@/core/machine";
import { CHECKS, type CheckId, type CheckRow, EVENTS, type EventRow } from "@/core/trade";
import type { LoggedEvent } from "./stale";

const eventRows: readonly EventRow[] = EVENTS;
const checkRows: readonly CheckRow[] = CHECKS;

/**
 * What the last strike still holds under suspicion: the checks of blades, shaft, hanger and gearbox this machine can have that nobody
 * has made since. `undefined` without a strike, or once each was looked at. A look that could not tell does not clear.
 */
export function underSuspicion(args: {
  machine: Machine;
  events: readonly LoggedEvent[];
  takes: readonly { check: CheckId; seq: number; couldTell: boolean }[];
}): { strike: LoggedEvent; checks: CheckId[] } | undefined {
  const strike = args.events
    .filter(({ event }) => event === "struck")
    .sort((a, b) => a.seq - b.seq)
    .at(-1);
  if (!strike) return undefined;
  const suspects = eventRows.find(({ id }) => id === "struck")?.makesStale ?? [];
  const looked = new Set(args.takes.filter(({ seq, couldTell }) => couldTell && seq > strike.seq).map(({ check }) => check));
  const checks = checkRows
    .filter((row) => suspects.includes(row.id as CheckId) && isOffered(row, args.machine) && !looked.has(row.id as CheckId))
    .map(({ id }) => id as CheckId);
  return checks.length > 0 ? { strike, checks } : undefined;
}
