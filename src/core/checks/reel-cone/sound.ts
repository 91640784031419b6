import { unitSheetOf } from "@/core/machine";
import { eachUnit, hundredth, type Sound, USUAL_REEL_METRES } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) =>
  eachUnit(machine, ({ id }) => {
    const diameter = (unitSheetOf(machine, id).reel?.newDiameterMetres ?? USUAL_REEL_METRES) - 0.004;
    return {
      leftMetres: hundredth(diameter + noise(0.00002)),
      middleMetres: hundredth(diameter + noise(0.00002)),
      rightMetres: hundredth(diameter + noise(0.00002)),
    };
  });
