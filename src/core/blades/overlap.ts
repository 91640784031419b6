import type { Machine, Spindle } from "@/core/machine";

/** Less overlap than this leaves a strip before long; free blades come no nearer to each other either. Estimate. */
export const LEAST_OVERLAP_METRES = 0.006;
export const LEAST_CLEARANCE_METRES = 0.006;

/** A blade as it sweeps: its middle and its length tip to tip, metres, axes as in the deck's README. */
export type SweptBlade = { id: string; xMetres: number; yMetres: number; lengthMetres: number };

export type Gap = {
  between: readonly [string, string];
  /** What the two share across the way of travel, metres; negative: a strip that wide is missed. */
  overlapMetres: number;
};

/** Blades as new: as long as the tip circle on the sheet. */
export function bladesOf({ spindles }: Pick<Machine, "spindles">): SweptBlade[] {
  return spindles.map(({ id, xMetres, yMetres, tipCircleDiameterMetres }: Spindle) => ({
    id,
    xMetres,
    yMetres,
    lengthMetres: tipCircleDiameterMetres,
  }));
}

/**
 * What neighbours share, travelling straight or crabbing by α (radians, positive: nose left of travel, so the machine drifts right):
 * (Lᵢ + Lⱼ)/2 − lateral spacing, lateral place x·cos α − y·sin α (physics). From the driver's left.
 */
export function straightOverlaps(blades: readonly SweptBlade[], crabRadians = 0): Gap[] {
  const across = blades.map((blade) => ({
    id: blade.id,
    at: blade.xMetres * Math.cos(crabRadians) - blade.yMetres * Math.sin(crabRadians),
    half: blade.lengthMetres / 2,
  }));
  return sharedBetween(across);
}

/**
 * What neighbours share in a turn about (r, 0) on the line of the axle that does not steer, r > 0 to the right (physics): each blade covers
 * the radii ρ ± L/2 about the turning centre, ρ = hypot(r − x, y). Neighbours are those next to each other in the turn, so a change
 * of order is no gap. From the driver's left in a right turn.
 */
export function turnOverlaps(blades: readonly SweptBlade[], radiusMetres: number): Gap[] {
  const sign = radiusMetres > 0 ? -1 : 1;
  const about = blades.map((blade) => ({
    id: blade.id,
    at: sign * Math.hypot(radiusMetres - blade.xMetres, blade.yMetres),
    half: blade.lengthMetres / 2,
  }));
  return sharedBetween(about);
}

type Covered = { id: string; at: number; half: number };

/** Overlap of each stretch with all that lies before it: what an earlier, longer one covers is covered. */
function sharedBetween(covered: readonly Covered[]): Gap[] {
  const [first, ...rest] = [...covered].sort((a, b) => a.at - a.half - (b.at - b.half));
  if (!first) return [];
  const gaps: Gap[] = [];
  let reach = first;
  for (const next of rest) {
    gaps.push({ between: [reach.id, next.id], overlapMetres: Math.min(reach.at + reach.half - (next.at - next.half), 2 * next.half) });
    if (next.at + next.half > reach.at + reach.half) reach = next;
  }
  return gaps;
}

/** The least of what neighbours share; infinite for a single blade. */
export function leastOverlap(gaps: readonly Gap[]): number {
  return Math.min(Number.POSITIVE_INFINITY, ...gaps.map(({ overlapMetres }) => overlapMetres));
}

export type RadiusBand = { fromMetres: number; toMetres: number; worstMetres: number; worstAtMetres: number };

/** Radii looked at for bands: steps that grow with the radius, since nothing changes fast in a wide turn. */
const SMALLEST_RADIUS_METRES = 0.05;
const LARGEST_RADIUS_METRES = 60;
const GROWTH = 1.004;
const EDGE_PRECISION_METRES = 1e-5;

/**
 * The radii, to the right (`side` 1) or left (−1), in which the least overlap is under `limit`, each with its worst. Overlap does not fall steadily
 * as a turn gets tighter, so there may be several bands, or one that ends before the tightest turn.
 */
export function badRadii(args: { blades: readonly SweptBlade[]; side: 1 | -1; limitMetres: number }): RadiusBand[] {
  const { blades, side, limitMetres } = args;
  const share = leastInTurns(blades, side);
  const bands: RadiusBand[] = [];
  let open: RadiusBand | undefined;
  let before = SMALLEST_RADIUS_METRES;
  for (let radius = SMALLEST_RADIUS_METRES; radius <= LARGEST_RADIUS_METRES; radius *= GROWTH) {
    const overlap = share(radius);
    if (overlap < limitMetres) {
      open ??= {
        fromMetres: radius === before ? radius : edgeOf({ share, limitMetres, good: before, bad: radius }),
        toMetres: radius,
        worstMetres: overlap,
        worstAtMetres: radius,
      };
      if (overlap < open.worstMetres) open = { ...open, worstMetres: overlap, worstAtMetres: radius };
    } else if (open) {
      bands.push({ ...open, toMetres: edgeOf({ share, limitMetres, good: radius, bad: before }) });
      open = undefined;
    }
    before = radius;
  }
  return open ? [...bands, { ...open, toMetres: LARGEST_RADIUS_METRES }] : bands;
}

/** The least overlap as a function of the radius: `turnOverlaps` without its names, since thousands of radii are looked at. */
function leastInTurns(blades: readonly SweptBlade[], side: 1 | -1): (radius: number) => number {
  const count = blades.length;
  const places = blades.map(({ xMetres, yMetres, lengthMetres }) => ({ x: xMetres, squared: yMetres ** 2, half: lengthMetres / 2 }));
  const from = new Float64Array(count);
  const to = new Float64Array(count);
  return (radius) => {
    places.forEach(({ x, squared, half }, index) => {
      const at = Math.sqrt((side * radius - x) ** 2 + squared);
      let place = index;
      // Kept in order of where they begin, by insertion: there are seven at most.
      while (place > 0 && (from[place - 1] as number) > at - half) {
        from[place] = from[place - 1] as number;
        to[place] = to[place - 1] as number;
        place -= 1;
      }
      from[place] = at - half;
      to[place] = at + half;
    });
    let least = Number.POSITIVE_INFINITY;
    let reach = to[0] as number;
    for (let k = 1; k < count; k++) {
      const [begins, ends] = [from[k] as number, to[k] as number];
      least = Math.min(least, reach - begins, ends - begins);
      if (ends > reach) reach = ends;
    }
    return least;
  };
}

/** The radius between a good and a bad one where the overlap passes the limit, by halving. */
function edgeOf(args: { share: (radius: number) => number; limitMetres: number; good: number; bad: number }): number {
  let { good, bad } = args;
  while (Math.abs(good - bad) > EDGE_PRECISION_METRES) {
    const middle = (good + bad) / 2;
    if (args.share(middle) < args.limitMetres) bad = middle;
    else good = middle;
  }
  return (good + bad) / 2;
}

/** How much may still be lost at each tip, all blades alike, before the least overlap is down to its limit. Negative: too much already. */
export function wearLeft(blades: readonly SweptBlade[]): number {
  return (leastOverlap(straightOverlaps(blades)) - LEAST_OVERLAP_METRES) / 2;
}

/** Between the tip circles of every two blades that turn freely: hypot(Δx, Δy) − (Lᵢ + Lⱼ)/2 (physics). Zero or less: they strike. */
export function clearances(blades: readonly SweptBlade[]): { between: readonly [string, string]; clearanceMetres: number }[] {
  return blades.flatMap((one, index) =>
    blades.slice(index + 1).map((other) => ({
      between: [one.id, other.id] as const,
      clearanceMetres: Math.hypot(one.xMetres - other.xMetres, one.yMetres - other.yMetres) - (one.lengthMetres + other.lengthMetres) / 2,
    })),
  );
}

/** Width of cut from blades and overlaps: lengths less what neighbours share (physics). */
export function widthOfCut(blades: readonly SweptBlade[]): number {
  const shared = straightOverlaps(blades).reduce((sum, { overlapMetres }) => sum + overlapMetres, 0);
  return blades.reduce((sum, { lengthMetres }) => sum + lengthMetres, 0) - shared;
}
