import { CHECKS, type CheckRow } from "@/core/catalogue";
import { checkRow, isOffered } from "@/core/checks";
import type { WorkUp } from "@/core/diagnosis";
import { READ_OF_THE_CUT } from "@/core/job/jobs";
import type { SafeState } from "@/core/job/safety";
import { isIn, mayRun } from "@/core/job/status";
import type { JobView } from "@/data/job/job-view";
import type { PanelId } from "./panel-id";
import { panelOf } from "./safe/clearing";

export type ListedStep = {
  panel: PanelId;
  label: string;
  status: "done" | "bad" | "stale" | "open";
  /** Of a check still to make: with what making ready it brings. */
  minutes?: number;
  verdict?: JobView["takes"][number]["verdict"];
};

const rows: readonly CheckRow[] = CHECKS;

export function latestTake(view: JobView, checkId: string): JobView["takes"][number] | undefined {
  return view.takes.filter((take) => take.checkId === checkId).at(-1);
}

/** Whether a check has a worksheet on this machine; any other is written down as a look. */
export function hasSheet(view: Pick<JobView, "worksheets">, checkId: string): boolean {
  return (view.worksheets as readonly string[]).includes(checkId);
}

function statusOf(view: JobView, checkId: string): Pick<ListedStep, "status" | "verdict"> {
  const take = latestTake(view, checkId);
  if (!take) return { status: "open" };
  if (isInDoubt(view, take)) return { status: "stale", verdict: take.verdict };
  const gap = view.proof.gaps.find((one) => "check" in one && one.check === checkId);
  if (take.stale.length > 0 || gap?.code === "not-read-again" || gap?.code === "read-before-cut")
    return { status: "stale", verdict: take.verdict };
  return { status: take.verdict === "in-tolerance" ? "done" : "bad", verdict: take.verdict };
}

/** Whether the fields of a check stand open: never taken, or to be read again. */
export function wantsReading(view: JobView, checkId: string): boolean {
  return statusOf(view, checkId).status === "open" || statusOf(view, checkId).status === "stale";
}

/** So many of the checks still to make are listed; the rest are a touch away. */
const LISTED_AHEAD = 3;

/** Making safe, the checks made or wanted for the proof, the next ones of the list, the fix, the cut, the close. */
export function listSteps(view: JobView, workUp?: WorkUp): ListedStep[] {
  const hasFix = view.steps.some(({ kind, isUndone }) => kind === "fix" && !isUndone);
  const cut = view.proof.cut;
  const wanted = new Set<string>([
    ...view.takes.map(({ checkId }) => checkId),
    ...view.proof.required.map(({ check }) => check),
    ...(view.machineState.struck?.checks ?? []),
  ]);
  const made = rows.filter(({ id }) => wanted.has(id));
  const hasOpenLook = view.machineState.struck?.checks.some((id) => checkRow(id)?.state !== "running") === true;
  const code = view.state === "closed" ? undefined : workUp?.advice.code;
  const isSearching = code === "go-on" || (code === "no-symptom" && view.case.standing === "as-complained");
  const ahead = (isSearching ? (workUp?.plan.checks ?? []) : [])
    .filter(({ id }) => !wanted.has(id) && !(hasOpenLook && checkRow(id)?.state === "running"))
    .slice(0, LISTED_AHEAD);
  return [
    { panel: "safe", label: "Make it safe", status: view.machineState.stands ? "done" : "open" },
    ...made.map((row) => ({ panel: `check:${row.id}` as const, label: row.label, ...statusOf(view, row.id) })),
    ...ahead.map(({ id, label, minutes }) => ({ panel: `check:${id}` as const, label, status: "open" as const, minutes })),
    { panel: "fix", label: "Fix", status: hasFix ? "done" : "open" },
    { panel: "put-back", label: "Put back", status: putBackStatus(view) },
    { panel: "cut", label: "Test cut", status: cut === "proof" ? "done" : cut ? "bad" : "open" },
    { panel: "close", label: "Close", status: view.state === "closed" ? "done" : "open" },
  ];
}

/** One of the seven every job goes through. */
export type Stage = {
  id: "complaint" | "safe" | "find" | "fix" | "put-back" | "cut" | "close";
  label: string;
  panel: PanelId;
  status: ListedStep["status"];
  isHere: boolean;
  isNext: boolean;
  /** Its place in the list of everything, which Alt and a digit opens. */
  order?: number;
};

const COMPLAINT_PANELS: readonly PanelId[] = ["complaint", "phone"];
const FIND_PANELS: readonly PanelId[] = ["links", "bring"];

/** Which stage a panel belongs to; what keeps a machine from running belongs to making safe. */
function stageOf(panel: PanelId): Stage["id"] | undefined {
  if (panel.startsWith("check:") || panel.startsWith("cause:") || FIND_PANELS.includes(panel)) return "find";
  if (COMPLAINT_PANELS.includes(panel)) return "complaint";
  if (panel === "held" || panel === "handover") return undefined;
  if (panel === "deck" || panel === "box" || panel === "blade" || panel === "spindle") return "fix";
  return panel as Stage["id"];
}

/** The stages of a job, with where it stands. */
export function stagesOf(args: { view: JobView; steps: readonly ListedStep[]; panel: PanelId; suggested: PanelId }): Stage[] {
  const { view, steps, panel, suggested } = args;
  const [here, next] = [stageOf(panel), stageOf(suggested)];
  const checks = steps.filter((step) => step.panel.startsWith("check:"));
  const toFind = checks.find((step) => step.panel === suggested) ?? checks.find(({ status }) => status !== "done") ?? checks[0];
  const own = (id: Stage["id"], label: string, open: PanelId, status: ListedStep["status"]): Stage => {
    const order = steps.findIndex((step) => step.panel === open) + 1;
    return { id, label, panel: open, status, isHere: id === here, isNext: id === next, ...(order > 0 ? { order } : {}) };
  };
  const listed = (id: "safe" | "fix" | "cut" | "close", label: string): Stage =>
    own(id, label, id, steps.find((step) => step.panel === id)?.status ?? "open");
  return [
    own("complaint", "Complaint", "complaint", view.complaints.length > 0 ? "done" : "open"),
    listed("safe", "Make it safe"),
    own("find", "Find", toFind?.panel ?? "links", findStatus(view, checks)),
    listed("fix", "Fix"),
    own("put-back", "Put back", "put-back", putBackStage(view)),
    listed("cut", "Test cut"),
    listed("close", "Close"),
  ];
}

/** Nothing to put back is no putting back that was done. */
function putBackStage(view: JobView): ListedStep["status"] {
  const status = putBackStatus(view);
  const isDone = view.steps.some((step) => step.kind === "put-back" && !step.isUndone);
  return status === "done" && !isDone ? "open" : status;
}

/** Found is what a fix or a close followed; until then it is open, and what has to be read again stands out. */
function findStatus(view: JobView, checks: readonly ListedStep[]): ListedStep["status"] {
  if (view.state === "closed") return "done";
  if (checks.some(({ status }) => status === "stale")) return "stale";
  const isMended = view.steps.some((step) => step.kind === "fix" && !step.isUndone);
  return isMended ? "done" : "open";
}

/** Checks that are neither listed nor made: every one the machine can have stays within reach. */
export function otherChecks(view: JobView, listed: readonly ListedStep[]): CheckRow[] {
  return rows.filter((row) => isOffered(row, view.machine.machine) && !listed.some(({ panel }) => panel === `check:${row.id}`));
}

/** Whether the safe state in force allows what needs `state`. */
export function isSafeFor(view: JobView, state: SafeState): boolean {
  return isIn(view.machineState, state);
}

function putBackStatus({ machineState }: JobView): ListedStep["status"] {
  const { toPutBack, unturned, unsafe } = machineState;
  if (unsafe.some(({ kind }) => kind === "touches")) return "bad";
  return toPutBack || unturned.length > 0 ? "open" : "done";
}

/** Whether something was changed after this take: then it no longer calls for a fix but for another reading. */
function fixedSince(view: JobView, seq: number): boolean {
  return view.steps.some((step) => step.kind === "fix" && !step.isUndone && step.seq > seq);
}

/** Whether a second look differed from this reading: it is read again before anything is mended by it. */
export function isInDoubt(view: JobView, { stepId }: { stepId: number }): boolean {
  const looks = view.steps.flatMap((step) =>
    step.kind === "second-look" && !step.isUndone && step.data.takeStepId === stepId ? [step.data] : [],
  );
  return looks.at(-1)?.isStillSo === false;
}

/** The check whose two looks differ. */
function inDoubt(view: JobView): CheckRow | undefined {
  const take = view.takes.find(
    (one) => latestTake(view, one.checkId)?.stepId === one.stepId && isInDoubt(view, one) && !fixedSince(view, one.seq),
  );
  return take && checkRow(take.checkId);
}

/** What is out and not yet mended. */
function outstanding(view: JobView): boolean {
  return view.takes.some(
    ({ stepId, checkId, verdict, seq, stale }) =>
      latestTake(view, checkId)?.stepId === stepId &&
      (verdict === "out" || verdict === "stop") &&
      stale.length === 0 &&
      !fixedSince(view, seq),
  );
}

/** The look after a strike to make next: those that need no run first, and of them what tells most of the complaint. */
function nextLook(view: JobView, workUp?: WorkUp): CheckRow | undefined {
  const told = workUp?.plan.checks.map(({ id }) => id as string) ?? [];
  const place = ({ id }: CheckRow) => (told.includes(id) ? told.indexOf(id) : told.length);
  const rowsOpen = (view.machineState.struck?.checks ?? []).flatMap((id) => checkRow(id) ?? []).sort((a, b) => place(a) - place(b));
  return rowsOpen.find(({ state }) => state !== "running") ?? rowsOpen[0];
}

/** After a mend a reading too close to call is made once more: near the limit, a second one mostly tells. */
const READ_WHEN_CLOSE = 2;

/**
 * A reading that was bad, and something was mended since: what is out is read again, even where the mend itself makes it no staler. So is one that is
 * too close to call, once, before the machine is put back for the cut.
 */
function isBadFromBefore(view: JobView, gap: JobView["proof"]["gaps"][number]): boolean {
  if (gap.code !== "still-out") return false;
  const take = latestTake(view, gap.check);
  if (take === undefined) return false;
  if (fixedSince(view, take.seq)) return true;
  if (!view.steps.some((step) => step.kind === "fix" && !step.isUndone)) return false;
  const sinceMended = view.takes.filter(({ checkId, seq }) => checkId === gap.check && !fixedSince(view, seq)).length;
  return gap.verdict === "watch" && sinceMended < READ_WHEN_CLOSE && !hasCutSince(view, take.seq);
}

/** A cut after it settles what it was read for. */
const hasCutSince = (view: JobView, seq: number): boolean =>
  view.steps.some((step) => step.kind === "test-cut" && !step.isUndone && step.seq > seq);

/** What is read off the turf waits for a cut since the mend: nothing stands on the grass of the mended machine before. */
function isForAfterCut(view: JobView, gap: JobView["proof"]["gaps"][number]): boolean {
  if (!("check" in gap) || !READ_OF_THE_CUT.includes(gap.check)) return false;
  const mended = Math.max(0, ...view.steps.filter((step) => step.kind === "fix" && !step.isUndone).map(({ seq }) => seq));
  return mended > 0 && !hasCutSince(view, mended);
}

/** The check to make next: a look owed after a strike, one the proof wants again, or the first of the list. */
function nextCheck(view: JobView, workUp?: WorkUp): CheckRow | undefined {
  const doubted = inDoubt(view);
  if (doubted) return doubted;
  const look = nextLook(view, workUp);
  if (look) return look;
  const gap = view.proof.gaps.find(
    (one) =>
      !isForAfterCut(view, one) &&
      (one.code === "read-before-cut" ||
        one.code === "not-read-again" ||
        one.code === "stale" ||
        one.code === "provisional" ||
        isBadFromBefore(view, one)),
  );
  if (gap && "check" in gap) return checkRow(gap.check);
  if (view.case.standing === "unknown-until-cut" || view.case.standing === "gone" || workUp?.advice.code === "found") return undefined;
  const first = workUp?.plan.checks[0];
  return first && checkRow(first.id);
}

/** A check, made safe or ready for it first. */
function panelFor(view: JobView, check: CheckRow, who: string | undefined): PanelId {
  if (isSafeFor(view, check.state)) return `check:${check.id}`;
  return check.state === "running" ? readyPanel(view, who) : "safe";
}

/** What stands between the machine and running: the first thing to clear, else making it ready. */
function readyPanel(view: JobView, who: string | undefined): PanelId {
  const { reasons } = mayRun(view.machineState, { to: "cut", who });
  const [first] = reasons;
  // Nothing is put back over the hands of somebody else who is locked on.
  const lock = first?.clears.do === "put-back" ? reasons.find(({ code }) => code === "locked-by") : undefined;
  const next = lock ?? first;
  return next ? panelOf(next.clears) : "safe";
}

const CUT_GAPS: readonly string[] = [
  "no-test-cut",
  "test-cut-older-than-change",
  "test-cut-not-proof",
  "symptom-not-asked",
  "symptom-still-there",
  "blades-not-seen-cutting",
];

/**
 * What to do next: mend what is out, read again what the proof wants, go down the list of checks until the cause is found, mend that, put back,
 * make ready, cut, close; and make safe before any of it that needs a safe state.
 */
export function nextPanel(view: JobView, workUp?: WorkUp, who?: string): PanelId {
  if (view.state === "closed") return "close";
  const fix: PanelId = view.machineState.stands ? "fix" : "safe";
  const doubted = inDoubt(view);
  if (doubted) return panelFor(view, doubted, who);
  if (outstanding(view)) return fix;
  const check = nextCheck(view, workUp);
  if (check) return panelFor(view, check, who);
  const isMended = view.steps.some((step) => step.kind === "fix" && !step.isUndone);
  if (workUp?.advice.code === "found" && !isMended) return fix;
  const isStillThere = view.case.standing === "back-after-cut" || view.case.standing === "still-so";
  if (isStillThere && workUp?.advice.code === "found") return fix;
  if (isMended && view.proof.gaps.some(({ code }) => CUT_GAPS.includes(code))) {
    const isReady = mayRun(view.machineState, { to: "cut", who }).reasons.length === 0;
    return isReady ? "cut" : readyPanel(view, who);
  }
  // What is unsafe on the machine, whoever found it, is in hand before any close.
  return view.machineState.unsafe.length > 0 ? "held" : "close";
}

/** The state the next thing needs, for the safe panel to start from. */
export function stateWanted(view: JobView, workUp?: WorkUp): SafeState {
  const check = nextCheck(view, workUp);
  if (check) return check.state;
  const isMended = view.steps.some((step) => step.kind === "fix" && !step.isUndone);
  return isMended ? "running" : "parked";
}
