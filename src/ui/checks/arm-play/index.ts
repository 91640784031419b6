import type { armPlay } from "@/core/checks/arm-play";
import type { Face } from "../face";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";

/** What this worksheet says. */
export const face: Face<typeof armPlay> = {
  answer: sayUnits(() => face, "Arms firm, units square.", "Rock each unit at its yoke, then sight along its ends."),
  actions: {
    "new-bushings": (a, t) => unitIn(face, t.machine, a.place, "new bushings and pin"),
    "straighten-arm": (a, t) => unitIn(face, t.machine, a.place, "straighten or replace the arm, then overlap again"),
    "hold-arm": (a, t) =>
      unitIn(face, t.machine, a.place, "hold it: a cracked arm can let the unit fall. Another arm, or a qualified welder"),
  },
  provisional: { "unit-unread": unitUnread(() => face) },
  problems: { "unknown-unit": noSuchUnit },
  states: {
    sound: "sound",
    "yoke-play": "play at the yoke",
    skewed: "stands askew",
    "bushing-worn": "bushing worn",
    bent: "arm bent",
    cracked: "arm cracked",
    "near-limit": "close to the limit",
  },
  figures: { "yoke-play": "Play at the yoke", skew: "One end ahead" },
};
