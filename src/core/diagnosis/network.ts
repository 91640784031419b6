/** A positive finding: a symptom that is present, or a figure out of tolerance that names several causes. */
export type Finding = {
  /** Probability of seeing it with none of its causes there. */
  leak: number;
  /** Whether it is something complained of, not something measured. */
  isSymptom: boolean;
};

export type NetworkCause = {
  /** Odds of its being there before the findings: prior, context and likelihood ratios multiplied; finite and not negative. */
  odds: number;
  /** Probability that it stays silent about every denied symptom, given it is there. */
  silence: number;
  /** By index into the findings: the probability that, being there, it shows that finding. */
  links: readonly { finding: number; probability: number }[];
};

export type Network = { findings: readonly Finding[]; causes: readonly NetworkCause[] };

export type Posterior = {
  /** That the cause is there. */
  probability: number;
  /** That it is there and has itself shown at least one of the symptoms: what causes are ranked by. */
  shown: number;
};

export type Posteriors = {
  causes: Posterior[];
  /** For each finding: that no cause of the network has shown it. */
  unexplained: number[];
};

/**
 * Exact posteriors with several causes at once (noisy-OR). Carries, for every subset of the findings, the weight of "exactly these have
 * been shown so far" through the causes one at a time, starting from the leaks: only non-negative terms, so nothing cancels.
 * Each cause is left out in turn by divide and conquer: about causes × log(causes) × links × 2^findings steps.
 *
 * Weights are scaled to 1 on the way, so that many causes neither overflow nor vanish.
 */
export function posteriors(network: Network): Posteriors {
  const size = 1 << network.findings.length;
  const causes: Posterior[] = network.causes.map(() => ({ probability: 0, shown: 0 }));
  leaveOneOut(network, leakWeights(network.findings, size), 0, network.causes.length, (index, others) => {
    causes[index] = posteriorOf(network, index, others);
  });
  return { causes, unexplained: network.findings.map((_, finding) => unexplainedShare(network, finding)) };
}

type Weights = Float64Array;

function leakWeights(findings: readonly Finding[], size: number): Weights {
  const weights = new Float64Array(size);
  weights[0] = 1;
  findings.forEach(({ leak }, finding) => {
    fire(weights, finding, leak);
  });
  return weights;
}

/** In place: whatever had not shown this finding shows it with that probability. */
function fire(weights: Weights, finding: number, probability: number): void {
  const bit = 1 << finding;
  for (let subset = 0; subset < weights.length; subset++) {
    if (subset & bit) continue;
    const weight = weights[subset] as number;
    weights[subset | bit] = (weights[subset | bit] as number) + weight * probability;
    weights[subset] = weight * (1 - probability);
  }
}

/** The weights once a cause is counted in, scaled so that the largest is 1. */
function withCause(weights: Weights, { odds, silence, links }: NetworkCause): Weights {
  const present = weights.slice();
  for (const { finding, probability } of links) fire(present, finding, probability);
  const share = odds * silence;
  let largest = 0;
  for (let subset = 0; subset < present.length; subset++) {
    const weight = (weights[subset] as number) + share * (present[subset] as number);
    present[subset] = weight;
    if (weight > largest) largest = weight;
  }
  if (largest > 0) for (let subset = 0; subset < present.length; subset++) present[subset] = (present[subset] as number) / largest;
  return present;
}

function leaveOneOut(network: Network, weights: Weights, from: number, to: number, found: (index: number, others: Weights) => void): void {
  if (to - from === 0) return;
  if (to - from === 1) {
    found(from, weights);
    return;
  }
  const middle = (from + to) >> 1;
  leaveOneOut(network, countIn(network, weights, middle, to), from, middle, found);
  leaveOneOut(network, countIn(network, weights, from, middle), middle, to, found);
}

function countIn(network: Network, weights: Weights, from: number, to: number): Weights {
  let counted = weights;
  for (let index = from; index < to; index++) counted = withCause(counted, network.causes[index] as NetworkCause);
  return counted;
}

function posteriorOf(network: Network, index: number, others: Weights): Posterior {
  const cause = network.causes[index] as NetworkCause;
  const all = others.length - 1;
  const share = cause.odds * cause.silence;
  const { silent, shown } = firings(network, cause, others);
  const absent = others[all] as number;
  const present = share * ((silent[all] as number) + (shown[all] as number));
  const total = absent + present;
  if (!(total > 0)) return { probability: 0, shown: 0 };
  return { probability: present / total, shown: (share * (shown[all] as number)) / total };
}

/** The weights with the cause there, apart for "has shown none of the symptoms" and "has shown at least one". */
function firings(network: Network, cause: NetworkCause, others: Weights): { silent: Weights; shown: Weights } {
  const silent = others.slice();
  const shown = new Float64Array(others.length);
  for (const { finding, probability } of cause.links) {
    fire(shown, finding, probability);
    if (!network.findings[finding]?.isSymptom) {
      fire(silent, finding, probability);
      continue;
    }
    const bit = 1 << finding;
    for (let subset = 0; subset < silent.length; subset++) {
      const weight = silent[subset] as number;
      shown[subset | bit] = (shown[subset | bit] as number) + weight * probability;
      silent[subset] = weight * (1 - probability);
    }
  }
  return { silent, shown };
}

/** That a finding was shown by its leak alone: the same sum with every cause silent about it. */
function unexplainedShare(network: Network, finding: number): number {
  const size = 1 << network.findings.length;
  const start = leakWeights(network.findings, size);
  let alone = start;
  let any = start;
  let scale = 0;
  for (const cause of network.causes) {
    const quiet = {
      ...cause,
      links: cause.links.filter((link) => link.finding !== finding),
      silence: cause.silence * (1 - linkTo(cause, finding)),
    };
    const before = largestAfter(alone, quiet);
    const beforeAny = largestAfter(any, cause);
    scale += Math.log(before) - Math.log(beforeAny);
    alone = withCause(alone, quiet);
    any = withCause(any, cause);
  }
  const total = any[size - 1] as number;
  return total > 0 ? Math.min(1, ((alone[size - 1] as number) / total) * Math.exp(scale)) : 0;
}

function linkTo(cause: NetworkCause, finding: number): number {
  return cause.links.find((link) => link.finding === finding)?.probability ?? 0;
}

/** What `withCause` would divide by. */
function largestAfter(weights: Weights, cause: NetworkCause): number {
  const present = weights.slice();
  for (const { finding, probability } of cause.links) fire(present, finding, probability);
  const share = cause.odds * cause.silence;
  let largest = 0;
  for (let subset = 0; subset < present.length; subset++)
    largest = Math.max(largest, (weights[subset] as number) + share * (present[subset] as number));
  return largest;
}
