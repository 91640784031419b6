import { checkRow, isOffered, WORKSHEETS } from "@/core/checks";
import { CHECKS, type CheckId, type CheckRow, type CheckState } from "@/core/diagnosis";
import { satisfies } from "@/core/safety";
import type { JobView } from "@/data/job-view";

export type PanelId = "safe" | "fix" | "cut" | "close" | `check:${string}`;

export type ListedStep = {
  panel: PanelId;
  label: string;
  status: "done" | "bad" | "stale" | "open";
  verdict?: JobView["takes"][number]["verdict"];
};

const rows: readonly CheckRow[] = CHECKS;

export function latestTake(view: JobView, checkId: string): JobView["takes"][number] | undefined {
  return view.takes.filter((take) => take.checkId === checkId).at(-1);
}

/** Checks of this machine that have a worksheet, in walk-round order. */
export function worksheetChecks(view: JobView): CheckRow[] {
  return WORKSHEETS.flatMap(({ id }) => {
    const row = checkRow(id);
    return row &&
      isOffered(row, view.machine.machine) &&
      WORKSHEETS.some((check) => check.id === id && check.missing(view.machine.machine).length === 0)
      ? [row]
      : [];
  });
}

/** The other checks this machine can have: entered by finding. */
export function lookChecks(view: JobView): CheckRow[] {
  const sheets = new Set(worksheetChecks(view).map(({ id }) => id));
  return rows.filter((row) => isOffered(row, view.machine.machine) && !sheets.has(row.id));
}

function statusOf(view: JobView, checkId: string): Pick<ListedStep, "status" | "verdict"> {
  const take = latestTake(view, checkId);
  if (!take) return { status: "open" };
  const gap = view.proof.gaps.find((one) => "check" in one && one.check === checkId);
  if (take.stale.length > 0 || gap?.code === "not-read-again") return { status: "stale", verdict: take.verdict };
  return { status: take.verdict === "in-tolerance" ? "done" : "bad", verdict: take.verdict };
}

/** Whether the fields of a check stand open: never taken, or to be read again. */
export function wantsReading(view: JobView, checkId: string): boolean {
  return statusOf(view, checkId).status === "open" || statusOf(view, checkId).status === "stale";
}

export function listSteps(view: JobView): ListedStep[] {
  const hasFix = view.steps.some(({ kind, isUndone }) => kind === "fix" && !isUndone);
  const cut = view.proof.cut;
  const looked = view.takes.map(({ checkId }) => checkId);
  const looks = lookChecks(view).filter(
    ({ id }) => looked.includes(id as CheckId) || view.proof.required.some(({ check }) => check === id),
  );
  return [
    { panel: "safe", label: "Make it safe", status: view.safe.inForce ? "done" : "open" },
    ...[...worksheetChecks(view), ...looks].map((row) => ({
      panel: `check:${row.id}` as const,
      label: row.label,
      ...statusOf(view, row.id),
    })),
    { panel: "fix", label: "Fix", status: hasFix ? "done" : "open" },
    { panel: "cut", label: "Test cut", status: cut === "proof" ? "done" : cut ? "bad" : "open" },
    { panel: "close", label: "Close", status: view.state === "closed" ? "done" : "open" },
  ];
}

/** Whether the safe state in force allows what needs `state`. */
export function isSafeFor(view: JobView, state: CheckState): boolean {
  return satisfies(view.safe.inForce?.state, state);
}

/** Whether something was changed after this take: then it no longer calls for a fix but for another reading. */
function fixedSince(view: JobView, at: string): boolean {
  return view.steps.some((step) => step.kind === "fix" && !step.isUndone && step.at > at);
}

function isLatest(view: JobView, checkId: string, at: string): boolean {
  return latestTake(view, checkId)?.at === at;
}

/**
 * What to do next: safe first, then the worksheets in order of dependence, a fix where one is out, the readings the proof still
 * wants, the test cut, and the close.
 */
export function nextPanel(view: JobView): PanelId {
  if (view.state === "closed") return "close";
  const checks = worksheetChecks(view);
  for (const row of checks) {
    const take = latestTake(view, row.id);
    const isBad = take?.verdict === "out" || take?.verdict === "stop";
    if (take && isBad && take.stale.length === 0 && !fixedSince(view, take.at)) return isSafeFor(view, row.state) ? "fix" : "safe";
    const wantsReading =
      !take ||
      take.stale.length > 0 ||
      isBad ||
      view.proof.gaps.some((gap) => "check" in gap && gap.check === row.id && gap.code !== "still-out");
    if (wantsReading) return isSafeFor(view, row.state) ? `check:${row.id}` : "safe";
  }
  const found = view.takes.find(
    ({ checkId, verdict, at }) => isLatest(view, checkId, at) && (verdict === "out" || verdict === "stop") && !fixedSince(view, at),
  );
  if (found) return "fix";
  if (checks.length === 0 && view.takes.length === 0)
    return view.safe.inForce ? `check:${lookChecks(view)[0]?.id ?? "turf-condition"}` : "safe";
  const gap = view.proof.gaps.find((one) => one.code === "not-read-again" || one.code === "stale");
  if (gap && "check" in gap) return isSafeFor(view, checkRow(gap.check)?.state ?? "parked") ? `check:${gap.check}` : "safe";
  if (view.proof.gaps.some(({ code }) => code === "no-test-cut" || code === "test-cut-older-than-change" || code === "test-cut-not-proof"))
    return "cut";
  return "close";
}

/** The state the next thing needs, for the safe panel to start from. */
export function stateWanted(view: JobView): CheckState {
  const waiting = worksheetChecks(view).find((row) => {
    const take = latestTake(view, row.id);
    return !take || take.stale.length > 0 || take.verdict !== "in-tolerance";
  });
  return waiting?.state ?? "parked";
}
