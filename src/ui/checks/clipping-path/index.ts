import type { clippingPath } from "@/core/checks/clipping-path";
import type { Face } from "../face";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";

/** What this worksheet says. */
export const face: Face<typeof clippingPath> = {
  answer: sayUnits(() => face, "The way out is clear.", "Follow the clippings: reel, hood, shield, basket; then the grass itself."),
  actions: {
    "set-hood": (a, t) => unitIn(face, t.machine, a.place, "set the hood by its adjuster"),
    "mend-shield": (a, t) => unitIn(face, t.machine, a.place, "straighten or fit the shield"),
    "seat-basket": (a, t) => unitIn(face, t.machine, a.place, "seat the basket"),
    "empty-basket": (a, t) => unitIn(face, t.machine, a.place, "empty the basket"),
    "clear-path": (a, t) => unitIn(face, t.machine, a.place, "clear it, every reel isolated first"),
    "wait-until-dry": () => "Wet grass clumps with every hood right: wait until it is dry, or open the hoods and mow slower",
    "mow-twice": () => "More than a third at once clumps with every hood right: mow twice, higher first",
  },
  provisional: { "unit-unread": unitUnread(() => face) },
  problems: { "unknown-unit": noSuchUnit },
  states: {
    sound: "clear",
    "hood-open": "hood too far open",
    "hood-closed": "hood too far closed",
    "shield-bent": "shield bent",
    "shield-missing": "shield missing",
    "basket-low": "basket low",
    "basket-full": "basket full",
    packed: "packed",
    "grass-wet": "wet when it was mown",
    "grass-tall": "more than a third comes off",
    "grass-fair": "dry enough, short enough",
  },
  parts: { grass: "The grass" },
};
