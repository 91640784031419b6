import type { rollerClean } from "@/core/checks/roller-clean";
import type { Face } from "../face";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";

/** What this worksheet says. */
export const face: Face<typeof rollerClean> = {
  answer: sayUnits(() => face, "Rollers clean.", "Look at both rollers of every unit, at three places each."),
  actions: {
    "clean-rollers": (a, t) => unitIn(face, t.machine, a.place, "clean both rollers, then measure the height again"),
    "set-scraper": (a, t) => unitIn(face, t.machine, a.place, "set or replace scraper or brush"),
  },
  provisional: { "unit-unread": unitUnread(() => face) },
  problems: { "unknown-unit": noSuchUnit },
  states: {
    sound: "clean",
    "front-even": "front roller packed evenly",
    "front-lumpy": "front roller in lumps",
    "front-thick": "front roller thickly packed",
    "rear-even": "rear roller packed evenly",
    "rear-lumpy": "rear roller in lumps",
    "rear-thick": "rear roller thickly packed",
    "scraper-worn": "scraper or brush worn",
    "near-limit": "packed, close to the limit",
  },
  figures: {
    "front-pack-left": "Front roller, left",
    "front-pack-middle": "Front roller, middle",
    "front-pack-right": "Front roller, right",
    "rear-pack-left": "Rear roller, left",
    "rear-pack-middle": "Rear roller, middle",
    "rear-pack-right": "Rear roller, right",
    "raised-by": "Raises the cut by",
    "left-over-right": "Left end higher by",
  },
};
