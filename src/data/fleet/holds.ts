import { CAUSES, type CauseRow, EVENTS, type EventRow } from "@/core/catalogue";
import { groupOf } from "@/core/diagnosis";
import { type Back, backOf, type ClosedJob, type Counted, isCounted, priorRate, type Rate, rateOf } from "@/core/fleet/reliability";
import { inOrderOfTime, meterIn } from "@/core/job/staleness";
import { meterReadings } from "@/data/machine/hours";
import { allIds } from "@/data/machine/machines";
import { listEvents } from "@/data/record/events-read";
import { localDay } from "@/data/store/clock";
import type { Db } from "@/data/store/db";
import { grouped } from "@/data/store/grouped";
import { atOnce, eachMachine, ofMachine, putTogether, whileUnchanged } from "@/data/store/reads";

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
export function closedJobs(db: Db, now: string, machineId?: string): readonly HeldFix[] {
  return atOnce(db, () => {
    if (machineId !== undefined) return closedOf(db, [machineId], now)[0] ?? [];
    const own = closedOf(db, allIds(db), now);
    return putTogether(db, "closed jobs", own, () => own.flat().sort((a, b) => a.jobId - b.jobId));
  });
}

/** Closed jobs machine by machine, with its hours and what came back; counted by the day. */
const closedOf = (db: Db, machineIds: readonly string[], now: string): readonly (readonly HeldFix[])[] => {
  const today = localDay(now);
  return eachMachine(db, "closed jobs of", machineIds, (id) => readClosed(db, id, now), {
    on: ["closed", "log", "hours"],
    made: () => [today],
    isAsBefore: areAlike,
  });
};

/** Another hour on the meter, or a word on an open job, says nothing else of most closed ones. */
const areAlike = (a: readonly HeldFix[], b: readonly HeldFix[]): boolean =>
  a.length === b.length && a.every((one, k) => JSON.stringify(one) === JSON.stringify(b[k]));

function readClosed(db: Db, machineId: string, now: string): HeldFix[] {
  const meter = inOrderOfTime(meterReadings(db, machineId));
  const hoursAt = (at: string) => meterIn(meter, at);
  const told = toldOf(db, machineId).map((job): Told => {
    const [openedHours, closedHours] = [hoursAt(job.openedAt), hoursAt(job.closedAt)];
    return { ...job, ...(openedHours === undefined ? {} : { openedHours }), ...(closedHours === undefined ? {} : { closedHours }) };
  });
  const events = told.length < 2 ? [] : listEvents(db, machineId);
  const meterHours = meterReadings(db, machineId).at(-1)?.meterHours;
  return told.map((job, k) => {
    const found = firstBack(job, told.slice(k + 1), events);
    return {
      ...job,
      back: found?.back,
      ...(found ? { backBy: found.by } : {}),
      counts: isCounted(job, found?.back, { at: now, ...(meterHours === undefined ? {} : { meterHours }) }),
    };
  });
}

/** What a machine's closed jobs tell by themselves: nothing of it moves before one is closed or opened again. */
function toldOf(db: Db, machineId: string): Told[] {
  return whileUnchanged(db, `closed jobs told of ${machineId}`, () => readTold(db, machineId), {
    on: ofMachine(machineId, "closed"),
  });
}

function readTold(db: Db, machineId: string): Told[] {
  const jobs = db
    .prepare(
      `SELECT j.id, j.machine_id, j.opened_at, j.closed_at, (SELECT group_concat(c.looks_json, char(10)) FROM complaints c WHERE c.job_id = j.id) AS looks
       FROM jobs j WHERE j.state = 'closed' AND j.machine_id = ? ORDER BY j.id`,
    )
    .all(machineId) as JobRow[];
  const steps = grouped(
    db
      .prepare(
        `SELECT s.job_id, s.kind, s.data_json, s.at FROM jobs j JOIN steps s ON s.job_id = j.id
         WHERE j.state = 'closed' AND j.machine_id = ? AND s.kind IN ('guess', 'fix', 'close', 'take', 'confirmation')
           AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = s.id) ORDER BY s.seq`,
      )
      .all(machineId) as StepRow[],
    ({ job_id }) => [String(job_id)],
  );
  return jobs.map((job) => jobOf(job, steps.get(String(job.id)) ?? []));
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

function jobOf(job: JobRow, steps: readonly StepRow[]): Told {
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
  return atOnce(db, () => {
    const ids = allIds(db);
    const own = closedOf(db, ids, now);
    const from = since === undefined ? "" : localDay(since);
    return putTogether(db, `holds since ${from}`, own, () => readHolds(own, since));
  });
}

type Kept = { jobs: number[]; backJobs: number[] };
/** What some closed jobs come to: of one machine, or added up over all of them. */
type Tally = {
  jobs: number;
  cameBack: number;
  by: Record<"cause" | "fix" | "part", Map<string, Kept>>;
  minutes: number[];
  guesses: Holds["guesses"];
  groups: Holds["groups"];
  missed: Holds["missed"];
};

const nothing = (): Tally => ({
  jobs: 0,
  cameBack: 0,
  by: { cause: new Map(), fix: new Map(), part: new Map() },
  minutes: [],
  guesses: { right: 0, all: 0 },
  groups: { machine: 0, operation: 0, turf: 0 },
  missed: [],
});

function keep(found: Map<string, Kept>, key: string, { jobs, backJobs }: Kept): void {
  const own = found.get(key) ?? { jobs: [], backJobs: [] };
  own.jobs.push(...jobs);
  own.backJobs.push(...backJobs);
  found.set(key, own);
}

function addJob(tally: Tally, job: HeldFix): void {
  const causes = [...new Set(job.causes.map(({ cause }) => cause))];
  if (job.counts) {
    const isBack = job.back === "came-back";
    tally.jobs += 1;
    tally.cameBack += isBack ? 1 : 0;
    const own: Kept = { jobs: [job.jobId], backJobs: isBack ? [job.jobId] : [] };
    for (const cause of causes) keep(tally.by.cause, cause, own);
    for (const fix of new Set(job.fixes)) keep(tally.by.fix, fix, own);
    for (const part of new Set(job.parts)) keep(tally.by.part, part, own);
  }
  if (job.minutesToFix) tally.minutes.push(job.minutesToFix);
  if (job.guess !== undefined && causes.length > 0) {
    tally.guesses.all += 1;
    tally.guesses.right += causes.includes(job.guess) ? 1 : 0;
  }
  for (const group of new Set(causes.map(groupOf))) tally.groups[group] += 1;
  if (job.back === "missed" && job.backBy !== undefined) tally.missed.push({ jobId: job.jobId, by: job.backBy, machineId: job.machineId });
}

function addTally(sum: Tally, one: Tally): void {
  sum.jobs += one.jobs;
  sum.cameBack += one.cameBack;
  for (const by of ["cause", "fix", "part"] as const) for (const [key, own] of one.by[by]) keep(sum.by[by], key, own);
  sum.minutes.push(...one.minutes);
  sum.guesses.right += one.guesses.right;
  sum.guesses.all += one.guesses.all;
  for (const group of ["machine", "operation", "turf"] as const) sum.groups[group] += one.groups[group];
  sum.missed.push(...one.missed);
}

/** What a machine's closed jobs come to: added up once for the same ones. */
const MOST_SINCES = 8;
const tallies = new WeakMap<readonly HeldFix[], Map<string, Tally>>();
function tallyOf(own: readonly HeldFix[], since: string | undefined): Tally {
  const kept = tallies.get(own) ?? new Map<string, Tally>();
  tallies.set(own, kept);
  const before = kept.get(since ?? "");
  if (before) return before;
  const tally = nothing();
  for (const job of own) if (since === undefined || job.closedAt >= since) addJob(tally, job);
  if (kept.size >= MOST_SINCES) kept.clear();
  kept.set(since ?? "", tally);
  return tally;
}

function readHolds(closed: readonly (readonly HeldFix[])[], since: string | undefined): Holds {
  const all = nothing();
  for (const own of closed) addTally(all, tallyOf(own, since));
  const depot = { jobs: all.jobs, cameBack: all.cameBack };
  const prior = priorRate(depot);
  const inOrder = (ids: readonly number[]) => [...ids].sort((a, b) => a - b);
  const rows = (found: ReadonlyMap<string, Kept>): HoldRow[] =>
    [...found]
      .map(([key, { jobs, backJobs }]) => {
        const own = { jobs: jobs.length, cameBack: backJobs.length };
        return { key, counted: own, rate: rateOf(own, prior), jobs: inOrder(jobs), backJobs: inOrder(backJobs) };
      })
      .sort((a, b) => b.counted.cameBack - a.counted.cameBack || b.counted.jobs - a.counted.jobs || a.key.localeCompare(b.key));
  const minutes = all.minutes.sort((a, b) => a - b);
  return {
    depot: { ...depot, rate: rateOf(depot, prior) },
    byCause: rows(all.by.cause),
    byFix: rows(all.by.fix),
    byPart: rows(all.by.part),
    ...(minutes.length > 0
      ? { minutes: { median: share(minutes, 0.5), low: share(minutes, 0.1), high: share(minutes, 0.9), jobs: minutes.length } }
      : {}),
    guesses: all.guesses,
    groups: all.groups,
    missed: all.missed.sort((a, b) => a.jobId - b.jobId),
  };
}
