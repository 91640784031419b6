/** Two-sided points of the normal curve for the confidences in use (published tables, from memory). */
const NORMAL = { 0.95: 1.959963985, 0.99: 2.575829304 } as const;
export type Confidence = keyof typeof NORMAL;

/**
 * Two-sided point of Student's t for so many degrees of freedom: exact for 1 and 2 (closed forms), else the Cornish and Fisher expansion
 * (published: Abramowitz & Stegun 26.7.5, from memory), good to 0.005 at 95 % and 0.05 at 99 % from 3 degrees on. Without degrees the normal curve's.
 */
export function studentT(degrees: number | undefined, confidence: Confidence = 0.95): number {
  const z = NORMAL[confidence];
  if (degrees === undefined) return z;
  if (degrees === 1) return Math.tan((Math.PI * confidence) / 2);
  if (degrees === 2) return confidence * Math.sqrt(2 / (1 - confidence ** 2));
  const n = degrees;
  const g1 = (z ** 3 + z) / 4;
  const g2 = (5 * z ** 5 + 16 * z ** 3 + 3 * z) / 96;
  const g3 = (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / 384;
  const g4 = (79 * z ** 9 + 776 * z ** 7 + 1482 * z ** 5 - 1920 * z ** 3 - 945 * z) / 92160;
  return z + g1 / n + g2 / n ** 2 + g3 / n ** 3 + g4 / n ** 4;
}

/** What stands behind ± on every screen: half the width within which a value lies with 95 in 100, from its standard error and, where few readings gave that, their degrees of freedom. */
export const plusMinus95 = (standardError: number, degrees?: number): number => studentT(degrees) * standardError;
