import { benchHeight, type Machine, unitSheetOf } from "@/core/machine";
import { stanceOf } from "@/core/physics/reel";
import { eachUnit, hundredth, type Sound } from "../sound-basics";

/** A shade thinner than new, its corners as the side view has them. */
function soundAttitude(machine: Machine, id: string, bench: number): object {
  const { sideView, attitude, bedknife } = unitSheetOf(machine, id);
  const stance = sideView && stanceOf(sideView);
  return {
    heightMetres: bench,
    heelMetres: hundredth(stance?.heelMetres ?? bench * 0.8),
    toeMetres: hundredth(stance?.toeMetres ?? bench * 0.7),
    thicknessMetres: (bedknife?.thicknessMetres ?? 0.0035) - 0.0003,
    ...(attitude ? { attitudeRadians: (attitude.leastRadians + attitude.mostRadians) / 2 } : {}),
    face: "holds-upright",
  };
}

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) => {
  const bench = benchHeight(machine);
  return eachUnit(machine, ({ id }) => soundAttitude(machine, id, bench));
};
