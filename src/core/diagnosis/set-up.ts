/** Minutes to come from parked into each state. Estimates. */
const FROM_PARKED: Record<CheckState, number> = { parked: 0, "locked-out": 3, raised: 8, bench: 15, running: 2 };
/** A machine just stopped must be parked first. Estimate. */
const STOPPING_MINUTES = 1;
const TO_RUNNING_MINUTES = 2;
const HEIGHT: Record<Exclude<CheckState, "running">, number> = { parked: 0, "locked-out": 1, raised: 2, bench: 3 };

/** Minutes of making ready, from one state of the machine to another; nothing to stay, or to come down again. Estimates. */
import type { CheckState } from "@/core/catalogue";
export function setUpMinutes(from: CheckState, to: CheckState): number {
  if (from === to) return 0;
  if (from === "running") return STOPPING_MINUTES + FROM_PARKED[to];
  if (to === "running") return TO_RUNNING_MINUTES;
  if (HEIGHT[to] < HEIGHT[from]) return 0;
  return FROM_PARKED[to] - FROM_PARKED[from];
}
