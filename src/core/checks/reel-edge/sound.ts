import { above, eachUnit, type Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) =>
  eachUnit(machine, () => ({ reel: "sharp", knife: "sharp", nick: "none", relief: "there", landMetres: above(noise, 0.0008, 0.0001) }));
