import { fitPlane, type HeightAt, type Plane, planeHeight } from "@/core/basics/geometry";
import { instrument } from "@/core/basics/instruments";

/** Repeatability of one tip reading, metres (estimate). */
export const READING_REPEATABILITY_METRES = instrument("height-gauge").uncertainty;
/** Weight of that estimate, in readings, beside the residuals. */
export const REPEATABILITY_WEIGHT = 8;

export type DeckPlane = {
  plane: Plane;
  /** Standard deviation of one reading, from repeatability and residuals together. */
  readingDeviation: number;
  /** (AᵀA)⁻¹ for height, right slope, forward slope. */
  inverseNormal: number[][];
  residuals: number[];
};

export type DeckPlaneResult = { kind: "fitted"; deck: DeckPlane } | { kind: "refused"; issue: DeckIssue };

export type DeckIssue = { code: "too-few-readings"; needed: number; given: number } | { code: "collinear-readings" };

/**
 * The plane of the blade tips from 3 to 24 heights, by least squares (physics), with
 * σ² = (8·σ₀² + RSS)/(8 + n − p). Metres. Too few and collinear readings are refused as such.
 */
export function fitDeckPlane(heights: readonly HeightAt[], repeatability = READING_REPEATABILITY_METRES): DeckPlaneResult {
  const fitted = fitPlane(heights);
  if (fitted.kind === "refused") return fitted;
  const { plane, fit } = fitted.planeFit;
  const freedom = heights.length - 3;
  const variance = (REPEATABILITY_WEIGHT * repeatability ** 2 + fit.residualSumOfSquares) / (REPEATABILITY_WEIGHT + freedom);
  return {
    kind: "fitted",
    deck: { plane, readingDeviation: Math.sqrt(variance), inverseNormal: fit.inverseNormal, residuals: fit.residuals },
  };
}

export type Slope = { value: number; standardError: number };

/** Side: right minus left over `widthMetres` (between the outer tips); positive: right higher. */
export function sideOf(deck: DeckPlane, widthMetres: number): Slope {
  const error = deck.readingDeviation * Math.sqrt(deck.inverseNormal[1]?.[1] ?? 0) * widthMetres;
  return { value: deck.plane.slopeRight * widthMetres, standardError: error };
}

/** Rake: front minus rear over one tip circle; positive: front higher. */
export function rakeOf(deck: DeckPlane, tipCircleMetres: number): Slope {
  const error = deck.readingDeviation * Math.sqrt(deck.inverseNormal[2]?.[2] ?? 0) * tipCircleMetres;
  return { value: deck.plane.slopeForward * tipCircleMetres, standardError: error };
}

/** Height the cut comes out at under a blade's centre: its tips' plane there, less half the rake (physics). */
export function cutHeightAtCentre(args: { plane: Plane; x: number; y: number; tipCircleMetres: number }): number {
  return planeHeight(args.plane, args) - Math.abs(args.plane.slopeForward * args.tipCircleMetres) / 2;
}
