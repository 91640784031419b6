import { above, eachUnit, type Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) =>
  eachUnit(machine, () => ({ rests: "as-meant", leftGapMetres: above(noise, 0, 0.000008), rightGapMetres: 0 }));
