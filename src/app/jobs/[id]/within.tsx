"use client";

import { FIX_LABELS, FIXES, type FixId, type FixRow } from "@/core/catalogue";
import type { WorkUp } from "@/core/diagnosis";
import type { JobView } from "@/data/job/job-view";

const fixRows: readonly FixRow[] = FIXES;

/** The minutes there are: which checks fit, whether the fix does, and what goes out unproved if it leaves now. */
export function Within({ view, workUp, minutesLeft }: { view: JobView; workUp: WorkUp; minutesLeft: number }) {
  const { plan, diagnosis } = workUp;
  const [leader] = diagnosis.causes;
  const fix = leader && [...fixRows].sort((a, b) => a.minutes - b.minutes).find(({ cause }) => cause === leader.id);
  const left = minutesLeft - plan.minutes;
  const checks =
    plan.checks.length === 0
      ? "No check fits."
      : `${plan.checks.length} check${plan.checks.length === 1 ? "" : "s"} fit${plan.checks.length === 1 ? "s" : ""}, ${Math.round(plan.minutes)} min.`;
  const mend = fix
    ? ` ${FIX_LABELS[fix.fix as FixId]} (${fix.minutes} min) ${fix.minutes <= left ? "fits after them" : "does not fit after them"}.`
    : "";
  const gaps = view.proof.gaps.length > 0 ? " If it leaves now it goes out unproved." : "";
  const { unsafe: held, struck } = view.machineState;
  const unsafe = held.length > 0 || struck ? " It is not known to be safe: hold it." : "";
  return (
    <p className="py-1 text-sm leading-snug" role="status">
      {checks}
      {mend}
      {gaps}
      {unsafe && <span className="font-semibold text-mark">{unsafe}</span>}
    </p>
  );
}
