const LOG_SQRT_TWO_PI = 0.5 * Math.log(2 * Math.PI);
/** Below this the continued fraction is used; above, the series: both are exact to rounding there. */
const SERIES_LIMIT = -3;

/** Natural logarithm of the standard normal density at x. */
export function logNormalDensity(x: number): number {
  return -0.5 * x * x - LOG_SQRT_TWO_PI;
}

/**
 * Natural logarithm of the standard normal distribution function at x.
 * Series Φ(x) = ½ + φ(x)·(x + x³/3 + x⁵/15 + …) for |x| ≤ 3, Laplace's continued fraction beyond
 * (published: Abramowitz & Stegun 26.2.11 and 26.2.14, from memory).
 */
export function logNormalCdf(x: number): number {
  if (x < SERIES_LIMIT) return logNormalDensity(x) + Math.log(upperTailRatio(-x));
  if (x > -SERIES_LIMIT) return Math.log1p(-Math.exp(logNormalDensity(x)) * upperTailRatio(x));
  return Math.log(0.5 + Math.exp(logNormalDensity(x)) * seriesSum(x));
}

function seriesSum(x: number): number {
  let term = x;
  let sum = x;
  for (let k = 3; Math.abs(term) > 1e-17 * Math.abs(sum) && k < 400; k += 2) {
    term *= (x * x) / k;
    sum += term;
  }
  return sum;
}

/** (1 − Φ(x)) / φ(x) for x ≥ 3: 1/(x + 1/(x + 2/(x + 3/(x + …)))). */
function upperTailRatio(x: number): number {
  let tail = x;
  for (let k = 120; k >= 1; k--) tail = x + k / tail;
  return 1 / tail;
}
