import { formatTurns } from "@/core/basics/units";
import type { rollerSquare } from "@/core/checks/roller-square";
import type { Face } from "../face";
import { length, placeIn } from "../shared";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";

/** What this worksheet says. */
export const face: Face<typeof rollerSquare> = {
  answer: sayUnits(
    () => face,
    "Every front roller bears on both ends.",
    "Reel on the bar, knife against the stop, rear roller free: feel under each end.",
  ),
  actions: {
    "turn-eccentric": (a, t) =>
      unitIn(
        face,
        t.machine,
        a.place,
        `turn the ${a.end} adjuster about ${formatTurns(Math.round(a.turns * 12) / 12) === "0" ? `${Math.round(a.turns * 360)}°` : `${formatTurns(Math.round(a.turns * 12) / 12)} turn`} down, until both ends bear (${length(a.byMetres, t.system)})`,
      ),
    "close-end": (a, t) =>
      unitIn(face, t.machine, a.place, `let the ${a.end} end down by ${length(a.byMetres, t.system)}, until both ends bear`),
  },
  warnings: {
    "hangs-clear": (w, t) =>
      `${placeIn(face, t.machine, w.place)}: both ends hang clear. The reel may not lie on the bar; set it down again.`,
  },
  provisional: {
    "unit-unread": unitUnread(() => face),
    "rocks-on-the-bar": (r, t) => `${placeIn(face, t.machine, r.place).toLowerCase()} rocked on the bar`,
  },
  problems: { "unknown-unit": noSuchUnit },
  states: { square: "square", "not-square": "front roller not square", "near-limit": "close to the limit", rocks: "rocks on the bar" },
  figures: { "out-of-square": "Out of square", "tilts-the-cut": "Tilts the cut by" },
};
