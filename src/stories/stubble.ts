import { gaussian } from "@/core/basics/random";
import { hundredth, type Readings } from "@/core/checks/sound-basics";
import { benchHeight, type Machine, unitsAcross } from "@/core/machine";

const YEAR = 365.25 * 86_400_000;
/** Turf takes this much of the bench in winter, and so much more in high summer, when it is soft and full of thatch. For the demo. */
const TAKEN_METRES = { always: 0.00005, summer: 0.00011 } as const;
/** How far units of one machine stray from each other, round and round. For the demo. */
const UNIT_STRAYS = [0, -0.00004, 0.00005] as const;
const PRICKS_A_UNIT = 6;

/** Stubble behind each unit by prism, as the season has it: set to the height that is wanted, and cut a shade lower. `at`: milliseconds. */
export function stubbleInSeason(args: { machine: Machine; random: () => number; turf: string; at: number }): Readings {
  const { machine, random, turf, at } = args;
  const bench = benchHeight(machine);
  const noise = (spread: number) => gaussian(random) * spread;
  // Warmest in July.
  const warm = (1 - Math.cos((2 * Math.PI * (at - Date.UTC(2020, 0, 15))) / YEAR)) / 2;
  const visit = noise(0.00002) - TAKEN_METRES.always - TAKEN_METRES.summer * warm;
  const units = unitsAcross(machine).map(({ id }, k) => {
    const offset = visit + (UNIT_STRAYS[k % UNIT_STRAYS.length] ?? 0);
    return [id, Array.from({ length: PRICKS_A_UNIT }, () => hundredth(bench + offset + noise(0.00012)))] as const;
  });
  return {
    settingMetres: bench,
    wantedMetres: bench,
    turf,
    ground: "firm",
    heightsMetres: units.flatMap(([, heights]) => heights),
    ...(units.length > 1 ? { unitHeights: Object.fromEntries(units) } : {}),
  };
}
