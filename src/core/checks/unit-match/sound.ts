import { benchHeight, bracketFor, type Machine, reelBladesOf, type Unit, unitSheetOf } from "@/core/machine";
import { eachUnit, hundredth, type Sound, USUAL_REEL_METRES } from "../sound-basics";

function sameAsSheet(machine: Machine, { id }: Unit, bench: number, noise: (spread: number) => number): object {
  const { reel, bedknife, frontRoller, rearRoller, groomer } = unitSheetOf(machine, id);
  const bracket = bracketFor(machine, id, bench, groomer !== "none");
  return {
    blades: reelBladesOf(machine, id),
    diameterMetres: hundredth((reel?.newDiameterMetres ?? USUAL_REEL_METRES) - 0.004 + noise(0.0002)),
    knife: "as-sheet",
    knifeMetres: hundredth((bedknife?.thicknessMetres ?? 0.0035) - 0.0003 + noise(0.00004)),
    knifeLeftMetres: hundredth((bedknife?.depthMetres ?? 0.008) - 0.001 + noise(0.00005)),
    frontRoller: frontRoller?.kind ?? "grooved",
    rearRoller: rearRoller?.kind ?? "smooth",
    hole: bracket?.number ?? 2,
    facing: bracket?.facing ?? "forward",
    groomer: groomer === "none" ? "none" : "fitted",
    benchMetres: hundredth(bench + noise(0.00001)),
  };
}

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) => {
  const bench = benchHeight(machine);
  return eachUnit(machine, (unit) => sameAsSheet(machine, unit, bench, noise));
};
