import type { spindlePlay } from "@/core/checks/spindle-play";
import type { Face } from "../face";
import { CRANKSHAFT_OUT, lower, noSuchBlade, placeIn, sayMarks, unread } from "../shared";

/** What this worksheet says. */
export const face: Face<typeof spindlePlay> = {
  answer: (found, told) =>
    sayMarks(face, found, told, found.verdict === "in-tolerance" ? "Every spindle sound." : "Rock and turn every spindle."),
  actions: {
    "clear-winding": (a, t) => `${placeIn(face, t.machine, a.place)}: cut the ${a.what} off, look at the seal`,
    "seat-bearing": (a, t) => `${placeIn(face, t.machine, a.place)}: seat the bearing with a driver on its outer race`,
    "hold-for-crankshaft": () => CRANKSHAFT_OUT,
    "change-bearings": (a, t) => `${placeIn(face, t.machine, a.place)}: new bearings and seals; not worth judging twice`,
    "grease-spindle": (a, t) =>
      `${placeIn(face, t.machine, a.place)}: ${a.what === "purge" ? "purge until it runs clean" : "grease"}, ${Math.round(a.overHours)} h overdue; not packed solid`,
  },
  warnings: {
    "hub-unit-doubtful": (w, t) =>
      `${placeIn(face, t.machine, w.place)}: its heat fits the others only in the other scale. Read it again, with °F or °C behind it.`,
    "not-run-bent-shaft": () => "Not run: a bent shaft or a sheared key throws the blade's weight about. Out of service.",
  },
  provisional: {
    "place-unread": unread(() => face),
    "hub-unit-doubtful": (r, t) => `heat of the ${lower(placeIn(face, t.machine, r.place))} may be in the other scale`,
  },
  problems: {
    "unknown-spindle": noSuchBlade,
  },
  states: {
    sound: "sound",
    play: "play at the tip",
    rough: "rough",
    binding: "binding",
    grass: "wound with grass",
    wire: "wound with wire",
    step: "bearing out of its seat",
    "key-sheared": "key sheared or marked",
    "shaft-wobbles": "shaft's end wobbles",
  },
  figures: {
    "tip-play": "Play at the tip",
  },
};
