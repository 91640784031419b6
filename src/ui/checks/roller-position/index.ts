import type { rollerPosition } from "@/core/checks/roller-position";
import { coming } from "../coming";
import type { Face } from "../face";
import { length, lower, placeIn } from "../shared";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";

/** What this worksheet says. */
export const face: Face<typeof rollerPosition> = {
  answer: sayUnits(() => face, "Every bracket in its hole.", "Read hole and facing of every front bracket against the table."),
  actions: {
    "move-bracket": (a, t) =>
      unitIn(face, t.machine, a.place, `front bracket to hole ${a.number}, facing ${a.facing}; then square, contact and height`),
  },
  warnings: {
    "not-made-up-at-the-rear": () => "Never made up for at the rear roller: that tips the knife and takes its heel or toe clearance.",
  },
  provisional: {
    "unit-unread": unitUnread(() => face),
    "height-not-told": () => "height of cut and groomer not told",
    "no-row-for-height": (r, t) =>
      `the table of the ${lower(placeIn(face, t.machine, r.place))} has no row for ${length(r.heightMetres, t.system)}`,
  },
  problems: { "unknown-unit": noSuchUnit },
  states: { "as-the-table": "as the table says", "wrong-hole": "bracket in the wrong hole", "wrong-facing": "bracket faces the wrong way" },
  figures: { wheelbase: "Between the rollers", "scalps-under": "Scalps crests rounder than" },
  isPlanless: true,
  picture: coming(() => import("../side-view-picture").then(({ SideViewPicture }) => SideViewPicture)),
};
