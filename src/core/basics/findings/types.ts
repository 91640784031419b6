import type { Dimension, Instrument } from "@/core/basics/units";

export const VERDICTS = ["in-tolerance", "watch", "out", "stop", "not-enough-readings"] as const;
export type Verdict = (typeof VERDICTS)[number];

/** Whose word a value or a tolerance is. */
export const STANDINGS = ["sheet", "measured", "common-practice", "published-from-memory", "physics", "estimate", "say-so"] as const;
export type Standing = (typeof STANDINGS)[number];

/** SI; `kind: "about"` is target ± plusMinus, `"between"` has one limit or both. */
export type Tolerance =
  | { kind: "about"; target: number; plusMinus: number; standing: Standing; source?: string }
  | { kind: "between"; least?: number; most?: number; standing: Standing; source?: string };

export type Figure = {
  id: string;
  /** What it belongs to: a wheel, a tip, a hanger. */
  place?: string;
  value: number;
  dimension: Dimension | "slope" | "count";
  instrument: Instrument;
  standardError?: number;
  /** Degrees of freedom of that error; without them it is taken for known. */
  degrees?: number;
  tolerance?: Tolerance;
  verdict?: Verdict;
  standing: Standing;
};

/** What a result says about causes, in the form `diagnose` takes. */
export type Evidence =
  | { cause: string; likelihoodRatio: number }
  | { check: string; cause: string; result: "seen" | "suspect" | "not-found" | "unclear" }
  | { check: string; causes: string[]; result: "suspect" };

/** What a finding says of a cause: it is there for all to see, or only likely. */
export type FoundCause = { cause: string; result: "seen" | "suspect" };

/**
 * One thing found at one place; a place has as many as there are. `on`: where the same place is read in two ways that do not clear each
 * other (worked out on paper, measured).
 */
export type Finding = { place: string; on?: string; code: string; verdict: Verdict; causes?: readonly FoundCause[] };

const RANK: Record<Verdict, number> = { "in-tolerance": 0, watch: 1, "not-enough-readings": 2, out: 3, stop: 4 };

/** The gravest of several verdicts; none at all is `not-enough-readings`. */
export function gravest(verdicts: readonly Verdict[]): Verdict {
  if (verdicts.length === 0) return "not-enough-readings";
  return verdicts.reduce((worst, verdict) => (RANK[verdict] > RANK[worst] ? verdict : worst));
}

/**
 * In, out or between: with a standard error, in if |d| ≤ tolerance − SE and out if |d| ≥ tolerance + SE; without one, watch past
 * two thirds of the tolerance. `deviation` and `tolerance` in one unit, `deviation` signed or not.
 */
export function judgeDeviation(args: { deviation: number; tolerance: number; standardError?: number }): Verdict {
  const size = Math.abs(args.deviation);
  if (args.standardError !== undefined) {
    if (size <= args.tolerance - args.standardError) return "in-tolerance";
    return size >= args.tolerance + args.standardError ? "out" : "watch";
  }
  if (size > args.tolerance * (1 + ROUNDING)) return "out";
  return size > (args.tolerance * 2) / 3 ? "watch" : "in-tolerance";
}

/** A reading that lies on the limit as typed must not be out by the last bit of a conversion. */
const ROUNDING = 1e-9;
