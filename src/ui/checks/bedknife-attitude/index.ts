import type { bedknifeAttitude } from "@/core/checks/bedknife-attitude";
import { coming } from "../coming";
import type { Face } from "../face";
import { length, lower, placeIn } from "../shared";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";

/** What this worksheet says. */
export const face: Face<typeof bedknifeAttitude> = {
  answer: sayUnits(() => face, "Heel, toe and attitude right.", "On the plate at its height: heel, toe, thickness, angle."),
  actions: {
    "thinner-knife": (a, t) =>
      unitIn(face, t.machine, a.place, `fit the knife that suits ${length(a.heightMetres, t.system)}: this one is too thick`),
    "set-attitude": (a, t) =>
      unitIn(
        face,
        t.machine,
        a.place,
        `${a.hasHoles ? "bracket to the sheet's hole first" : `look where the ${a.heightEnd === "front" ? "rear" : "front"} roller stands first`}, then the height at the ${a.heightEnd} screws`,
      ),
    "grind-front-face": (a, t) => unitIn(face, t.machine, a.place, "grind the front face to its angle, or fit another knife"),
  },
  warnings: {
    "under-least-thickness": (w, t) => `${placeIn(face, t.machine, w.place)}: thinner than its sheet allows. Replace the knife.`,
    "height-out-of-reach": (w, t) =>
      `${placeIn(face, t.machine, w.place)}: by its side view no travel of the ${w.end} roller reaches this height. Read it again, or the sheet's geometry is another unit's.`,
    "knife-not-for-height": (w, t) => `${placeIn(face, t.machine, w.place)}: by its sheet this knife is for another height.`,
  },
  provisional: {
    "unit-unread": unitUnread(() => face),
    "no-attitude-on-sheet": (r, t) => `no bounds of attitude on the sheet of the ${lower(placeIn(face, t.machine, r.place))}`,
  },
  problems: { "unknown-unit": noSuchUnit },
  states: {
    right: "right",
    "no-heel": "too little under the heel",
    "no-toe": "too little under the toe",
    "no-heel-near": "little under the heel",
    "no-toe-near": "little under the toe",
    "attitude-off": "attitude out of its bounds",
    "attitude-near": "attitude close to its bounds",
    "lays-forward": "front face too steep",
    "drags-back": "front face too erect",
  },
  figures: {
    "heel-clearance": "Under the heel",
    "toe-clearance": "Under the toe",
    attitude: "Attitude",
    "attitude-by-geometry": "Attitude by the sheet's geometry",
  },
  isPlanless: true,
  picture: coming(() => import("../side-view-picture").then(({ SideViewPicture }) => SideViewPicture)),
};
