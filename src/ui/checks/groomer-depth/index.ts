import type { groomerDepth } from "@/core/checks/groomer-depth";
import type { Face } from "../face";
import { length } from "../shared";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";

/** What this worksheet says. */
export const face: Face<typeof groomerDepth> = {
  answer: sayUnits(() => face, "Groomers reach as they should.", "Height of cut and groomer, both over one plate."),
  actions: {
    "raise-groomer": (a, t) =>
      unitIn(
        face,
        t.machine,
        a.place,
        `raise it to the height of cut, ${length(a.toMetres, t.system)}, then deeper step by step as the turf shows`,
      ),
    "lower-groomer": (a, t) =>
      unitIn(face, t.machine, a.place, `let it down to the height of cut, ${length(a.toMetres, t.system)}, then deeper step by step`),
  },
  provisional: {
    "unit-unread": unitUnread(() => face),
    "no-strips": (_, t) =>
      t.machine.units.length === 1 ? "no strip mown with it beside one without" : "no strips mown with and without side by side",
  },
  problems: { "unknown-unit": noSuchUnit },
  states: {
    reaches: "as it should be",
    "too-deep": "too deep",
    "too-shy": "too high to do anything",
    "near-deep": "deep for this height",
    "near-shy": "just over the height of cut",
    stripped: "strips the turf",
    alike: "makes no difference",
  },
  figures: { "below-the-cut": "Below the height of cut" },
};
