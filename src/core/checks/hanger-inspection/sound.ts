import type { Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) => ({
  hangers: Object.fromEntries((machine.deck?.hangers ?? []).map(({ id }) => [id, { state: "sound" }])),
  shell: { state: "sound" },
});
