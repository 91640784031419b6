import type { z } from "zod";
import { changing, failure, idFrom } from "@/app/api/answer";
import { table } from "@/core/basics/tables";
import { newFindingSchema, newTakeSchema, recordFinding, recordTake } from "@/data/checks/takes";
import { joinJobs, joinSchema, splitComplaint, splitSchema } from "@/data/job/complaints";
import { newDeckMoveSchema, newPhotographSchema, recordDeckMove, recordPhotograph } from "@/data/job/deck";
import { newGuidedMoveSchema, recordGuidedMove } from "@/data/job/guided";
import * as jobs from "@/data/job/job-actions";
import { newOwnListSchema, recordOwnList } from "@/data/job/own-list";
import { newRebuildMoveSchema, recordRebuildMove } from "@/data/job/rebuild";
import {
  newConfirmationSchema,
  newLiftSchema,
  newPutBackSchema,
  recordConfirmation,
  recordLift,
  recordPutBack,
} from "@/data/job/safe-state";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { madeAnew, type Picture } from "@/data/store/pictures";

type Change = (request: Request, jobId: number) => Promise<Response>;

function action<S extends z.ZodType>(schema: S, change: (db: Db, doing: Doing, args: { jobId: number } & z.output<S>) => unknown): Change {
  return (request, jobId) =>
    changing(request, schema, (db, doing, input) => change(db, doing, { jobId, ...(input as object) } as { jobId: number } & z.output<S>));
}

const ACTIONS: Record<string, Change> = table({
  confirmations: action(newConfirmationSchema, recordConfirmation),
  "put-back": action(newPutBackSchema, recordPutBack),
  lift: action(newLiftSchema, recordLift),
  handover: action(jobs.newHandoverSchema, jobs.recordHandover),
  takes: action(newTakeSchema, recordTake),
  "second-looks": action(jobs.newSecondLookSchema, jobs.recordSecondLook),
  findings: action(newFindingSchema, recordFinding),
  deck: action(newDeckMoveSchema, recordDeckMove),
  guided: action(newGuidedMoveSchema, recordGuidedMove),
  "own-list": action(newOwnListSchema, recordOwnList),
  rebuild: action(newRebuildMoveSchema, recordRebuildMove),
  photographs: (request, jobId) =>
    changing(
      request,
      newPhotographSchema,
      (db, doing, input: { about: string; picture: Picture }) => recordPhotograph(db, doing, { jobId, ...input }),
      async ({ about, dataUrl }) => ({ about, picture: await madeAnew(dataUrl) }),
    ),
  fixes: action(jobs.newFixSchema, jobs.recordFix),
  "test-cuts": action(jobs.newTestCutSchema, jobs.recordTestCut),
  guesses: action(jobs.newGuessSchema, jobs.recordGuess),
  answers: action(jobs.newAnswerSchema, jobs.recordAnswer),
  skips: action(jobs.newSkipSchema, jobs.recordSkip),
  split: action(splitSchema, splitComplaint),
  join: action(joinSchema, joinJobs),
  notes: action(jobs.newNoteSchema, jobs.recordNote),
  events: action(jobs.newJobEventSchema, jobs.recordJobEvent),
  hold: action(jobs.newHoldSchema, jobs.recordHold),
  release: action(jobs.newReleaseSchema, jobs.recordRelease),
  close: action(jobs.newCloseSchema, jobs.closeJob),
  undo: action(jobs.newUndoSchema, jobs.undoStep),
});

export async function POST(request: Request, { params }: { params: Promise<{ id: string; action: string }> }) {
  const { id, action: name } = await params;
  try {
    const change = Object.hasOwn(ACTIONS, name) ? ACTIONS[name] : undefined;
    if (!change) throw new AppError("job-not-found");
    return await change(request, idFrom(id, "job-not-found"));
  } catch (error) {
    return await failure(error);
  }
}
