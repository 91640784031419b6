import { table } from "@/core/basics/tables";
import { CHECKS, type CheckId, type ContextId, type SymptomId } from "@/core/catalogue";
import { featuresOf, kindById } from "@/core/catalogue/kinds";
import { worksheetsFor } from "@/core/checks";
import type { WorkUpInput } from "@/core/diagnosis";
import { isWithin } from "@/core/fleet/reliability";
import { caseOfJob, type JobCase, type JobState, liveSteps, type Proof, undoable } from "@/core/job/jobs";
import { type DeckState, deckState } from "@/core/job/sequences/deck-off";
import type { GuidedState } from "@/core/job/sequences/guided";
import { meterAt, overdueContexts, type StaleReason, staleReasons, tickedContexts } from "@/core/job/staleness";
import { type MachineState, mayRun } from "@/core/job/status";
import { type CheckContexts, checkContexts, soundPlacesOf } from "@/data/checks/check-context";
import { lastKept } from "@/data/checks/last-kept";
import { meterReadings } from "@/data/machine/hours";
import { type MachinePhotograph, machinePhotographs } from "@/data/machine/machine-photographs";
import { getMachine, type MachineRecord } from "@/data/machine/machines";
import { type Hazards, hazardsOf } from "@/data/machine/site-places";
import { stateOfMachine } from "@/data/projections/machine-state";
import { type AnyStep, answersIn, listSteps, mendsIn, movesOfMachine } from "@/data/record/step-data";
import { getJobRow } from "@/data/record/steps";
import { everyTakeOfJob, type Take, takesOfJob } from "@/data/record/takes-read";
import { greaseDue } from "@/data/service/due";
import { type EventRecord, listEvents } from "@/data/service/events";
import type { Db } from "@/data/store/db";
import { type Complaint, complaintsOfJob } from "./complaints";
import { deckMoves, type Photograph } from "./deck";
import { guidedStates } from "./guided";
import { proofOfJob } from "./job-actions";
import { type BoxState, boxStates } from "./rebuild-moves";

export type JobView = {
  id: number;
  state: JobState;
  openedAt: string;
  closedAt?: string;
  machine: MachineRecord;
  complaints: Complaint[];
  steps: (AnyStep & { isUndone: boolean })[];
  takes: (Take & { stale: StaleReason[] })[];
  /** Of a closed job: the takes that count no more, since they were corrected or taken back. */
  otherTakes: { stepId: number; result: Take["result"] }[];
  /** How the machine stands, whichever job made it so. */
  machineState: MachineState;
  /** What the record brings to the readings of a check. */
  contexts: CheckContexts;
  /** Checks this machine has a worksheet for, in walk-round order. */
  worksheets: CheckId[];
  proof: Proof;
  undoableStepId?: number;
  /** The job as the diagnosis takes it, without the order of a school; and what its symptoms and its place stand on. */
  case: { input: Omit<WorkUpInput, "order" | "minutesLeft"> } & Pick<JobCase, "standing" | "meaning" | "asked">;
  deck: DeckState;
  /** Gearboxes of a geared deck, as every job leaves them. */
  boxes: BoxState[];
  /** Blades and spindles taken off or served step by step, as every job leaves them. */
  guided: GuidedState[];
  photographs: Photograph[];
  skips: { checkId: CheckId; reason: string; who: string }[];
  /** What lies in wait where the machine mows: told before anybody drives out or mows a test strip. */
  hazards: Hazards;
  /** Other open jobs of this machine: this one may be joined to one of them. */
  openBeside: number[];
  /** Contexts the log ticks in advance, with the event that says so. */
  ticked: { context: ContextId; because: { event: string; at: string } }[];
  /** Pictures of the machine as it is when it is right. */
  kept: MachinePhotograph[];
  /** By check: what of this machine's last readings stays true. */
  lastKept: Partial<Record<CheckId, object>>;
  /** Closed jobs of this machine with the same look, closed within the window in which a fix comes back. */
  cameBack: { jobId: number; closedAt: string }[];
};

/** Everything the job screen shows, read in one go. Throws `job-not-found`. */
export function getJobView(db: Db, jobId: number, now = new Date().toISOString()): JobView {
  const job = getJobRow(db, jobId);
  const machine = getMachine(db, job.machineId);
  const steps = listSteps(db, jobId);
  const live = new Set(liveSteps(steps).map(({ id }) => id));
  const complaints = complaintsOfJob(db, jobId);
  const events = listEvents(db, job.machineId);
  const last = undoable(steps);
  const mends = new Set(steps.flatMap(({ id, kind }) => (kind === "fix" ? [id] : [])));
  const ticked = tickedSinceProof(db, {
    machineId: job.machineId,
    // What was mended in this job came after what is complained of, and did not bring it about.
    events: events.filter(({ stepId }) => stepId === undefined || !mends.has(stepId)),
    openedAt: job.openedAt,
    beforeSeq: steps[0]?.seq ?? 0,
  });
  const takes = takesOfJob(db, jobId).map((take) => ({
    ...take,
    stale: staleReasons({ machine: machine.machine, check: take.checkId, takenSeq: take.seq, events }),
  }));
  const machineState = stateOfMachine(db, job.machineId);
  const ofMachine = movesOfMachine(db, job.machineId);
  return {
    id: job.id,
    state: job.state,
    openedAt: job.openedAt,
    ...(job.closedAt ? { closedAt: job.closedAt } : {}),
    machine,
    complaints,
    steps: steps.map((step) => ({ ...step, isUndone: step.kind !== "undo" && !live.has(step.id) })),
    takes,
    machineState,
    otherTakes:
      job.state === "closed" ? everyTakeOfJob(db, jobId).filter(({ stepId }) => !takes.some((take) => take.stepId === stepId)) : [],
    contexts: checkContexts(db, { machineId: job.machineId, now, jobId }),
    worksheets: worksheetsFor(machine.machine).map(({ id }) => id),
    proof: proofOfJob(db, jobId),
    ...(last ? { undoableStepId: last.id } : {}),
    lastKept: lastKept(db, job.machineId),
    ticked,
    kept: machinePhotographs(db, job.machineId),
    case: caseView({ machine, complaints, steps: liveSteps(steps), ticked, takes, machineState, now }),
    skips: skipsOf(liveSteps(steps)),
    deck: deckState(machine.machine, deckMoves(ofMachine)),
    boxes: boxStates(machine.machine, ofMachine),
    guided: guidedStates(machine.machine, ofMachine),
    photographs: liveSteps(steps).flatMap((step) =>
      step.kind === "photograph" ? [{ stepId: step.id, about: step.data.about, at: step.at, who: step.who }] : [],
    ),
    hazards: hazardsOf(db, machine.site, now),
    openBeside: openBeside(db, { machineId: job.machineId, jobId: job.id }),
    cameBack: cameBack(db, { job, complaints }),
  };
}

function caseView(args: {
  machine: MachineRecord;
  complaints: readonly Complaint[];
  steps: readonly AnyStep[];
  ticked: JobView["ticked"];
  takes: readonly (Take & { stale: StaleReason[] })[];
  machineState: MachineState;
  now: string;
}): JobView["case"] {
  const { machine } = args.machine;
  const { given, standing, meaning, done, asked } = caseOfJob({
    machine,
    complaints: args.complaints.map(({ looks }) => looks),
    answers: answersIn(args.steps),
    ticked: args.ticked.map(({ context }) => context),
    takes: args.takes.map(({ stepId, checkId, seq, result, stale }) => ({
      check: checkId,
      seq,
      evidence: result.evidence,
      isStale: stale.length > 0,
      soundPlaces: soundPlacesOf(result),
      findings: result.findings,
      told: result.told,
      seconds: args.steps.flatMap((step) => (step.kind === "second-look" && step.data.takeStepId === stepId ? [step.data] : [])),
    })),
    mends: mendsIn(args.steps),
    testCuts: args.steps.flatMap((step) => (step.kind === "test-cut" ? [{ ...step.data, seq: step.seq }] : [])),
  });
  const skipped = skipsOf(args.steps).map(({ checkId }) => checkId);
  const { cutsWith } = kindById(machine.kind);
  const input = {
    cutsWith,
    features: [...featuresOf(machine)],
    given: given as WorkUpInput["given"],
    state: plannedState(args.machineState),
    done,
    skipped,
    barred: barredRuns(args.machineState),
    tooSoon: tooSoon(args.complaints, args.now),
  };
  return { input, standing, meaning, asked };
}

const DAYS_SINCE: Readonly<Record<string, number>> = table({ today: 0, yesterday: 1 });
/** A cut browns within two days (common practice). */
const BROWN_AFTER_DAYS = 2;

/** Of a fault so young that nothing can have browned yet nobody is asked about it; a few days on they are. */
function tooSoon(complaints: readonly Complaint[], now: string): SymptomId[] {
  const ages = complaints.flatMap(({ since, at }) => {
    const before = since === undefined ? undefined : DAYS_SINCE[since];
    return before === undefined ? [] : [before + (Date.parse(now) - Date.parse(at)) / 86_400_000];
  });
  return ages.length > 0 && Math.max(...ages) < BROWN_AFTER_DAYS ? ["browning"] : [];
}

/** Checks that run the machine, while it is unsafe or a look after a strike is open that needs no run. */
function barredRuns(state: MachineState): CheckId[] {
  return CHECKS.filter((row) => row.state === "running")
    .map(({ id }) => id)
    .filter((check) => mayRun(state, { to: "check", check }).reasons.some(({ code }) => code === "unsafe" || code === "struck-not-looked"));
}

/** Checks left out and not taken in again, with the reason last given; one made since is no longer left out. */
function skipsOf(steps: readonly AnyStep[]): JobView["skips"] {
  const skips = new Map<string, JobView["skips"][number]>();
  for (const step of steps) {
    if (step.kind === "take") skips.delete(step.data.checkId);
    if (step.kind !== "skip") continue;
    const { checkId, reason } = step.data;
    if (reason === "back") skips.delete(checkId);
    else skips.set(checkId, { checkId: checkId as CheckId, reason, who: step.who });
  }
  return [...skips.values()];
}

/** As the plan of checks reckons with it: at a deck stood up hands get as near as at a raised one. */
function plannedState({ stands }: MachineState): WorkUpInput["state"] {
  return stands === undefined ? "parked" : stands.state === "deck-removed" ? "raised" : stands.state;
}

function openBeside(db: Db, args: { machineId: string; jobId: number }): number[] {
  const rows = db
    .prepare("SELECT id FROM jobs WHERE machine_id = ? AND state <> 'closed' AND id <> ? ORDER BY id")
    .all(args.machineId, args.jobId) as { id: number }[];
  return rows.map(({ id }) => id);
}

/** What the machine's log says changed since its last proved cut. */
export function tickedSinceProof(
  db: Db,
  args: { machineId: string; events: readonly EventRecord[]; openedAt: string; beforeSeq?: number },
): JobView["ticked"] {
  const proved = db
    .prepare(
      `SELECT max(s.seq) AS seq FROM jobs j JOIN steps s ON s.job_id = j.id AND s.kind = 'close'
       WHERE j.machine_id = ? AND j.state = 'closed' AND json_extract(s.data_json, '$.isProved') = 1 AND s.seq < ?
         AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = s.id)`,
    )
    .get(args.machineId, args.beforeSeq ?? Number.MAX_SAFE_INTEGER) as { seq: number | null };
  const since = args.events.filter(({ seq }) => seq > (proved.seq ?? 0));
  const { cutsWith } = kindById(getMachine(db, args.machineId).machine.kind);
  const overdue = overdueContexts({ cutsWith, events: args.events, meter: meterReadings(db, args.machineId) });
  const isGreaseDue = greaseDue(db, args.machineId, args.openedAt).length > 0;
  return [
    ...[...tickedContexts(since), ...overdue].map(({ context, because }) => ({
      context: context as ContextId,
      because: { event: because.event as string, at: because.at },
    })),
    ...(isGreaseDue ? [{ context: "grease-overdue" as const, because: { event: "spindle-log", at: args.openedAt } }] : []),
  ];
}

function cameBack(
  db: Db,
  args: { job: { id: number; machineId: string; openedAt: string }; complaints: readonly Complaint[] },
): JobView["cameBack"] {
  const symptoms = new Set<string>(args.complaints.flatMap(({ looks }) => looks.symptoms));
  const earlier = db
    .prepare(
      "SELECT id, closed_at FROM jobs WHERE machine_id = ? AND state = 'closed' AND closed_at <= ? AND id <> ? ORDER BY closed_at DESC",
    )
    .all(args.job.machineId, args.job.openedAt, args.job.id) as { id: number; closed_at: string }[];
  const meter = meterReadings(db, args.job.machineId);
  const hoursAt = (at: string) => meterAt(meter, at);
  const [openedAt, openedHours] = [args.job.openedAt, hoursAt(args.job.openedAt)];
  // One window for what came back, here and where fixes are counted.
  const isNear = ({ closed_at: closedAt }: { closed_at: string }) => {
    const closedHours = hoursAt(closedAt);
    return isWithin(
      { closedAt, ...(closedHours === undefined ? {} : { closedHours }) },
      { openedAt, ...(openedHours === undefined ? {} : { openedHours }) },
    );
  };
  return earlier
    .filter(isNear)
    .filter(({ id }) => complaintsOfJob(db, id).some(({ looks }) => looks.symptoms.some((symptom) => symptoms.has(symptom))))
    .map(({ id, closed_at }) => ({ jobId: id, closedAt: closed_at }));
}
