import { type Machine, spindlesAcross } from "@/core/machine";
import type { Sound } from "../sound-basics";

function neighboursAcross(machine: Machine): string[] {
  const across = spindlesAcross(machine);
  return across.slice(1).map((other, k) => `${across[k]?.id}:${other.id}`);
}

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) => ({
  pairs: Object.fromEntries(
    neighboursAcross(machine).map((id) => [
      id,
      { turned: "clear", phaseDegrees: Math.round(90 + noise(1)), marks: "in-line", lashDegrees: 2 },
    ]),
  ),
});
