import * as z from "zod";
import { CONTEXTS, type ContextId, SYMPTOMS, type SymptomId } from "@/core/diagnosis";
import type { Db } from "./connection";
import { type Doing, once } from "./context";
import { AppError } from "./errors";
import { getMachine } from "./machines";
import { addStep, openJobRow } from "./steps";

const SYMPTOM_IDS = SYMPTOMS.map(({ id }) => id) as [SymptomId, ...SymptomId[]];
const CONTEXT_IDS = CONTEXTS.map(({ id }) => id) as [ContextId, ...ContextId[]];

/** What it looks like: the pictures chosen, where in the swath (metres from the driver's middle), what changed. */
export const looksSchema = z.object({
  symptoms: z.array(z.enum(SYMPTOM_IDS)).max(28).default([]),
  denied: z.array(z.enum(SYMPTOM_IDS)).max(28).default([]),
  swath: z
    .object({ where: z.enum(["all-over", "band", "between-passes"]), fromMetres: z.number().optional(), toMetres: z.number().optional() })
    .optional(),
  contexts: z.array(z.enum(CONTEXT_IDS)).max(23).default([]),
});

export const newComplaintSchema = z.object({
  machineId: z.string(),
  words: z.string().trim().max(1000).default(""),
  saidBy: z.string().trim().min(1, "say-who").max(60),
  place: z.string().trim().max(120).default(""),
  since: z.string().trim().max(60).optional(),
  looks: looksSchema,
  /** An open job on the same machine that this belongs to; without it a job of its own is opened. */
  joinJobId: z.number().int().optional(),
});

export type Looks = z.output<typeof looksSchema>;

export type Complaint = {
  id: number;
  jobId: number;
  machineId: string;
  words: string;
  saidBy: string;
  place: string;
  since?: string;
  looks: Looks;
  who: string;
  at: string;
};

type Row = {
  id: number;
  job_id: number;
  machine_id: string;
  words: string;
  said_by: string;
  place: string;
  since: string | null;
  looks_json: string;
  who: string;
  at: string;
};

const fromRow = (row: Row): Complaint => ({
  id: row.id,
  jobId: row.job_id,
  machineId: row.machine_id,
  words: row.words,
  saidBy: row.said_by,
  place: row.place,
  looks: looksSchema.parse(JSON.parse(row.looks_json)),
  who: row.who,
  at: row.at,
  ...(row.since === null ? {} : { since: row.since }),
});

export function complaintsOfJob(db: Db, jobId: number): Complaint[] {
  return (db.prepare("SELECT * FROM complaints WHERE job_id = ? ORDER BY id").all(jobId) as Row[]).map(fromRow);
}

/** Takes a complaint down and opens a job for it, or joins it to an open one. Throws `invalid` when it says nothing at all. */
export function takeComplaint(db: Db, doing: Doing, input: z.output<typeof newComplaintSchema>): { complaintId: number; jobId: number } {
  return once(db, doing, "complaint-taken", () => {
    if (input.words === "" && input.looks.symptoms.length === 0) {
      throw new AppError("invalid", { issues: [{ code: "say-or-pick", path: ["words"] }] });
    }
    getMachine(db, input.machineId);
    const jobId = input.joinJobId === undefined ? openJob(db, doing, input.machineId) : joined(db, input.joinJobId, input.machineId);
    const { lastInsertRowid } = db
      .prepare(
        "INSERT INTO complaints (job_id, machine_id, words, said_by, place, since, looks_json, who, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)",
      )
      .run(
        jobId,
        input.machineId,
        input.words,
        input.saidBy,
        input.place,
        input.since ?? null,
        JSON.stringify(input.looks),
        doing.who,
        doing.now,
      );
    const complaintId = Number(lastInsertRowid);
    addStep(db, doing, { jobId, kind: "complaint", data: { complaintId } });
    return { complaintId, jobId };
  });
}

function openJob(db: Db, doing: Doing, machineId: string): number {
  const { lastInsertRowid } = db
    .prepare("INSERT INTO jobs (machine_id, opened_at, state) VALUES (?, ?, 'waiting')")
    .run(machineId, doing.now);
  return Number(lastInsertRowid);
}

function joined(db: Db, jobId: number, machineId: string): number {
  const job = openJobRow(db, jobId);
  if (job.machineId !== machineId) throw new AppError("invalid", { issues: [{ code: "job-of-another-machine", path: ["joinJobId"] }] });
  return jobId;
}
