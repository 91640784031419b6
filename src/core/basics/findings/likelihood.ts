import { logNormalCdf, logNormalDensity } from "./normal";

/** Half-normal scale of how far past the limit a real fault stands, in tolerances. Estimate. */
export const FAULT_SCALE = 2.5;
/** Spread of sound machines inside the tolerance, as a variance in tolerances squared. Estimate. */
export const SOUND_VARIANCE = 0.25;
/** No single figure speaks louder than this, either way. Estimate. */
export const LEAST_RATIO = 1 / 50;
export const MOST_RATIO = 1000;

/**
 * Likelihood ratio (faulty against sound) of a measured figure, clamped to 1/50 … 1000. Estimate:
 * sound z ~ N(0, s²), faulty |true z| = 1 + half-normal(2.5) with the same noise, s² = 0.25 + (u/tolerance)².
 *
 * `deviation` is signed, in the unit of `tolerance`; `standardUncertainty` likewise. One-sided: only positive deviations are faults.
 * Reckoned in logarithms. @example deviation at 1.25 tolerances with no uncertainty: 3.06.
 */
export function measuredLikelihoodRatio(args: {
  deviation: number;
  tolerance: number;
  standardUncertainty: number;
  sides: "two" | "one";
}): number {
  const z = args.deviation / args.tolerance;
  const s = Math.sqrt(SOUND_VARIANCE + (args.standardUncertainty / args.tolerance) ** 2);
  const wide = Math.hypot(s, FAULT_SCALE);
  const logFault = (y: number) => Math.log(2 / wide) + logNormalDensity(y / wide) + logNormalCdf((FAULT_SCALE * y) / (s * wide));
  const logSound = logNormalDensity(z / s) - Math.log(s);
  const logRatio =
    args.sides === "two"
      ? logSum(logFault(Math.abs(z) - 1), logFault(-Math.abs(z) - 1)) - Math.log(2) - logSound
      : logFault(z - 1) - logSound;
  return Math.min(MOST_RATIO, Math.max(LEAST_RATIO, Math.exp(logRatio)));
}

function logSum(a: number, b: number): number {
  const top = Math.max(a, b);
  return top + Math.log(Math.exp(a - top) + Math.exp(b - top));
}
