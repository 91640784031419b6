import type { beltInspection } from "@/core/checks/belt-inspection";
import { coming } from "../coming";
import type { Face } from "../face";
import { length, noSuchBlade, placeIn, sayMarks, stateIn, unread } from "../shared";

/** What this worksheet says. */
export const face: Face<typeof beltInspection> = {
  answer: (found, told) =>
    sayMarks(
      face,
      found,
      told,
      found.verdict === "in-tolerance" ? "Belt right, every blade turns." : "Look at belt, idlers and every blade.",
    ),
  actions: {
    "photograph-belt": () => "Photograph the belt's path for this machine while it is right",
    "seat-belt": (a, t) =>
      a.what === "stands"
        ? `${placeIn(face, t.machine, a.place)} stands: find where the belt left its groove`
        : "Seat the belt in every groove, and find why it left",
    "change-belt": (a) =>
      a.what === "slack" ? "Set the tension; a belt at its end is changed" : `New belt (${stateIn(face, a.what)}), tension set`,
    "change-spring": (a) => `New spring: this one is ${stateIn(face, a.what)}`,
    "change-idler": (a) => `New idler (${stateIn(face, a.what)}); riveted ones are changed whole`,
    "free-belt": () => "It rubs: find what it is led past wrongly, or what is bent into its way",
    "find-heat": () => "Too hot: look for slip, a seized idler, or a shaft it rubs on, before a new belt burns too",
    "guards-on": () => "Guards back on before it is run",
    "belt-of-length": (a, t) => `Another belt than the sheet's: ${length(a.wantedMetres, t.system, "gauge")} belongs on it`,
  },
  warnings: {
    "belt-not-on": () => "A belt that went on too easily is not on: look at every groove again.",
  },
  provisional: {
    "place-unread": unread(() => face),
  },
  problems: {
    "unknown-spindle": noSuchBlade,
  },
  states: {
    "every-groove": "in every groove",
    "as-picture": "as the picture",
    sound: "sound",
    "at-rim": "at the rim",
    right: "right",
    free: "free",
    pulls: "pulls",
    on: "on",
    turns: "turns",
    "off-one": "off a groove",
    other: "another path than the picture",
    "no-picture": "no picture to compare with",
    glazed: "glazed",
    cracked: "cracked",
    frayed: "cord frayed",
    "below-rim": "worn below the rim",
    slack: "slack",
    "went-on-easily": "went on too easily",
    "hand-warm": "warm to the hand",
    "too-hot": "too hot to hold",
    clear: "clear",
    rubs: "rubs on something",
    "near-length": "nearly another length than the sheet's",
    "other-length": "another length than the sheet's",
    rough: "rough",
    seized: "seized",
    "loose-rivet": "rivet loose",
    weak: "weak",
    broken: "broken",
    missing: "missing",
    stands: "stands still",
  },
  figures: {
    "belt-length": "Belt",
  },
  parts: {
    "belt-seat": "Belt in its grooves",
    "belt-path": "Belt's path",
    belt: "Belt itself",
    "belt-width": "Belt's width",
    "belt-tension": "Belt's tension",
    "belt-heat": "Belt's heat",
    "belt-rubs": "Where the belt rubs",
    idlers: "Idlers",
    spring: "Spring",
    guards: "Guards",
    "belt-size": "Belt's length",
  },
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
  keptPictures: "belt-path",
};
