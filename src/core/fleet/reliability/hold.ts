import statistics from "jstat";

const { beta } = statistics.jStat;

/** One in twelve fixes comes back, worth ten jobs, until the depot has a hundred of its own. Estimate. */
const PRIOR_RATE = 0.08;
const PRIOR_JOBS = 10;
const OWN_FROM_JOBS = 100;
/** One is better than another from here. Common practice. */
export const SURE = 0.95;

export type Counted = { jobs: number; cameBack: number };
export type Rate = { mean: number; low: number; high: number };

/** What stands in for what was not seen yet: the usual rate, or the depot's own from a hundred jobs. */
export function priorRate(depot: Counted): number {
  return depot.jobs >= OWN_FROM_JOBS ? (depot.cameBack + PRIOR_RATE * PRIOR_JOBS) / (depot.jobs + PRIOR_JOBS) : PRIOR_RATE;
}

const shapes = ({ jobs, cameBack }: Counted, prior: number): [number, number] => [
  prior * PRIOR_JOBS + cameBack,
  (1 - prior) * PRIOR_JOBS + jobs - cameBack,
];

/** Share of fixes that come back, with 90 % within. */
export function rateOf(counted: Counted, prior = PRIOR_RATE): Rate {
  const [a, b] = shapes(counted, prior);
  return { mean: a / (a + b), low: beta.inv(0.05, a, b), high: beta.inv(0.95, a, b) };
}

const SLICES = 400;

/** How likely the first comes back less often than the second. */
export function isBetter(first: Counted, second: Counted, prior = PRIOR_RATE): number {
  const [a, b] = [shapes(first, prior), shapes(second, prior)];
  let sum = 0;
  for (let slice = 0; slice < SLICES; slice++) sum += 1 - beta.cdf(beta.inv((slice + 0.5) / SLICES, ...a), ...b);
  return sum / SLICES;
}

export const sayBetter = (probability: number): "better" | "worse" | "cannot-tell" =>
  probability >= SURE ? "better" : probability <= 1 - SURE ? "worse" : "cannot-tell";

/** It has come back within the later of these. Estimate. */
export const BACK_DAYS = 30;
export const BACK_HOURS = 25;

/** A closed job as far as it matters here; `meterHours` of the machine when it closed or opened. */
export type ClosedJob = {
  jobId: number;
  machineId: string;
  openedAt: string;
  closedAt: string;
  openedHours?: number;
  closedHours?: number;
  symptoms: readonly string[];
  /** Causes it was closed with, each with its place where one is known. */
  causes: readonly { cause: string; place?: string }[];
  fixes: readonly string[];
  isProved: boolean;
  /** Contexts that events between this job and the one before it on the machine tick. */
  newContexts?: readonly string[];
};

/** What a later job says of an earlier one's fix. */
export type Back = "came-back" | "new-damage" | "missed" | undefined;

const DAY = 86_400_000;

/** When a job closed and when another was opened, with the meter where it is known. */
export type Spell = Pick<ClosedJob, "closedAt" | "closedHours">;
export type Opened = Pick<ClosedJob, "openedAt" | "openedHours">;

/**
 * Whether a job was opened within the window of an earlier one: after that one was closed, and within thirty days or twenty-five hours of it, whichever
 * ends later. One that was open already says nothing of what was not mended yet.
 */
export function isWithin(earlier: Spell, later: Opened): boolean {
  if (later.openedAt < earlier.closedAt) return false;
  if ((Date.parse(later.openedAt) - Date.parse(earlier.closedAt)) / DAY <= BACK_DAYS) return true;
  const [from, to] = [earlier.closedHours, later.openedHours];
  return from !== undefined && to !== undefined && to - from <= BACK_HOURS;
}

const samePlace = (a: string | undefined, b: string | undefined) => a === undefined || b === undefined || a === b;

/**
 * The same machine, within the window, a symptom shared. Same cause at the same place: it came back, unless something happened in between that makes
 * that cause likely, which is new damage. Another cause: the first diagnosis missed it.
 */
export function backOf(args: {
  earlier: ClosedJob;
  later: ClosedJob;
  isTicked: (cause: string, contexts: readonly string[]) => boolean;
}): Back {
  const { earlier, later, isTicked } = args;
  if (earlier.machineId !== later.machineId || later.jobId <= earlier.jobId || !isWithin(earlier, later)) return undefined;
  if (!earlier.symptoms.some((symptom) => later.symptoms.includes(symptom))) return undefined;
  const again = later.causes.filter((one) => earlier.causes.some((own) => own.cause === one.cause && samePlace(own.place, one.place)));
  if (again.length === 0) return later.causes.length > 0 ? "missed" : undefined;
  return again.every(({ cause }) => isTicked(cause, later.newContexts ?? [])) ? "new-damage" : "came-back";
}

/** Proved jobs count once their window is over, or when they came back: what is still open says nothing yet. */
export function isCounted(job: ClosedJob, back: Back, now: { at: string; meterHours?: number }): boolean {
  if (!job.isProved) return false;
  if (back === "came-back") return true;
  const isOverByDays = (Date.parse(now.at) - Date.parse(job.closedAt)) / DAY > BACK_DAYS;
  const isOverByHours = job.closedHours === undefined || now.meterHours === undefined || now.meterHours - job.closedHours > BACK_HOURS;
  return isOverByDays && isOverByHours;
}
