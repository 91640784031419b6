import * as z from "zod";
import { EVENT_IDS, type EventId, type FixRow, fixRow, isByUnit, SPINS_REEL, type SymptomId } from "@/core/catalogue";
import { checkRow, type FitDetail } from "@/core/checks";
import { contradictionIn } from "@/core/diagnosis";
import { complainedOf, isFromBeforeClosing, liveSteps, type Proof, spokenFor, undoable, workOutProof } from "@/core/job/jobs";
import { isLockOut, isSubstantial } from "@/core/job/safety";
import { finishesRebuild } from "@/core/job/sequences/rebuild";
import { isLetGoByWord, mayRun, offBench, type RunReason } from "@/core/job/status";
import { cutters, type Machine } from "@/core/machine";
import { isIncredibleTorque } from "@/core/physics/blades/bolts";
import { requireCauses, requirePlaces } from "@/data/catalogue/known";
import { takeRecord } from "@/data/checks/check-context";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { requireMayRun, requireState, requireSubstance, stateOfMachine } from "@/data/projections/machine-state";
import { type AnyStep, answersIn, listSteps, mendsIn, movesOfMachine, STEP_DATA, type StepData } from "@/data/record/step-data";
import { addStep, getJobRow, openJobRow } from "@/data/record/steps";
import { takesOfJob } from "@/data/record/takes-read";
import { insertEvent, listEvents, requireToldRun } from "@/data/service/events";
import { letGo } from "@/data/service/let-go";
import { addHandedOver, addLetGo, addOwed } from "@/data/service/owed";
import type { Doing } from "@/data/store/audit";
import { dayText } from "@/data/store/days";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { complaintsOfJob, logToldStrike, partAgain, strikeSchema } from "./complaints";
import { owedAtSteps } from "./guided";
import { boxStates } from "./rebuild-moves";

export const newFixSchema = STEP_DATA.fix.extend({ words: z.string().trim().max(1000).default("") });
export const newTestCutSchema = STEP_DATA["test-cut"].extend({ words: z.string().trim().max(500).default("") });
export const newGuessSchema = STEP_DATA.guess;
export const newAnswerSchema = STEP_DATA.answer.partial().extend({ strike: strikeSchema.optional() });
export const newSkipSchema = STEP_DATA.skip.extend({ words: z.string().trim().max(200).default("") });
export const newSecondLookSchema = STEP_DATA["second-look"];
export const newNoteSchema = z.object({ text: z.string().trim().min(1).max(2000) });
export const newHoldSchema = z.object({ reason: z.string().trim().min(1, "say-why").max(500) });
export const newReleaseSchema = z.object({
  /** A reason for each cause, by its key in the machine's state. */
  reasons: z
    .array(z.object({ key: z.string().max(200), reason: z.string().trim().max(500) }))
    .min(1, "say-why")
    .max(40),
});
export const newHandoverSchema = STEP_DATA.handover.extend({
  what: z.string().trim().min(1, "say-what").max(120),
  to: z.string().trim().min(1, "say-who").max(120),
  owes: z.array(z.string().trim().min(1).max(200)).min(1, "say-what-is-owed").max(20),
  dueAt: dayText.optional(),
});
/** A hold is let go by a release with its reasons, never by a line in the log. */
const JOB_EVENTS = EVENT_IDS.filter((id) => id !== "released") as [EventId, ...EventId[]];
export const newJobEventSchema = z.object({
  event: z.enum(JOB_EVENTS),
  place: z.string().max(60).optional(),
  /** Of a run that is told of a machine that might not run: how that was. */
  words: z.string().trim().max(500).optional(),
});
export const newCloseSchema = z.object({
  causes: z.array(z.string()).min(1, "name-a-cause").max(6),
  words: z.string().trim().max(1000).default(""),
  /** Only where proof is missing: why it goes out all the same. */
  unprovedReason: z.string().trim().max(500).optional(),
});
export const newUndoSchema = z.object({ stepId: z.number().int(), reason: z.string().trim().max(200).default("") });

/** A cause that is on nobody's list: said in words, or it is nothing. */
const SOMETHING_ELSE = "something-else";

type ForJob<S extends z.ZodType> = { jobId: number } & z.output<S>;

/** A fix, with the event it leaves on the machine's log. Throws `not-safe`, `job-closed`, `invalid` for a pair the tables do not know. */
export function recordFix(db: Db, doing: Doing, args: ForJob<typeof newFixSchema>): { stepId: number } {
  return once(db, doing, "fix", () => {
    const { jobId, ...data } = args;
    const job = openJobRow(db, jobId);
    const row = fixRow(data);
    if (!row) throw new AppError("invalid", { issues: [{ code: "unknown-fix", path: ["fix"] }] });
    const { machine } = getMachine(db, job.machineId);
    requireCauses(machine, [{ id: data.cause, path: ["cause"] }]);
    requirePlaces(machine, [
      ...(data.pressures ?? []).map(({ wheelId }, index) => ({ id: wheelId, path: ["pressures", index, "wheelId"] })),
      ...(data.turns ?? []).map(({ hangerId }, index) => ({ id: hangerId, path: ["turns", index, "hangerId"] })),
    ]);
    requireState(db, job.machineId, row.state);
    refuseUnits(db, machine, { machineId: job.machineId, row, data });
    refuseTorque(machine, data);
    if (data.cause === SOMETHING_ELSE && data.words === "")
      throw new AppError("invalid", { issues: [{ code: "say-what", path: ["words"] }] });
    const stepId = addStep(db, doing, { jobId, kind: "fix", data });
    const event = {
      machineId: job.machineId,
      event: eventOfFix(row, data),
      stepId,
      data: data.pressures ? { pressures: data.pressures } : {},
    };
    const units = [...new Set(data.units ?? [])];
    // What is done to one unit leaves its sisters' readings standing.
    if (units.length === 0) insertEvent(db, doing, event);
    for (const place of units) insertEvent(db, doing, { ...event, place });
    return { stepId };
  });
}

/** What a fix leaves on the log: of one that is either set or ground, ground only where a tally says what came off. */
const eventOfFix = (row: FixRow, { ground }: Pick<StepData<"fix">, "ground">): EventId =>
  row.fix === "set-parallel" && ground === undefined ? "contact-set" : (row.event as EventId);

/**
 * The units a fix was done on: of this machine, of a fix that is done to one at a time, and on the bench where it is bench work. A tally is of one
 * knife. Throws `invalid`, or `not-safe` for a unit nobody put on the bench.
 */
function refuseUnits(
  db: Db,
  machine: Machine,
  { machineId, row, data }: { machineId: string; row: FixRow; data: Pick<StepData<"fix">, "units" | "ground"> },
): void {
  const { units = [], ground } = data;
  const unknown = units.flatMap((place, index) =>
    machine.units.some(({ id }) => id === place) ? [] : [{ code: "unknown-part", path: ["units", index], place }],
  );
  const issues = [
    ...unknown,
    ...(units.length > 0 && !isByUnit(row.event) ? [{ code: "not-by-unit", path: ["units"] }] : []),
    ...(ground?.reel && !SPINS_REEL.includes(row.fix) ? [{ code: "no-reel-ground", path: ["ground", "reel"] }] : []),
    ...(ground && row.event !== "unit-ground" ? [{ code: "nothing-ground", path: ["ground"] }] : []),
    ...(ground && inFeedsOf(ground) === 0 ? [{ code: "no-in-feed", path: ["ground", "top", "inFeeds"] }] : []),
    ...(ground && machine.units.length > 1 && new Set(units).size !== 1 ? [{ code: "one-knife-a-tally", path: ["units"] }] : []),
  ];
  if (issues.length > 0) throw new AppError("invalid", { issues });
  const off = row.state === "bench" ? offBench(stateOfMachine(db, machineId), units) : [];
  if (off.length > 0) throw new AppError("not-safe", { issues: off.map((place) => ({ code: "not-on-bench", path: ["units"], place })) });
}

/** Of a grind, on whatever was ground: without one the wheel took nothing off. */
const inFeedsOf = ({ top, front, reel }: NonNullable<StepData<"fix">["ground"]>): number =>
  top.inFeeds + front.inFeeds + (reel?.inFeeds ?? 0);

/** "By wrench" needs its figure; one that is no torque for this bolt is a slip; by feel there is none. */
function refuseTorque(machine: Machine, { torqueHow, torqueNewtonMetres }: StepData<"fix">): void {
  const wanted = machine.sheet.bladeBoltTorqueNewtonMetres;
  const path = ["torqueNewtonMetres"];
  const issue =
    torqueHow === "wrench" && torqueNewtonMetres === undefined
      ? { code: "wrench-without-figure", path }
      : torqueHow === "by-feel" && torqueNewtonMetres !== undefined
        ? { code: "torque-without-wrench", path }
        : isIncredibleTorque(torqueNewtonMetres, wanted)
          ? { code: "torque-not-credible", path, wantedNewtonMetres: wanted }
          : undefined;
  if (issue) throw new AppError("invalid", { issues: [issue] });
}

/**
 * A test cut: the machine was run, so the safe state lapses. Throws `not-safe` with every reason why it may not run, `invalid` for blades the
 * machine does not have.
 */
export function recordTestCut(db: Db, doing: Doing, args: ForJob<typeof newTestCutSchema>): { stepId: number } {
  return once(db, doing, "test-cut", () => {
    const { jobId, ...data } = args;
    const job = openJobRow(db, jobId);
    const known = new Set(cutters(getMachine(db, job.machineId).machine).map(({ id }) => id));
    const unknown = (data.seenCutting ?? []).filter((place) => !known.has(place));
    if (unknown.length > 0)
      throw new AppError("invalid", { issues: unknown.map((place) => ({ code: "unknown-spindle", path: ["seenCutting"], place })) });
    requireMayRun(db, job.machineId, { to: "cut", who: doing.who });
    const stepId = addStep(db, doing, { jobId, kind: "test-cut", data });
    insertEvent(db, doing, { machineId: job.machineId, event: "run", stepId });
    return { stepId };
  });
}

export function recordGuess(db: Db, doing: Doing, args: ForJob<typeof newGuessSchema>): { stepId: number } {
  return once(db, doing, "guess", () => {
    const job = openJobRow(db, args.jobId);
    requireCauses(getMachine(db, job.machineId).machine, [{ id: args.cause, path: ["cause"] }]);
    return { stepId: addStep(db, doing, { jobId: args.jobId, kind: "guess", data: { cause: args.cause } }) };
  });
}

/**
 * What was asked and answered after the complaint; a strike told then goes on the machine's log like any. Throws `invalid` when nothing was, or
 * when two answers contradict each other.
 */
export function recordAnswer(db: Db, doing: Doing, args: ForJob<typeof newAnswerSchema>): { stepId: number } {
  return once(db, doing, "answer", () => {
    const job = openJobRow(db, args.jobId);
    const { symptoms = {}, contexts = {}, strike } = args;
    if (Object.keys(symptoms).length + Object.keys(contexts).length === 0)
      throw new AppError("invalid", { issues: [{ code: "say-or-pick", path: ["symptoms"] }] });
    const pair = contradictionIn(Object.entries(contexts).flatMap(([id, isSo]) => (isSo ? [id] : [])));
    if (pair) throw new AppError("invalid", { issues: [{ code: "contradictory-contexts", path: ["contexts"], ids: [...pair] }] });
    const stepId = addStep(db, doing, { jobId: args.jobId, kind: "answer", data: { symptoms, contexts } });
    if (contexts["struck-object"]) logToldStrike(db, doing, { machineId: job.machineId, stepId, strike });
    return { stepId };
  });
}

/** A check left out for now, with the reason; or taken in again. */
export function recordSkip(db: Db, doing: Doing, args: ForJob<typeof newSkipSchema>): { stepId: number } {
  return once(db, doing, "skip", () => {
    const { jobId, ...data } = args;
    openJobRow(db, jobId);
    if (!checkRow(data.checkId)) throw new AppError("check-not-found");
    return { stepId: addStep(db, doing, { jobId, kind: "skip", data }) };
  });
}

/**
 * What a reading of this job found, looked at once more. Throws `changed-since` where that reading counts no more (corrected, taken back, another
 * one since) and `invalid` where it does not speak for the cause; `not-safe` where the machine is not in the state the look needs.
 */
export function recordSecondLook(db: Db, doing: Doing, args: ForJob<typeof newSecondLookSchema>): { stepId: number } {
  return once(db, doing, "second-look", () => {
    const { jobId, ...data } = args;
    const job = openJobRow(db, jobId);
    const takes = takesOfJob(db, jobId);
    const take = takes.find(({ stepId }) => stepId === data.takeStepId);
    if (!take || takes.some(({ checkId, seq }) => checkId === take.checkId && seq > take.seq)) throw new AppError("changed-since");
    if (!spokenFor(take.result.evidence).includes(data.cause))
      throw new AppError("invalid", { issues: [{ code: "unknown-cause", path: ["cause"] }] });
    const state = checkRow(take.checkId)?.state;
    if (state) requireState(db, job.machineId, state);
    return { stepId: addStep(db, doing, { jobId, kind: "second-look", data }) };
  });
}

export function recordNote(db: Db, doing: Doing, args: ForJob<typeof newNoteSchema>): { stepId: number } {
  return once(db, doing, "note", () => {
    openJobRow(db, args.jobId);
    return { stepId: addStep(db, doing, { jobId: args.jobId, kind: "note", data: { text: args.text } }) };
  });
}

/**
 * Something that happened to the machine while it is in this job: run, a tyre let down, a strike. Throws `invalid` at the words of a run that it might
 * not have made.
 */
export function recordJobEvent(db: Db, doing: Doing, args: ForJob<typeof newJobEventSchema>): { stepId: number } {
  return once(db, doing, "event", () => {
    const job = openJobRow(db, args.jobId);
    if (args.event === "run") requireToldRun(db, doing, { machineId: job.machineId, words: args.words });
    const data = { event: args.event as EventId, ...(args.place ? { place: args.place } : {}) };
    const stepId = addStep(db, doing, { jobId: job.id, kind: "event", data });
    const words = args.words ? { words: args.words } : {};
    insertEvent(db, doing, { machineId: job.machineId, event: args.event, place: args.place, stepId, data: words });
    return { stepId };
  });
}

/** Holds the machine by somebody's word, whatever else holds it. */
export function recordHold(db: Db, doing: Doing, args: ForJob<typeof newHoldSchema>): { stepId: number } {
  return once(db, doing, "hold", () => {
    const job = openJobRow(db, args.jobId);
    const stepId = addStep(db, doing, { jobId: job.id, kind: "hold", data: { reason: args.reason } });
    insertEvent(db, doing, { machineId: job.machineId, event: "held-out", stepId });
    return { stepId };
  });
}

/**
 * Lets go of what holds the machine by word, each cause with a reason of substance; what was read stays owed until it is read right. Answers
 * what still keeps it from running. Throws `changed-since` where nothing of it is open, `invalid` at each reason that is none.
 */
export function recordRelease(db: Db, doing: Doing, args: ForJob<typeof newReleaseSchema>): { stepId: number; stillNot: RunReason[] } {
  return once(db, doing, "release", () => {
    const job = openJobRow(db, args.jobId);
    const { unsafe } = stateOfMachine(db, job.machineId);
    const reasons = args.reasons.filter(({ key }) => unsafe.some((cause) => cause.key === key));
    if (reasons.length === 0 || reasons.length < args.reasons.length) throw new AppError("changed-since");
    const wanting = args.reasons.flatMap(({ key, reason }, index) => {
      const cause = unsafe.find((one) => one.key === key);
      // No word holds together what can fly.
      if (cause && !isLetGoByWord(cause)) return [{ code: "not-by-word", path: ["reasons", index, "reason"] }];
      return isSubstantial(reason) ? [] : [{ code: "reason-of-substance", path: ["reasons", index, "reason"] }];
    });
    if (wanting.length > 0) throw new AppError("invalid", { issues: wanting });
    const reason = [...new Set(reasons.map((one) => one.reason))].join("; ").slice(0, 500);
    const stepId = addStep(db, doing, { jobId: job.id, kind: "release", data: { reason, reasons } });
    insertEvent(db, doing, { machineId: job.machineId, event: "released", stepId });
    // What was read stays owed by itself until it is read right; another's word stays owed to who gave it.
    for (const cause of unsafe)
      if (cause.kind === "by-word" && cause.who !== doing.who && reasons.some(({ key }) => key === cause.key)) {
        const gone = [{ key: cause.key, code: "unsafe" as const }];
        addLetGo(db, doing, { machineId: job.machineId, of: cause.who, reason, from: { jobId: job.id, stepId }, gone });
      }
    return { stepId, stillNot: mayRun(stateOfMachine(db, job.machineId), { to: "make-ready", who: doing.who }).reasons };
  });
}

/** A box or part that leaves without its machine: to whom, and what is owed on it. The job stays open. */
export function recordHandover(db: Db, doing: Doing, args: ForJob<typeof newHandoverSchema>): { stepId: number } {
  return once(db, doing, "handover", () => {
    const { jobId, ...data } = args;
    const job = openJobRow(db, jobId);
    requirePlaces(getMachine(db, job.machineId).machine, [{ id: data.place, path: ["place"] }]);
    const stepId = addStep(db, doing, { jobId, kind: "handover", data });
    addHandedOver(db, doing, { job, stepId, ...data });
    return { stepId };
  });
}

/** What is complained of in a job, from every complaint and answer. */
function complainedInJob(db: Db, jobId: number): SymptomId[] {
  const steps = liveSteps(listSteps(db, jobId));
  return complainedOf({
    complaints: complaintsOfJob(db, jobId).map(({ looks }) => looks),
    answers: answersIn(steps),
    mends: mendsIn(steps),
  });
}

/** The proof of a job as its readings, changes and cuts, and the machine's state, have it now. */
export function proofOfJob(db: Db, jobId: number): Proof {
  const job = getJobRow(db, jobId);
  const steps = liveSteps(listSteps(db, jobId));
  const complaints = complaintsOfJob(db, jobId);
  return workOutProof({
    machine: getMachine(db, job.machineId).machine,
    state: stateOfMachine(db, job.machineId),
    complained: complainedInJob(db, jobId),
    hasPlace: complaints.some(({ place }) => place !== ""),
    takes: takesOfJob(db, jobId).map(takeRecord),
    fixes: steps.flatMap((step) =>
      step.kind === "fix" ? [{ id: step.id, fix: step.data.fix, cause: step.data.cause, seq: step.seq, units: step.data.units }] : [],
    ),
    testCuts: steps.flatMap((step) => (step.kind === "test-cut" ? [{ ...step.data, seq: step.seq }] : [])),
    events: listEvents(db, job.machineId, firstSeq(db, jobId)),
    rebuilt: movesOfMachine(db, job.machineId).flatMap((step) =>
      step.kind === "rebuild" && finishesRebuild(step.data) ? [{ box: step.data.box, seq: step.seq }] : [],
    ),
  });
}

/** By cause a job is closed with, where its readings found it and its fixes mended it. */
function placesOfCauses(db: Db, jobId: number, causes: readonly string[]): Record<string, string[]> {
  const findings = takesOfJob(db, jobId).flatMap(({ result }) => result.findings);
  const fixes = liveSteps(listSteps(db, jobId)).flatMap((step) => (step.kind === "fix" ? [step.data] : []));
  return Object.fromEntries(
    causes.flatMap((cause) => {
      const found = findings.filter(({ causes: named = [] }) => named.some((one) => one.cause === cause)).map(({ place }) => place);
      const mended = fixes.filter((fix) => fix.cause === cause).flatMap(({ units = [] }) => units);
      const places = [...new Set([...found, ...mended])];
      return places.length === 0 ? [] : [[cause, places]];
    }),
  );
}

/** Where in the machine's log a job begins. */
export function firstSeq(db: Db, jobId: number): number {
  const row = db.prepare("SELECT min(seq) AS seq FROM steps WHERE job_id = ?").get(jobId) as { seq: number | null };
  return row.seq ?? 0;
}

/** Blades whose bolts were last written down as tightened by feel or left loose: by the worksheet, by a fix, or in putting back. */
function recheckOf(db: Db, jobId: number): string[] {
  const fit = takesOfJob(db, jobId).findLast(({ checkId, ruleVersion }) => checkId === "blade-fit" && ruleVersion > 0);
  const steps = liveSteps(listSteps(db, jobId));
  const byFeel = steps.some(
    (step) =>
      (step.kind === "fix" && step.data.torqueHow === "by-feel" && step.id > (fit?.stepId ?? 0)) ||
      (step.kind === "put-back" && step.data.answers.bolts?.answer === "not-here"),
  );
  const read = fit ? (fit.result.detail as FitDetail).recheck : [];
  return read.length > 0 || !byFeel ? read : ["all"];
}

/**
 * Closes a job with its causes. Proof is worked out here, not taken from the caller; without it the close is refused as `not-proved`
 * with every gap, unless a reason is given, which is then on the record as such, each gap owed. A job whose own reading holds the machine is
 * not closed before that is read right or let go by word, nor with deck or gearbox apart.
 */
export function closeJob(db: Db, doing: Doing, args: ForJob<typeof newCloseSchema>): { stepId: number; isProved: boolean } {
  return once(db, doing, "close", () => {
    const job = openJobRow(db, args.jobId);
    requireCauses(
      getMachine(db, job.machineId).machine,
      args.causes.flatMap((id, index) => (id === "nothing-found" ? [] : [{ id, path: ["causes", index] }])),
    );
    if (args.causes.includes(SOMETHING_ELSE) && args.words === "")
      throw new AppError("invalid", { issues: [{ code: "say-what", path: ["words"] }] });
    const state = stateOfMachine(db, job.machineId);
    const held = state.unsafe.filter(({ jobId }) => jobId === job.id);
    const [apart] = state.apart;
    if (apart?.what === "blade" || apart?.what === "spindle")
      throw new AppError("invalid", { issues: [{ code: "work-open", path: [], place: apart.place }] });
    if (apart?.what === "box") throw new AppError("invalid", { issues: [{ code: "box-still-open", path: [], place: apart.place }] });
    if (apart) throw new AppError("invalid", { issues: [{ code: "deck-still-off", path: [] }] });
    if (held.length > 0) throw new AppError("not-safe", { issues: held.map((cause) => ({ code: "unsafe", path: [], cause })) });
    const proof = proofOfJob(db, job.id);
    if (!proof.isProved && !args.unprovedReason) {
      throw new AppError("not-proved", { issues: proof.gaps.map(({ code, ...gap }) => ({ code, path: [], ...gap })) });
    }
    const { causes, words, unprovedReason } = args;
    const kept = proof.isProved || !unprovedReason ? {} : { unprovedReason };
    const stepId = addStep(db, doing, {
      jobId: job.id,
      kind: "close",
      data: { causes, places: placesOfCauses(db, job.id, causes), words, aftermath: [], isProved: proof.isProved, ...kept },
    });
    const boxes = boxStates(getMachine(db, job.machineId).machine, listSteps(db, job.id));
    addOwed(db, doing, {
      job,
      stepId,
      steps: liveSteps(listSteps(db, job.id)),
      recheck: recheckOf(db, job.id),
      answeredOwed: owedAtSteps(getMachine(db, job.machineId).machine, liveSteps(listSteps(db, job.id))),
      hasLoose: boxes.some(({ loose }) => loose.length > 0),
      hasOpenedBox: boxes.some(({ isTouched }) => isTouched),
      complained: complainedInJob(db, job.id),
      gaps: proof.gaps,
    });
    return { stepId, isProved: proof.isProved };
  });
}

/**
 * Takes back the last step that counts, as a step of its own. Throws `changed-since` when `stepId` is not (or no longer) the last,
 * `hold-stands` for a hold, which falls only with its cause or a release, `not-safe` for another's lock-out, and `invalid` where something that keeps
 * the machine from running goes with it, the step is somebody else's or it was read unsafe or struck, and no reason of substance is given (`letGo`);
 * likewise where the job was closed and reopened since.
 */
export function undoStep(db: Db, doing: Doing, args: ForJob<typeof newUndoSchema>): { stepId: number } {
  return once(db, doing, "undo", () => {
    const job = getJobRow(db, args.jobId);
    const steps = listSteps(db, args.jobId);
    const last = undoable(steps);
    if (!last) throw new AppError("nothing-to-undo");
    if (last.id !== args.stepId) throw new AppError("changed-since");
    if (last.kind === "hold") throw new AppError("hold-stands");
    if (last.kind === "confirmation" && isLockOut(last.data.state) && last.data.outcome === "safe" && last.who !== doing.who)
      throw new AppError("not-safe", {
        issues: [
          { code: "locked-by", path: [], owner: last.who, state: last.data.state, at: last.at, clears: { do: "lift", owner: last.who } },
        ],
      });
    if (isMovedOn(db, job.machineId, last)) throw new AppError("changed-since");
    // Nobody works on a machine that was retired: its jobs stay closed until it is back.
    if (last.kind === "close" && getMachine(db, job.machineId).retired) throw new AppError("machine-retired");
    if (last.kind === "close" && last.data.joined) requireJoinOpen(db, last.data.joined.intoJobId);
    if (isFromBeforeClosing(steps, last)) requireSubstance(args.reason);
    const before = stateOfMachine(db, job.machineId);
    const stepId = addStep(db, doing, { jobId: args.jobId, kind: "undo", data: { reason: args.reason }, undoesId: last.id });
    const from = { jobId: job.id, stepId };
    letGo(db, doing, { machineId: job.machineId, before, of: last.who, reason: args.reason, from });
    if (last.kind === "close" && last.data.joined) partAgain(db, doing, { jobId: job.id, ...last.data.joined });
    return { stepId };
  });
}

/** What was joined and then closed with the other job stays there. */
function requireJoinOpen(db: Db, intoJobId: number): void {
  if (getJobRow(db, intoJobId).state === "closed") throw new AppError("changed-since");
}

/** Whether deck, gearbox, blade or spindle were taken further in another job since: their moves come off in the order they were made. */
function isMovedOn(db: Db, machineId: string, last: AnyStep): boolean {
  if (last.kind !== "deck" && last.kind !== "rebuild" && last.kind !== "guided") return false;
  return movesOfMachine(db, machineId).some((step) => step.kind === last.kind && step.seq > last.seq);
}
