import { CAUSES, type CauseRow, CHECKS, type CheckId, type CheckRow, EVENTS, type EventRow } from "@/core/catalogue";
import { featuresOf, kindById, meetsNeed } from "@/core/catalogue/kinds";
import { isOffered } from "@/core/checks";
import type { Machine } from "@/core/machine";
import type { LoggedEvent } from "./stale";

const eventRows: readonly EventRow[] = EVENTS;
const checkRows: readonly CheckRow[] = CHECKS;
const causeRows: readonly CauseRow[] = CAUSES;

/**
 * What one check told since: read in full by its worksheet, or looked at, cause by cause. `cleared`: causes found not to be there; `left`: causes
 * seen, suspected or not told.
 */
export type StruckTake = { check: CheckId; seq: number } & (
  | { by: "worksheet"; couldTell: boolean }
  | { by: "look"; cleared: readonly string[]; left: readonly string[] }
);

/** What a strike makes likelier and this check tells of, on this machine (estimate). */
function causesStruck(machine: Machine, check: CheckId): string[] {
  return causeRows
    .filter(
      ({ checks, oddsWhen, on, needs }) =>
        checks.includes(check) &&
        ((oddsWhen as Readonly<Record<string, number>>)["struck-object"] ?? 1) > 1 &&
        on.includes(kindById(machine.kind).cutsWith) &&
        meetsNeed(featuresOf(machine), needs),
    )
    .map(({ id }) => id);
}

/** Whether a check has done with a strike: read by its worksheet, or every cause a strike brings looked for and found not to be there. */
function isDoneWith(args: { machine: Machine; check: CheckId; takes: readonly StruckTake[] }): boolean {
  const cleared = new Set<string>();
  for (const take of args.takes) {
    if (take.by === "worksheet") {
      if (take.couldTell) return true;
      continue;
    }
    for (const cause of take.cleared) cleared.add(cause);
    for (const cause of take.left) cleared.delete(cause);
  }
  const wanted = causesStruck(args.machine, args.check);
  return wanted.length === 0 ? cleared.size > 0 : wanted.every((cause) => cleared.has(cause));
}

/**
 * What strikes still hold under suspicion: the checks of blades, shaft, hanger and gearbox that the machine had when it was struck, and that nobody
 * has done with since; the last strike of which something is open is named. `undefined` without a strike, or once each was looked at. A look that
 * could not tell, that suspects, or that names no cause clears nothing.
 */
export function underSuspicion(args: {
  /** The specification in force at a place in the log. */
  machineAt: (seq: number) => Machine;
  events: readonly LoggedEvent[];
  takes: readonly StruckTake[];
}): { strike: LoggedEvent; checks: CheckId[] } | undefined {
  const strikes = args.events.filter(({ event }) => event === "struck").sort((a, b) => a.seq - b.seq);
  const takes = [...args.takes].sort((a, b) => a.seq - b.seq);
  const suspects = eventRows.find(({ id }) => id === "struck")?.makesStale ?? [];
  const open = new Set<CheckId>();
  let last: LoggedEvent | undefined;
  for (const strike of strikes) {
    const machine = args.machineAt(strike.seq);
    const left = checkRows
      .filter((row) => suspects.includes(row.id as CheckId) && isOffered(row, machine))
      .map(({ id }) => id as CheckId)
      .filter((check) => !isDoneWith({ machine, check, takes: takes.filter((take) => take.check === check && take.seq > strike.seq) }));
    for (const check of left) open.add(check);
    if (left.length > 0) last = strike;
  }
  return last ? { strike: last, checks: checkRows.map(({ id }) => id as CheckId).filter((check) => open.has(check)) } : undefined;
}
