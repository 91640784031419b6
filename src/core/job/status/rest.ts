import { underSuspicion } from "@/core/job/staleness";
import type { Machine } from "@/core/machine";
import type { LogLine } from "./log";
import { type MachineState, struckTake, wasTimingDisturbed } from "./machine-state";

/** Whether nothing at all is open: nobody's word, nothing apart, unsafe, owed to be read, turned, seated, or set otherwise than built. */
function isEmpty(state: MachineState): boolean {
  return Object.values(state).every((one) => (Array.isArray(one) ? one.length === 0 : one === undefined));
}

/**
 * Whether a machine's log can be left behind here: what comes after folds to the same state without what stands before, as long as nothing before it is taken
 * back or put right. Nothing is open; and nothing that is closed by less than it takes could be opened again by what comes: a strike of which looks alone cleared
 * something, which another look can take back, or geared blades that a reading alone found in time since they were disturbed.
 */
export function isAtRest(machine: Machine, lines: readonly LogLine[], state: MachineState): boolean {
  if (!isEmpty(state)) return false;
  const log = [...lines].sort((a, b) => a.seq - b.seq);
  if (wasTimingDisturbed(machine, log)) return false;
  const told = log.flatMap((line) => (line.kind === "specification" ? [line] : []));
  const machineAt = (seq: number) => told.findLast((line) => line.seq <= seq)?.machine ?? told[0]?.machine ?? machine;
  return (
    underSuspicion({
      machineAt,
      events: log.flatMap((line) => (line.kind === "event" && !line.isTakenBack ? [line] : [])),
      takes: log.flatMap((line) => (line.kind === "take" && line.ruleVersion > 0 ? [struckTake(line)] : [])),
    }) === undefined
  );
}
