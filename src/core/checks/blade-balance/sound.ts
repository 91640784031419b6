import type { Sound } from "../sound-basics";
import { eachBlade } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) => ({
  set: "together",
  ...eachBlade(machine, (spindle) => ({ addedKilograms: 0.001, radiusMetres: spindle.tipCircleDiameterMetres / 2 - 0.01, light: "A" })),
});
