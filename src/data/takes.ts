import * as z from "zod";
import {
  type Assessment,
  assessCheck,
  assessLook,
  checkRow,
  type DeckReadings,
  isOffered,
  LOOK_RESULTS,
  rowsOf,
  stationKey,
  type TyreReadings,
  worksheetById,
} from "@/core/checks";
import { CAUSES } from "@/core/diagnosis";
import { satisfies } from "@/core/safety";
import { contextOf } from "./check-context";
import type { Db } from "./connection";
import { type Doing, once } from "./context";
import { AppError } from "./errors";
import { insertEvent } from "./events";
import { getMachine } from "./machines";
import { safeStateOf } from "./safe-state";
import { addStep, openJobRow } from "./steps";
import { type Take, takesOfJob } from "./takes-read";

export { type Take, takesOfJob, takesOfMachine } from "./takes-read";

export const newTakeSchema = z.object({
  checkId: z.string(),
  /** Readings in the check's own form, SI. */
  readings: z.unknown(),
  /** What was typed, by place, so that the record shows the gauge's own figures. */
  asTyped: z.record(z.string(), z.string().max(40)).default({}),
  /** The take this one corrects. */
  correctsStepId: z.number().int().optional(),
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
 * Throws `check-not-found`, `job-closed`, `not-safe`, `invalid` (issues by path), `take-not-found` for an unknown correction.
 */
export function recordTake(
  db: Db,
  doing: Doing,
  args: { jobId: number } & z.output<typeof newTakeSchema>,
): { stepId: number; assessment: Assessment } {
  return once(db, doing, "take", () => {
    const job = openJobRow(db, args.jobId);
    const row = checkRow(args.checkId);
    if (!row) throw new AppError("check-not-found");
    const { machine, sheetVersion } = getMachine(db, job.machineId);
    const check = worksheetById(args.checkId);
    if (!check) throw new AppError("check-not-found");
    // Parsed by itself first: what the record adds must not make readings of something that is none.
    const given = recordSchema.safeParse(args.readings);
    if (!given.success) throw new AppError("invalid", { issues: [{ code: "nothing-read", path: ["readings"] }] });
    const parsed = check.readingsSchema.safeParse(given.data);
    if (!(parsed.success && check.isOnPaper?.(parsed.data))) requireState(db, job.id, row.state);
    const readings = { ...given.data, ...contextOf(db, { jobId: job.id, checkId: args.checkId, now: doing.now }) };
    const outcome = assessCheck(args.checkId, { machine, readings });
    if (outcome.kind === "unknown-check") throw new AppError("check-not-found");
    if (outcome.kind === "invalid") throw new AppError("invalid", { issues: outcome.issues });
    const { assessment } = outcome;
    const before = args.correctsStepId === undefined ? undefined : correctable(db, job.id, args.correctsStepId, args.checkId);
    const stepId = addStep(db, doing, {
      jobId: job.id,
      kind: "take",
      data: { checkId: args.checkId, verdict: assessment.verdict, ...(before ? { correctsStepId: before.stepId } : {}) },
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
    insertReadings(db, { stepId, checkId: args.checkId, readings: check.readingsSchema.parse(given.data), asTyped: args.asTyped, before });
    const reason = holdReason(assessment);
    if (reason && job.state !== "held-out") holdOut(db, doing, job, reason);
    return { stepId, assessment };
  });
}

/** What is not run again before somebody releases the machine, and why. Blades out of time are kept from running by themselves. */
const HOLDS: Partial<Record<string, string>> = {
  "tip-speed": "blade tips over the speed limit",
  "spindle-play": "shaft bent or key sheared",
  "gearbox-inspection": "gear teeth broken or pin sheared",
};

function holdReason({ check, verdict }: Assessment): string | undefined {
  return verdict === "stop" ? HOLDS[check] : undefined;
}

function holdOut(db: Db, doing: Doing, job: { id: number; machineId: string }, reason: string): void {
  const stepId = addStep(db, doing, { jobId: job.id, kind: "hold", data: { reason } });
  insertEvent(db, doing, { machineId: job.machineId, event: "held-out", stepId });
}

function correctable(db: Db, jobId: number, stepId: number, checkId: string): Take {
  const take = takesOfJob(db, jobId).find((one) => one.stepId === stepId && one.checkId === checkId);
  if (!take) throw new AppError("take-not-found");
  return take;
}

/** Throws `not-safe` unless the state in force covers what is needed. */
export function requireState(db: Db, jobId: number, needs: Parameters<typeof satisfies>[1]): void {
  const { inForce } = safeStateOf(db, jobId);
  if (!satisfies(inForce?.state, needs)) throw new AppError("not-safe", { issues: [{ code: "state-needed", path: [], needs }] });
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

/** `key`: the field it was typed in, where that is not its place. */
type ReadingRow = { place: string; quantity: string; value: number; key?: string };

/** Readings of a check as rows; what the record brought along is none of them. */
function readingRows(checkId: string, readings: unknown): ReadingRow[] {
  if (checkId === "tyre-pressure") {
    return (readings as TyreReadings).tyres.flatMap(({ wheelId, pressurePascals, temperatureKelvin }) => [
      { place: wheelId, quantity: "pressure_pascals", value: pressurePascals },
      ...(temperatureKelvin === undefined ? [] : [{ place: wheelId, quantity: "temperature_kelvin", value: temperatureKelvin }]),
    ]);
  }
  if (checkId !== "deck-level") return rowsOf(readings);
  const { tips, floor } = readings as DeckReadings;
  return [
    ...tips.map((tip) => ({ place: stationKey(tip), quantity: "height_metres", value: tip.heightMetres })),
    ...(floor?.wheels ?? []).map(({ wheelId, heightMetres }) => ({ place: wheelId, quantity: "floor_metres", value: heightMetres })),
    ...(floor?.places ?? []).map((place) => ({ place: stationKey(place), quantity: "floor_metres", value: place.heightMetres })),
  ];
}

/** A reading typed again in another unit differs in its last bits only: that is no correction. */
const SAME_SHARE = 1e-9;

/** Each reading its own row; one that replaces a wrong one points back at it. */
function insertReadings(
  db: Db,
  args: { stepId: number; checkId: string; readings: unknown; asTyped: Readonly<Record<string, string>>; before: Take | undefined },
): void {
  const insert = db.prepare("INSERT INTO readings (step_id, place, quantity, value, as_typed, corrects_id) VALUES (?, ?, ?, ?, ?, ?)");
  for (const { place, quantity, value, key = place } of readingRows(args.checkId, args.readings)) {
    const old = args.before?.readings.find((reading) => reading.place === place && reading.quantity === quantity);
    const corrects = old && Math.abs(old.value - value) > SAME_SHARE * Math.abs(old.value) ? old.id : null;
    insert.run(args.stepId, place, quantity, value, quantity === "floor_metres" ? null : (args.asTyped[key] ?? null), corrects);
  }
}

const CAUSE_IDS: readonly string[] = CAUSES.map(({ id }) => id);

/** The result of a look, for any check of the tables: seen, suspect, not found or could not tell, with the causes it speaks to. */
export function recordFinding(db: Db, doing: Doing, args: { jobId: number } & z.output<typeof newFindingSchema>): { stepId: number } {
  return once(db, doing, "finding", () => {
    const job = openJobRow(db, args.jobId);
    const row = checkRow(args.checkId);
    if (!row) throw new AppError("check-not-found");
    requireState(db, job.id, row.state);
    const { machine, sheetVersion } = getMachine(db, job.machineId);
    if (!isOffered(row, machine)) throw new AppError("invalid", { issues: [{ code: "check-not-for-this-machine", path: ["checkId"] }] });
    const found = args.each?.length ? args.each : args.causes.map((cause) => ({ cause, result: args.result }));
    const unknown = found.map(({ cause }) => cause).filter((cause) => !CAUSE_IDS.includes(cause));
    if (unknown.length > 0)
      throw new AppError("invalid", { issues: unknown.map((cause) => ({ code: "unknown-cause", path: ["causes"], cause })) });
    const assessment = assessLook({ machine, row, each: found, otherwise: args.result, note: args.note });
    const { verdict } = assessment;
    const stepId = addStep(db, doing, { jobId: job.id, kind: "take", data: { checkId: row.id, verdict } });
    insertTake(db, doing, { stepId, job, checkId: row.id, input: { finding: args }, sheetVersion, assessment });
    return { stepId };
  });
}
