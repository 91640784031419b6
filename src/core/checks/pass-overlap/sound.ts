import { cuttingWidth } from "@/core/machine";
import type { Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) => ({
  passes: 10,
  acrossMetres: 10 * (cuttingWidth(machine) - 0.09),
  steersBy: "outer-edge-of-cut",
});
