import type { Figure } from "@/core/basics/findings";

/** What a take says of a machine: when it was right for the first time, or how it stands. */
export type Told = { at: string; jobId: number; figures: readonly Figure[] };
export type Drift = {
  figure: Figure;
  at: string;
  jobId: number;
  /** What it read when the check was in tolerance for the first time; absent where it never was. */
  baseline?: { figure: Figure; at: string; jobId: number };
  /** `cannot-tell`: no baseline, or neither the readings' own scatter nor a tolerance to hold the difference against. */
  moved: "moved" | "as-it-was" | "cannot-tell";
};

/** A difference within so many of its standard errors is the gauge's own. Common practice: two. */
const SURE_ERRORS = 2;

/**
 * What lies between two readings of one figure that are not told apart: twice the scatter of their difference where both say theirs, else half the width of
 * the tolerance they are held against. SI, of the figure's own dimension; `undefined` where neither is known.
 */
export function drawnTogether(before: Figure, after: Figure): number | undefined {
  const [a, b] = [before.standardError, after.standardError];
  if (a !== undefined && b !== undefined) return SURE_ERRORS * Math.hypot(a, b);
  const { tolerance } = after;
  if (tolerance?.kind === "about") return tolerance.plusMinus;
  if (tolerance?.least === undefined || tolerance.most === undefined) return undefined;
  return (tolerance.most - tolerance.least) / 2;
}

const isSame = (a: Figure, b: Figure): boolean => a.id === b.id && a.place === b.place && a.dimension === b.dimension;

/** Each judged figure of the last take of a check against the same figure of the take in which the check was right for the first time. */
export function driftOf({ baseline, last }: { baseline?: Told | undefined; last: Told }): Drift[] {
  return last.figures
    .filter(({ tolerance, verdict }) => tolerance !== undefined || verdict !== undefined)
    .map((figure): Drift => {
      const before = baseline?.figures.find((one) => isSame(one, figure));
      const here = { figure, at: last.at, jobId: last.jobId };
      if (!baseline || !before) return { ...here, moved: "cannot-tell" };
      const within = drawnTogether(before, figure);
      const moved = within === undefined ? "cannot-tell" : Math.abs(figure.value - before.value) > within ? "moved" : "as-it-was";
      return { ...here, baseline: { figure: before, at: baseline.at, jobId: baseline.jobId }, moved };
    });
}
