import { CAUSES, type CauseRow } from "@/core/catalogue";
import { featuresOf, kindById, meetsNeed } from "@/core/catalogue/kinds";
import { spokenFor } from "@/core/job/jobs";
import type { JobView } from "@/data/job/job-view";

const causeRows: readonly CauseRow[] = CAUSES;

/** Causes that readings of this job speak for, the ones still out first. */
export function suspectedCauses(view: JobView): string[] {
  const all = view.takes.filter(({ stale }) => stale.length === 0).flatMap(({ result }) => result.evidence);
  // Read sound where it is looked at by itself, a cause is not said to be so by a figure that only names it among others.
  const isRuledOut = (cause: string) =>
    all.some((one) => "cause" in one && one.cause === cause && "result" in one && one.result === "not-found") &&
    !all.some((one) => "cause" in one && one.cause === cause && "result" in one && (one.result === "seen" || one.result === "suspect"));
  const named = view.takes
    .filter(({ verdict }) => verdict === "out" || verdict === "stop" || verdict === "watch")
    .flatMap(({ result }) => spokenFor(result.evidence));
  return [...new Set(named)].filter((cause) => !isRuledOut(cause));
}

export function causesOffered(view: JobView): CauseRow[] {
  const { machine } = view.machine;
  return causeRows.filter((cause) => cause.on.includes(kindById(machine.kind).cutsWith) && meetsNeed(featuresOf(machine), cause.needs));
}
