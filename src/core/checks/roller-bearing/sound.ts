import { eachUnit, type Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) =>
  eachUnit(machine, () => ({
    frontFeel: "none",
    frontTurns: "smooth",
    rearFeel: "none",
    rearTurns: "smooth",
  }));
