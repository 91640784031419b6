import * as z from "zod";
import { liveSteps } from "@/core/jobs";
import { answerSchema, judgeConfirmation, stateInForce } from "@/core/safety";
import type { Db } from "./connection";
import { type Doing, once } from "./context";
import { AppError } from "./errors";
import { listEvents } from "./events";
import { getMachine } from "./machines";
import { addStep, getJobRow, listSteps, openJobRow } from "./steps";
import { requireTimed } from "./timing-gate";

export const newConfirmationSchema = z.object({
  state: z.enum(["parked", "locked-out", "raised", "running", "bench"]),
  answers: z.record(z.string(), answerSchema),
});

/** The safe state in force on a job's machine, from this job's confirmations and every run since. */
export function safeStateOf(db: Db, jobId: number) {
  const { machineId } = getJobRow(db, jobId);
  const live = liveSteps(listSteps(db, jobId));
  const confirmations = live.flatMap((step) =>
    step.kind === "confirmation" && step.data.outcome === "safe" ? [{ state: step.data.state, at: step.at, who: step.who }] : [],
  );
  const runs = listEvents(db, machineId).flatMap(({ event, at }) => (event === "run" ? [at] : []));
  return stateInForce({ confirmations, runs });
}

/**
 * Keeps a confirmation of the safe state. A refused isolation, chock or stand is kept too, as stopped: it opens nothing.
 * Throws `invalid` naming what is unanswered or lacks a reason.
 */
export function recordConfirmation(
  db: Db,
  doing: Doing,
  args: { jobId: number } & z.output<typeof newConfirmationSchema>,
): { stepId: number; outcome: "safe" | "stopped"; stoppedAt: string[] } {
  return once(db, doing, "confirmation", () => {
    const job = openJobRow(db, args.jobId);
    const { machine } = getMachine(db, job.machineId);
    if (args.state === "running") requireTimed(db, job);
    const judged = judgeConfirmation({ machine, state: args.state, answers: args.answers });
    if (judged.kind === "incomplete") {
      throw new AppError("invalid", {
        issues: [
          ...judged.items.map(({ id }) => ({ code: "unanswered", path: ["answers", id] })),
          ...judged.needReason.map(({ id }) => ({ code: "reason-needed", path: ["answers", id, "reason"] })),
        ],
      });
    }
    const stepId = addStep(db, doing, {
      jobId: job.id,
      kind: "confirmation",
      data: { state: args.state, answers: args.answers, outcome: judged.kind },
    });
    return { stepId, outcome: judged.kind, stoppedAt: judged.kind === "stopped" ? judged.items.map(({ id }) => id) : [] };
  });
}
