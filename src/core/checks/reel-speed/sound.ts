import { benchHeight, type Machine, reelBladesOf, unitsAcross } from "@/core/machine";
import { speedForClip } from "@/core/physics/reel";
import type { Readings, Sound } from "../sound-basics";

/** A pace at which the clip is seven tenths of the height. */
function soundSpeed(machine: Machine, bench: number, noise: (spread: number) => number): Readings {
  const blades = reelBladesOf(machine, machine.units[0]?.id ?? "");
  const turns = machine.sheet.reelDrive?.revolutionsPerMinute ?? 1200;
  const speed = speedForClip({ clipMetres: 0.7 * bench, blades, revolutionsPerMinute: turns });
  return {
    distanceMetres: 30,
    seconds: [30 / speed + noise(0.1), 30 / speed + noise(0.1)],
    heightMetres: bench,
    loaded: "loaded",
    units: Object.fromEntries(unitsAcross(machine).map(({ id }) => [id, { revolutionsPerMinute: Math.round(turns * 0.985 + noise(6)) }])),
  };
}

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) => {
  const bench = benchHeight(machine);
  return soundSpeed(machine, bench, noise);
};
