import type { gearboxInspection } from "@/core/checks/gearbox-inspection";
import { coming } from "../coming";
import type { Face } from "../face";
import { length, lower, placeIn, sayMarks, unread } from "../shared";
import { states } from "./states";

/** What this worksheet says. */
export const face: Face<typeof gearboxInspection> = {
  answer: (found, told) =>
    sayMarks(face, found, told, found.verdict === "in-tolerance" ? "Every gearbox sound." : "Look into every gearbox."),
  actions: {
    "rebuild-box": (a, t) => `${placeIn(face, t.machine, a.place)}: rebuild it, gears as a pair, bearings and seals new`,
    "change-pin": (a, t) =>
      a.what === "bent"
        ? `${placeIn(face, t.machine, a.place)}: a pin that bends instead of shearing may be the wrong part: compare before another goes in`
        : `${placeIn(face, t.machine, a.place)}: new pin of the sheet, and look for what stopped the blade`,
    "change-seal": (a, t) =>
      a.what === "grooved"
        ? `${placeIn(face, t.machine, a.place)}: new seal, seated a little to one side on clean shaft`
        : `${placeIn(face, t.machine, a.place)}: new seal, square and level, lip oiled; never the old one with sealant`,
    "change-oil": (a, t) =>
      `${placeIn(face, t.machine, a.place)}: change the oil${a.what === "milky" ? ", and find where the water came in" : ""}`,
    "fill-oil": (a, t) =>
      `${placeIn(face, t.machine, a.place)}: ${length(a.metres, t.system, "gauge")} low; fill to ${length(a.wantedMetres, t.system, "gauge")} under the cover`,
    "let-oil-out": (a, t) => `${placeIn(face, t.machine, a.place)}: ${length(a.metres, t.system, "gauge")} too high; let it out`,
    "oil-again": (a, t) => `${placeIn(face, t.machine, a.place)}: read it again after it stood: connected boxes level out over hours`,
  },
  warnings: {
    "not-run-broken-gears": () => "Not run with a broken tooth or a sheared pin: a freed blade meets its neighbour.",
  },
  provisional: {
    "place-unread": unread(() => face),
    "oil-not-stood": (r, t) => `${lower(placeIn(face, t.machine, r.place))} just filled: oil not level yet`,
    "no-oil-depth-on-sheet": (r, t) => `the sheet has no oil depth for the ${lower(placeIn(face, t.machine, r.place))}`,
  },
  problems: {
    "unknown-gearbox": (i) => `This machine has no gearbox called “${i.place}”.`,
  },
  states,
  figures: {
    "oil-depth": "Cover down to the oil",
  },
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
};
