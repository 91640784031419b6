import statistics from "jstat";

const { gamma, gammafn } = statistics.jStat;

/** Shapes of wear that are thought of, and how likely each is before anything lasted. Estimate. */
const SHAPES = [
  { k: 1.5, prior: 0.25 },
  { k: 2.5, prior: 0.5 },
  { k: 4, prior: 0.25 },
] as const;
/** The depot's mean is worth so many finished ones. Estimate. */
const PRIOR_FINISHED = 2;

/** Hours of sets that were worn out, and of those still running or lost for another reason. */
export type Lasted = { finishedHours: readonly number[]; runningHours: readonly number[] };

/** How long one more of a lot lasts: a mixture over the shapes, each with scale^-k a gamma of `shape` and `rate`. */
export type LifeBelief = { k: number; weight: number; shape: number; rate: number }[];

const meanOf = (k: number): number => gammafn(1 + 1 / k);

/**
 * What is believed of a lot's mean life: Weibull with the sets still running censored, begun from the depot's mean `depotHours`. Hours of nought or less
 * say nothing and are left out.
 */
export function lifeBelief({ finishedHours, runningHours }: Lasted, depotHours: number): LifeBelief {
  const finished = finishedHours.filter((hours) => hours > 0);
  const all = [...finished, ...runningHours.filter((hours) => hours > 0)];
  const shape = PRIOR_FINISHED + finished.length;
  const parts = SHAPES.map(({ k, prior }) => {
    const scale = depotHours / meanOf(k);
    const rate = PRIOR_FINISHED * scale ** k + all.reduce((sum, hours) => sum + hours ** k, 0);
    const logWeight =
      Math.log(prior) +
      finished.length * Math.log(k) +
      (k - 1) * finished.reduce((sum, hours) => sum + Math.log(hours), 0) +
      PRIOR_FINISHED * k * Math.log(scale) -
      shape * Math.log(rate);
    return { k, shape, rate, logWeight };
  });
  const most = Math.max(...parts.map(({ logWeight }) => logWeight));
  const total = parts.reduce((sum, { logWeight }) => sum + Math.exp(logWeight - most), 0);
  return parts.map(({ logWeight, ...part }) => ({ ...part, weight: Math.exp(logWeight - most) / total }));
}

/** How likely the mean life is `hours` at most. */
export function lifeWithin(belief: LifeBelief, hours: number): number {
  if (hours <= 0) return 0;
  return belief.reduce((sum, { k, weight, shape, rate }) => sum + weight * (1 - gamma.cdf((hours / meanOf(k)) ** -k, shape, 1 / rate)), 0);
}

const LEAST_HOURS = 1e-3;
const MOST_HOURS = 1e6;
/** Each end is halved where the other one stays: a few dozen turns at the most, a handful where it is bracketed closely. */
const TURNS = 200;
const NEAR = 1e-13;

/**
 * Where between two lives the mean life is not passed with that probability: false position on the logarithm of hours, the end that stays counting half
 * (Illinois method).
 */
function quantileBetween(belief: LifeBelief, probability: number, ends: { low: number; high: number }): number {
  const off = (logHours: number) => lifeWithin(belief, Math.exp(logHours)) - probability;
  let [low, high] = [Math.log(ends.low), Math.log(ends.high)];
  let [atLow, atHigh] = [off(low), off(high)];
  let stayed = 0;
  for (let turn = 0; turn < TURNS && high - low > NEAR * Math.max(1, Math.abs(high)); turn++) {
    const falsely = atHigh === atLow ? (low + high) / 2 : low - (atLow * (high - low)) / (atHigh - atLow);
    // Where it is all but flat between them a straight line leads nowhere.
    const middle = turn % 4 === 3 || !(falsely > low && falsely < high) ? (low + high) / 2 : falsely;
    const at = off(middle);
    if (at === 0) return Math.exp(middle);
    if (at < 0) {
      [low, atLow] = [middle, at];
      if (stayed < 0) atHigh /= 2;
      stayed = -1;
    } else {
      [high, atHigh] = [middle, at];
      if (stayed > 0) atLow /= 2;
      stayed = 1;
    }
  }
  return Math.exp((low + high) / 2);
}

/** The mean life that is not passed with that probability. */
export const lifeQuantile = (belief: LifeBelief, probability: number): number =>
  quantileBetween(belief, probability, { low: LEAST_HOURS, high: MOST_HOURS });

const SLICES = 400;
/** How far beyond the last one the next of many is looked for first. */
const STEP = 1.02;

/** The middle of each of equal slices of what is believed: each is looked for from the one before on. */
function slicesOf(belief: LifeBelief): number[] {
  const found: number[] = [];
  for (let slice = 0; slice < SLICES; slice++) {
    const probability = (slice + 0.5) / SLICES;
    const low = found.at(-1) ?? LEAST_HOURS;
    const near = low * STEP;
    const high = slice > 0 && lifeWithin(belief, near) >= probability ? near : MOST_HOURS;
    found.push(quantileBetween(belief, probability, { low, high }));
  }
  return found;
}

export type Interval = { middle: number; low: number; high: number };

/** Hours, with 90 % within. */
export const lifeOf = (belief: LifeBelief): Interval => ({
  middle: lifeQuantile(belief, 0.5),
  low: lifeQuantile(belief, 0.05),
  high: lifeQuantile(belief, 0.95),
});

/** How likely the first's mean life, times `factor`, is the longer: over equal slices of what is believed of it. */
export function isLonger(first: LifeBelief, second: LifeBelief, factor = 1): number {
  return slicesOf(first).reduce((sum, hours) => sum + lifeWithin(second, factor * hours), 0) / SLICES;
}

/** What a set costs: its price, fitting it, and each sharpening with taking it off and on, in the shop's own money; an edge's hours. */
export type SetCost = { price: number; sharpening: number; fitting: number; hoursPerEdge: number };

/**
 * Money an hour over a life, with 90 % within. A set of N edges is fitted N times and sharpened N − 1 times, so one sharpening is the price's:
 * (price − sharpening)/life + (sharpening + fitting)/hours an edge (by arithmetic).
 */
export function costAnHour(cost: SetCost, life: Interval): Interval {
  const at = (hours: number) => onceOf(cost) / hours + edgeCost(cost);
  const ends = [at(life.low), at(life.high)];
  return { middle: at(life.middle), low: Math.min(...ends), high: Math.max(...ends) };
}

/** What a set costs once in its life, less than nothing where a sharpening is dearer than a new set. */
const onceOf = ({ price, sharpening }: SetCost): number => price - sharpening;
/** What its edges cost an hour. */
const edgeCost = ({ sharpening, fitting, hoursPerEdge }: SetCost): number => (sharpening + fitting) / hoursPerEdge;

/** Under so many worn out in either, nothing is said of two lots. Common practice. */
export const LEAST_FINISHED = 3;
/** Work of the same kinds of less than this share is not compared. Estimate. */
export const LEAST_COMMON_SHARE = 0.3;
const SURE = 0.9;

export type Lot = Lasted & SetCost & { hoursByWork?: Readonly<Record<string, number>> };
export type LotVerdict = {
  verdict: "first-cheaper" | "second-cheaper" | "cannot-tell";
  /** How likely the first is the cheaper an hour. */
  firstCheaper: number;
  why?: "too-few" | "other-work" | "too-near";
};

/** Share of work two lots have in common, by kind of work; all of it where none is told. */
export function commonWork(a: Readonly<Record<string, number>> = {}, b: Readonly<Record<string, number>> = {}): number {
  const [sumA, sumB] = [a, b].map((hours) => Object.values(hours).reduce((sum, one) => sum + one, 0)) as [number, number];
  if (sumA <= 0 || sumB <= 0) return 1;
  return Object.keys(a).reduce((sum, work) => sum + Math.min((a[work] ?? 0) / sumA, (b[work] ?? 0) / sumB), 0);
}

/**
 * Which of two lots is the cheaper an hour, and how surely. *Cannot tell* is an answer: with fewer than three worn out in either, with other work, or where
 * neither is the cheaper with nine in ten.
 */
export function cheaperLot(a: Lot, b: Lot, depotHours: number): LotVerdict {
  const [first, second] = [lifeBelief(a, depotHours), lifeBelief(b, depotHours)];
  // Costs an hour are compared at each life of the first: how likely the second's life makes it the dearer.
  const fixed = edgeCost(a) - edgeCost(b);
  const firstCheaper = slicesOf(first).reduce((sum, hours) => sum + dearerThan(second, onceOf(b), onceOf(a) / hours + fixed), 0) / SLICES;
  const few = Math.min(a.finishedHours.length, b.finishedHours.length) < LEAST_FINISHED;
  if (few) return { verdict: "cannot-tell", firstCheaper, why: "too-few" };
  if (commonWork(a.hoursByWork, b.hoursByWork) < LEAST_COMMON_SHARE) return { verdict: "cannot-tell", firstCheaper, why: "other-work" };
  if (firstCheaper >= SURE) return { verdict: "first-cheaper", firstCheaper };
  return firstCheaper <= 1 - SURE ? { verdict: "second-cheaper", firstCheaper } : { verdict: "cannot-tell", firstCheaper, why: "too-near" };
}

/** How likely what is paid once over a life comes to more an hour than this. */
function dearerThan(life: ReturnType<typeof lifeBelief>, once: number, anHour: number): number {
  if (once > 0) return anHour <= 0 ? 1 : lifeWithin(life, once / anHour);
  // What saves money saves the less an hour the longer it lasts.
  return anHour >= 0 ? 0 : 1 - lifeWithin(life, once / anHour);
}

/** A kind of work counts as much as so many sets worn out as everywhere. Estimate. */
const WORK_PRIOR = 5;

/**
 * How much an hour of each kind of work wears, over all lots: sets worn out at it (by their shares of hours) against what its hours alone would make
 * expected. 1 is as everywhere.
 */
export function workFactors(
  sets: readonly { hoursByWork: Readonly<Record<string, number>>; isFinished: boolean }[],
): Record<string, number> {
  const hours = new Map<string, number>();
  const observed = new Map<string, number>();
  for (const { hoursByWork, isFinished } of sets) {
    const own = Object.values(hoursByWork).reduce((sum, one) => sum + one, 0);
    for (const [work, of] of Object.entries(hoursByWork)) {
      hours.set(work, (hours.get(work) ?? 0) + of);
      if (isFinished && own > 0) observed.set(work, (observed.get(work) ?? 0) + of / own);
    }
  }
  const all = [...hours.values()].reduce((sum, one) => sum + one, 0);
  const finished = [...observed.values()].reduce((sum, one) => sum + one, 0);
  return Object.fromEntries(
    [...hours].map(([work, of]) => [work, workFactor(observed.get(work) ?? 0, all > 0 ? (finished * of) / all : 0)]),
  );
}

/** (5 + observed) / (5 + expected). */
export const workFactor = (observed: number, expected: number): number => (WORK_PRIOR + observed) / (WORK_PRIOR + expected);
