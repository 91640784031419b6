import { studentT } from "@/core/basics/findings";
import { scaleUncertainty } from "@/core/basics/instruments";

/** How far the offset of one machine strays from turf to turf, and from visit to visit. Estimates. */
export const OFFSET_SPREAD = {
  rotary: { betweenMetres: 0.003, withinMetres: 0.001 },
  reel: { betweenMetres: 0.0005, withinMetres: 0.0001 },
} as const;
/** Older visits fade by this: turf changes with the season. Estimate. */
const FADE_DAYS = 90;
/** Fewer readings than this say little about a swath (common practice: ten or more). */
export const WANTED_READINGS = 10;

export type Stubble = {
  count: number;
  meanMetres: number;
  spreadMetres: number /** Half the width of the 95 % confidence interval of the mean. */;
  plusMinusMetres: number;
};

/**
 * Mean, spread (n − 1) and confidence of stubble heights; needs two or more. `resolutionMetres`: what they were read to. Readings that happen
 * to be equal spread by the scale's own share at least (physics: a uniform reading), so that they are never sure to nought.
 */
export function stubbleOf(heightsMetres: readonly number[], resolutionMetres = 0): Stubble | undefined {
  const count = heightsMetres.length;
  if (count < 2) return undefined;
  const meanMetres = heightsMetres.reduce((sum, height) => sum + height, 0) / count;
  const variance = heightsMetres.reduce((sum, height) => sum + (height - meanMetres) ** 2, 0) / (count - 1);
  const spreadMetres = Math.max(Math.sqrt(variance), scaleUncertainty(resolutionMetres));
  return { count, meanMetres, spreadMetres, plusMinusMetres: (studentT(count - 1) * spreadMetres) / Math.sqrt(count) };
}

/** One visit's offset (effective minus setting) with the spread and number of its readings, and how long ago it was. */
export type OffsetVisit = { offsetMetres: number; spreadMetres: number; count: number; ageDays?: number };

export type LearntOffset = {
  offsetMetres: number;
  /** Of the next visit's offset, one standard deviation. */
  plusMinusMetres: number;
  visits: number;
};

/**
 * The offset of a machine on a turf, learnt from its visits: offset ~ N(0, τ²), visit j with weight 1/(ω² + s²/n), faded by e^(−age/90 d);
 * m = Σw·y/(1/τ² + Σw), v = 1/(1/τ² + Σw), ± √(v + ω²) (estimate). Without a visit: 0 ± √(τ² + ω²).
 */
export function learnOffset(visits: readonly OffsetVisit[], cutsWith: "rotary" | "reel"): LearntOffset {
  const { betweenMetres, withinMetres } = OFFSET_SPREAD[cutsWith];
  const weighed = visits.map(({ offsetMetres, spreadMetres, count, ageDays = 0 }) => ({
    offsetMetres,
    weight: Math.exp(-ageDays / FADE_DAYS) / (withinMetres ** 2 + spreadMetres ** 2 / count),
  }));
  const total = weighed.reduce((sum, { weight }) => sum + weight, 1 / betweenMetres ** 2);
  return {
    offsetMetres: weighed.reduce((sum, { offsetMetres, weight }) => sum + weight * offsetMetres, 0) / total,
    plusMinusMetres: Math.sqrt(1 / total + withinMetres ** 2),
    visits: visits.length,
  };
}

/** The setting that should give a wanted height, with its uncertainty. */
export function settingFor(wantedMetres: number, learnt: LearntOffset): { settingMetres: number; plusMinusMetres: number } {
  return { settingMetres: wantedMetres - learnt.offsetMetres, plusMinusMetres: learnt.plusMinusMetres };
}
