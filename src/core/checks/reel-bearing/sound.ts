import { above, eachUnit, type Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) =>
  eachUnit(machine, () => ({
    leftFeel: "none",
    leftLiftMetres: above(noise, 0.00001, 0.00001),
    rightFeel: "none",
    rightLiftMetres: above(noise, 0.00001, 0.00001),
    turns: "smooth",
    ends: "dry",
    wrap: "none",
  }));
