import type { Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) => ({
  belt: {
    seated: "every-groove",
    path: "as-picture",
    state: "sound",
    width: "at-rim",
    tension: "right",
    heat: "hand-warm",
    rubs: "clear",
  },
  idlers: { state: "free", spring: "pulls" },
  guards: { state: "on" },
  spindles: Object.fromEntries(machine.spindles.map(({ id }) => [id, { turns: "turns" }])),
});
