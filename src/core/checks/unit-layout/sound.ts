import type { Sound } from "../sound-basics";
import { eachUnit } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) => ({ ...eachUnit(machine, () => ({ ahead: "square" })), lines: "none" });
