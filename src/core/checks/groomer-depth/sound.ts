import { benchHeight } from "@/core/machine";
import { eachUnit, hundredth, type Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) => {
  const bench = benchHeight(machine);
  return eachUnit(machine, () => ({ heightMetres: bench, groomerMetres: hundredth(bench * 0.85 + noise(0.0001)), strips: "better" }));
};
