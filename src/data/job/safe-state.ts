import * as z from "zod";
import {
  answerSchema,
  type ConfirmationOutcome,
  isLockOut,
  itemsFor,
  judgeAnswers,
  SAFE_STATES,
  type SafetyItem,
  satisfies,
  statesOf,
} from "@/core/job/safety";
import { type MachineState, putBackPoints } from "@/core/job/status";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { requireMayRun, requireSubstance, stateOfMachine } from "@/data/projections/machine-state";
import { addStep, openJobRow } from "@/data/record/steps";
import { letGo } from "@/data/service/let-go";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";

export const newConfirmationSchema = z.object({
  state: z.enum(SAFE_STATES),
  answers: z.record(z.string(), answerSchema),
  /** Of the bench: which blades or units are off and clamped. */
  parts: z.array(z.string().max(60)).max(20).default([]),
});
export const newPutBackSchema = z.object({ answers: z.record(z.string(), answerSchema) });
export const newLiftSchema = z.object({
  owner: z.string().trim().toUpperCase().min(2).max(4),
  reason: z.string().trim().max(500).default(""),
});

type Confirmed = { stepId: number; outcome: "safe" | "stopped"; stoppedAt: string[] };

/**
 * Keeps a confirmation of the safe state. A refused isolation, chock or stand is kept too, as stopped and in the point's words: it opens nothing
 * and ends what was confirmed before. Throws `invalid` naming what is unanswered or lacks a reason, `not-safe` with every reason why the machine
 * may not be made ready to run, or who is locked on to a state that this one would lower.
 */
export function recordConfirmation(db: Db, doing: Doing, args: { jobId: number } & z.input<typeof newConfirmationSchema>): Confirmed {
  return once(db, doing, "confirmation", () => {
    const job = openJobRow(db, args.jobId);
    const { machine } = getMachine(db, job.machineId);
    const { state, answers, parts = [] } = args;
    if (!statesOf(machine).includes(state))
      throw new AppError("invalid", { issues: [{ code: "state-not-of-this-kind", path: ["state"], state }] });
    const known = new Set([...machine.spindles, ...machine.units].map(({ id }) => id));
    const unknown = parts.filter((part) => !known.has(part));
    if (unknown.length > 0)
      throw new AppError("invalid", { issues: unknown.map((place) => ({ code: "unknown-part", path: ["parts"], place })) });
    const items = itemsFor(machine, state);
    refuseUnasked(items, answers);
    const judged = judgeAnswers(items, answers);
    refuseIncomplete(judged);
    if (judged.kind === "safe") {
      if (state === "running") requireMayRun(db, job.machineId, { to: "make-ready", who: doing.who });
      else refuseLowering(stateOfMachine(db, job.machineId), { who: doing.who, state });
    }
    const outcome = outcomeOf(judged);
    const data = { state, answers, parts: state === "bench" ? parts : [], outcome, stoppedAt: wordsOf(judged) };
    return { stepId: addStep(db, doing, { jobId: job.id, kind: "confirmation", data }), outcome, stoppedAt: idsOf(judged) };
  });
}

/** Somebody locked on to a machine that stands fuller is not lowered by another's word. */
function refuseLowering({ locks }: MachineState, { who, state }: { who: string; state: (typeof SAFE_STATES)[number] }): void {
  if (state === "bench") return;
  const lowered = locks.filter((lock) => lock.who !== who && !satisfies(state, lock.state));
  if (lowered.length === 0) return;
  // Locking on as well, to a machine that stands fuller already, lowers nothing: the fuller state stays in force.
  if (isLockOut(state) && lowered.every((lock) => satisfies(lock.state, state))) return;
  throw new AppError("not-safe", { issues: lowered.map(lockedBy) });
}

const lockedBy = ({ who, state, at }: MachineState["locks"][number]) => ({
  ...{ code: "locked-by", path: [], owner: who, state, at },
  clears: { do: "lift", owner: who },
});

/**
 * Keeps that the machine was put back together after work: what the work could have broken, guards, tools, everything turned by hand, lead or
 * battery last. A blade that touches is kept as such and stops. Throws `invalid` naming what is unanswered, `not-safe` while somebody else is locked on
 * or the deck is off.
 */
export function recordPutBack(db: Db, doing: Doing, args: { jobId: number } & z.output<typeof newPutBackSchema>): Confirmed {
  return once(db, doing, "put-back", () => {
    const job = openJobRow(db, args.jobId);
    const { machine } = getMachine(db, job.machineId);
    const state = stateOfMachine(db, job.machineId);
    const others = state.locks.filter(({ who }) => who !== doing.who);
    // The lead goes back on with it: nobody puts that back over another's hands.
    if (others.length > 0) throw new AppError("not-safe", { issues: others.map(lockedBy) });
    const deck = state.apart.find(({ what }) => what === "deck");
    if (deck) throw new AppError("not-safe", { issues: [{ code: "deck-off", path: [], where: deck.where, clears: { do: "refit-deck" } }] });
    const items = putBackPoints(machine, state);
    const judged = judgeAnswers(items, args.answers);
    refuseIncomplete(judged);
    const outcome = outcomeOf(judged);
    const asked = Object.fromEntries(Object.entries(args.answers).filter(([id]) => items.some((item) => item.id === id)));
    const data = { answers: asked, outcome, stoppedAt: wordsOf(judged) };
    return { stepId: addStep(db, doing, { jobId: job.id, kind: "put-back", data }), outcome, stoppedAt: idsOf(judged) };
  });
}

/** Lifts a lock-out: one's own at a word, somebody else's with a reason of substance that stands on the record and stays owed to its owner. */
export function recordLift(db: Db, doing: Doing, args: { jobId: number } & z.output<typeof newLiftSchema>): { stepId: number } {
  return once(db, doing, "lift", () => {
    const job = openJobRow(db, args.jobId);
    const before = stateOfMachine(db, job.machineId);
    const { owner, reason } = args;
    if (!before.locks.some(({ who }) => who === owner)) throw new AppError("changed-since");
    if (owner !== doing.who) requireSubstance(reason);
    const stepId = addStep(db, doing, { jobId: job.id, kind: "lift", data: { owner, reason } });
    letGo(db, doing, { machineId: job.machineId, before, of: owner, reason, from: { jobId: job.id, stepId } });
    return { stepId };
  });
}

/** A point nobody asked about is a point of another state, or of none. */
function refuseUnasked(items: readonly SafetyItem[], answers: Readonly<Record<string, unknown>>): void {
  const unasked = Object.keys(answers).filter((id) => !items.some((item) => item.id === id));
  if (unasked.length > 0)
    throw new AppError("invalid", { issues: unasked.map((id) => ({ code: "unknown-point", path: ["answers", id] })) });
}

function refuseIncomplete(judged: ConfirmationOutcome): void {
  if (judged.kind !== "incomplete") return;
  throw new AppError("invalid", {
    issues: [
      ...judged.items.map(({ id }) => ({ code: "unanswered", path: ["answers", id] })),
      ...judged.needReason.map(({ id }) => ({ code: "reason-needed", path: ["answers", id, "reason"] })),
    ],
  });
}

const outcomeOf = ({ kind }: ConfirmationOutcome): "safe" | "stopped" => (kind === "stopped" ? "stopped" : "safe");
const stoppedIn = (judged: ConfirmationOutcome): SafetyItem[] => (judged.kind === "stopped" ? judged.items : []);
const idsOf = (judged: ConfirmationOutcome) => stoppedIn(judged).map(({ id }) => id);
const wordsOf = (judged: ConfirmationOutcome) => stoppedIn(judged).map(({ text }) => text);
