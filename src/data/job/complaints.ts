import * as z from "zod";
import { contradictionIn, MOST_FINDINGS } from "@/core/diagnosis";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { stateOfMachine } from "@/data/projections/machine-state";
import { CONTEXT_IDS, SYMPTOM_IDS } from "@/data/record/step-data";
import { addStep, openJobRow } from "@/data/record/steps";
import { insertEvent } from "@/data/service/events";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError, type Issue } from "@/data/store/errors";

/** What it looks like: the pictures chosen, where in the swath (metres from the driver's middle), what changed. */
export const looksSchema = z.object({
  symptoms: z.array(z.enum(SYMPTOM_IDS)).max(28).default([]),
  denied: z.array(z.enum(SYMPTOM_IDS)).max(28).default([]),
  swath: z
    .object({ where: z.enum(["all-over", "band", "between-passes"]), fromMetres: z.number().optional(), toMetres: z.number().optional() })
    .optional(),
  contexts: z.array(z.enum(CONTEXT_IDS)).max(23).default([]),
});

/** A strike as it is told: what was hit, where on the site and of the machine, and whether the drive ran on. */
export const strikeSchema = z.object({
  words: z.string().trim().max(300).default(""),
  where: z.string().trim().max(120).default(""),
  place: z.string().max(60).optional(),
  droveOn: z.boolean().optional(),
});

export const newComplaintSchema = z.object({
  machineId: z.string(),
  words: z.string().trim().max(1000).default(""),
  saidBy: z.string().trim().min(1, "say-who").max(60),
  place: z.string().trim().max(120).default(""),
  since: z.string().trim().max(60).optional(),
  looks: looksSchema,
  /** Of a strike told with it: asked out then and there. */
  strike: strikeSchema.optional(),
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

/** Complaints about one machine, over all its jobs, oldest first. */
export function complaintsOfMachine(db: Db, machineId: string): Complaint[] {
  return (
    db.prepare("SELECT c.* FROM jobs j JOIN complaints c ON c.job_id = j.id WHERE j.machine_id = ? ORDER BY c.id").all(machineId) as Row[]
  ).map(fromRow);
}

/** Takes a complaint down and opens a job for it, or joins it to an open one. Throws `invalid` when it says nothing at all. */
export function takeComplaint(db: Db, doing: Doing, input: z.output<typeof newComplaintSchema>): { complaintId: number; jobId: number } {
  return once(db, doing, "complaint-taken", () => {
    if (input.words === "" && input.looks.symptoms.length === 0) {
      throw new AppError("invalid", { issues: [{ code: "say-or-pick", path: ["words"] }] });
    }
    const issues = looksIssues(input.looks);
    if (issues.length > 0) throw new AppError("invalid", { issues });
    if (getMachine(db, input.machineId).retired) throw new AppError("machine-retired");
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
    const stepId = addStep(db, doing, { jobId, kind: "complaint", data: { complaintId } });
    if (input.strike || input.looks.contexts.includes("struck-object"))
      logToldStrike(db, doing, { machineId: input.machineId, stepId, strike: input.strike });
    return { complaintId, jobId };
  });
}

/** Puts a strike that was told on the machine's log; one that is on it already, not looked at yet, is not written twice unless told anew. */
export function logToldStrike(
  db: Db,
  doing: Doing,
  args: { machineId: string; stepId: number; strike: z.output<typeof strikeSchema> | undefined },
): void {
  const { machineId, stepId, strike } = args;
  if (!strike && stateOfMachine(db, machineId).struck) return;
  insertEvent(db, doing, {
    machineId,
    event: "struck",
    stepId,
    place: strike?.place,
    data: {
      ...(strike?.words ? { words: strike.words } : {}),
      ...(strike?.where ? { where: strike.where } : {}),
      ...(strike?.droveOn === undefined ? {} : { droveOn: strike.droveOn }),
    },
  });
}

/** Fewer than can be carried at once: the checks add findings of their own. */
export const MOST_SYMPTOMS = MOST_FINDINGS - 2;

function looksIssues({ symptoms, denied, contexts }: Looks): Issue[] {
  const pair = contradictionIn(contexts);
  return [
    ...(symptoms.length > MOST_SYMPTOMS ? [{ code: "too-many-symptoms", path: ["looks", "symptoms"], most: MOST_SYMPTOMS }] : []),
    ...denied.filter((id) => symptoms.includes(id)).map((id) => ({ code: "seen-and-denied", path: ["looks", "denied"], id })),
    ...(pair ? [{ code: "contradictory-contexts", path: ["looks", "contexts"], ids: [...pair] }] : []),
  ];
}

export const splitSchema = z.object({ complaintId: z.number().int() });
export const joinSchema = z.object({ intoJobId: z.number().int() });

/** Makes a job of its own out of one of several complaints. Throws `invalid` for the only one, or one of another job. */
export function splitComplaint(db: Db, doing: Doing, args: { jobId: number; complaintId: number }): { jobId: number } {
  return once(db, doing, "complaint-split", () => {
    const job = openJobRow(db, args.jobId);
    const complaints = complaintsOfJob(db, job.id);
    const complaint = complaints.find(({ id }) => id === args.complaintId);
    if (!complaint || complaints.length < 2) throw new AppError("invalid", { issues: [{ code: "only-complaint", path: ["complaintId"] }] });
    const jobId = openJob(db, doing, job.machineId);
    moveComplaint(db, doing, { complaintId: complaint.id, from: job.id, to: jobId });
    return { jobId };
  });
}

/** Brings the complaints of a job nobody has worked on into another open one of the same machine, and closes the emptied one. */
export function joinJobs(db: Db, doing: Doing, args: { jobId: number; intoJobId: number }): { jobId: number } {
  return once(db, doing, "jobs-joined", () => {
    const job = openJobRow(db, args.jobId);
    const into = joined(db, args.intoJobId, job.machineId);
    if (into === job.id || job.state !== "waiting")
      throw new AppError("invalid", { issues: [{ code: "job-has-work", path: ["intoJobId"] }] });
    const complaintIds = complaintsOfJob(db, job.id).map(({ id }) => id);
    for (const complaintId of complaintIds) moveComplaint(db, doing, { complaintId, from: job.id, to: into });
    const moved = { intoJobId: into, complaintIds };
    const data = { causes: [], words: "", isProved: false, unprovedReason: `Joined to job ${into}`, aftermath: [], joined: moved };
    addStep(db, doing, { jobId: job.id, kind: "close", data });
    return { jobId: into };
  });
}

/** A join taken back: the complaints it moved come home, those that went on from there since do not. Inside the transaction of the undo. */
export function partAgain(db: Db, doing: Doing, args: { jobId: number; intoJobId: number; complaintIds: readonly number[] }): void {
  const there = complaintsOfJob(db, args.intoJobId).filter(({ id }) => args.complaintIds.includes(id));
  for (const { id } of there) moveComplaint(db, doing, { complaintId: id, from: args.intoJobId, to: args.jobId });
}

function moveComplaint(db: Db, doing: Doing, args: { complaintId: number; from: number; to: number }): void {
  db.prepare("UPDATE complaints SET job_id = ? WHERE id = ?").run(args.to, args.complaintId);
  addStep(db, doing, { jobId: args.to, kind: "complaint", data: { complaintId: args.complaintId } });
  addStep(db, doing, { jobId: args.from, kind: "note", data: { text: `A complaint went to job ${args.to}` } });
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
