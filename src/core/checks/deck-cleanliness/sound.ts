import { MILLIMETRE, type Sound, taped } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ noise }) => ({
  pack: { depthMetres: taped(Math.max(0, 0.003 + noise(MILLIMETRE))), worst: "chute" },
  port: { state: "open" },
  chute: { state: "open" },
  outlet: { state: "free" },
  baffles: { state: "in-place" },
  shell: { state: "sound" },
});
