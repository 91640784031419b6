import { type JobState, type StepKind, stateOf } from "@/core/job/jobs";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { nextSeq } from "@/data/store/sequence";
import { listSteps, type StepData } from "./step-data";

/** Adds a step and brings the job's state along. Inside a transaction. */
export function addStep<K extends StepKind>(
  db: Db,
  doing: Doing,
  args: { jobId: number; kind: K; data: StepData<K>; undoesId?: number },
): number {
  const { lastInsertRowid } = db
    .prepare("INSERT INTO steps (job_id, kind, data_json, undoes_id, who, at, seq) VALUES (?, ?, ?, ?, ?, ?, ?)")
    .run(args.jobId, args.kind, JSON.stringify(args.data), args.undoesId ?? null, doing.who, doing.now, nextSeq(db));
  const stepId = Number(lastInsertRowid);
  const state = stateOf(listSteps(db, args.jobId));
  db.prepare("UPDATE jobs SET state = ?, closed_at = ? WHERE id = ?").run(state, state === "closed" ? doing.now : null, args.jobId);
  audit(db, doing, { action: args.kind, subject: `job:${args.jobId}`, detail: { stepId } });
  return stepId;
}

export type JobRow = { id: number; machineId: string; openedAt: string; state: JobState; closedAt?: string };

/** Throws `job-not-found`. */
export function getJobRow(db: Db, jobId: number): JobRow {
  const row = db.prepare("SELECT id, machine_id, opened_at, state, closed_at FROM jobs WHERE id = ?").get(jobId) as
    | { id: number; machine_id: string; opened_at: string; state: JobState; closed_at: string | null }
    | undefined;
  if (!row) throw new AppError("job-not-found");
  return {
    id: row.id,
    machineId: row.machine_id,
    openedAt: row.opened_at,
    state: row.state,
    ...(row.closed_at === null ? {} : { closedAt: row.closed_at }),
  };
}

/** The job, open. Throws `job-not-found`, `job-closed`. */
export function openJobRow(db: Db, jobId: number): JobRow {
  const job = getJobRow(db, jobId);
  if (job.state === "closed") throw new AppError("job-closed");
  return job;
}
