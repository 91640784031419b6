import type * as z from "zod";
import { liveSteps } from "@/core/job/jobs";
import { moveProblems } from "@/core/job/sequences/counted";
import {
  eventOfRound,
  type GuidedMove,
  type GuidedState,
  guidedOrder,
  guidedState,
  type OwnList,
  owedOf,
  ROUND_STATE,
  ROUNDS,
  roundsOf,
} from "@/core/job/sequences/guided";
import type { Machine } from "@/core/machine";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { requireState } from "@/data/projections/machine-state";
import { type AnyStep, movesOfMachine, STEP_DATA } from "@/data/record/step-data";
import { addStep, openJobRow } from "@/data/record/steps";
import { insertEvent } from "@/data/service/events";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError, type Issue } from "@/data/store/errors";

export const newGuidedMoveSchema = STEP_DATA.guided;

/** Moves of guided work among steps that count, in order. */
export function guidedMoves(steps: readonly AnyStep[]): GuidedMove[] {
  return steps.flatMap((step): GuidedMove[] => {
    if (step.kind !== "guided") return [];
    const { round, place, way, step: id, counts, answers, sizes } = step.data;
    return [{ round, place, way, step: id, counts, ...(answers ? { answers } : {}), ...(sizes ? { sizes } : {}) }];
  });
}

/** What a round really holds at a place, part by part as last told; nothing where nobody told. */
export function ownList(steps: readonly AnyStep[], at: { round: string; place: string }): OwnList | undefined {
  const told = steps.flatMap((step) =>
    step.kind === "own-list" && step.data.round === at.round && step.data.place === at.place ? [step.data.counts] : [],
  );
  return told.length === 0 ? undefined : Object.assign({}, ...told);
}

/** Every blade and spindle of a machine as the steps of all its jobs leave them. */
export function guidedStates(machine: Machine, steps: readonly AnyStep[]): GuidedState[] {
  const live = liveSteps(steps);
  const moves = guidedMoves(live);
  return roundsOf(machine).map((at) => guidedState(machine, at, moves, ownList(live, at)));
}

/** What answers at these steps leave owed, each once. */
export function owedAtSteps(machine: Machine, steps: readonly AnyStep[]): string[] {
  const moves = guidedMoves(steps);
  return [
    ...new Set(
      ROUNDS.flatMap((round) =>
        owedOf(
          guidedOrder(machine, round),
          moves.filter((move) => move.round === round),
        ),
      ),
    ),
  ];
}

function pathOf(problem: ReturnType<typeof moveProblems>[number]): string[] {
  if (!("ask" in problem)) return ["counts"];
  return [problem.code === "unanswered" || problem.code === "refused-answer" ? "answers" : "sizes", problem.ask];
}

export function issuesOfMove(problems: ReturnType<typeof moveProblems>): Issue[] {
  return problems.map((problem) => ({ ...problem, path: pathOf(problem) }));
}

/**
 * One step of a blade off and on, or of a spindle served. The last one goes on the machine's log as what was done. Throws `job-closed`,
 * `not-safe`, `changed-since` for a step out of turn, `invalid` for a place that is none, counts, and answers it does not go on with.
 */
export function recordGuidedMove(db: Db, doing: Doing, args: { jobId: number } & z.output<typeof newGuidedMoveSchema>): { stepId: number } {
  return once(db, doing, "guided", () => {
    const { jobId, ...move } = args;
    const job = openJobRow(db, jobId);
    const { machine } = getMachine(db, job.machineId);
    if (!roundsOf(machine).some(({ round, place }) => round === move.round && place === move.place))
      throw new AppError("invalid", { issues: [{ code: "unknown-part", path: ["place"], place: move.place }] });
    requireState(db, job.machineId, ROUND_STATE[move.round]);
    const live = movesOfMachine(db, job.machineId);
    const own = ownList(live, move);
    const moves = guidedMoves(live).filter(({ round, place }) => round === move.round && place === move.place);
    const problems = moveProblems(guidedOrder(machine, move.round, own), moves, move as GuidedMove);
    if (problems.some(({ code }) => code === "not-the-next-step")) throw new AppError("changed-since");
    if (problems.length > 0) throw new AppError("invalid", { issues: issuesOfMove(problems) });
    const stepId = addStep(db, doing, { jobId, kind: "guided", data: move });
    const made = [...moves, move as GuidedMove];
    if (guidedState(machine, move, made, own).where === "on") {
      const { off, on } = guidedOrder(machine, move.round, own);
      const event = eventOfRound(move.round, made.slice(-(off.length + on.length)));
      insertEvent(db, doing, { machineId: job.machineId, event, place: move.place, stepId });
    }
    return { stepId };
  });
}
