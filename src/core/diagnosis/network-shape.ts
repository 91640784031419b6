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
  /** By index into the findings, each finding once: the probability that, being there, it shows that finding. */
  links: readonly { finding: number; probability: number }[];
};

export type Network = { findings: readonly Finding[]; causes: readonly NetworkCause[] };
