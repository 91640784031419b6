import type { bladeOverlap } from "@/core/checks/blade-overlap";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { capital, length, lower, noSuchBlade, placeIn, sayRadius, show } from "../shared";

type Found = ReturnType<typeof bladeOverlap.assess>;

/** What this worksheet says. */
export const face: Face<typeof bladeOverlap> = {
  answer: sayOverlap,
  actions: {
    "replace-short-set": () => "Fit a new set: no sharpening brings length back",
    "wider-turns": (a, t) =>
      `Turns of ${sayRadius(a.fromMetres, t.system)} to ${sayRadius(a.toMetres, t.system)} radius leave too little${a.worstMetres < 0 ? `: a strip of up to ${length(-a.worstMetres, t.system)} at ${sayRadius(a.atMetres, t.system)}` : ""}`,
  },
  warnings: {
    "blades-strike": (w, t) => `${placeIn(face, t.machine, w.place ?? "set")}: their circles meet. Nothing is run like this.`,
  },
  provisional: {
    "as-on-the-sheet": (r, t) => `${lower(placeIn(face, t.machine, r.place))} taken as on the sheet`,
  },
  problems: {
    "unknown-spindle": noSuchBlade,
    "blade-longer-than-deck": (i, s) =>
      `Longer than this deck can take: ${length(i.mostMetres, s, "tape")} at most. Another blade, or read it again.`,
  },
  states: {
    overlap: "overlap",
    "blade-clearance": "gap between circles",
    "wear-left": "wear left",
    "near-strip-in-turns": "about to leave a strip in turns that new blades do not",
    "strip-in-turns": "leave a strip in turns that new blades do not",
  },
  figures: {
    overlap: "Overlap",
    "blade-clearance": "Gap between circles",
    "wear-left": "Wear left at each tip",
    "width-of-cut": "Width of cut",
  },
  parts: {
    set: "The set",
    turns: "The blades",
  },
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
  isPlanless: true,
};

function sayOverlap({ detail, figures, verdict }: Found, { machine, system }: Told): string {
  const struck = figures.find(({ id, verdict: found }) => id === "blade-clearance" && found === "stop");
  if (struck) return `Do not run it: ${lower(placeIn(face, machine, struck.place ?? ""))} would strike.`;
  const least = figures.filter(({ id }) => id === "overlap").sort((a, b) => a.value - b.value)[0];
  if (!least) return "One blade has no neighbour.";
  const between = lower(placeIn(face, machine, least.place ?? ""));
  if (least.value < 0) return `A strip ${show(-least.value, "length", system, "fine")} wide stays between ${between}.`;
  if (verdict === "out") return `Only ${show(least.value, "length", system, "fine")} shared between ${between}: too little.`;
  const wear = `${show(detail.wearLeftMetres, "length", system, "fine")} of wear left at each tip`;
  return `Blades share ${show(least.value, "length", system, "fine")}. ${capital(wear)}.`;
}
