/** The four words a probability is said in. */
export const LIKELIHOODS = ["very-likely", "likely", "possible", "unlikely"] as const;
export type Likelihood = (typeof LIKELIHOODS)[number];

/** Where each word begins. Common practice: no standard puts figures to these words for a workshop. */
export const LIKELIHOOD_FROM: Record<Likelihood, number> = { "very-likely": 0.85, likely: 0.5, possible: 0.15, unlikely: 0 };

export function likelihoodOf(probability: number): Likelihood {
  return LIKELIHOODS.find((word) => probability >= LIKELIHOOD_FROM[word]) ?? "unlikely";
}
