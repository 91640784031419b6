import type { bladeTiming } from "@/core/checks/blade-timing";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { lower, noSuchBlade, placeIn, sayMarks, show } from "../shared";

type Found = ReturnType<typeof bladeTiming.assess>;

/** What this worksheet says. */
export const face: Face<typeof bladeTiming> = {
  answer: sayTiming,
  actions: {
    retime: (a, t) =>
      `${placeIn(face, t.machine, a.place)}: refit in time, ${Math.ceil(a.from)} to ${Math.floor(a.to)}° apart; mark the shafts first`,
    "look-at-marks": (a, t) =>
      `${placeIn(face, t.machine, a.place)}: ${Math.round(a.offDegrees)}° off square, about a tooth. Refitted a tooth out, or this machine's own? Look at the marks on the shafts`,
  },
  warnings: {
    "not-run-mistimed": () => "Blades that touch when turned by hand are not run.",
  },
  provisional: {
    "not-turned": (r, t) => `${lower(placeIn(face, t.machine, r.place))} not turned by hand`,
    "blade-width-assumed": (r, t) => `the sheet gives no width of the blade: ${show(r.metres, "length", t.system)} assumed (estimate)`,
  },
  problems: {
    "unknown-pair": (i) => `“${i.place}” are no neighbours on this machine.`,
    "unknown-spindle": noSuchBlade,
  },
  states: {
    clear: "clear",
    strikes: "strike each other",
    "too-near": "pass too near",
    "one-tooth": "a tooth out",
  },
  figures: {
    "closest-approach": "Closest approach",
  },
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
  isPlanless: true,
  keptPictures: "timing",
};

function sayTiming(assessment: Found, told: Told): string {
  const { detail, verdict } = assessment;
  if (verdict === "stop" || verdict === "out") return `${sayMarks(face, assessment, told, "")} Do not run it.`;
  const nearest = detail.pairs
    .filter(({ gapMetres }) => gapMetres !== undefined)
    .sort((a, b) => (a.gapMetres ?? 0) - (b.gapMetres ?? 0))[0];
  const tooth = assessment.findings.find(({ code }) => code === "one-tooth");
  if (tooth)
    return `${placeIn(face, told.machine, tooth.place)}: clear, but about a tooth off square. Which is its own? Look at the marks.`;
  if (verdict === "not-enough-readings") return "Turn it by hand through a full turn.";
  return nearest
    ? `In time: ${show(nearest.gapMetres ?? 0, "length", told.system, "fine")} at their closest.`
    : "In time: nothing touches.";
}
