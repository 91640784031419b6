import type { unitLayout } from "@/core/checks/unit-layout";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { capital, length, sayMarks, sayRadius } from "../shared";
import { noSuchUnit, unitIn, unitUnread } from "../unit-words";

type Found = ReturnType<typeof unitLayout.assess>;

/** What this worksheet says. */
export const face: Face<typeof unitLayout> = {
  answer: sayLayout,
  actions: {
    "square-unit": (a, t) =>
      unitIn(
        face,
        t.machine,
        a.place,
        `stands askew, ${a.end} end ${length(a.byMetres, t.system, "tape")} ahead: look at arm, yoke and bushings`,
      ),
    "turn-wider": (a, t) => `Turn no tighter than ${sayRadius(a.underMetres, t.system)}`,
    "solid-ends": (a) => `${capital(a.kind)} ends on the ${a.end} rollers of the ${a.row} units would roll the swath most evenly`,
    "vary-direction": () => "Vary the direction; look again when the dew has gone",
  },
  warnings: {
    "strip-straight": (w, t) => `A strip ${length(w.byMetres, t.system)} wide is missed straight ahead.`,
  },
  provisional: {
    "unit-unread": unitUnread(() => face),
    "lines-not-told": () => "light and dark lines not told",
  },
  problems: { "unknown-unit": noSuchUnit },
  states: {
    square: "square",
    skewed: "stands askew",
    "near-skewed": "nearly askew",
    strip: "miss a strip straight ahead",
    "little-overlap": "share little",
    "rolled-lines": "lie where units overlap",
    "turns-near": "turns nearly too tight",
    "turns-too-tight": "tighter than the units cover",
  },
  figures: { "unit-overlap": "Shared", "opens-at-crab": "A strip opens from a slip of", "opens-in-turns": "A strip opens in turns under" },
  parts: { overlap: "The units", lines: "Light and dark lines", turns: "Turns" },
  isPlanless: true,
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
};

function sayLayout(found: Found, told: Told): string {
  const { right, left } = found.detail;
  const under = Math.max(right?.underMetres ?? 0, left?.underMetres ?? 0);
  const turns = under === 0 ? "Every turn is covered." : `Turns under ${sayRadius(under, told.system)} leave a strip.`;
  return sayMarks(face, found, told, `${found.verdict === "in-tolerance" ? "Units square. " : ""}${turns}`);
}
