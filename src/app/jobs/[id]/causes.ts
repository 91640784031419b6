import { featuresOf, kindById, meetsNeed } from "@/core/kinds";
import { CAUSES, type CauseRow } from "@/core/trade";
import type { JobView } from "@/data/job-view";

const causeRows: readonly CauseRow[] = CAUSES;

/** Causes that readings of this job speak for, the ones still out first. */
export function suspectedCauses(view: JobView): string[] {
  const named = view.takes
    .filter(({ verdict }) => verdict === "out" || verdict === "stop" || verdict === "watch")
    .flatMap(({ result }) =>
      result.evidence.flatMap((one) => {
        if ("likelihoodRatio" in one) return one.likelihoodRatio > 1 ? [one.cause] : [];
        if (one.result !== "seen" && one.result !== "suspect") return [];
        return "causes" in one ? one.causes : [one.cause];
      }),
    );
  return [...new Set(named)];
}

export function causesOffered(view: JobView): CauseRow[] {
  const { machine } = view.machine;
  return causeRows.filter((cause) => cause.on.includes(kindById(machine.kind).cutsWith) && meetsNeed(featuresOf(machine), cause.needs));
}
