import type { Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = () => ({ machine: { felt: "none" } });
