import { FIXES, type FixRow, type SymptomId } from "@/core/catalogue";
import type { OwedDetail, ProofGap } from "@/core/job/jobs";
import type { HeldReason } from "@/core/job/status";
import { IN_FLEET } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import type { AnyStep } from "@/data/record/step-data";
import type { JobRow } from "@/data/record/steps";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { insertEntry, postponeSchema, requireDayToCome } from "./service-log";

/** Without a job where it was let go of at the machine itself. */
export type Owed = { id: number; machineId: string; jobId?: number; code: string; dueAt: string; detail?: OwedDetail };

const DAY = 86_400_000;
/** A cut that browns does so within two days (common practice). */
const SECOND_LOOK_DAYS = 2;
/** First run after a bolt was moved: as a date, the next working day (estimate). */
const FIRST_RUN_DAYS = 1;

/** A job closed unproved is looked at again before it is forgotten. Estimate. */
const GAP_DAYS = 2;
/** Whoever is let go over hears of it at the next day's work. Estimate. */
const LET_GO_DAYS = 1;
/** When nobody said by when. Estimate. */
const HANDED_OVER_DAYS = 7;

const fixRows: readonly FixRow[] = FIXES;
const TEARS: readonly SymptomId[] = ["torn-tips", "browning"];
const BLADE_EVENTS: readonly string[] = ["blade-changed", "blade-refitted", "spindle-apart"];

function later(now: string, days: number): string {
  return new Date(Date.parse(now) + days * DAY).toISOString();
}

/** What a closed job still owes: a second look for browning, blade bolts after their first run, oil after standing. */
export function addOwed(
  db: Db,
  doing: Doing,
  args: {
    job: JobRow;
    stepId: number;
    steps: readonly AnyStep[];
    recheck: readonly string[];
    /** What answers at guided steps leave owed. */
    answeredOwed: readonly string[];
    hasLoose: boolean;
    hasOpenedBox: boolean;
    /** What was complained of. */
    complained: readonly SymptomId[];
    gaps: readonly ProofGap[];
  },
): void {
  const events = args.steps.flatMap((step) =>
    step.kind === "fix" ? fixRows.filter(({ fix }) => fix === step.data.fix).map(({ event }) => event) : [],
  );
  const owed: { code: string; dueAt: string; detail?: OwedDetail }[] = args.gaps.map((gap) => ({
    code: "proof-gap",
    dueAt: later(doing.now, GAP_DAYS),
    detail: { gap },
  }));
  // Leaves brown days after they were torn: of a ledge or a ripple there is nothing to come back for.
  const wasTorn = args.complained.some((symptom) => TEARS.includes(symptom));
  if (wasTorn && args.steps.some(({ kind }) => kind === "test-cut"))
    owed.push({ code: "second-look", dueAt: later(doing.now, SECOND_LOOK_DAYS) });
  if (events.some((event) => BLADE_EVENTS.includes(event)) || args.steps.some(({ kind }) => kind === "guided"))
    owed.push({ code: "bolts-after-first-run", dueAt: later(doing.now, FIRST_RUN_DAYS) });
  if (args.recheck.length > 0 || args.answeredOwed.includes("bolts-by-wrench"))
    owed.push({ code: "bolts-by-wrench", dueAt: later(doing.now, FIRST_RUN_DAYS) });
  if (args.hasLoose) owed.push({ code: "left-loose", dueAt: later(doing.now, FIRST_RUN_DAYS) });
  if (args.hasOpenedBox || events.includes("gearbox-off"))
    owed.push(
      { code: "oil-after-standing", dueAt: later(doing.now, FIRST_RUN_DAYS) },
      { code: "casing-bolts-again", dueAt: later(doing.now, FIRST_RUN_DAYS) },
    );
  insertOwed(db, args, owed);
}

function insertOwed(
  db: Db,
  { job, stepId }: { job: JobRow; stepId: number },
  owed: readonly { code: string; dueAt: string; detail?: OwedDetail }[],
): void {
  const insert = db.prepare("INSERT INTO owed (machine_id, job_id, step_id, code, due_at, detail_json) VALUES (?, ?, ?, ?, ?, ?)");
  for (const { code, dueAt, detail } of owed)
    insert.run(job.machineId, job.id, stepId, code, dueAt, detail === undefined ? null : JSON.stringify(detail));
}

/** What is owed on a part that left without its machine. */
export function addHandedOver(
  db: Db,
  doing: Doing,
  args: { job: JobRow; stepId: number; what: string; to: string; owes: readonly string[]; dueAt?: string | undefined },
): void {
  const { what, to } = args;
  const dueAt = args.dueAt === undefined ? later(doing.now, HANDED_OVER_DAYS) : `${args.dueAt}T12:00:00.000Z`;
  insertOwed(
    db,
    args,
    args.owes.map((owes) => ({ code: "handed-over", dueAt, detail: { what, to, owes } })),
  );
}

/** Somebody else's reason let go of by word: who it is told to, and what is looked at again. Due the next day. */
export function addLetGo(
  db: Db,
  doing: Doing,
  args: {
    machineId: string;
    of: string;
    reason: string;
    gone: readonly HeldReason[];
    from: { jobId: number; stepId: number } | { eventId: number };
  },
): void {
  const { of, reason, gone } = args;
  const from = { jobId: null, stepId: null, eventId: null, ...args.from };
  const detail: OwedDetail = {
    letGo: gone.map(({ code, place }) => ({ code, ...(place === undefined ? {} : { place }) })),
    of,
    by: doing.who,
    reason,
  };
  db.prepare("INSERT INTO owed (machine_id, job_id, step_id, event_id, code, due_at, detail_json) VALUES (?, ?, ?, ?, 'let-go', ?, ?)").run(
    args.machineId,
    from.jobId,
    from.stepId,
    from.eventId,
    later(doing.now, LET_GO_DAYS),
    JSON.stringify(detail),
  );
}

/** What is owed and not done, soonest first; a job opened again owes nothing, and a machine out of the fleet only on its own page. */
export function listOwed(db: Db, machineId?: string): Owed[] {
  const sql = (own: string) =>
    `SELECT o.id, o.machine_id, job_id, code, due_at, detail_json FROM owed o JOIN machines m ON m.id = o.machine_id
     WHERE done_at IS NULL ${own} AND NOT EXISTS (SELECT 1 FROM service_log d WHERE d.owed_id = o.id AND d.kind = 'done'
       AND NOT EXISTS (SELECT 1 FROM service_log b WHERE b.takes_back_id = d.id)) AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = o.step_id) ORDER BY due_at`;
  const found = machineId === undefined ? db.prepare(sql(`AND ${IN_FLEET}`)).all() : db.prepare(sql("AND o.machine_id = ?")).all(machineId);
  const rows = found as {
    id: number;
    machine_id: string;
    job_id: number | null;
    code: string;
    due_at: string;
    detail_json: string | null;
  }[];
  return rows.map((row) => ({
    id: row.id,
    machineId: row.machine_id,
    ...(row.job_id === null ? {} : { jobId: row.job_id }),
    code: row.code,
    dueAt: row.due_at,
    ...(row.detail_json === null ? {} : { detail: JSON.parse(row.detail_json) as OwedDetail }),
  }));
}

/** The machine something owed is of, while it is owed. Throws `owed-not-found`. */
function machineOwing(db: Db, owedId: number): string {
  const row = db.prepare("SELECT machine_id FROM owed WHERE id = ?").get(owedId) as { machine_id: string } | undefined;
  if (!row || !listOwed(db, row.machine_id).some(({ id }) => id === owedId)) throw new AppError("owed-not-found");
  return row.machine_id;
}

/** Done, as a line of the machine's service, which can be taken back. Throws `owed-not-found`. */
export function settleOwed(db: Db, doing: Doing, args: { owedId: number }): { owedId: number; entryId: number } {
  return once(db, doing, "owed-done", () => {
    const machineId = machineOwing(db, args.owedId);
    const entryId = insertEntry(db, doing, { machineId, kind: "done", what: "owed", words: "", owedId: args.owedId });
    audit(db, doing, { action: "owed-done", subject: `owed:${args.owedId}` });
    return { owedId: args.owedId, entryId };
  });
}

export const postponeOwedSchema = postponeSchema.pick({ untilDay: true, words: true });

/** Put off to a day, with the reason; it stays owed. Throws `owed-not-found`, `invalid` for a day that is not to come. */
export function postponeOwed(db: Db, doing: Doing, args: { owedId: number; untilDay: string; words: string }): { entryId: number } {
  return once(db, doing, "owed-postponed", () => {
    const machineId = machineOwing(db, args.owedId);
    requireDayToCome(args.untilDay, doing);
    return { entryId: insertEntry(db, doing, { machineId, kind: "postponed", what: "owed", ...args }) };
  });
}
