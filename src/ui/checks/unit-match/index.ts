import type { unitMatch } from "@/core/checks/unit-match";
import { coming } from "../coming";
import type { Face } from "../face";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";
import { PROPERTY_WORDS } from "./property-words";

/** What this worksheet says. */
export const face: Face<typeof unitMatch> = {
  answer: sayUnits(() => face, "All units alike.", "The same of every unit, before anything is adjusted."),
  actions: {
    "bring-alike": (a, t) => unitIn(face, t.machine, a.place, `${PROPERTY_WORDS[a.property].toLowerCase()} as on its sisters`),
  },
  provisional: {
    "unit-unread": unitUnread(() => face),
    "no-majority": (r) => `${PROPERTY_WORDS[r.property].toLowerCase()}: no value is shared by most, so none is the odd one`,
  },
  problems: { "unknown-unit": noSuchUnit },
  states: {
    alike: "alike",
    "near-unlike": "nearly unlike its sisters",
    "blades-differ": "another number of blades",
    "diameter-differs": "another diameter",
    "knife-differs": "another bedknife",
    "thickness-differs": "another knife thickness",
    "knife-left-differs": "knife worn otherwise",
    "front-roller-differs": "another front roller",
    "rear-roller-differs": "another rear roller",
    "hole-differs": "bracket in another hole",
    "facing-differs": "bracket faces another way",
    "groomer-differs": "groomer fitted otherwise",
    "height-differs": "another bench height",
  },
  figures: { "bench-height": "Bench height" },
  isPlanless: true,
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
};
