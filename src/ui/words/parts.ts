import { table } from "@/core/basics/tables";
import type { UnitSystem } from "@/core/basics/units";
import type { Fit, FitReason, PartKind } from "@/core/fleet/parts";
import { showSize } from "./quantities";

export const PART_WORDS: Record<PartKind, string> = {
  blade: "Blade",
  bedknife: "Bedknife",
  reel: "Reel",
  belt: "Belt",
  roller: "Roller",
  bolt: "Bolt",
  bearing: "Bearing",
  other: "Other",
};

export const FIT_WORDS: Record<Fit["verdict"], string> = { fits: "Fits", "does-not-fit": "Does not fit", "cannot-tell": "Cannot tell" };

const SIZE_WORDS: Record<string, string> = table({
  lengthMetres: "length",
  hole: "centre hole",
  holeMetres: "size of the hole",
  secondMetres: "flats or pins",
  thicknessMetres: "thickness",
  widthMetres: "width",
  offsetMetres: "offset",
  lift: "lift",
  turns: "way it turns",
  diameterMetres: "diameter",
  blades: "number of blades",
  toHeightMetres: "heights it is made for",
  roller: "kind of roller",
  grade: "grade",
  thread: "thread",
  size: "sizes",
});

/** Why a part does not go on, as it is said at the shelf. */
export function sayReason(reason: FitReason, system: UnitSystem): string {
  const by = "byMetres" in reason ? showSize(reason.byMetres, system) : "";
  switch (reason.code) {
    case "strikes":
      return `would strike its neighbour by ${by}`;
    case "longer":
      return `${by} too long`;
    case "shorter":
    case "worn-shorter":
      return `${by} too short: leaves a strip`;
    case "other-hole":
      return "another centre hole: it is not centred";
    case "hole-too-wide":
      return `hole ${by} too wide: it is not centred`;
    case "hole-too-narrow":
      return `hole ${by} too narrow: it does not go on`;
    case "other-second":
      return `flats or pins ${by} off: it does not go on`;
    case "other-offset":
      return `edge ${by} ${reason.byMetres > 0 ? "lower" : "higher"} on its hub: cuts at another height`;
    case "other-thickness":
      return `${by} ${reason.byMetres > 0 ? "thicker" : "thinner"}: clamps elsewhere`;
    case "narrower":
      return `${by} narrower`;
    case "mulching-with-catcher":
    case "low-lift-with-bag":
      return "its lift does not fill a bag";
    case "high-lift-on-mulching":
      return "a high lift on a mulching deck blows and wears";
    case "other-lift":
      return "another lift: moves other air";
    case "turns-the-other-way":
      return "made to turn the other way: it would cut with its back";
    case "other-length":
      return `${by} ${reason.byMetres > 0 ? "longer" : "shorter"}`;
    case "other-width":
      return `${by} ${reason.byMetres > 0 ? "wider" : "narrower"} than the unit`;
    case "other-diameter":
      return `diameter ${by} ${reason.byMetres > 0 ? "more" : "less"}`;
    case "other-blades":
      return `${reason.found} blades, ${reason.wanted} wanted`;
    case "not-for-this-height":
      return "made for lower heights of cut";
    case "other-roller":
      return "another kind of roller";
    case "other-grade":
      return reason.way === "weaker" ? "a weaker grade: it can fail" : "a harder grade: no upgrade, it can break";
    case "other-thread":
      return "the other hand of thread";
  }
}

/** A fit in one sentence: where, if not everywhere, and what was not compared. */
export function sayFit(fit: Fit, system: UnitSystem): string {
  const said = sayFitThere(fit, system);
  return fit.places ? `on ${fit.places.map((label) => label.toLowerCase()).join(", ")} only: ${said}` : said;
}

function sayFitThere(fit: Fit, system: UnitSystem): string {
  if (fit.reasons.length > 0) return `${fit.reasons.map((reason) => sayReason(reason, system)).join("; ")}.`;
  if (fit.verdict === "fits") return "agrees in every dimension.";
  const names = (keys: readonly string[]) => keys.map((key) => SIZE_WORDS[key] ?? key).join(", ");
  return [
    ...(fit.untold.length > 0 ? [`not measured on the part: ${names(fit.untold)}`] : []),
    ...(fit.unsaid.length > 0 ? [`not on the machine's sheet: ${names(fit.unsaid)}`] : []),
  ]
    .join("; ")
    .concat(".");
}

/** A sign stands before the figure, letters after it. */
export function money(value: number, currency: string): string {
  const figure = value.toFixed(2);
  if (currency === "") return figure;
  return /^\p{L}/u.test(currency) ? `${figure} ${currency}` : `${currency}${figure}`;
}
