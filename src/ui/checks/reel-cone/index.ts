import type { reelCone } from "@/core/checks/reel-cone";
import type { Face } from "../face";
import { length } from "../shared";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";

/** What this worksheet says. */
export const face: Face<typeof reelCone> = {
  answer: sayUnits(() => face, "Every reel even end to end.", "Tape over the blades at both ends of every reel."),
  actions: {
    "spin-grind": (a, t) =>
      unitIn(face, t.machine, a.place, `spin grind: the ${a.thick} end is ${length(a.taperMetres, t.system)} thicker`),
    "replace-reel": (a, t) => unitIn(face, t.machine, a.place, "another reel: this one is under its scrap diameter"),
  },
  provisional: { "unit-unread": unitUnread(() => face) },
  problems: {
    "unknown-unit": noSuchUnit,
    "over-new-diameter": (i, s) => `More than this reel has new: ${length(i.mostMetres, s)} at most. Read it again.`,
  },
  states: {
    even: "even",
    coned: "reel coned",
    barrelled: "middle differs from the ends",
    "near-scrap": "its last grind is gone",
    "under-scrap": "under its scrap diameter",
    "near-limit": "taper close to the limit",
  },
  figures: { taper: "End to end", "smallest-diameter": "Smallest diameter", "reel-grinds-left": "Grinds left" },
};
