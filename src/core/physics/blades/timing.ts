/** A blade of a geared deck seen from above as a rectangle: tip to tip, and its width. Metres. */
export type TimedBlade = { lengthMetres: number; widthMetres: number };

/** Two neighbours at a distance; `sense`: whether they turn the same way round or opposite to each other. */
export type TimedPair = { one: TimedBlade; other: TimedBlade; centresMetres: number; sense: "same" | "opposite" };

const HALF_TURN = Math.PI;

/** An angle folded to 0 … 90°: a blade looks the same after half a turn, and the pair from either side. */
function folded(phase: number): number {
  const within = ((phase % HALF_TURN) + HALF_TURN) % HALF_TURN;
  return Math.min(within, HALF_TURN - within);
}

/**
 * Smallest distance over a full turn of two equal blades that turn the same way, by closed form (physics): h = ½√(L² + w²),
 * δ = atan(w/L), ψ = φ folded to 0 … 90°; for ψ ≥ 2δ: C − 2h·cos((ψ − 2δ)/2), below it C − 2h. Negative: they strike.
 * @example L 21, w 2.5, C 17: 0.383 at 90°, 0.046 at 87°.
 */
export function sameSenseGap({ blade, centresMetres, phase }: { blade: TimedBlade; centresMetres: number; phase: number }): number {
  const half = Math.hypot(blade.lengthMetres, blade.widthMetres) / 2;
  const corner = Math.atan2(blade.widthMetres, blade.lengthMetres);
  const turned = folded(phase) - 2 * corner;
  return centresMetres - 2 * half * (turned >= 0 ? Math.cos(turned / 2) : 1);
}

/**
 * The phases at which two equal blades that turn the same way keep a distance, the closed form turned round (physics): ψ = 2δ + 2·acos((C − gap)/2h)
 * to 180° − ψ. Empty where even square to each other they do not.
 * @example L 21, w 2.5, C 17: 86.6 to 93.4° clear, 88.8 to 91.2° with 0.25 between them.
 */
export function sameSenseRange(args: { blade: TimedBlade; centresMetres: number; wantedMetres: number }): ClearRange[] {
  const { blade, centresMetres, wantedMetres } = args;
  const whole = Math.hypot(blade.lengthMetres, blade.widthMetres);
  const share = (centresMetres - wantedMetres) / whole;
  if (share >= 1) return [{ fromPhase: 0, toPhase: HALF_TURN }];
  const from = 2 * Math.atan2(blade.widthMetres, blade.lengthMetres) + 2 * Math.acos(Math.max(0, share));
  return from <= HALF_TURN / 2 ? [{ fromPhase: from, toPhase: HALF_TURN - from }] : [];
}

type Corners = Float64Array;

function cornersOf({ lengthMetres, widthMetres }: TimedBlade, x: number, angle: number, into: Corners): void {
  const [l, w] = [lengthMetres / 2, widthMetres / 2];
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  for (let k = 0; k < 4; k++) {
    const a = k === 0 || k === 3 ? l : -l;
    const b = k < 2 ? w : -w;
    into[2 * k] = x + a * cos - b * sin;
    into[2 * k + 1] = a * sin + b * cos;
  }
}

/** Distance from a point to the stretch from a to b. */
function toStretch(px: number, py: number, ax: number, ay: number, bx: number, by: number): number {
  const [dx, dy] = [bx - ax, by - ay];
  const along = dx * dx + dy * dy;
  const share = along === 0 ? 0 : Math.max(0, Math.min(1, ((px - ax) * dx + (py - ay) * dy) / along));
  return Math.hypot(px - ax - share * dx, py - ay - share * dy);
}

/**
 * Along the side of a rectangle that parts two best: no more than their distance, and negative exactly where they lie in each other. For two
 * centred rectangles along each of their four sides: what lies between the centres less half of what each is wide that way (geometry).
 */
function partedBy({ one, other, centresMetres }: TimedPair, angle: number, otherAngle: number): number {
  const [l, w, m, v] = [one.lengthMetres / 2, one.widthMetres / 2, other.lengthMetres / 2, other.widthMetres / 2];
  const k = Math.abs(Math.cos(angle - otherAngle));
  const s = Math.abs(Math.sin(angle - otherAngle));
  return Math.max(
    centresMetres * Math.abs(Math.cos(angle)) - (l + m * k + v * s),
    centresMetres * Math.abs(Math.sin(angle)) - (w + m * s + v * k),
    centresMetres * Math.abs(Math.cos(otherAngle)) - (m + l * k + w * s),
    centresMetres * Math.abs(Math.sin(otherAngle)) - (v + l * s + w * k),
  );
}

/** Distance of two rectangles that lie clear of each other. */
function between(one: Corners, other: Corners): number {
  let least = Number.POSITIVE_INFINITY;
  for (const [points, sides] of [
    [one, other],
    [other, one],
  ] as const)
    for (let p = 0; p < 8; p += 2)
      for (let s = 0; s < 8; s += 2) {
        const next = (s + 2) % 8;
        const gap = toStretch(
          points[p] as number,
          points[p + 1] as number,
          sides[s] as number,
          sides[s + 1] as number,
          sides[next] as number,
          sides[next + 1] as number,
        );
        least = Math.min(least, gap);
      }
  return least;
}

// The same way round the second leads by the phase; opposite to each other the two angles add up to it.
const otherAngleOf = ({ sense }: TimedPair, phase: number, angle: number): number => (sense === "same" ? angle + phase : phase - angle);

/** Distance of the pair with the first blade at an angle from the line of centres; negative where they lie in each other: by how much they would have to be moved apart (physics). */
export function gapAt(pair: TimedPair, phase: number, angle: number): number {
  return gapInto(pair, phase, angle, new Float64Array(8), new Float64Array(8));
}

/** As `gapAt`; from `skipFrom` on only as much as is cheap to know, which is no more than the distance. */
function gapInto(pair: TimedPair, phase: number, angle: number, a: Corners, b: Corners, skipFrom = Number.POSITIVE_INFINITY): number {
  const otherAngle = otherAngleOf(pair, phase, angle);
  const parted = partedBy(pair, angle, otherAngle);
  if (parted < 0 || parted >= skipFrom) return parted;
  cornersOf(pair.one, 0, angle, a);
  cornersOf(pair.other, pair.centresMetres, otherAngle, b);
  return between(a, b);
}

const STEPS = 180;
const REFINED = 1e-5;

export type Closest = { gapMetres: number; atAngle: number };

/**
 * Closest approach over a full turn, and where: steps of a degree over half a turn (both blades look the same after it), then the best two
 * refined by halving the step. Negative: they strike there.
 */
export function closestApproach(pair: TimedPair, phase: number): Closest {
  const [a, b] = [new Float64Array(8), new Float64Array(8)];
  let [best, second]: [Closest, Closest] = [FAR, FAR];
  for (let k = 0; k < STEPS; k++) {
    const atAngle = (k * HALF_TURN) / STEPS;
    // What is known to be further than the second best need not be known better.
    const gapMetres = gapInto(pair, phase, atAngle, a, b, second.gapMetres);
    if (gapMetres >= second.gapMetres) continue;
    if (gapMetres < best.gapMetres) [best, second] = [{ atAngle, gapMetres }, best];
    else second = { atAngle, gapMetres };
  }
  const gap = (angle: number) => gapInto(pair, phase, angle, a, b);
  const [one, other] = [refined(gap, best), refined(gap, second)];
  return one.gapMetres <= other.gapMetres ? one : other;
}

const FAR: Closest = { atAngle: 0, gapMetres: Number.POSITIVE_INFINITY };

function refined(gap: (angle: number) => number, start: Closest): Closest {
  let best = start;
  for (let step = HALF_TURN / STEPS; step > REFINED; step /= 2) {
    const next = [best.atAngle - step, best.atAngle + step].map((atAngle) => ({ atAngle, gapMetres: gap(atAngle) }));
    for (const one of next) if (one.gapMetres < best.gapMetres) best = one;
  }
  return best;
}

export type ClearRange = { fromPhase: number; toPhase: number };

const PHASE_STEPS = 90;
const PHASE_PRECISION = 1e-4;
/** A half turn is halved to that precision in fifteen. */
const MOST_HALVINGS = 40;
const LOOK_STEPS = 90;

/** Whether a pair keeps a distance over a full turn: the cheap lower bound first, the distance itself only where that is too small. */
function keeps(pair: TimedPair, phase: number, wantedMetres: number, a: Corners, b: Corners): boolean {
  const isNear = (angle: number) => {
    const gap = gapInto(pair, phase, angle, a, b, wantedMetres);
    return { gap, isTooNear: gap < wantedMetres };
  };
  let [least, at] = [Number.POSITIVE_INFINITY, 0];
  for (let k = 0; k < LOOK_STEPS; k++) {
    const angle = (k * HALF_TURN) / LOOK_STEPS;
    const { gap, isTooNear } = isNear(angle);
    if (isTooNear) return false;
    if (gap < least) [least, at] = [gap, angle];
  }
  // What lies between two steps is looked at about the nearest of them.
  for (let step = HALF_TURN / LOOK_STEPS / 2; step > REFINED; step /= 2) {
    for (const angle of [at - step, at + step]) {
      const { gap, isTooNear } = isNear(angle);
      if (isTooNear) return false;
      if (gap < least) [least, at] = [gap, angle];
    }
  }
  return true;
}

const isEqual = ({ one, other }: TimedPair) => one.lengthMetres === other.lengthMetres && one.widthMetres === other.widthMetres;

/** The phases from 0 to 180° at which the pair keeps a wanted distance over a full turn, radians; empty where none does. By closed form where there is one. */
export function clearRanges(pair: TimedPair, wantedMetres: number): ClearRange[] {
  if (pair.sense === "same" && isEqual(pair)) return sameSenseRange({ blade: pair.one, centresMetres: pair.centresMetres, wantedMetres });
  return searchedRanges(pair, wantedMetres);
}

/** As `clearRanges`, always by moving the rectangles together. */
export function searchedRanges(pair: TimedPair, wantedMetres: number): ClearRange[] {
  const [a, b] = [new Float64Array(8), new Float64Array(8)];
  const isClear = (phase: number) => keeps(pair, phase, wantedMetres, a, b);
  const ranges: ClearRange[] = [];
  let open: number | undefined;
  let wasClear = isClear(0);
  if (wasClear) open = 0;
  for (let k = 1; k <= PHASE_STEPS; k++) {
    const phase = (k * HALF_TURN) / PHASE_STEPS;
    const isNow = isClear(phase);
    if (isNow !== wasClear) {
      const edge = edgeOf(isClear, ((k - 1) * HALF_TURN) / PHASE_STEPS, phase, wasClear);
      if (isNow) open = edge;
      else if (open !== undefined) ranges.push({ fromPhase: open, toPhase: edge });
    }
    wasClear = isNow;
  }
  if (wasClear && open !== undefined) ranges.push({ fromPhase: open, toPhase: HALF_TURN });
  return ranges;
}

function edgeOf(isClear: (phase: number) => boolean, from: number, to: number, isFromClear: boolean): number {
  let [low, high] = [from, to];
  for (let k = 0; k < MOST_HALVINGS && high - low > PHASE_PRECISION; k++) {
    const middle = (low + high) / 2;
    if (isClear(middle) === isFromClear) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** What one tooth of a coupling's spline turns a blade by, radians. */
export function toothAngle(teeth: number): number {
  return (2 * Math.PI) / teeth;
}
