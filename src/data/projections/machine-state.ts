import { createHash } from "node:crypto";
import { FIX_LABELS, type FixId } from "@/core/catalogue";
import { type LastSeen, lastSeen } from "@/core/fleet/service/tasks";
import { liveSteps } from "@/core/job/jobs";
import type { SafeState } from "@/core/job/safety";
import { type Answers, isSubstantial } from "@/core/job/safety";
import {
  BELT_SEATED,
  goneBetween,
  type HeldReason,
  isAtRest,
  isIn,
  type LogEntry,
  type LogLine,
  type MachineState,
  machineState,
  mayRun,
  type Purpose,
  type RunReason,
  TURNED,
} from "@/core/job/status";
import { type EventRecord, listEvents, listTakenBackRuns } from "@/data/record/events-read";
import { sheetInForce, sheetsInOrder, unlessSpoilt } from "@/data/record/sheets-read";
import { type AnyStep, stepsAfter } from "@/data/record/step-data";
import { type StandingTake, standingOfMachine } from "@/data/record/takes-read";
import type { Db } from "@/data/store/db";
import { AppError, type Issue } from "@/data/store/errors";
import { nextSeq } from "@/data/store/sequence";

/** Of the fold: another number folds every machine again when the data is opened. */
export const FOLD_VERSION = 8;

/**
 * Everything a machine's jobs and events say of it after a place in the log, as the core folds it; every version of its specification is among it, since what
 * comes is judged by the one that was in force.
 */
export function machineLog(db: Db, machineId: string, afterSeq = 0): LogLine[] {
  const steps = stepsAfter(db, machineId, afterSeq);
  const live = liveSteps(steps);
  const takes = new Map(standingOfMachine(db, machineId, afterSeq).map((take) => [take.stepId, take]));
  const byStep = new Map(live.map((step) => [step.id, step]));
  return [
    ...sheetsInOrder(db, machineId).map((sheet): LogLine => ({ kind: "specification", ...sheet })),
    ...live.flatMap((step) => lineOf(step, takes)),
    ...steps.filter(({ id }) => !byStep.has(id)).flatMap((step) => takenBack(step)),
    ...listEvents(db, machineId, afterSeq + 1).flatMap((event) => eventLine(event, byStep)),
    ...listTakenBackRuns(db, machineId, afterSeq + 1).map(
      (event): LogLine => ({ ...whenceOf(event), kind: "event", event: "run", isTakenBack: true }),
    ),
  ];
}

const whence = ({ seq, at, who, jobId }: AnyStep & { jobId: number }) => ({ seq, at, who, jobId });
const whenceOf = ({ seq, at, who }: EventRecord) => ({ seq, at, who });

function lineOf(step: AnyStep & { jobId: number }, takes: ReadonlyMap<number, StandingTake>): LogLine[] {
  const entry = entryOf(step, takes);
  if (!entry) return [];
  // A slip put right stands where the slip stood: it is no reading taken after what was mended since.
  const seq = entry.kind === "take" ? (takes.get(step.id)?.seq ?? step.seq) : step.seq;
  return [{ ...whence(step), seq, ...entry }];
}

function entryOf(step: AnyStep, takes: ReadonlyMap<number, StandingTake>): LogEntry | undefined {
  switch (step.kind) {
    case "confirmation":
      return { kind: "confirmation", state: step.data.state, outcome: step.data.outcome, parts: step.data.parts };
    case "lift":
      return { kind: "lift", ...step.data };
    case "put-back":
      return { kind: "put-back", stepId: step.id, outcome: step.data.outcome, ...turnedIn(step.data.answers) };
    case "take": {
      const take = takes.get(step.id);
      return take && { kind: "take", ...take };
    }
    case "fix":
      return { kind: "fix", fix: step.data.fix, cause: step.data.cause };
    case "test-cut":
      return { kind: "test-cut", seenCutting: step.data.seenCutting ?? [] };
    case "deck":
      return { kind: "deck", move: step.data };
    case "rebuild":
      return { kind: "rebuild", move: step.data };
    case "guided":
      return { kind: "guided", move: step.data };
    case "close":
      return { kind: "close" };
    case "hold":
      return { kind: "hold", stepId: step.id, reason: step.data.reason };
    case "release":
      return { kind: "release", reason: step.data.reason, ...(step.data.reasons ? { reasons: step.data.reasons } : {}) };
    default:
      return undefined;
  }
}

/** What a putting back says of each blade, and of the belt. */
export function turnedIn(answers: Answers): { turned: string[]; touching: string[]; isBeltSeated: boolean } {
  const said = (answer: string) =>
    Object.entries(answers).flatMap(([id, one]) => (id.startsWith(TURNED) && one.answer === answer ? [id.slice(TURNED.length)] : []));
  return { turned: said("yes"), touching: said("refused"), isBeltSeated: answers[BELT_SEATED]?.answer === "yes" };
}

/** What does not come back by being taken back: a safe state that was confirmed, and what ended with a job that was closed. */
function takenBack(step: AnyStep & { jobId: number }): LogLine[] {
  if (step.kind === "close") return [{ ...whence(step), kind: "close" }];
  if (step.kind !== "confirmation") return [];
  const { state, outcome, parts } = step.data;
  return [{ ...whence(step), kind: "confirmation", state, outcome, parts, isTakenBack: true }];
}

/** The events of a hold and its release are said by their steps. */
function eventLine(event: EventRecord, steps: ReadonlyMap<number, AnyStep & { jobId: number }>): LogLine[] {
  const step = event.stepId === undefined ? undefined : steps.get(event.stepId);
  if (step?.kind === "hold" || step?.kind === "release") return [];
  const { event: id, place, words, where, droveOn } = event;
  const said = words ?? (step?.kind === "fix" ? FIX_LABELS[step.data.fix as FixId]?.toLowerCase() : undefined);
  return [
    {
      ...whenceOf(event),
      ...(step ? { jobId: step.jobId } : {}),
      kind: "event",
      event: id,
      ...(place ? { place } : {}),
      ...(said ? { words: said } : {}),
      ...(where ? { where } : {}),
      ...(droveOn === undefined ? {} : { droveOn }),
    },
  ];
}

/** Of a kept state `s`: folded by this reckoning, and nothing was written to the machine's log since. */
const IS_OF_NOW = "s.fold_version = ? AND s.log_n IS (SELECT n FROM stamps WHERE subject = 'log:' || s.machine_id)";

/** Of a row that is to be folded anew, from the first line. */
const NO_VERSION = -1;

/** How a machine stands now, from its whole log. Throws `machine-not-found`. */
export function stateOfMachine(db: Db, machineId: string): MachineState {
  const row = db
    .prepare(`SELECT s.state_json FROM machine_states s WHERE s.machine_id = ? AND ${IS_OF_NOW}`)
    .get(machineId, FOLD_VERSION) as { state_json: string } | undefined;
  if (row) return JSON.parse(row.state_json) as MachineState;
  return foldOf(db, machineId).state;
}

/** What a machine's log shows last, as it was folded with its state. */
export function lastSeenOf(db: Db, machineId: string): LastSeen {
  const row = db
    .prepare(`SELECT s.last_json FROM machine_states s WHERE s.machine_id = ? AND s.last_json IS NOT NULL AND ${IS_OF_NOW}`)
    .get(machineId, FOLD_VERSION) as { last_json: string } | undefined;
  return row ? (JSON.parse(row.last_json) as LastSeen) : (lastBefore(db, machineId) ?? foldOf(db, machineId).last);
}

/**
 * What it showed by the reckoning before, while it waits to be folded anew: whole, of today's log, and of no weight where it is asked whether anything may run. A
 * list that waited for three hundred logs would be no list.
 */
function lastBefore(db: Db, machineId: string): LastSeen | undefined {
  const row = db
    .prepare(
      `SELECT s.hash, s.state_json, s.last_json, s.rest_json FROM machine_states s WHERE s.machine_id = ? AND s.fold_version = ${NO_VERSION}
         AND s.last_json IS NOT NULL AND s.log_n IS (SELECT n FROM stamps WHERE subject = 'log:' || s.machine_id)`,
    )
    .get(machineId) as (StateRow & { hash: string | null }) | undefined;
  return row?.last_json && row.hash === hashOf(row) ? (JSON.parse(row.last_json) as LastSeen) : undefined;
}

/** Where a machine's log was at rest, what it showed last by then, and earlier such places. */
type Rest = { seq: number; last: LastSeen; older: number[] };
type Fold = { state: MachineState; last: LastSeen; rest: Rest | undefined };

/** So many places to go on from are remembered: what is taken back lies seldom further back. */
const RESTS = 12;
/** So many closed jobs back a place of rest is looked for, where a log is folded from its first line. */
const CLOSES_TRIED = 4;

/** A machine's log folded from where it last was at rest; from its first line where something before that was taken back or put right since. */
function foldOf(db: Db, machineId: string): Fold {
  const machine = sheetInForce(db, machineId);
  const row = db.prepare("SELECT rest_json FROM machine_states WHERE machine_id = ? AND fold_version = ?").get(machineId, FOLD_VERSION) as
    | { rest_json: string | null }
    | undefined;
  const rest = row?.rest_json ? (JSON.parse(row.rest_json) as Rest) : undefined;
  const back = rest && reachedBack(db, machineId, rest.seq);
  if (!rest || back !== undefined)
    return foldWhole(
      db,
      machineId,
      rest?.older.findLast((seq) => seq < (back ?? 0)),
    );
  const log = machineLog(db, machineId, rest.seq);
  const state = machineState(machine, log);
  const last = lastSeen(log, rest.last);
  return { state, last, rest: isAtRest(machine, log, state) ? restAt(lastSeq(db), last, [...rest.older, rest.seq]) : rest };
}

const restAt = (seq: number, last: LastSeen, older: readonly number[]): Rest => ({ seq, last, older: older.slice(-RESTS) });

/** `known`: a place of rest that still is one. */
function foldWhole(db: Db, machineId: string, known: number | undefined): Fold {
  const machine = sheetInForce(db, machineId);
  const log = machineLog(db, machineId).sort((a, b) => a.seq - b.seq);
  const state = machineState(machine, log);
  const last = lastSeen(log);
  if (isAtRest(machine, log, state)) return { state, last, rest: restAt(lastSeq(db), last, []) };
  const closes = log.flatMap((line) => (line.kind === "close" ? [line.seq] : [])).slice(-CLOSES_TRIED);
  const seq = closes.findLast((close) => {
    if (close === known) return true;
    const before = log.filter((line) => line.seq <= close);
    return isAtRest(machine, before, machineState(machine, before));
  });
  if (seq === undefined) return { state, last, rest: undefined };
  return { state, last, rest: restAt(seq, lastSeen(log.filter((line) => line.seq <= seq)), []) };
}

/** The end of the one log: what is written next stands behind it. */
const lastSeq = (db: Db): number => nextSeq(db) - 1;

/** The earliest line at or before a place in the log that was taken back, voided or put right behind it. */
function reachedBack(db: Db, machineId: string, seq: number): number | undefined {
  const { back } = db
    .prepare(
      `SELECT min(seq) AS back FROM (
         SELECT s.seq FROM jobs j CROSS JOIN steps u ON u.job_id = j.id CROSS JOIN steps s ON s.id = u.undoes_id
           WHERE j.machine_id = ? AND u.seq > ? AND s.seq <= ?
         UNION ALL SELECT e.seq FROM events v CROSS JOIN events e ON e.id = v.voids_id WHERE v.machine_id = ? AND v.seq > ? AND e.seq <= ?
         UNION ALL SELECT b.seq FROM jobs j CROSS JOIN steps s ON s.job_id = j.id CROSS JOIN takes t ON t.step_id = s.id CROSS JOIN steps b ON b.id = t.corrects_step_id
           WHERE j.machine_id = ? AND s.seq > ? AND b.seq <= ?)`,
    )
    .get(...[1, 2, 3].flatMap(() => [machineId, seq, seq])) as { back: number | null };
  return back ?? undefined;
}

/**
 * Folds every machine whose log the change in hand wrote to and keeps how it stands; answers which, and what kept each from running before and does not now. Inside
 * the transaction of the change.
 */
export function settleStates(db: Db, machineIds: readonly string[]): { machineId: string; gone: HeldReason[] }[] {
  return machineIds.map((machineId) => {
    const row = db.prepare("SELECT state_json FROM machine_states WHERE machine_id = ?").get(machineId) as
      | { state_json: string }
      | undefined;
    const after = keep(db, machineId);
    return { machineId, gone: row ? goneBetween(JSON.parse(row.state_json) as MachineState, after) : [] };
  });
}

/** Has every machine folded anew by the next `refoldStates`; nothing that may not run does meanwhile, since the gate takes no state of another version. */
export const disownStates = (db: Db): unknown => db.prepare("UPDATE machine_states SET fold_version = ?").run(NO_VERSION);

const TABLE = `CREATE TABLE IF NOT EXISTS machine_states (
  machine_id TEXT NOT NULL PRIMARY KEY REFERENCES machines (id), fold_version INTEGER NOT NULL, is_held INTEGER NOT NULL CHECK (is_held IN (0, 1)),
  state_json TEXT NOT NULL CHECK (json_valid(state_json)), last_json TEXT, rest_json TEXT, log_n INTEGER, hash TEXT) STRICT`;

type StateRow = { state_json: string; last_json: string | null; rest_json: string | null };

const hashOf = ({ state_json, last_json, rest_json }: StateRow): string =>
  createHash("sha256").update(`${state_json}\n${last_json}\n${rest_json}`).digest("hex");

/**
 * Machines whose kept state is none: missing, of an older reckoning, behind its log, or not as it was written.
 */
export function statesToFold(db: Db): string[] {
  const rows = db
    .prepare(
      `SELECT m.id, (${IS_OF_NOW}) IS TRUE AS is_of_now, s.hash, s.state_json, s.last_json, s.rest_json
       FROM machines m LEFT JOIN machine_states s ON s.machine_id = m.id ORDER BY m.id`,
    )
    .all(FOLD_VERSION) as ({ id: string; is_of_now: 0 | 1; hash: string | null } & StateRow)[];
  return rows.flatMap((row) => (row.is_of_now === 1 && row.hash === hashOf(row) ? [] : [row.id]));
}

/** Machines that are to be folded anew, each marked so that the gate takes no state of it before: it folds the log instead. */
export function disownUnfit(db: Db): string[] {
  // A table that was dropped is made again, and all of it is missing.
  db.exec(TABLE);
  const ids = statesToFold(db);
  const disown = db.prepare("UPDATE machine_states SET fold_version = ? WHERE machine_id = ?");
  db.transaction(() => {
    for (const id of ids) disown.run(NO_VERSION, id);
  })();
  return ids;
}

/** Folds one machine's log from its first line, in a change of its own. What is wrong with a row says nothing to fold on from; it stands for lists until the new one does. */
export function foldAnew(db: Db, machineId: string): void {
  const fold = () => {
    db.prepare("UPDATE machine_states SET fold_version = ? WHERE machine_id = ?").run(NO_VERSION, machineId);
    unlessSpoilt(() => keep(db, machineId));
  };
  db.transaction(fold).immediate();
}

/**
 * Brings every machine up to this reckoning when the data is opened, each in a change of its own: whoever stops it in the middle goes on from there. `told` hears
 * of each, and stops it by answering false. Answers how many were folded.
 */
export function refoldStates(db: Db, told: (done: number, all: number, machineId: string) => boolean = () => true): number {
  const ids = disownUnfit(db);
  let done = 0;
  for (const id of ids) {
    foldAnew(db, id);
    done += 1;
    if (!told(done, ids.length, id)) break;
  }
  return done;
}

function keep(db: Db, machineId: string): MachineState {
  const { state, last, rest } = foldOf(db, machineId);
  const row: StateRow = {
    state_json: JSON.stringify(state),
    last_json: JSON.stringify(last),
    rest_json: rest === undefined ? null : JSON.stringify(rest),
  };
  db.prepare(
    `INSERT INTO machine_states (machine_id, fold_version, is_held, state_json, last_json, rest_json, hash, log_n)
     VALUES (?, ?, ?, ?, ?, ?, ?, (SELECT n FROM stamps WHERE subject = 'log:' || ?))
     ON CONFLICT (machine_id) DO UPDATE SET fold_version = excluded.fold_version, is_held = excluded.is_held, state_json = excluded.state_json,
       last_json = excluded.last_json, rest_json = excluded.rest_json, hash = excluded.hash, log_n = excluded.log_n`,
  ).run(machineId, FOLD_VERSION, state.unsafe.length > 0 ? 1 : 0, row.state_json, row.last_json, row.rest_json, hashOf(row), machineId);
  return state;
}

/** Throws `not-safe` with every reason, unless the machine may run for this purpose. */
export function requireMayRun(db: Db, machineId: string, purpose: Purpose): void {
  const { reasons } = mayRun(stateOfMachine(db, machineId), purpose);
  if (reasons.length > 0) throw new AppError("not-safe", { issues: reasons.map(issueOf) });
}

/** A reason as an issue of the API: its code, and all it carries. */
export function issueOf({ code, ...detail }: RunReason): Issue {
  return { ...detail, code, path: [] };
}

/** Throws `not-safe` unless the machine, or for bench work a part of it, is in a state that covers what is needed. */
export function requireState(db: Db, machineId: string, needs: SafeState): void {
  if (!isIn(stateOfMachine(db, machineId), needs)) throw new AppError("not-safe", { issues: [{ code: "state-needed", path: [], needs }] });
}

/** Throws `invalid` at the field unless the words say why. */
export function requireSubstance(reason: string, path: (string | number)[] = ["reason"]): void {
  if (!isSubstantial(reason)) throw new AppError("invalid", { issues: [{ code: "reason-of-substance", path }] });
}
