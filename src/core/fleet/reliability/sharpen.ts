/** An edge's dull hours before anybody looked: about 15, within a factor of 1.65. Estimate. */
const MIDDLE_HOURS = 15;
const LOG_SPREAD = 0.5;
const SHAPE = 3;
const LEAST = 3;
const MOST = 60;
const POINTS = 201;
/** Sharpened before one in five is dull. Estimate. */
export const DULL_SHARE = 0.2;

/** Hours on an edge when somebody looked, and what it was. */
export type EdgeLook = { hours: number; isDull: boolean };

const dullBy = (hours: number, scale: number): number => 1 - Math.exp(-((hours / scale) ** SHAPE));

/** Scales and how likely each is after the looks. */
function belief(looks: readonly EdgeLook[]): { scale: number; weight: number }[] {
  const points = Array.from({ length: POINTS }, (_, k) => LEAST * (MOST / LEAST) ** (k / (POINTS - 1)));
  // By logarithms, and against the likeliest: a product over two hundred looks that contradict each other is nought everywhere.
  const logs = points.map((scale) => {
    const prior = -0.5 * ((Math.log(scale) - Math.log(MIDDLE_HOURS)) / LOG_SPREAD) ** 2;
    return looks.reduce(
      (sum, { hours, isDull }) => sum + (isDull ? Math.log(Math.max(dullBy(hours, scale), Number.MIN_VALUE)) : -((hours / scale) ** SHAPE)),
      prior,
    );
  });
  const most = Math.max(...logs);
  const weights = logs.map((log) => Math.exp(log - most));
  const total = weights.reduce((sum, one) => sum + one, 0);
  return points.map((scale, k) => ({ scale, weight: (weights[k] as number) / total }));
}

/** How likely an edge of this work is dull after `hours`. */
export function dullAfter(looks: readonly EdgeLook[], hours: number): number {
  return belief(looks).reduce((sum, { scale, weight }) => sum + weight * dullBy(hours, scale), 0);
}

const HALVINGS = 50;

/** Hours after which an edge is to be sharpened: when one in five is dull, by what the looks at this kind of machine say. */
export function sharpenAfterHours(looks: readonly EdgeLook[]): number {
  const believed = belief(looks);
  let [low, high] = [0, MOST];
  for (let turn = 0; turn < HALVINGS; turn++) {
    const middle = (low + high) / 2;
    const share = believed.reduce((sum, { scale, weight }) => sum + weight * dullBy(middle, scale), 0);
    if (share < DULL_SHARE) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
