import type { reelBearing } from "@/core/checks/reel-bearing";
import type { Face } from "../face";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";

/** What this worksheet says. */
export const face: Face<typeof reelBearing> = {
  answer: sayUnits(() => face, "No reel lifts.", "Lift each reel at both ends. Play along its axis is by design; only up and down counts."),
  actions: {
    "change-reel-bearings": (a, t) =>
      unitIn(face, t.machine, a.place, "new reel bearings and seals before the contact is set: it would drop on to the knife"),
    "clear-winding": (a, t) => unitIn(face, t.machine, a.place, "cut the winding off and look at the seal, every reel isolated first"),
  },
  provisional: { "unit-unread": unitUnread(() => face) },
  problems: { "unknown-unit": noSuchUnit },
  states: {
    sound: "sound",
    "left-lifts": "left end lifts",
    "right-lifts": "right end lifts",
    rough: "turns rough",
    weeps: "weeps at an end",
    wound: "wound with grass, string or wire",
    "near-limit": "close to the limit",
  },
  figures: { "left-lift": "Left end lifts", "right-lift": "Right end lifts" },
};
