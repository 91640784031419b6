import type { rollerBearing } from "@/core/checks/roller-bearing";
import type { Face } from "../face";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";

/** What this worksheet says. */
export const face: Face<typeof rollerBearing> = {
  answer: sayUnits(() => face, "Every roller runs true.", "Lift each roller at both ends, then turn it."),
  actions: {
    "change-roller-bearings": (a, t) => unitIn(face, t.machine, a.place, "new roller bearings, then square, contact and height again"),
  },
  provisional: { "unit-unread": unitUnread(() => face) },
  problems: { "unknown-unit": noSuchUnit },
  states: {
    sound: "sound",
    "front-rises": "front roller rises",
    "rear-rises": "rear roller rises",
    "front-rough": "front roller rough",
    "rear-rough": "rear roller rough",
    "near-limit": "close to the limit",
  },
  figures: { "front-lift": "Front roller rises", "rear-lift": "Rear roller rises" },
};
