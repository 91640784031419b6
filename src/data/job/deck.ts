import * as z from "zod";
import { moveProblems } from "@/core/job/sequences/counted";
import { type DeckMove, deckState, deckSteps } from "@/core/job/sequences/deck-off";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { requireState } from "@/data/projections/machine-state";
import { type AnyStep, movesOfMachine, STEP_DATA } from "@/data/record/step-data";
import { addStep, openJobRow } from "@/data/record/steps";
import { insertEvent } from "@/data/service/events";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { dataUrlSchema, type Picture, requireRoom } from "@/data/store/pictures";
import { issuesOfMove } from "./guided";

export const newDeckMoveSchema = STEP_DATA.deck.omit({ left: true });

/** The moves of a deck among a job's steps that count, in order. */
export function deckMoves(steps: readonly AnyStep[]): DeckMove[] {
  return steps.flatMap((step) => (step.kind === "deck" ? [step.data] : []));
}

/**
 * One step of a deck coming off or going on, parts counted. The last one back goes on the machine's log as `deck-off`: its level and all
 * that hangs on it are then stale. Throws `job-closed`, `not-safe`, `changed-since` for a step out of turn, `invalid` for counts.
 */
export function recordDeckMove(db: Db, doing: Doing, args: { jobId: number } & z.output<typeof newDeckMoveSchema>): { stepId: number } {
  return once(db, doing, "deck", () => {
    const { jobId, ...move } = args;
    const job = openJobRow(db, jobId);
    requireState(db, job.machineId, "locked-out");
    const { machine } = getMachine(db, job.machineId);
    const moves = deckMoves(movesOfMachine(db, job.machineId));
    const order = deckSteps(machine);
    const problems = moveProblems(order, moves, move);
    if (problems.some(({ code }) => code === "not-the-next-step")) throw new AppError("changed-since");
    if (problems.length > 0) throw new AppError("invalid", { issues: issuesOfMove(problems) });
    const left = order.off.length + order.on.length - deckState(machine, moves).done.length - 1;
    const stepId = addStep(db, doing, { jobId, kind: "deck", data: { ...move, left } });
    if (left === 0) insertEvent(db, doing, { machineId: job.machineId, event: "deck-off", stepId });
    return { stepId };
  });
}

export const newPhotographSchema = z.object({ about: z.string().trim().min(1).max(200), dataUrl: dataUrlSchema });

export type Photograph = { stepId: number; about: string; at: string; who: string };

/** Keeps a photograph with its job. Throws `job-closed`, `photographs-full`. */
export function recordPhotograph(db: Db, doing: Doing, args: { jobId: number; about: string; picture: Picture }): { stepId: number } {
  return once(db, doing, "photograph", () => {
    const job = openJobRow(db, args.jobId);
    const { mime, bytes } = args.picture;
    requireRoom(db, { of: "job", id: job.id, bytes: bytes.length });
    const stepId = addStep(db, doing, { jobId: job.id, kind: "photograph", data: { about: args.about } });
    db.prepare("INSERT INTO photographs (step_id, about, mime, bytes) VALUES (?, ?, ?, ?)").run(stepId, args.about, mime, bytes);
    return { stepId };
  });
}

/** A photograph's bytes. Throws `photograph-not-found`, also for one that was taken back. */
export function photographOf(db: Db, stepId: number): { mime: string; bytes: Buffer } {
  const row = db
    .prepare("SELECT mime, bytes FROM photographs p WHERE step_id = ? AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = p.step_id)")
    .get(stepId) as { mime: string; bytes: Buffer } | undefined;
  if (!row) throw new AppError("photograph-not-found");
  return row;
}
