import * as z from "zod";
import type { CheckId, CheckRow } from "@/core/catalogue";
import {
  type Assessment,
  assessCheck,
  assessLook,
  type Check,
  checkRow,
  isOffered,
  LOOK_RESULTS,
  readingsAlone,
  rowsOf,
  worksheetById,
} from "@/core/checks";
import { requireCauses } from "@/data/catalogue/known";
import { nameProcedures } from "@/data/catalogue/procedures";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { requireMayRun, requireState, requireSubstance, stateOfMachine } from "@/data/projections/machine-state";
import { addStep, openJobRow } from "@/data/record/steps";
import { type Take, takesOfJob } from "@/data/record/takes-read";
import { letGo } from "@/data/service/let-go";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { requireAsTyped } from "./as-typed";
import { contextOf } from "./check-context";

export { type Take, takesOfJob, takesOfMachine } from "@/data/record/takes-read";

export const newTakeSchema = z.object({
  checkId: z.string(),
  /** Readings in the check's own form, SI. */
  readings: z.unknown(),
  /** What was typed, by place, so that the record shows the gauge's own figures. */
  asTyped: z.record(z.string(), z.string().max(40)).default({}),
  /** The take this one corrects. */
  correctsStepId: z.number().int().optional(),
  /** Of a correction that lets go of a stop: what was wrong with the reading. */
  reason: z.string().trim().max(500).optional(),
  /** The latest take of this check that whoever saves it had seen, 0 for none: a newer one by somebody else is shown first. */
  seenStepId: z.number().int().min(0).optional(),
});

/** Readings of any check: an object with something in it. */
const recordSchema = z.record(z.string(), z.unknown()).refine((readings) => Object.keys(readings).length > 0);

export const newFindingSchema = z.object({
  checkId: z.string(),
  result: z.enum(LOOK_RESULTS),
  causes: z.array(z.string()).max(10).default([]),
  note: z.string().trim().max(500).default(""),
  /** Cause by cause, where a look tells different things about several; replaces `result` and `causes`. */
  each: z
    .array(z.object({ cause: z.string(), result: z.enum(LOOK_RESULTS) }))
    .max(20)
    .optional(),
});

/**
 * Assesses readings with the core, and keeps inputs, sheet and rule version, tolerances and verdict together.
 * Throws `check-not-found`, `job-closed`, `not-safe`, `invalid` (issues by path), `take-not-found` for an unknown correction, `read-since` when
 * somebody else read it meanwhile.
 */
export function recordTake(
  db: Db,
  doing: Doing,
  args: { jobId: number } & z.output<typeof newTakeSchema>,
): { stepId: number; assessment: Assessment } {
  const take = () => {
    const job = openJobRow(db, args.jobId);
    const row = checkRow(args.checkId);
    if (!row) throw new AppError("check-not-found");
    const { machine, sheetVersion } = getMachine(db, job.machineId);
    const check = worksheetById(args.checkId);
    if (!check) throw new AppError("check-not-found");
    // Parsed by itself first: what the record adds must not make readings of something that is none.
    const given = recordSchema.safeParse(args.readings);
    if (!given.success) throw new AppError("invalid", { issues: [{ code: "nothing-read", path: ["readings"] }] });
    const own = readingsAlone(check, given.data);
    if (!own.ok) throw new AppError("invalid", { issues: own.issues });
    if (!check.isOnPaper?.(own.readings)) requireFor(db, doing, job.machineId, row);
    refuseUnseen(db, doing, { jobId: job.id, checkId: args.checkId, seenStepId: args.seenStepId });
    const before = args.correctsStepId === undefined ? undefined : correctable(db, job.id, args.correctsStepId, args.checkId);
    const readings = { ...given.data, ...contextOf(db, { jobId: job.id, check, now: doing.now }), ...stoodThen(check, before) };
    const outcome = assessCheck(args.checkId, { machine, readings });
    if (outcome.kind === "unknown-check") throw new AppError("check-not-found");
    if (outcome.kind === "invalid") throw new AppError("invalid", { issues: outcome.issues });
    const { assessment } = outcome;
    const stood = before && stateOfMachine(db, job.machineId);
    requireAsTyped({ check, machine, readings: own.readings, asTyped: args.asTyped });
    if (before && letsGo(before, assessment)) requireSubstance(args.reason ?? "");
    const stepId = addStep(db, doing, {
      jobId: job.id,
      kind: "take",
      data: {
        checkId: args.checkId,
        verdict: assessment.verdict,
        ...(before ? { correctsStepId: before.stepId } : {}),
        ...(before && args.reason ? { reason: args.reason } : {}),
      },
    });
    insertTake(db, doing, {
      stepId,
      job,
      checkId: args.checkId,
      input: readings,
      sheetVersion,
      assessment,
      correctsStepId: before?.stepId,
    });
    insertReadings(db, { stepId, readings: own.readings, asTyped: args.asTyped, before });
    nameProcedures(db, stepId, args.checkId);
    // A slip put right is no new reading: what went with the slip is let go of, not read away.
    if (before && stood)
      letGo(db, doing, {
        ...{ machineId: job.machineId, before: stood, of: before.who, reason: args.reason ?? "" },
        from: { jobId: job.id, stepId },
      });
    return { stepId, assessment };
  };
  return once(db, doing, args.correctsStepId === undefined ? "take" : "take-corrected", take, {
    keep: ({ stepId }) => ({ stepId }),
    again: (kept) => takenAs(db, keptSchema.parse(kept)),
  });
}

const keptSchema = z.object({ stepId: z.number().int() });

/** A slip put right stands on what stood when it was made, and not on itself. */
const stoodThen = (check: Check, before: Take | undefined): object =>
  before && check.wants === "units-standing" ? { standing: (before.input as { standing?: object }).standing ?? {} } : {};

/** A take answered again: its assessment as it was written down. */
function takenAs(db: Db, { stepId }: z.output<typeof keptSchema>): { stepId: number; assessment: Assessment } {
  const row = db.prepare("SELECT result_json FROM takes WHERE step_id = ?").get(stepId) as { result_json: string } | undefined;
  if (!row) throw new AppError("take-not-found");
  return { stepId, assessment: JSON.parse(row.result_json) as Assessment };
}

/** What a check asks of the machine before it is made: its safe state, and of one that runs it that it may run. */
function requireFor(db: Db, doing: Doing, machineId: string, row: CheckRow): void {
  requireState(db, machineId, row.state);
  if (row.state === "running") requireMayRun(db, machineId, { to: "check", check: row.id as CheckId, who: doing.who });
}

/** Another's newer reading of the same check is not replaced before it was seen. */
function refuseUnseen(db: Db, doing: Doing, args: { jobId: number; checkId: string; seenStepId: number | undefined }): void {
  const { seenStepId } = args;
  if (seenStepId === undefined) return;
  const newer = takesOfJob(db, args.jobId).findLast(
    ({ checkId, stepId, who }) => checkId === args.checkId && stepId > seenStepId && who !== doing.who,
  );
  if (newer)
    throw new AppError("read-since", {
      issues: [{ code: "read-since", path: [], stepId: newer.stepId, by: newer.who, verdict: newer.verdict }],
    });
}

/** Whether a correction takes away a stop that the slip had. */
function letsGo(before: Take, after: Assessment): boolean {
  const keys = ({ findings }: Pick<Assessment, "findings">) =>
    findings.filter(({ verdict }) => verdict === "stop").map(({ place, on = "" }) => `${place}#${on}`);
  const left = keys(after);
  return keys(before.result).some((key) => !left.includes(key));
}

function correctable(db: Db, jobId: number, stepId: number, checkId: string): Take {
  const take = takesOfJob(db, jobId).find((one) => one.stepId === stepId && one.checkId === checkId);
  if (!take) throw new AppError("take-not-found");
  return take;
}

function insertTake(
  db: Db,
  doing: Doing,
  args: {
    stepId: number;
    job: { id: number; machineId: string };
    checkId: string;
    input: unknown;
    sheetVersion: number;
    assessment: Assessment;
    correctsStepId?: number | undefined;
  },
): void {
  const { assessment } = args;
  const tolerances = assessment.figures.flatMap(({ id, place, tolerance }) => (tolerance ? [{ id, place, tolerance }] : []));
  db.prepare(
    `INSERT INTO takes (step_id, job_id, machine_id, check_id, corrects_step_id, input_json, sheet_version, rule_version, tolerances_json, verdict, result_json, at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  ).run(
    args.stepId,
    args.job.id,
    args.job.machineId,
    args.checkId,
    args.correctsStepId ?? null,
    JSON.stringify(args.input),
    args.sheetVersion,
    assessment.ruleVersion,
    JSON.stringify(tolerances),
    assessment.verdict,
    JSON.stringify(assessment),
    doing.now,
  );
}

/** A reading typed again in another unit differs in its last bits only: that is no correction. */
const SAME_SHARE = 1e-9;

/** Each reading its own row; one that replaces a wrong one points back at it. */
function insertReadings(
  db: Db,
  args: { stepId: number; readings: unknown; asTyped: Readonly<Record<string, string>>; before: Take | undefined },
): void {
  const insert = db.prepare("INSERT INTO readings (step_id, place, quantity, value, as_typed, corrects_id) VALUES (?, ?, ?, ?, ?, ?)");
  for (const { place, quantity, value, key } of rowsOf(args.readings)) {
    // Before worksheets had one form, tyres and tips stood under their bare places.
    const bare = place.slice(place.indexOf(":") + 1);
    const old = args.before?.readings.find((reading) => [place, bare].includes(reading.place) && reading.quantity === quantity);
    const corrects = old && Math.abs(old.value - value) > SAME_SHARE * Math.abs(old.value) ? old.id : null;
    insert.run(args.stepId, place, quantity, value, args.asTyped[key] ?? args.asTyped[bare] ?? null, corrects);
  }
}

/** The result of a look, for any check of the tables: seen, suspect, not found or could not tell, with the causes it speaks to. */
export function recordFinding(db: Db, doing: Doing, args: { jobId: number } & z.output<typeof newFindingSchema>): { stepId: number } {
  return once(db, doing, "finding", () => {
    const job = openJobRow(db, args.jobId);
    const row = checkRow(args.checkId);
    if (!row) throw new AppError("check-not-found");
    requireFor(db, doing, job.machineId, row);
    const { machine, sheetVersion } = getMachine(db, job.machineId);
    if (!isOffered(row, machine)) throw new AppError("invalid", { issues: [{ code: "check-not-for-this-machine", path: ["checkId"] }] });
    const found = args.each?.length ? args.each : args.causes.map((cause) => ({ cause, result: args.result }));
    requireCauses(
      machine,
      found.map(({ cause }) => ({ id: cause, path: ["causes"] })),
    );
    const assessment = assessLook({ machine, row, each: found, otherwise: args.result, note: args.note });
    const { verdict } = assessment;
    const stepId = addStep(db, doing, { jobId: job.id, kind: "take", data: { checkId: row.id, verdict } });
    insertTake(db, doing, { stepId, job, checkId: row.id, input: { finding: args }, sheetVersion, assessment });
    return { stepId };
  });
}
