import type { reelEdge } from "@/core/checks/reel-edge";
import type { Face } from "../face";
import { length, placeIn } from "../shared";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";

/** What this worksheet says. */
export const face: Face<typeof reelEdge> = {
  answer: sayUnits(() => face, "Every edge sharp.", "Look along reel and knife, with a glove and a light; never a finger in the nip."),
  actions: {
    "look-at-place": (a, t) =>
      unitIn(face, t.machine, a.place, `look ${length(a.fromLeftMetres, t.system, "tape")} from its left end first`),
    "lap-or-grind": (a, t) => unitIn(face, t.machine, a.place, "lap or grind it; then contact and height again"),
    "grind-reel": (a, t) => unitIn(face, t.machine, a.place, "grind the reel and its relief, then the bench in order"),
    "grind-knife": (a, t) => unitIn(face, t.machine, a.place, "grind the bedknife past the damage, then the bench in order"),
    "dress-nick": (a, t) => unitIn(face, t.machine, a.place, "dress the nicked reel blade; grind if it still draws a line"),
  },
  warnings: {
    "line-outside": () => "That place lies outside what this machine cuts. Measure from the left edge of its own pass.",
    "draws-elsewhere": (w, t) =>
      `${placeIn(face, t.machine, w.place)}: this nick draws its line ${length(w.drawsMetres, t.system, "tape")} from the left edge, not at ${length(w.lineMetres, t.system, "tape")}. Another one draws that: look on.`,
  },
  provisional: { "unit-unread": unitUnread(() => face) },
  problems: {
    "unknown-unit": noSuchUnit,
    "off-the-knife": (p, system) =>
      `That lies off the knife, which is ${length(p.widthMetres, system, "tape")} wide. Measure from its left end.`,
  },
  states: {
    sound: "sharp",
    "reel-rounded": "reel rounded",
    "reel-dull": "reel going dull",
    "knife-rounded": "knife rounded",
    "knife-dull": "knife going dull",
    "nick-knife": "nick in the knife",
    "nick-reel": "nick in a reel blade",
    "land-wide": "land too wide",
    "no-relief": "relief worn away",
    "near-limit": "land close to the limit",
  },
  figures: { land: "Land", "line-on-turf": "Draws its line, from the left edge" },
};
