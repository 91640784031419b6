"use client";

import { FIX_LABELS, type FixId } from "@/core/catalogue";
import type { JobView } from "@/data/job/job-view";
import { labelOfCheck } from "@/ui/words/diagnosis";

/** A cure is credited only to what lies between the bad reading and the good one. */
export function Credit({ view }: { view: JobView }) {
  const fixes = view.steps.flatMap((step) =>
    step.kind === "fix" && !step.isUndone ? [{ id: step.id, label: FIX_LABELS[step.data.fix as FixId] }] : [],
  );
  return (
    <ul className="mt-1 text-sm">
      {view.proof.required
        .filter(({ changedBetween }) => changedBetween.length > 0)
        .map(({ check, changedBetween }) => (
          <li key={check}>
            {labelOfCheck(check)} in order after {changedBetween.length > 1 ? `one of these ${changedBetween.length}: ` : ""}
            {changedBetween.map((id) => fixes.find((fix) => fix.id === id)?.label.toLowerCase()).join("; ")}.
          </li>
        ))}
    </ul>
  );
}
