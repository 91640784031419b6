import type { Evidence, Figure, Finding, Verdict } from "@/core/basics/findings";
import type { Assessment, Mark } from "./types";
import { overall } from "./verdicts";

/** Gravest first: who shows one thing of a place shows the worst of it. */
const GRAVITY: readonly Verdict[] = ["stop", "out", "not-enough-readings", "watch", "in-tolerance"];
const gravityOf = (verdict: Verdict): number => GRAVITY.indexOf(verdict);

/** For the drawing: every finding, place by place as they come, the gravest of a place first. */
export function marksOf(findings: readonly Finding[]): Mark[] {
  const places = [...new Set(findings.map(({ place }) => place))];
  return places.flatMap((place) =>
    findings
      .filter((one) => one.place === place)
      .sort((a, b) => gravityOf(a.verdict) - gravityOf(b.verdict))
      .map(({ verdict, code }) => ({ place, verdict, code })),
  );
}

/**
 * What findings say of causes: one that any finding shows is seen; one only suspected is suspected; one that nothing shows is not there, but
 * only where `clears` says that all that could show it was read. In the order of `clears`, then as found.
 */
export function evidenceOf(args: { check: string; findings: readonly Finding[]; clears: Readonly<Record<string, boolean>> }): Evidence[] {
  const { check, findings, clears } = args;
  const told = findings.flatMap(({ causes = [] }) => causes);
  const causes = [...new Set([...Object.keys(clears), ...told.map(({ cause }) => cause)])];
  return causes.flatMap((cause): Evidence[] => {
    const own = told.filter((one) => one.cause === cause);
    if (own.some(({ result }) => result === "seen")) return [{ check, cause, result: "seen" }];
    if (own.length > 0) return [{ check, cause, result: "suspect" }];
    return clears[cause] ? [{ check, cause, result: "not-found" }] : [];
  });
}

/** Of a figure at a place that was judged: its own finding. */
export function findingsOf(figures: readonly Figure[], whole = "machine"): Finding[] {
  return figures.flatMap(({ id, place = whole, verdict }) => (verdict ? [{ place, code: id, verdict }] : []));
}

/**
 * Verdict, marks and evidence of a check, all from its findings, in this one place. `figures`: judged ones that are no finding of their own.
 * `told`: places read in full, which alone can clear what was found there before; `isComplete`: whether that is all of them. `evidence`
 * replaces what the findings say of causes, for a check whose figures are weighed against each other.
 */
export function settled(args: {
  check: string;
  findings: readonly Finding[];
  figures?: readonly Figure[];
  clears?: Readonly<Record<string, boolean>>;
  evidence?: Evidence[];
  told: readonly string[];
  isComplete: boolean;
}): Pick<Assessment, "verdict" | "findings" | "marks" | "evidence" | "told"> {
  const { check, findings, figures = [], clears = {}, told, isComplete } = args;
  const verdicts = [...findings.map(({ verdict }) => verdict), ...figures.flatMap(({ verdict }) => (verdict ? [verdict] : []))];
  return {
    verdict: overall(verdicts, isComplete),
    findings: [...findings],
    marks: marksOf(findings),
    evidence: args.evidence ?? evidenceOf({ check, findings, clears }),
    told: [...told],
  };
}

/** Shorthand for a finding that shows a cause for certain, or only points at it. */
export const shows = (...causes: readonly string[]): NonNullable<Finding["causes"]> =>
  causes.map((cause) => ({ cause, result: "seen" as const }));
export const pointsAt = (...causes: readonly string[]): NonNullable<Finding["causes"]> =>
  causes.map((cause) => ({ cause, result: "suspect" as const }));

/** Twice its tolerance off, a size is past what a gauge and a hand stray by. Estimate: a ratio of some 500 by the measured figure's own curve. */
const SURE_TOLERANCES = 2;
export const isPastGauge = (deviation: number, tolerance: number): boolean =>
  Math.abs(deviation) >= SURE_TOLERANCES * tolerance * (1 - 1e-9);

/** Of a size that is off: shown where no gauge would stray so far, else only pointed at. */
export const bySize = (deviation: number, tolerance: number, ...causes: readonly string[]): NonNullable<Finding["causes"]> =>
  isPastGauge(deviation, tolerance) ? shows(...causes) : pointsAt(...causes);
