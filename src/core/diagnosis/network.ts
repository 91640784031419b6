import type { Finding, Network, NetworkCause } from "./network-shape";
import { quickscorePresences } from "./quickscore";

export type Posterior = {
  /** That the cause is there. */
  probability: number;
  /** That it is there and has itself shown at least one of the symptoms: what causes are ranked by. */
  shown: number;
  /** For each finding: that the cause is there and has itself shown it. */
  shows: number[];
};

export type Posteriors = {
  causes: Posterior[];
  /** For each finding: that no cause of the network has shown it. */
  unexplained: number[];
};

/** More findings than this would take memory by the hundred megabytes: two to this power of weights for every cause. */
export const MOST_FINDINGS = 14;

/**
 * Exact posteriors with several causes at once (noisy-OR). Carries, for every subset of the findings, the weight of "exactly these have
 * been shown so far" through the causes one at a time, and then the same sum backwards ("what a subset is worth from here on"), beginning with
 * what the leaks make of it, so that each cause is left out in turn at the price of two passes. Only non-negative terms both ways: nothing
 * cancels. About 6 × causes × links × 2^findings steps.
 *
 * Weights are scaled to 1 on the way, so that many causes neither overflow nor vanish. Throws `RangeError` past `MOST_FINDINGS`.
 */
export function posteriors(network: Network): Posteriors {
  const { before, after, last } = passes(network);
  const causes = network.causes.map((cause, index) => posteriorOf(network, cause, before[index] as Weights, after[index] as Weights));
  return { causes, unexplained: shownByLeakAlone(network.findings, last) };
}

/** For each finding, the share of the weight in which the causes have not shown it: then its leak has. */
function shownByLeakAlone(findings: readonly Finding[], last: Weights): number[] {
  const worth = leakWorths(findings);
  const total = dot(worth, last);
  return findings.map((_, finding) => {
    const bit = 1 << finding;
    let sum = 0;
    for (let block = 0; block < last.length; block += bit << 1)
      for (let subset = block; subset < block + bit; subset++) sum += (last[subset] as number) * (worth[subset] as number);
    return total > 0 ? Math.min(1, sum / total) : 0;
  });
}

/** Under so many findings the way that never subtracts is as quick. Measured. */
const QUICK_FROM = 4;

/** For each cause, that it is there: `posteriors` without the rest, for the many times that is all one wants. */
export function presences(network: Network): number[] {
  const isLarge = network.findings.length >= QUICK_FROM && network.findings.length <= MOST_FINDINGS;
  return (isLarge ? quickscorePresences(network) : undefined) ?? presencesByPasses(network);
}

/** As `presences`, by sums of what is not negative only: nothing cancels, whatever the network. */
export function presencesByPasses(network: Network): number[] {
  const { before, present, after } = passes(network);
  return network.causes.map(({ odds, silence }, index) => {
    const worth = after[index] as Weights;
    const share = odds * silence * dot(worth, present[index] as Weights);
    const total = share + dot(worth, before[index] as Weights);
    return total > 0 ? share / total : 0;
  });
}

/** The network once some causes are known to be there: their own entries become inert, what they show is fired beforehand. */
export function presencesGiven(network: Network, there: readonly number[]): { presences: number[]; logJoint: number } {
  const start = noneShown(network.findings);
  let logJoint = 0;
  for (const index of there) {
    const { odds, silence, links } = network.causes[index] as NetworkCause;
    for (const { finding, probability } of links) fire(start, finding, probability);
    logJoint += Math.log(odds * silence);
  }
  const rest: Network = {
    findings: network.findings,
    causes: network.causes.map((cause, index) => (there.includes(index) ? { odds: 0, silence: 1, links: [] } : cause)),
  };
  const passed = passes(rest, start);
  const found = rest.causes.map(({ odds, silence }, index) => {
    if (there.includes(index)) return 1;
    const worth = passed.after[index] as Weights;
    const share = odds * silence * dot(worth, passed.present[index] as Weights);
    const total = share + dot(worth, passed.before[index] as Weights);
    return total > 0 ? share / total : 0;
  });
  return { presences: found, logJoint: logJoint + passed.logTotal };
}

/** Natural logarithm of the weight of all findings together, the causes' "not there" counted as 1. */
export function logEvidence(network: Network): number {
  let counted: Counted = { weights: noneShown(network.findings), bound: 1, scale: 1 };
  let log = 0;
  for (const cause of network.causes) {
    counted = withCause(counted, cause, shownBy(counted.weights, cause));
    log += Math.log(counted.scale);
  }
  return log + Math.log(dot(counted.weights, leakWorths(network.findings)));
}

/** `[i][j]`: that causes i and j are both there; on the diagonal, that one is. Each is carried on through the causes after it only. */
export function jointPresences(network: Network): Float64Array[] {
  const { before, present, scales, after } = passes(network);
  const count = network.causes.length;
  const joint = network.causes.map(() => new Float64Array(count));
  const shares = network.causes.map(({ odds, silence }) => odds * silence);
  const totals = network.causes.map((_, index) => {
    const worth = after[index] as Weights;
    return dot(worth, before[index] as Weights) + (shares[index] as number) * dot(worth, present[index] as Weights);
  });
  const set = (i: number, j: number, weight: number) => {
    const probability = (totals[j] as number) > 0 ? weight / (totals[j] as number) : 0;
    (joint[i] as Float64Array)[j] = probability;
    (joint[j] as Float64Array)[i] = probability;
  };
  for (let i = 0; i < count; i++) {
    const share = shares[i] as number;
    set(i, i, share * dot(after[i] as Weights, present[i] as Weights));
    let weights: Weights = (present[i] as Weights).map((weight) => (share * weight) / (scales[i] as number));
    for (let j = i + 1; j < count; j++) {
      const shown = shownBy(weights, network.causes[j] as NetworkCause);
      const other = shares[j] as number;
      set(i, j, other * dot(after[j] as Weights, shown));
      const scale = scales[j] as number;
      for (let subset = 0; subset < shown.length; subset++) {
        shown[subset] = ((weights[subset] as number) + other * (shown[subset] as number)) / scale;
      }
      weights = shown;
    }
  }
  return joint;
}

/**
 * That every symptom has been shown by one of the causes for which `isOurs` holds, and none by any of the others.
 * 0 without symptoms.
 */
export function shownOnlyBy(network: Network, isOurs: (index: number) => boolean): number {
  if (!network.findings.some(({ isSymptom }) => isSymptom)) return 0;
  const findings = network.findings.map((finding) => (finding.isSymptom ? { ...finding, leak: 0 } : finding));
  const causes = network.causes.map((cause, index) => (isOurs(index) ? cause : keptQuiet(cause, (f) => !!findings[f]?.isSymptom)));
  const log = logEvidence({ findings, causes });
  return Number.isFinite(log) ? Math.min(1, Math.exp(log - logEvidence(network))) : 0;
}

type Weights = Float64Array;

type Passes = {
  /** Weights before each cause is counted in. */
  before: Weights[];
  /** The same with that cause there and its links fired. */
  present: Weights[];
  /** What the weights were divided by once it was counted in. */
  scales: number[];
  /** What each subset is worth once that cause has been counted in: the chance that the rest completes it. */
  after: Weights[];
  /** Weights once every cause has been counted in; what is not shown then, the leaks have to. */
  last: Weights;
  logTotal: number;
};

function passes({ findings, causes }: Network, start: Weights = noneShown(findings)): Passes {
  const before: Weights[] = [];
  const present: Weights[] = [];
  const scales: number[] = [];
  let counted: Counted = { weights: start, bound: 1, scale: 1 };
  let logTotal = 0;
  for (const cause of causes) {
    const shown = shownBy(counted.weights, cause);
    before.push(counted.weights);
    present.push(shown);
    counted = withCause(counted, cause, shown);
    scales.push(counted.scale);
    logTotal += Math.log(counted.scale);
  }
  const last = counted.weights;
  const worth = leakWorths(findings);
  logTotal += Math.log(dot(worth, last));
  return { before, present, scales, after: worths(causes, worth), last, logTotal };
}

function worths(causes: readonly NetworkCause[], complete: Weights): Weights[] {
  const after: Weights[] = new Array(causes.length);
  let counted: Counted = { weights: complete, bound: 1, scale: 1 };
  for (let index = causes.length - 1; index >= 0; index--) {
    const cause = causes[index] as NetworkCause;
    after[index] = counted.weights;
    const there = counted.weights.slice();
    for (const { finding, probability } of cause.links) fireBackwards(there, finding, probability);
    counted = withCause(counted, cause, there);
  }
  return after;
}

/** Before any cause is counted in nothing has been shown. */
function noneShown(findings: readonly Finding[]): Weights {
  if (findings.length > MOST_FINDINGS) throw new RangeError(`at most ${MOST_FINDINGS} findings, not ${findings.length}`);
  const weights = new Float64Array(1 << findings.length);
  weights[0] = 1;
  return weights;
}

/** What each subset is worth once all causes are counted in: the chance that the leaks show the rest. */
function leakWorths(findings: readonly Finding[]): Weights {
  const worth = new Float64Array(1 << findings.length);
  worth[worth.length - 1] = 1;
  findings.forEach(({ leak }, finding) => {
    const bit = 1 << finding;
    for (let subset = worth.length - 1; subset >= 0; subset--) if (!(subset & bit)) worth[subset] = (worth[subset | bit] as number) * leak;
  });
  return worth;
}

/** In place: whatever had not shown this finding shows it with that probability. */
function fire(weights: Weights, finding: number, probability: number): void {
  const bit = 1 << finding;
  for (let block = 0; block < weights.length; block += bit << 1) {
    for (let subset = block; subset < block + bit; subset++) {
      const moved = (weights[subset] as number) * probability;
      weights[subset | bit] = (weights[subset | bit] as number) + moved;
      weights[subset] = (weights[subset] as number) * (1 - probability);
    }
  }
}

/** In place, the same step read backwards: a subset without the finding is worth what it may become. */
function fireBackwards(worth: Weights, finding: number, probability: number): void {
  const bit = 1 << finding;
  for (let block = 0; block < worth.length; block += bit << 1) {
    for (let subset = block; subset < block + bit; subset++) {
      worth[subset] = (worth[subset] as number) * (1 - probability) + (worth[subset | bit] as number) * probability;
    }
  }
}

function shownBy(weights: Weights, { links }: NetworkCause): Weights {
  const present = weights.slice();
  for (const { finding, probability } of links) fire(present, finding, probability);
  return present;
}

/** Weights, no larger than `bound`, and what the last step divided them by. */
type Counted = { weights: Weights; bound: number; scale: number };

/** Weights are scaled down long before they could overflow, and seldom. */
const SCALE_AT = 1e100;

/** The weights with a cause counted in: without it, and `present` by its share. */
function withCause({ weights, bound }: Counted, { odds, silence }: NetworkCause, present: Weights): Counted {
  const share = odds * silence;
  const grown = bound * (1 + share);
  const scale = grown > SCALE_AT ? grown : 1;
  const counted = new Float64Array(weights.length);
  for (let subset = 0; subset < weights.length; subset++) {
    counted[subset] = ((weights[subset] as number) + share * (present[subset] as number)) / scale;
  }
  return { weights: counted, bound: grown / scale, scale };
}

function dot(a: Weights, b: Weights): number {
  let sum = 0;
  for (let subset = 0; subset < a.length; subset++) sum += (a[subset] as number) * (b[subset] as number);
  return sum;
}

function posteriorOf({ findings }: Network, cause: NetworkCause, before: Weights, worth: Weights): Posterior {
  const share = cause.odds * cause.silence;
  const shows = findings.map(() => 0);
  // What is measured first: what is left before the first symptom has been shown is then the same for all of them.
  const links = [...cause.links].sort((a, b) => Number(isSymptomAt(findings, a)) - Number(isSymptomAt(findings, b)));
  const fired = firedUpTo(before, links);
  const quiet = fired[links.findIndex((link) => isSymptomAt(findings, link))] ?? before;
  const later = worth.slice();
  let shown = 0;
  for (let k = links.length - 1; k >= 0; k--) {
    const { finding, probability } = links[k] as Link;
    shows[finding] = share * probability * worthFired(fired[k] as Weights, later, finding);
    if (isSymptomAt(findings, links[k] as Link))
      shown += share * probability * stillSilent(findings, links, k) * worthFired(quiet, later, finding);
    fireBackwards(later, finding, probability);
  }
  const present = share * dot(later, before);
  const total = dot(worth, before) + present;
  if (!(total > 0)) return { probability: 0, shown: 0, shows: findings.map(() => 0) };
  return { probability: present / total, shown: shown / total, shows: shows.map((weight) => Math.min(1, weight / total)) };
}

type Link = NetworkCause["links"][number];
const isSymptomAt = (findings: readonly Finding[], { finding }: Link): boolean => findings[finding]?.isSymptom === true;

/** The weights before each link was fired, in their order. */
function firedUpTo(before: Weights, links: readonly Link[]): Weights[] {
  let weights = before;
  return links.map(({ finding, probability }) => {
    const now = weights;
    weights = now.slice();
    fire(weights, finding, probability);
    return now;
  });
}

/** The chance that none of the symptoms before this link has been shown by the cause itself. */
const stillSilent = (findings: readonly Finding[], links: readonly Link[], k: number): number =>
  links.slice(0, k).reduce((chance, link) => (isSymptomAt(findings, link) ? chance * (1 - link.probability) : chance), 1);

/** What the weights are worth once this finding has been shown, whether it had been before or not. */
function worthFired(weights: Weights, worth: Weights, finding: number): number {
  const bit = 1 << finding;
  let sum = 0;
  for (let block = 0; block < weights.length; block += bit << 1)
    for (let subset = block; subset < block + bit; subset++)
      sum += ((weights[subset] as number) + (weights[subset | bit] as number)) * (worth[subset | bit] as number);
  return sum;
}

/** The cause silent about some findings, at the price of that silence. */
function keptQuiet(cause: NetworkCause, isQuiet: (finding: number) => boolean): NetworkCause {
  const quiet = cause.links.filter(({ finding }) => isQuiet(finding));
  return {
    odds: cause.odds,
    silence: quiet.reduce((silence, { probability }) => silence * (1 - probability), cause.silence),
    links: cause.links.filter(({ finding }) => !isQuiet(finding)),
  };
}
