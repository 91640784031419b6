import type { BladeSheet, Spindle } from "@/core/machine";
import { eachBlade, type Sound, taped } from "../sound-basics";

function soundEdge({ tipCircleDiameterMetres }: Spindle, blade: BladeSheet | undefined) {
  const sailMetres = blade?.sailThicknessMetres === undefined ? undefined : blade.sailThicknessMetres * 0.95;
  const end = { edge: "sharp", nickMetres: 0, ...(sailMetres === undefined ? {} : { sailMetres }) };
  return {
    crack: "none",
    bend: "straight",
    slot: "none",
    A: end,
    B: end,
    lengthMetres: taped(tipCircleDiameterMetres),
    ...(blade?.widthMetres === undefined ? {} : { widthMetres: taped(blade.widthMetres * 0.95) }),
  };
}

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) => {
  const { blade } = machine.sheet;
  return eachBlade(machine, (spindle) => soundEdge(spindle, blade));
};
