import { formatTurns } from "@/core/basics/units";
import type { reelContact } from "@/core/checks/reel-contact";
import { coming } from "../coming";
import type { Face } from "../face";
import { placeIn } from "../shared";
import { noSuchUnit, sayUnits, unitIn, unitUnread } from "../unit-words";
import { states } from "./states";

/** A turn of the adjuster as far as it can be told, else step by step. */
function turnWords(turns: number | undefined): string {
  if (turns === undefined) return "one notch at a time, paper after each";
  const twelfth = Math.round(turns * 12) / 12;
  return twelfth === 0 ? "by less than a twelfth of a turn" : `about ${formatTurns(twelfth)} turn`;
}

const ENDS = { both: "both ends", left: "the left end", right: "the right end" } as const;

/** What this worksheet says. */
export const face: Face<typeof reelContact> = {
  answer: sayUnits(() => face, "Contact right all along.", "Turn the reel by its handle. One strip of paper at left, middle, right."),
  actions: {
    "bring-closer": (a, t) => unitIn(face, t.machine, a.place, `bring ${ENDS[a.end]} closer, ${turnWords(a.turns)}`),
    "back-off": (a, t) => unitIn(face, t.machine, a.place, `back ${ENDS[a.end]} off, ${turnWords(a.turns)}`),
    "set-parallel": (a, t) =>
      unitIn(
        face,
        t.machine,
        a.place,
        `set the knife parallel: ${ENDS[a.end]} closer, ${turnWords(a.turns)}; if it will not stay, measure the reel for a cone`,
      ),
    "grind-knife": (a, t) => unitIn(face, t.machine, a.place, "grind the knife: it is not straight along its edge"),
    "look-at-blade": (a, t) => unitIn(face, t.machine, a.place, `reel blade ${a.blades}: look for a bend or a nick`),
    "lap-or-grind": (a, t) => unitIn(face, t.machine, a.place, "dull: lap or grind it before it is set"),
    "free-reel": (a, t) =>
      unitIn(
        face,
        t.machine,
        a.place,
        "it turns stiff and touches no knife: bearings, grass wound on the shaft, the knife bar. Free it, then read the contact again",
      ),
    "bearing-first": (a, t) =>
      unitIn(face, t.machine, a.place, "reel bearings first: a contact set over a bearing that lifts does not hold"),
  },
  warnings: {
    "bearing-not-known": (w, t) => `${placeIn(face, t.machine, w.place)}: the reel bearings were not looked at. Setting waits for them.`,
    "bearing-lifts": (w, t) => `${placeIn(face, t.machine, w.place)}: with the unit set down this reel drops tighter on to the knife.`,
  },
  provisional: {
    "unit-unread": unitUnread(() => face),
    "bearing-not-known": (r, t) => `reel bearings of the ${placeIn(face, t.machine, r.place).toLowerCase()} not looked at`,
    "usual-school": () => "no way of setting on the sheet: judged as light contact",
  },
  problems: {
    "unknown-unit": noSuchUnit,
    "worse-than-the-worst": (i) =>
      `Blade ${i.blade}, ${i.along}, came out worse than what was given as the worst of all blades. One of both is wrong.`,
    "more-blades-than-reel": (i) => `This reel has ${i.blades} blades. A trial of one more is of another reel.`,
  },
  states,
  figures: { "gap-left": "Gap, left", "gap-middle": "Gap, middle", "gap-right": "Gap, right" },
  isPlanless: true,
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
};
