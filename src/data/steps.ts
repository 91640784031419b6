import * as z from "zod";
import { CONTEXTS, type ContextId, SYMPTOMS, type SymptomId } from "@/core/diagnosis";
import { AFTERMATH_IDS, CUT_LOOKS, CUT_TURFS, type JobState, type Step, type StepKind, stateOf } from "@/core/jobs";
import { answerSchema } from "@/core/safety";
import type { Db } from "./connection";
import { audit, type Doing } from "./context";
import { AppError } from "./errors";

export const SYMPTOM_IDS = SYMPTOMS.map(({ id }) => id) as [SymptomId, ...SymptomId[]];
export const CONTEXT_IDS = CONTEXTS.map(({ id }) => id) as [ContextId, ...ContextId[]];
/** Why a check is left out; `back` takes it in again. */
export const SKIP_REASONS = ["no-tool", "no-access", "sure-already", "no-time", "back"] as const;

const SI_PRESSURE = z.number().min(0).max(700_000);

export const pressureChangeSchema = z.object({ wheelId: z.string(), fromPascals: SI_PRESSURE, toPascals: SI_PRESSURE });
export const turnMadeSchema = z.object({ hangerId: z.string(), turns: z.number().min(-60).max(60) });

/** What each kind of step carries; parsed on the way in and again out of its JSON column. */
export const STEP_DATA = {
  complaint: z.object({ complaintId: z.number().int() }),
  guess: z.object({ cause: z.string() }),
  confirmation: z.object({
    state: z.enum(["parked", "locked-out", "raised", "running", "bench"]),
    answers: z.record(z.string(), answerSchema),
    outcome: z.enum(["safe", "stopped"]),
  }),
  take: z.object({ checkId: z.string(), verdict: z.string(), correctsStepId: z.number().int().optional() }),
  fix: z.object({
    fix: z.string(),
    cause: z.string(),
    minutes: z.number().min(0).max(10_000).optional(),
    words: z.string().max(1000),
    parts: z.string().max(200).optional(),
    torqueNewtonMetres: z.number().positive().max(2000).optional(),
    torqueHow: z.enum(["wrench", "by-feel"]).optional(),
    pressures: z.array(pressureChangeSchema).optional(),
    turns: z.array(turnMadeSchema).optional(),
  }),
  /** One step of a deck coming off or going on, with the parts counted at it. */
  deck: z.object({
    way: z.enum(["off", "on"]),
    step: z.string().max(60),
    counts: z.record(z.string().max(60), z.number().int().min(0).max(99)).default({}),
  }),
  /** One step of a gearbox taken apart or put together; or a part that was left loose on purpose, tightened. */
  rebuild: z.union([
    z.object({ box: z.string().max(60), tightened: z.string().max(60) }),
    z.object({
      box: z.string().max(60),
      way: z.enum(["off", "on"]),
      step: z.string().max(60),
      counts: z.record(z.string().max(60), z.number().int().min(0).max(99)).default({}),
      loose: z.array(z.string().max(60)).max(10).default([]),
    }),
  ]),
  photograph: z.object({ about: z.string().max(200) }),
  "test-cut": z.object({
    looks: z.enum(CUT_LOOKS),
    turf: z.enum(CUT_TURFS),
    place: z.string().max(120),
    operator: z.string().max(60),
    dryness: z.enum(["dry", "damp", "wet"]),
    cutHeightMetres: z.number().positive().max(0.3).optional(),
    words: z.string().max(500),
  }),
  note: z.object({ text: z.string().max(2000) }),
  /** Asked and answered after the complaint, over the telephone or at the machine. */
  answer: z.object({
    symptoms: z.partialRecord(z.enum(SYMPTOM_IDS), z.enum(["present", "denied", "unknown"])),
    contexts: z.partialRecord(z.enum(CONTEXT_IDS), z.boolean()),
  }),
  /** A check left out, and why; `back` takes it in again. */
  skip: z.object({ checkId: z.string(), reason: z.enum(SKIP_REASONS), words: z.string().max(200).default("") }),
  event: z.object({ event: z.string(), place: z.string().optional() }),
  hold: z.object({ reason: z.string().max(500) }),
  release: z.object({ reason: z.string().max(500) }),
  close: z.object({
    causes: z.array(z.string()),
    isProved: z.boolean(),
    unprovedReason: z.string().max(500).optional(),
    words: z.string().max(1000),
    /** What the work itself could have put wrong, looked at before closing. */
    aftermath: z.array(z.enum(AFTERMATH_IDS)).default([]),
  }),
  undo: z.object({ reason: z.string().max(200) }),
} as const satisfies Record<StepKind, z.ZodType>;

export type StepData<K extends StepKind> = z.output<(typeof STEP_DATA)[K]>;
export type AnyStep = { [K in StepKind]: Step<StepData<K>> & { kind: K } }[StepKind];

type Row = { id: number; kind: StepKind; data_json: string; undoes_id: number | null; who: string; at: string };

export function listSteps(db: Db, jobId: number): AnyStep[] {
  const rows = db.prepare("SELECT id, kind, data_json, undoes_id, who, at FROM steps WHERE job_id = ? ORDER BY id").all(jobId) as Row[];
  return rows.map(
    (row) =>
      ({
        id: row.id,
        kind: row.kind,
        data: STEP_DATA[row.kind].parse(JSON.parse(row.data_json)),
        who: row.who,
        at: row.at,
        ...(row.undoes_id === null ? {} : { undoesId: row.undoes_id }),
      }) as AnyStep,
  );
}

/** Adds a step and brings the job's state along. Inside a transaction. */
export function addStep<K extends StepKind>(
  db: Db,
  doing: Doing,
  args: { jobId: number; kind: K; data: StepData<K>; undoesId?: number },
): number {
  const { lastInsertRowid } = db
    .prepare("INSERT INTO steps (job_id, kind, data_json, undoes_id, who, at) VALUES (?, ?, ?, ?, ?, ?)")
    .run(args.jobId, args.kind, JSON.stringify(args.data), args.undoesId ?? null, doing.who, doing.now);
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
