import { benchHeight, bracketFor, type Machine, unitSheetOf, unitsAcross } from "@/core/machine";
import type { Readings, Sound } from "../sound-basics";

function soundBrackets(machine: Machine, bench: number): Readings {
  const isFitted = unitsAcross(machine).some(({ id }) => unitSheetOf(machine, id).groomer !== "none");
  return {
    heightMetres: bench,
    groomer: isFitted ? "fitted" : "none",
    units: Object.fromEntries(
      unitsAcross(machine).map(({ id }) => {
        const bracket = bracketFor(machine, id, bench, isFitted);
        return [id, { number: bracket?.number ?? 1, facing: bracket?.facing ?? "forward" }];
      }),
    ),
  };
}

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) => {
  const bench = benchHeight(machine);
  return soundBrackets(machine, bench);
};
