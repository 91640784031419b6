import { groupOf } from "@/core/diagnosis";
import { meterAt } from "@/core/events";
import { type Back, backOf, type ClosedJob, type Counted, isCounted, priorRate, type Rate, rateOf } from "@/core/lasting";
import { CAUSES, type CauseRow, EVENTS, type EventRow } from "@/core/trade";
import { localDay } from "./clock";
import type { Db } from "./connection";
import { grouped } from "./grouped";
import { meterReadings } from "./hours";
import { whileUnchanged } from "./reads";

export type HeldFix = ClosedJob & {
  back: Back;
  /** By which job it came back, was missed, or was damaged anew. */
  backBy?: number;
  counts: boolean;
  guess?: string;
  /** From the first thing done to the first thing mended. */
  minutesToFix?: number;
  parts: string[];
};

const causeRows: readonly CauseRow[] = CAUSES;
const eventRows: readonly EventRow[] = EVENTS;

type JobRow = { id: number; machine_id: string; opened_at: string; closed_at: string; looks: string | null };
type StepRow = { job_id: number; kind: string; data_json: string; at: string };

/** Contexts that events tick, and which causes each makes likely. */
const contextsOf = (event: string): readonly string[] => eventRows.find(({ id }) => id === event)?.ticks ?? [];
const isTicked = (cause: string, contexts: readonly string[]): boolean => {
  const odds = causeRows.find(({ id }) => id === cause)?.oddsWhen as Record<string, number> | undefined;
  return contexts.some((context) => (odds?.[context] ?? 1) > 1);
};

const MINUTE = 60_000;
/** A job picked up again the next day was not diagnosed all night. */
const LONGEST_MINUTES = 600;

/** Every closed job with what became of it, of all machines or of one. */
export function closedJobs(db: Db, now: string, machineId?: string): HeldFix[] {
  return whileUnchanged(db, `closed jobs ${machineId ?? "all"} ${localDay(now)}`, () => readClosed(db, now, machineId));
}

function readClosed(db: Db, now: string, machineId: string | undefined): HeldFix[] {
  const [ofMachine, given] = machineId === undefined ? ["", []] : ["AND j.machine_id = ?", [machineId]];
  const jobs = db
    .prepare(
      `SELECT j.id, j.machine_id, j.opened_at, j.closed_at, (SELECT group_concat(c.looks_json, char(10)) FROM complaints c WHERE c.job_id = j.id) AS looks
       FROM jobs j WHERE j.state = 'closed' ${ofMachine} ORDER BY j.id`,
    )
    .all(...given) as JobRow[];
  const steps = new Map<number, StepRow[]>();
  for (const row of db
    .prepare(
      `SELECT s.job_id, s.kind, s.data_json, s.at FROM steps s JOIN jobs j ON j.id = s.job_id AND j.state = 'closed' ${ofMachine}
       WHERE s.kind IN ('guess', 'fix', 'close', 'take', 'confirmation') AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = s.id) ORDER BY s.seq`,
    )
    .all(...given) as StepRow[]) {
    const own = steps.get(row.job_id) ?? [];
    own.push(row);
    steps.set(row.job_id, own);
  }
  const events = grouped(
    db
      .prepare(
        `SELECT e.machine_id, e.event, e.at FROM events e JOIN machines m ON m.id = e.machine_id WHERE e.voids_id IS NULL ${ofMachine.replace("j.machine_id", "e.machine_id")} AND NOT EXISTS (SELECT 1 FROM events v WHERE v.voids_id = e.id) ORDER BY e.seq`,
      )
      .all(...given) as { machine_id: string; event: string; at: string }[],
    ({ machine_id }) => [machine_id],
  );
  const meters = new Map<string, ReturnType<typeof meterReadings>>();
  const meterOf = (machineId: string) => {
    const kept = meters.get(machineId) ?? meterReadings(db, machineId);
    meters.set(machineId, kept);
    return kept;
  };
  const hoursAt = (machineId: string, at: string) => {
    const hours = meterAt(meterOf(machineId), at);
    return hours === undefined ? {} : { hours };
  };
  const told = jobs.map((job) =>
    jobOf(job, steps.get(job.id) ?? [], { opened: hoursAt(job.machine_id, job.opened_at), closed: hoursAt(job.machine_id, job.closed_at) }),
  );
  const byMachine = grouped(told, ({ machineId }) => [machineId]);
  return told.map((job) => {
    const later = (byMachine.get(job.machineId) ?? []).filter((one) => one.jobId > job.jobId);
    const found = firstBack(job, later, events.get(job.machineId) ?? []);
    const meterHours = meterOf(job.machineId).at(-1)?.meterHours;
    return {
      ...job,
      back: found?.back,
      ...(found ? { backBy: found.by } : {}),
      counts: isCounted(job, found?.back, { at: now, ...(meterHours === undefined ? {} : { meterHours }) }),
    };
  });
}

/** The first later job that says anything of this one's fix. */
function firstBack(
  job: ClosedJob,
  later: readonly ClosedJob[],
  events: readonly { event: string; at: string }[],
): { back: Back; by: number } | undefined {
  for (const one of later) {
    if (!backOf({ earlier: job, later: one, isTicked })) continue;
    // What happened in between is only asked where it can make a difference.
    const between = events.filter(({ at }) => at > job.closedAt && at <= one.openedAt).flatMap(({ event }) => contextsOf(event));
    return { back: backOf({ earlier: job, later: { ...one, newContexts: between }, isTicked }), by: one.jobId };
  }
  return undefined;
}

type Told = Omit<HeldFix, "back" | "backBy" | "counts">;

function jobOf(job: JobRow, steps: readonly StepRow[], hours: { opened: { hours?: number }; closed: { hours?: number } }): Told {
  const symptoms = (job.looks ?? "")
    .split("\n")
    .flatMap((text) => (text === "" ? [] : ((JSON.parse(text) as { symptoms?: string[] }).symptoms ?? [])));
  const data = <T>(kind: string) =>
    steps.filter((step) => step.kind === kind).map((step) => ({ at: step.at, ...(JSON.parse(step.data_json) as T) }));
  const close = data<{ causes?: string[]; places?: Record<string, string[]>; isProved?: boolean }>("close").at(-1);
  const fixes = data<{ fix: string; parts?: string }>("fix");
  const guess = data<{ cause: string }>("guess").at(0);
  const work = steps.find(({ kind }) => kind === "confirmation" || kind === "take");
  const minutes = work && fixes[0] ? (Date.parse(fixes[0].at) - Date.parse(work.at)) / MINUTE : undefined;
  return {
    jobId: job.id,
    machineId: job.machine_id,
    openedAt: job.opened_at,
    closedAt: job.closed_at,
    ...(hours.opened.hours === undefined ? {} : { openedHours: hours.opened.hours }),
    ...(hours.closed.hours === undefined ? {} : { closedHours: hours.closed.hours }),
    symptoms: [...new Set(symptoms)],
    causes: (close?.causes ?? [])
      .filter((cause) => cause !== "nothing-found")
      .flatMap((cause): { cause: string; place?: string }[] => close?.places?.[cause]?.map((place) => ({ cause, place })) ?? [{ cause }]),
    fixes: [...new Set(fixes.map(({ fix }) => fix))],
    isProved: close?.isProved === true,
    ...(guess ? { guess: guess.cause } : {}),
    ...(minutes !== undefined && minutes >= 0 && minutes <= LONGEST_MINUTES ? { minutesToFix: minutes } : {}),
    parts: fixes.flatMap(({ parts }) => (parts ? [parts] : [])),
  };
}

export type HoldRow = { key: string; counted: Counted; rate: Rate; jobs: number[]; backJobs: number[] };
export type Holds = {
  depot: Counted & { rate: Rate };
  byCause: HoldRow[];
  byFix: HoldRow[];
  byPart: HoldRow[];
  minutes?: { median: number; low: number; high: number; jobs: number };
  guesses: { right: number; all: number };
  groups: { machine: number; operation: number; turf: number };
  missed: { jobId: number; by: number; machineId: string }[];
};

const share = (sorted: readonly number[], at: number): number => sorted[Math.min(sorted.length - 1, Math.floor(at * sorted.length))] ?? 0;

/** Whether fixes hold: by cause, by fix and by what was fitted, with intervals; how long finding took, how often the first guess was right, whose fault it was. */
export function holdsOf(db: Db, now: string, since?: string): Holds {
  return whileUnchanged(db, `holds ${localDay(now)} ${since ? localDay(since) : ""}`, () => readHolds(db, now, since));
}

function readHolds(db: Db, now: string, since: string | undefined): Holds {
  const all = closedJobs(db, now).filter(({ closedAt }) => since === undefined || closedAt >= since);
  const counted = all.filter(({ counts }) => counts);
  const depot = { jobs: counted.length, cameBack: counted.filter(({ back }) => back === "came-back").length };
  const prior = priorRate(depot);
  const rows = (keysOf: (job: HeldFix) => readonly string[]): HoldRow[] => {
    const found = grouped(counted, (job) => new Set(keysOf(job)));
    return [...found]
      .map(([key, jobs]) => {
        const back = jobs.filter((one) => one.back === "came-back");
        const own = { jobs: jobs.length, cameBack: back.length };
        return {
          key,
          counted: own,
          rate: rateOf(own, prior),
          jobs: jobs.map(({ jobId }) => jobId),
          backJobs: back.map(({ jobId }) => jobId),
        };
      })
      .sort((a, b) => b.counted.cameBack - a.counted.cameBack || b.counted.jobs - a.counted.jobs);
  };
  const minutes = all.flatMap(({ minutesToFix }) => minutesToFix ?? []).sort((a, b) => a - b);
  const guessed = all.filter(({ guess, causes }) => guess !== undefined && causes.length > 0);
  const groups = { machine: 0, operation: 0, turf: 0 };
  for (const { causes } of all) for (const group of new Set(causes.map(({ cause }) => groupOf(cause)))) groups[group] += 1;
  return {
    depot: { ...depot, rate: rateOf(depot, prior) },
    byCause: rows(({ causes }) => causes.map(({ cause }) => cause)),
    byFix: rows(({ fixes }) => fixes),
    byPart: rows(({ parts }) => parts),
    ...(minutes.length > 0
      ? { minutes: { median: share(minutes, 0.5), low: share(minutes, 0.1), high: share(minutes, 0.9), jobs: minutes.length } }
      : {}),
    guesses: { right: guessed.filter(({ guess, causes }) => causes.some(({ cause }) => cause === guess)).length, all: guessed.length },
    groups,
    missed: all.flatMap(({ back, backBy, jobId, machineId }) =>
      back === "missed" && backBy !== undefined ? [{ jobId, by: backBy, machineId }] : [],
    ),
  };
}
