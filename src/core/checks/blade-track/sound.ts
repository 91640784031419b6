import { eachBlade, type Sound, taped } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) =>
  eachBlade(machine, () => ({ markedMetres: taped(0.08 + noise(0.0003)), otherMetres: taped(0.08 + noise(0.0003)) }));
