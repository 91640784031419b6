import * as z from "zod";
import { physical, physicalOrNought } from "@/core/basics/units/physical";
import { CONTEXTS, type ContextId, SYMPTOMS, type SymptomId } from "@/core/catalogue";
import {
  type Answers,
  CUT_DRIVERS,
  CUT_DRYNESS,
  CUT_HEIGHTS,
  CUT_LIGHTS,
  CUT_LOOKS,
  CUT_PATCHES,
  CUT_TURFS,
  type Mend,
  type Step,
  type StepKind,
  SYMPTOM_NOW,
} from "@/core/job/jobs";
import { answerSchema, SAFE_STATES } from "@/core/job/safety";
import { ROUNDS } from "@/core/job/sequences/guided";
import type { Db } from "@/data/store/db";
import { ofJob, ofMachine, whileUnchanged } from "@/data/store/reads";

export const SYMPTOM_IDS = SYMPTOMS.map(({ id }) => id) as [SymptomId, ...SymptomId[]];
export const CONTEXT_IDS = CONTEXTS.map(({ id }) => id) as [ContextId, ...ContextId[]];
/** Why a check is left out; `back` takes it in again. */
export const SKIP_REASONS = ["no-tool", "no-access", "sure-already", "no-time", "back"] as const;

const SI_PRESSURE = physicalOrNought("pascals", 700_000);

export const pressureChangeSchema = z.object({ wheelId: z.string(), fromPascals: SI_PRESSURE, toPascals: SI_PRESSURE });
export const turnMadeSchema = z.object({ hangerId: z.string(), turns: z.number().min(-60).max(60) });

/** A step of something taken apart or put together: parts counted, what was asked answered, sizes in SI. */
const moveShape = {
  way: z.enum(["off", "on"]),
  step: z.string().max(60),
  counts: z.record(z.string().max(60), z.number().int().min(0).max(99)).default({}),
  answers: z.record(z.string().max(60), z.string().max(60)).optional(),
  sizes: z.record(z.string().max(60), z.number().min(-1).max(2000)).optional(),
};

/** What each kind of step carries; parsed on the way in and again out of its JSON column. */
const faceTallySchema = z.object({
  plannedMetres: physicalOrNought("metres", 0.01),
  inFeeds: z.number().int().min(0).max(400),
  inFeedMetres: physical("metres", 0.001),
  passes: z.number().int().min(0).max(2000),
});

export const STEP_DATA = {
  complaint: z.object({ complaintId: z.number().int() }),
  guess: z.object({ cause: z.string() }),
  confirmation: z.object({
    state: z.enum(SAFE_STATES),
    answers: z.record(z.string(), answerSchema),
    outcome: z.enum(["safe", "stopped"]),
    /** Of the bench: the blades or units that are off and clamped. */
    parts: z.array(z.string().max(60)).max(20).default([]),
    /** Points at which it stopped, in the words they were read in. */
    stoppedAt: z.array(z.string().max(200)).max(40).default([]),
  }),
  /** Worked on and put back: what the work could have broken looked at, everything turned by hand, lead or battery last. */
  "put-back": z.object({
    answers: z.record(z.string(), answerSchema),
    outcome: z.enum(["safe", "stopped"]),
    stoppedAt: z.array(z.string().max(200)).max(40).default([]),
  }),
  /** A lock-out lifted: one's own, or with a reason somebody else's. */
  lift: z.object({ owner: z.string().max(8), reason: z.string().max(500) }),
  /** A box or part that leaves without its machine, to whom, and what is owed on it. */
  handover: z.object({
    what: z.string().max(120),
    place: z.string().max(60).optional(),
    to: z.string().max(120),
    owes: z.array(z.string().max(200)).max(20),
    dueAt: z.string().optional(),
  }),
  take: z.object({
    checkId: z.string(),
    verdict: z.string(),
    correctsStepId: z.number().int().optional(),
    /** Why a reading that stopped the machine was none. */
    reason: z.string().max(500).optional(),
  }),
  /** What a reading found, looked at once more before it is mended. */
  "second-look": z.object({ takeStepId: z.number().int(), cause: z.string().max(60), isStillSo: z.boolean() }),
  fix: z.object({
    fix: z.string(),
    cause: z.string(),
    minutes: z.number().min(0).max(10_000).optional(),
    words: z.string().max(1000),
    parts: z.string().max(200).optional(),
    torqueNewtonMetres: physical("newtonMetres", 2000).optional(),
    /** Of a reel machine, the units it was done on; all of them where none is named. */
    units: z.array(z.string().max(60)).max(9).optional(),
    /** Of a bedknife ground: clamped, traverse locked and guards on before the wheel came in; each face as it was counted, booked against its life. */
    ground: z
      .object({
        isClamped: z.literal(true),
        top: faceTallySchema,
        front: faceTallySchema,
        /** Of a reel spun with it, or alone. */
        reel: faceTallySchema.extend({ isRelieved: z.boolean() }).optional(),
      })
      .optional(),
    torqueHow: z.enum(["wrench", "by-feel"]).optional(),
    pressures: z.array(pressureChangeSchema).optional(),
    turns: z.array(turnMadeSchema).optional(),
  }),
  /** One step of a deck coming off or going on, with the parts counted at it. */
  deck: z.object({ ...moveShape, left: z.number().int().min(0).max(200).optional() }),
  /** One step of a blade off and on, or of a spindle's service. */
  guided: z.object({ round: z.enum(ROUNDS), place: z.string().max(60), ...moveShape }),
  /** What a round really holds on this machine, counted at the bench: its own list from then on. */
  "own-list": z.object({
    round: z.enum([...ROUNDS, "box"]),
    place: z.string().max(60),
    counts: z.record(z.string().max(60), z.number().int().min(0).max(40)),
  }),
  /** One step of a gearbox taken apart or put together; or a part that was left loose on purpose, tightened. */
  rebuild: z.union([
    z.object({ box: z.string().max(60), tightened: z.string().max(60) }),
    z.object({
      box: z.string().max(60),
      ...moveShape,
      loose: z.array(z.string().max(60)).max(10).default([]),
    }),
  ]),
  photograph: z.object({ about: z.string().max(200) }),
  "test-cut": z.object({
    looks: z.enum(CUT_LOOKS),
    turf: z.enum(CUT_TURFS),
    place: z.string().max(120),
    operator: z.string().max(60),
    dryness: z.enum(CUT_DRYNESS),
    light: z.enum(CUT_LIGHTS).optional(),
    patch: z.enum(CUT_PATCHES).optional(),
    height: z.enum(CUT_HEIGHTS).optional(),
    drivenBy: z.enum(CUT_DRIVERS).optional(),
    /** What was complained of and is not seen in grass, as it was at the cut. */
    symptoms: z.partialRecord(z.enum(SYMPTOM_IDS), z.enum(SYMPTOM_NOW)).optional(),
    /** Blades seen to cut, where a belt was disturbed. */
    seenCutting: z.array(z.string().max(60)).max(20).optional(),
    cutHeightMetres: physical("metres", 0.3).optional(),
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
  /** Let go by word: a reason for each cause. Earlier ones have one for everything. */
  release: z.object({
    reason: z.string().max(500),
    reasons: z
      .array(z.object({ key: z.string().max(200), reason: z.string().max(500) }))
      .max(40)
      .optional(),
  }),
  close: z.object({
    causes: z.array(z.string()),
    /** By cause, the places it was found at or mended at; without them it was of no place that the record knows. */
    places: z.record(z.string(), z.array(z.string().max(120)).max(40)).optional(),
    isProved: z.boolean(),
    unprovedReason: z.string().max(500).optional(),
    words: z.string().max(1000),
    /** What the work itself could have put wrong, of jobs closed before putting back was a step of its own. */
    aftermath: z.array(z.string()).default([]),
    /** Of a job that nobody had worked on and that went into another: which of its complaints went where. */
    joined: z.object({ intoJobId: z.number().int(), complaintIds: z.array(z.number().int()) }).optional(),
  }),
  undo: z.object({ reason: z.string().max(200) }),
} as const satisfies Record<StepKind, z.ZodType>;

export type StepData<K extends StepKind> = z.output<(typeof STEP_DATA)[K]>;
export type AnyStep = { [K in StepKind]: Step<StepData<K>> & { kind: K; seq: number } }[StepKind];

type Row = {
  id: number;
  kind: StepKind;
  data_json: string;
  undoes_id: number | null;
  who: string;
  at: string;
  seq: number;
  job_id: number;
};

const SELECT = "SELECT s.id, s.job_id, s.kind, s.data_json, s.undoes_id, s.who, s.at, s.seq FROM steps s";

/** A job's steps in order. */
export function listSteps(db: Db, jobId: number): AnyStep[] {
  return whileUnchanged(
    db,
    `steps of job ${jobId}`,
    () => (db.prepare(`${SELECT} WHERE s.job_id = ? ORDER BY s.id`).all(jobId) as Row[]).map(fromRow),
    { on: ofJob(db, jobId), size: "middling" },
  );
}

/** Every step of every job of a machine, in the order of its log. */
export function stepsOfMachine(db: Db, machineId: string): (AnyStep & { jobId: number })[] {
  return whileUnchanged(
    db,
    `steps of machine ${machineId}`,
    () => {
      const rows = db.prepare(`${SELECT} JOIN jobs j ON j.id = s.job_id WHERE j.machine_id = ? ORDER BY s.seq`).all(machineId) as Row[];
      return rows.map((row) => ({ ...fromRow(row), jobId: row.job_id }));
    },
    { on: ofMachine(machineId, "log"), size: "long" },
  );
}

/** Steps of every job of a machine after a place in the log, in its order. Inside a change they are read, not remembered. */
export function stepsAfter(db: Db, machineId: string, seq: number): (AnyStep & { jobId: number })[] {
  const rows = db
    .prepare(
      `${SELECT.replace("FROM steps s", "FROM jobs j CROSS JOIN steps s ON s.job_id = j.id")} WHERE j.machine_id = ? AND s.seq > ? ORDER BY s.seq`,
    )
    .all(machineId, seq) as Row[];
  return rows.map((row) => ({ ...fromRow(row), jobId: row.job_id }));
}

/** What was taken off and put back part by part, over all jobs of a machine, as far as it stands: a few steps among years of others. */
export function movesOfMachine(db: Db, machineId: string): (AnyStep & { jobId: number })[] {
  const rows = () =>
    db
      .prepare(
        `${SELECT.replace("FROM steps s", "FROM jobs j CROSS JOIN steps s ON s.job_id = j.id")} WHERE j.machine_id = ? AND s.kind IN ('deck', 'rebuild', 'guided', 'own-list')
         AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = s.id) ORDER BY s.seq`,
      )
      .all(machineId) as Row[];
  return whileUnchanged(db, `moves of ${machineId}`, () => rows().map((row) => ({ ...fromRow(row), jobId: row.job_id })), {
    on: ofMachine(machineId, "log"),
    size: "middling",
  });
}

function fromRow(row: Row): AnyStep {
  return {
    id: row.id,
    seq: row.seq,
    kind: row.kind,
    data: STEP_DATA[row.kind].parse(JSON.parse(row.data_json)),
    who: row.who,
    at: row.at,
    ...(row.undoes_id === null ? {} : { undoesId: row.undoes_id }),
  } as AnyStep;
}

/** What was asked and answered, oldest first, with its place in the log. */
export const answersIn = (steps: readonly AnyStep[]): Answers[] =>
  steps.flatMap((step) => (step.kind === "answer" ? [{ ...(step.data as Answers), seq: step.seq }] : []));

/** Which causes something was done about, oldest first. */
export const mendsIn = (steps: readonly AnyStep[]): Mend[] =>
  steps.flatMap((step) => (step.kind === "fix" ? [{ seq: step.seq, cause: step.data.cause }] : []));
