import { liveSteps } from "@/core/job/jobs";
import { type RebuildMove, type RebuildState, rebuildState, type Tightened } from "@/core/job/sequences/rebuild";
import type { Machine } from "@/core/machine";
import { gearboxes } from "@/core/machine";
import type { AnyStep } from "@/data/record/step-data";
import { ownList } from "./guided";

/** What was done to gearboxes among a job's steps that count, in order. */
export function rebuildMoves(steps: readonly AnyStep[]): (RebuildMove | Tightened)[] {
  return steps.flatMap((step): (RebuildMove | Tightened)[] => {
    if (step.kind !== "rebuild") return [];
    const { data } = step;
    return "tightened" in data ? [{ box: data.box, tightened: data.tightened }] : [data];
  });
}

export type BoxState = RebuildState & { isTouched: boolean };

/** Every gearbox of a machine as these steps leave it: a job's, or those of every job. */
export function boxStates(machine: Machine, steps: readonly AnyStep[]): BoxState[] {
  const live = liveSteps(steps);
  const moves = rebuildMoves(live);
  return gearboxes(machine).map(({ id }) => ({
    ...rebuildState(id, moves, ownList(live, { round: "box", place: id })),
    isTouched: moves.some(({ box }) => box === id),
  }));
}
