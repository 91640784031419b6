import * as z from "zod";
import { checkRow, type FitDetail } from "@/core/checks";
import { CAUSES, contradictionIn, EVENT_IDS, type EventId, FIXES, type FixRow } from "@/core/diagnosis";
import { staleReasons } from "@/core/events";
import { AFTERMATH_IDS, aftermathOf, deckOffs, liveSteps, type Proof, undoable, workOutProof } from "@/core/jobs";
import { featuresOf } from "@/core/kinds";
import { type DeckState, deckState } from "@/core/sequences/deck-off";
import { takeRecord } from "./check-context";
import type { Db } from "./connection";
import { type Doing, once } from "./context";
import { deckMoves } from "./deck";
import { AppError } from "./errors";
import { insertEvent, listEvents } from "./events";
import { getMachine } from "./machines";
import { addOwed } from "./owed";
import { boxStates } from "./rebuild-moves";
import { addStep, getJobRow, listSteps, openJobRow, STEP_DATA } from "./steps";
import { requireState, takesOfJob } from "./takes";
import { requireTimed } from "./timing-gate";

const fixRows: readonly FixRow[] = FIXES;
const CAUSE_IDS: readonly string[] = CAUSES.map(({ id }) => id);

export const newFixSchema = STEP_DATA.fix.extend({ words: z.string().trim().max(1000).default("") });
export const newTestCutSchema = STEP_DATA["test-cut"].extend({
  words: z.string().trim().max(500).default(""),
  dryness: STEP_DATA["test-cut"].shape.dryness.default("dry"),
});
export const newGuessSchema = STEP_DATA.guess;
export const newAnswerSchema = STEP_DATA.answer.partial();
export const newSkipSchema = STEP_DATA.skip.extend({ words: z.string().trim().max(200).default("") });
export const newNoteSchema = z.object({ text: z.string().trim().min(1).max(2000) });
export const newHoldSchema = z.object({ reason: z.string().trim().min(1, "say-why").max(500) });
export const newJobEventSchema = z.object({ event: z.enum(EVENT_IDS), place: z.string().max(60).optional() });
export const newCloseSchema = z.object({
  causes: z.array(z.string()).min(1, "name-a-cause").max(6),
  words: z.string().trim().max(1000).default(""),
  /** Only where proof is missing: why it goes out all the same. */
  unprovedReason: z.string().trim().max(500).optional(),
  /** What the work itself could have put wrong, looked at before closing. */
  aftermath: z.array(z.enum(AFTERMATH_IDS)).optional(),
});
export const newUndoSchema = z.object({ stepId: z.number().int(), reason: z.string().trim().max(200).default("") });

type ForJob<S extends z.ZodType> = { jobId: number } & z.output<S>;

/** A fix, with the event it leaves on the machine's log. Throws `not-safe`, `job-closed`, `invalid` for a pair the tables do not know. */
export function recordFix(db: Db, doing: Doing, args: ForJob<typeof newFixSchema>): { stepId: number } {
  return once(db, doing, "fix", () => {
    const { jobId, ...data } = args;
    const job = openJobRow(db, jobId);
    const row = fixRows.find(({ fix, cause }) => fix === data.fix && cause === data.cause);
    if (!row) throw new AppError("invalid", { issues: [{ code: "unknown-fix", path: ["fix"] }] });
    requireState(db, jobId, row.state);
    const stepId = addStep(db, doing, { jobId, kind: "fix", data });
    insertEvent(db, doing, {
      machineId: job.machineId,
      event: row.event,
      stepId,
      data: data.pressures ? { pressures: data.pressures } : {},
    });
    return { stepId };
  });
}

/** A test cut: the machine was run, so the safe state lapses. */
export function recordTestCut(db: Db, doing: Doing, args: ForJob<typeof newTestCutSchema>): { stepId: number } {
  return once(db, doing, "test-cut", () => {
    const { jobId, ...data } = args;
    const job = openJobRow(db, jobId);
    if (job.state === "held-out") throw new AppError("not-safe", { issues: [{ code: "held-out", path: [] }] });
    requireTimed(db, job);
    const stepId = addStep(db, doing, { jobId, kind: "test-cut", data });
    insertEvent(db, doing, { machineId: job.machineId, event: "run", stepId });
    return { stepId };
  });
}

export function recordGuess(db: Db, doing: Doing, args: ForJob<typeof newGuessSchema>): { stepId: number } {
  return once(db, doing, "guess", () => {
    openJobRow(db, args.jobId);
    if (!CAUSE_IDS.includes(args.cause)) throw new AppError("invalid", { issues: [{ code: "unknown-cause", path: ["cause"] }] });
    return { stepId: addStep(db, doing, { jobId: args.jobId, kind: "guess", data: { cause: args.cause } }) };
  });
}

/** What was asked and answered after the complaint. Throws `invalid` when nothing was, or when two answers contradict each other. */
export function recordAnswer(db: Db, doing: Doing, args: ForJob<typeof newAnswerSchema>): { stepId: number } {
  return once(db, doing, "answer", () => {
    openJobRow(db, args.jobId);
    const { symptoms = {}, contexts = {} } = args;
    if (Object.keys(symptoms).length + Object.keys(contexts).length === 0)
      throw new AppError("invalid", { issues: [{ code: "say-or-pick", path: ["symptoms"] }] });
    const pair = contradictionIn(Object.entries(contexts).flatMap(([id, isSo]) => (isSo ? [id] : [])));
    if (pair) throw new AppError("invalid", { issues: [{ code: "contradictory-contexts", path: ["contexts"], ids: [...pair] }] });
    return { stepId: addStep(db, doing, { jobId: args.jobId, kind: "answer", data: { symptoms, contexts } }) };
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

export function recordNote(db: Db, doing: Doing, args: ForJob<typeof newNoteSchema>): { stepId: number } {
  return once(db, doing, "note", () => {
    openJobRow(db, args.jobId);
    return { stepId: addStep(db, doing, { jobId: args.jobId, kind: "note", data: { text: args.text } }) };
  });
}

/** Something that happened to the machine while it is in this job: run, a tyre let down, a strike. */
export function recordJobEvent(db: Db, doing: Doing, args: ForJob<typeof newJobEventSchema>): { stepId: number } {
  return once(db, doing, "event", () => {
    const job = openJobRow(db, args.jobId);
    const data = { event: args.event as EventId, ...(args.place ? { place: args.place } : {}) };
    const stepId = addStep(db, doing, { jobId: job.id, kind: "event", data });
    insertEvent(db, doing, { machineId: job.machineId, event: args.event, place: args.place, stepId });
    return { stepId };
  });
}

export function recordHold(db: Db, doing: Doing, args: ForJob<typeof newHoldSchema> & { isRelease: boolean }): { stepId: number } {
  return once(db, doing, args.isRelease ? "release" : "hold", () => {
    const job = openJobRow(db, args.jobId);
    if (args.isRelease !== (job.state === "held-out")) throw new AppError("changed-since");
    const stepId = addStep(db, doing, { jobId: job.id, kind: args.isRelease ? "release" : "hold", data: { reason: args.reason } });
    insertEvent(db, doing, { machineId: job.machineId, event: args.isRelease ? "released" : "held-out", stepId });
    return { stepId };
  });
}

/** The proof of a job as its readings, changes and cuts have it now. */
export function proofOfJob(db: Db, jobId: number): Proof {
  const job = getJobRow(db, jobId);
  const steps = liveSteps(listSteps(db, jobId));
  return workOutProof({
    machine: getMachine(db, job.machineId).machine,
    takes: takesOfJob(db, jobId).map(takeRecord),
    fixes: steps.flatMap((step) => (step.kind === "fix" ? [{ id: step.id, fix: step.data.fix, cause: step.data.cause, at: step.at }] : [])),
    testCuts: steps.flatMap((step) => (step.kind === "test-cut" ? [{ at: step.at, looks: step.data.looks, turf: step.data.turf }] : [])),
    events: listEvents(db, job.machineId, job.openedAt),
  });
}

/** Blades whose bolts were last written down as tightened by feel or left loose. */
function recheckOf(db: Db, jobId: number): string[] {
  const fit = takesOfJob(db, jobId).findLast(({ checkId, ruleVersion }) => checkId === "blade-fit" && ruleVersion > 0);
  return fit ? (fit.result.detail as FitDetail).recheck : [];
}

/** Whether this job disturbed a belt and nobody has written down since that every blade turns: from the seat a dead one is not seen. */
function hasUnseenBlade(db: Db, job: { id: number; machineId: string; openedAt: string }): boolean {
  const steps = liveSteps(listSteps(db, job.id));
  const fixes = steps.flatMap((step) => (step.kind === "fix" ? [step.data] : []));
  const events = listEvents(db, job.machineId, job.openedAt);
  const { machine } = getMachine(db, job.machineId);
  const asked = aftermathOf({ fixes, events: deckOffs(events), features: featuresOf(machine) });
  if (!asked.some(({ id }) => id === "belt-seated")) return false;
  const seen = takesOfJob(db, job.id).findLast(({ checkId }) => checkId === "belt-inspection");
  if (!seen || seen.ruleVersion === 0) return true;
  return (
    staleReasons({ machine, check: "belt-inspection", takenAt: seen.at, events }).length > 0 ||
    (seen.result.detail as { unseen: string[] }).unseen.length > 0
  );
}

function deckOf(db: Db, job: { id: number; machineId: string }): DeckState {
  return deckState(getMachine(db, job.machineId).machine, deckMoves(liveSteps(listSteps(db, job.id))));
}

/**
 * Closes a job with its causes. Proof is worked out here, not taken from the caller; without it the close is refused as `not-proved`
 * with every gap, unless a reason is given, which is then on the record as such. A held machine is released first, a deck put back.
 */
export function closeJob(db: Db, doing: Doing, args: ForJob<typeof newCloseSchema>): { stepId: number; isProved: boolean } {
  return once(db, doing, "close", () => {
    const job = openJobRow(db, args.jobId);
    const unknown = args.causes.filter((cause) => cause !== "nothing-found" && !CAUSE_IDS.includes(cause));
    if (unknown.length > 0)
      throw new AppError("invalid", { issues: unknown.map((cause) => ({ code: "unknown-cause", path: ["causes"], cause })) });
    if (job.state === "held-out") throw new AppError("not-safe", { issues: [{ code: "held-out", path: [] }] });
    const boxes = boxStates(getMachine(db, job.machineId).machine, listSteps(db, job.id));
    const open = boxes.find(({ where }) => where !== "on");
    if (open) throw new AppError("invalid", { issues: [{ code: "box-still-open", path: [], place: open.box }] });
    if (deckOf(db, job).where !== "on") throw new AppError("invalid", { issues: [{ code: "deck-still-off", path: [] }] });
    if (args.aftermath?.includes("belt-seated") !== true && hasUnseenBlade(db, job))
      throw new AppError("invalid", { issues: [{ code: "blade-unseen", path: ["aftermath"] }] });
    const proof = proofOfJob(db, job.id);
    if (!proof.isProved && !args.unprovedReason) {
      throw new AppError("not-proved", { issues: proof.gaps.map(({ code, ...gap }) => ({ code, path: [], ...gap })) });
    }
    const { causes, words, unprovedReason, aftermath = [] } = args;
    const kept = proof.isProved || !unprovedReason ? {} : { unprovedReason };
    const stepId = addStep(db, doing, {
      jobId: job.id,
      kind: "close",
      data: { causes, words, aftermath, isProved: proof.isProved, ...kept },
    });
    addOwed(db, doing, {
      job,
      stepId,
      steps: liveSteps(listSteps(db, job.id)),
      recheck: recheckOf(db, job.id),
      hasLoose: boxes.some(({ loose }) => loose.length > 0),
      hasOpenedBox: boxes.some(({ isTouched }) => isTouched),
    });
    return { stepId, isProved: proof.isProved };
  });
}

/** Takes back the last step that counts, as a step of its own. Throws `changed-since` when `stepId` is not (or no longer) the last. */
export function undoStep(db: Db, doing: Doing, args: ForJob<typeof newUndoSchema>): { stepId: number } {
  return once(db, doing, "undo", () => {
    getJobRow(db, args.jobId);
    const last = undoable(listSteps(db, args.jobId));
    if (!last) throw new AppError("nothing-to-undo");
    if (last.id !== args.stepId) throw new AppError("changed-since");
    return { stepId: addStep(db, doing, { jobId: args.jobId, kind: "undo", data: { reason: args.reason }, undoesId: last.id }) };
  });
}
