import type { passOverlap } from "@/core/checks/pass-overlap";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { OPERATION_APART, sayRadius, show } from "../shared";

type Found = ReturnType<typeof passOverlap.assess>;

/** What this worksheet says. */
export const face: Face<typeof passOverlap> = {
  answer: sayPasses,
  actions: {
    "closer-passes": (a, t) => `Steer passes ${show(a.spacingMetres, "distance", t.system)} apart`,
    "wider-passes": (a, t) => `Passes ${show(a.spacingMetres, "distance", t.system)} apart are enough: the rest is time`,
    "mark-the-edge": () => "Mark on the machine where the cut really ends: it is neither deck nor tyre",
    "turn-wider": (a, t) => `Turn wider than ${sayRadius(a.radiusMetres, t.system)} with the blades cutting`,
  },
  warnings: {
    "operating-finding": () => OPERATION_APART,
  },
  provisional: {
    "one-pass": () => "one pass only",
  },
  problems: {
    "spacing-cannot-be": (i, s) =>
      `That is ${show(i.spacingMetres, "length", s, "tape")} from join to join, and the cut is ${show(i.widthMetres, "length", s, "tape")} wide. Count the passes again, or measure again.`,
  },
  states: {
    "passes-share": "passes share",
    "turn-strip": "strip in turns",
    "turn-near-strip": "little shared in turns",
    "turn-clear": "turns clear",
  },
  figures: {
    "pass-overlap": "Passes share",
    "width-of-cut": "Width of cut",
  },
  parts: {
    passes: "Passes",
    turns: "Turns",
  },
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
};

function sayPasses({ detail, actions, verdict }: Found, { system }: Told): string {
  const tight = actions.some(({ code }) => code === "turn-wider") ? " The turn is too tight: a strip stays." : "";
  if (detail.overlapMetres === undefined) return tight ? tight.trim() : "Measure from join to join.";
  const size = show(Math.abs(detail.overlapMetres), "length", system, "tape");
  const passes =
    detail.overlapMetres < 0
      ? `A line ${size} wide stays between passes.`
      : `Passes share ${size}${verdict === "out" && !tight ? (actions.some(({ code }) => code === "closer-passes") ? ": too little" : ": more than it needs") : ""}.`;
  const area = detail.hectaresPerHour;
  const said =
    area === undefined ? "" : ` ${system === "us" ? `${(area * 2.4710538).toFixed(1)} acres` : `${area.toFixed(1)} ha`} an hour.`;
  return `${passes}${tight}${said}`;
}
