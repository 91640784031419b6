import { kindById } from "@/core/catalogue/kinds";
import { above, eachUnit, type Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) =>
  eachUnit(machine, () => ({
    arm: "sound",
    bushings: "firm",
    playMetres: above(noise, 0.0005, 0.0002),
    ...(kindById(machine.kind).isRider ? { skewMetres: above(noise, 0.002, 0.001) } : {}),
  }));
