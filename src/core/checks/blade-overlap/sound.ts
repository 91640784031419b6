import { eachBlade, type Sound, taped } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) =>
  eachBlade(machine, ({ tipCircleDiameterMetres }) => ({ lengthMetres: taped(tipCircleDiameterMetres - 0.001) }));
