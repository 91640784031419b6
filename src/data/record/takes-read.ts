import type { Finding, Verdict } from "@/core/basics/findings";
import type { CheckId } from "@/core/catalogue";
import type { Assessment, Mark } from "@/core/checks";
import type { Db } from "@/data/store/db";
import { ofJob, ofMachine, whileUnchanged } from "@/data/store/reads";

export type Take = {
  stepId: number;
  jobId: number;
  checkId: CheckId;
  correctsStepId?: number;
  input: unknown;
  sheetVersion: number;
  ruleVersion: number;
  verdict: Verdict;
  result: Assessment;
  at: string;
  who: string;
  /** Where it stands in the machine's log; a correction where what it corrects stood. */
  seq: number;
  readings: { id: number; place: string; quantity: string; value: number; asTyped?: string }[];
};

type Row = {
  step_id: number;
  job_id: number;
  check_id: CheckId;
  corrects_step_id: number | null;
  input_json: string;
  sheet_version: number;
  rule_version: number;
  verdict: Verdict;
  result_json: string;
  at: string;
  who: string;
  seq: number;
};

/** Of a take `t`: not undone, not corrected since. */
export const STANDS = `NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = t.step_id)
    AND NOT EXISTS (SELECT 1 FROM takes c WHERE c.corrects_step_id = t.step_id
      AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = c.step_id))`;

/** Takes that count. Open for further conditions. */
export const STANDING_TAKES = `SELECT t.step_id, t.job_id, t.check_id, t.corrects_step_id, t.input_json, t.sheet_version, t.rule_version, t.verdict,
  t.result_json, t.at, s.who, s.seq FROM takes t JOIN steps s ON s.id = t.step_id
  WHERE ${STANDS}`;

/** The same by the jobs of a machine, of which only what is new is looked through. */
const STANDING_AFTER = STANDING_TAKES.replace(
  "FROM takes t JOIN steps s ON s.id = t.step_id",
  "FROM jobs j CROSS JOIN steps s ON s.job_id = j.id CROSS JOIN takes t ON t.step_id = s.id",
);

type Reading = Take["readings"][number];

/** The readings of these takes in one query, by step. */
function readingsOf(db: Db, steps: readonly number[]): Map<number, Reading[]> {
  const rows = db
    .prepare(
      `SELECT step_id, id, place, quantity, value, as_typed FROM readings WHERE step_id IN (SELECT value FROM json_each(?)) ORDER BY step_id, id`,
    )
    .all(JSON.stringify(steps)) as (Omit<Reading, "asTyped"> & { step_id: number; as_typed: string | null })[];
  const found = new Map<number, Reading[]>(steps.map((step) => [step, []]));
  for (const { step_id, as_typed, ...reading } of rows)
    found.get(step_id)?.push({ ...reading, ...(as_typed === null ? {} : { asTyped: as_typed }) });
  return found;
}

/** So many takes are kept as they were parsed: the last two hundred of a machine are asked for after every step. */
const MOST_PARSED = 4000;
const parsed = new WeakMap<Db, Map<number, Take>>();

/** A take is never changed: one that was read is not parsed again. What may yet be rolled back is not kept. */
function fromRows(db: Db, rows: readonly Row[]): Take[] {
  const kept = parsed.get(db) ?? new Map<number, Take>();
  parsed.set(db, kept);
  const fresh = rows.filter(({ step_id }) => !kept.has(step_id));
  const found = new Map(parse(db, fresh).map((take) => [take.stepId, take]));
  const takes = rows.flatMap(({ step_id }) => kept.get(step_id) ?? found.get(step_id) ?? []);
  if (db.inTransaction) return takes;
  for (const take of found.values()) kept.set(take.stepId, take);
  for (const id of kept.keys()) {
    if (kept.size <= MOST_PARSED) break;
    kept.delete(id);
  }
  return takes;
}

function parse(db: Db, rows: readonly Row[]): Take[] {
  const readings = readingsOf(
    db,
    rows.map(({ step_id }) => step_id),
  );
  return rows.map((row) => ({
    stepId: row.step_id,
    jobId: row.job_id,
    checkId: row.check_id,
    input: JSON.parse(row.input_json),
    sheetVersion: row.sheet_version,
    ruleVersion: row.rule_version,
    verdict: row.verdict,
    result: assessmentFrom(row.result_json),
    who: row.who,
    ...rootOf(db, row),
    readings: readings.get(row.step_id) ?? [],
    ...(row.corrects_step_id === null ? {} : { correctsStepId: row.corrects_step_id }),
  }));
}

/**
 * Where a take stands: a correction keeps the time and place of what it corrects, so that a slip put right after a fix is not a reading taken
 * after the fix.
 */
export function rootOf(db: Db, row: Pick<Row, "corrects_step_id" | "at" | "seq">): { at: string; seq: number } {
  if (row.corrects_step_id === null) return { at: row.at, seq: row.seq };
  return db
    .prepare(
      `WITH RECURSIVE before (step_id, corrects_step_id) AS (
         SELECT step_id, corrects_step_id FROM takes WHERE step_id = ?
         UNION ALL SELECT t.step_id, t.corrects_step_id FROM takes t JOIN before b ON t.step_id = b.corrects_step_id)
       SELECT s.at, s.seq FROM before b JOIN steps s ON s.id = b.step_id WHERE b.corrects_step_id IS NULL`,
    )
    .get(row.corrects_step_id) as { at: string; seq: number };
}

/** What the fold of a machine needs of a take that counts. */
export type StandingTake = { stepId: number; seq: number; check: CheckId } & Pick<
  Assessment,
  "ruleVersion" | "verdict" | "findings" | "told" | "evidence"
>;

/** Every take of a machine that counts and was written after a place in the log, whichever job took it. */
export function standingOfMachine(db: Db, machineId: string, afterSeq = 0): StandingTake[] {
  const rows =
    afterSeq === 0
      ? db.prepare(`${STANDING_TAKES} AND t.machine_id = ? ORDER BY s.seq`).all(machineId)
      : db.prepare(`${STANDING_AFTER} AND j.machine_id = ? AND s.seq > ? ORDER BY s.seq`).all(machineId, afterSeq);
  return (rows as Row[]).map((row) => {
    const { findings, told, evidence } = assessmentFrom(row.result_json);
    return {
      stepId: row.step_id,
      seq: rootOf(db, row).seq,
      check: row.check_id,
      ruleVersion: row.rule_version,
      verdict: row.verdict,
      findings,
      told,
      evidence,
    };
  });
}

/** An assessment as it was kept; one from before findings has its marks for them, and tells no place read in full that it did not judge. */
export function assessmentFrom(json: string): Assessment {
  const kept = JSON.parse(json) as Omit<Assessment, "findings" | "told" | "marks"> & {
    findings?: Finding[];
    told?: string[];
    marks?: Mark[];
  };
  const marks = kept.marks ?? [];
  const findings = kept.findings ?? marks.map(({ place, code = "", verdict }) => ({ place, code, verdict }));
  return { ...kept, marks, findings, told: kept.told ?? findings.map(({ place }) => place) };
}

/** Takes of a job that count: not undone, not corrected since. Oldest first. */
export function takesOfJob(db: Db, jobId: number): Take[] {
  return whileUnchanged(
    db,
    `takes of job ${jobId}`,
    () => fromRows(db, db.prepare(`${STANDING_TAKES} AND t.job_id = ? ORDER BY t.step_id`).all(jobId) as Row[]),
    { on: ofJob(db, jobId), size: "middling" },
  );
}

/** Every take of a job, also those that were corrected or taken back. */
export function everyTakeOfJob(db: Db, jobId: number): { stepId: number; result: Assessment }[] {
  const rows = db.prepare("SELECT step_id, result_json FROM takes WHERE job_id = ? ORDER BY step_id").all(jobId) as {
    step_id: number;
    result_json: string;
  }[];
  return rows.map(({ step_id, result_json }) => ({ stepId: step_id, result: assessmentFrom(result_json) }));
}

/** All takes of a machine that count, newest first. */
export function takesOfMachine(db: Db, machineId: string, limit = 200): Take[] {
  return whileUnchanged(
    db,
    `takes of machine ${machineId} ${limit}`,
    () => fromRows(db, db.prepare(`${STANDING_TAKES} AND t.machine_id = ? ORDER BY s.seq DESC LIMIT ?`).all(machineId, limit) as Row[]),
    { on: ofMachine(machineId, "log"), size: "long" },
  );
}

/** Takes of a machine that count and have a name somewhere in what was read, newest first: what is read at that place is among them. */
export function takesNaming(db: Db, machineId: string, name: string, limit = 100): Take[] {
  const rows = db
    .prepare(`${STANDING_TAKES} AND t.machine_id = ? AND instr(t.input_json, ?) > 0 ORDER BY s.seq DESC LIMIT ?`)
    .all(machineId, name, limit) as Row[];
  return fromRows(db, rows);
}

/** So many readings of one check back, whatever else was read of the machine since. */
const OF_ONE_CHECK = 12;

/** The last takes of one check of a machine that count, newest first: what was read long ago of a unit still stands behind many later takes. */
export function takesOfCheck(db: Db, machineId: string, checkId: CheckId): Take[] {
  return whileUnchanged(
    db,
    `takes of machine ${machineId} check ${checkId}`,
    () =>
      fromRows(
        db,
        db
          .prepare(`${STANDING_TAKES} AND t.machine_id = ? AND t.check_id = ? ORDER BY s.seq DESC LIMIT ?`)
          .all(machineId, checkId, OF_ONE_CHECK) as Row[],
      ),
    { on: ofMachine(machineId, "log"), size: "middling" },
  );
}

/** Assessments of these steps as they were written down, in words of their time. */
export function assessmentsOf(db: Db, stepIds: readonly number[]): Map<number, Assessment> {
  const rows = db
    .prepare("SELECT step_id, result_json FROM takes WHERE step_id IN (SELECT value FROM json_each(?))")
    .all(JSON.stringify(stepIds)) as {
    step_id: number;
    result_json: string;
  }[];
  return new Map(rows.map(({ step_id, result_json }) => [step_id, assessmentFrom(result_json)]));
}
