import { halved, leastOver, type Shared, type Span, sharedBetween } from "@/core/basics/geometry";
import type { Machine, Spindle } from "@/core/machine";

/** Less overlap than this leaves a strip before long; free blades come no nearer to each other either. Estimate. */
export const LEAST_OVERLAP_METRES = 0.006;
export const LEAST_CLEARANCE_METRES = 0.006;

/** With less wear left than this at each tip the margin is nearly gone: one more sharpening may use it up. Estimate. */
export const WEAR_TO_WATCH_METRES = 0.0015;

/** A blade as it sweeps: its middle and its length tip to tip, metres, axes as in the deck's README. */
export type SweptBlade = { id: string; xMetres: number; yMetres: number; lengthMetres: number };

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
export function straightOverlaps(blades: readonly SweptBlade[], crabRadians = 0): Shared[] {
  const across = blades.map((blade) => about(blade, blade.xMetres * Math.cos(crabRadians) - blade.yMetres * Math.sin(crabRadians)));
  return sharedBetween(across);
}

/**
 * What neighbours share in a turn about (r, 0) on the line of the axle that does not steer, r > 0 to the right (physics): each blade covers
 * the radii ρ ± L/2 about the turning centre, ρ = hypot(r − x, y). Neighbours are those next to each other in the turn, so a change
 * of order is no gap. From the driver's left in a right turn.
 */
export function turnOverlaps(blades: readonly SweptBlade[], radiusMetres: number): Shared[] {
  const sign = radiusMetres > 0 ? -1 : 1;
  return sharedBetween(blades.map((blade) => about(blade, sign * Math.hypot(radiusMetres - blade.xMetres, blade.yMetres))));
}

const about = ({ id, lengthMetres }: SweptBlade, at: number): Span => ({ id, from: at - lengthMetres / 2, to: at + lengthMetres / 2 });

/** The least of what neighbours share; infinite for a single blade. */
export function leastOverlap(gaps: readonly Shared[]): number {
  return Math.min(Number.POSITIVE_INFINITY, ...gaps.map(({ overlapMetres }) => overlapMetres));
}

export type RadiusBand = { fromMetres: number; toMetres: number; worstMetres: number; worstAtMetres: number };

/** Radii looked at for bands: steps that grow with the radius, since nothing changes fast in a wide turn. */
const SMALLEST_RADIUS_METRES = 0.05;
const LARGEST_RADIUS_METRES = 60;
const GROWTH = 1.004;

/**
 * The radii, to the right (`side` 1) or left (−1), in which the least overlap is under `limit`, each with its worst. Overlap does not fall steadily
 * as a turn gets tighter, so there may be several bands, or one that ends before the tightest turn.
 */
export function badRadii(args: { blades: readonly SweptBlade[]; side: 1 | -1; limitMetres: number }): RadiusBand[] {
  const { blades, side, limitMetres } = args;
  const share = leastInTurns(blades, side);
  const isUnder = (radius: number) => share(radius) < limitMetres;
  const bands: RadiusBand[] = [];
  let open: RadiusBand | undefined;
  let before = SMALLEST_RADIUS_METRES;
  for (let radius = SMALLEST_RADIUS_METRES; radius <= LARGEST_RADIUS_METRES; radius *= GROWTH) {
    const overlap = share(radius);
    if (overlap < limitMetres) {
      open ??= {
        fromMetres: radius === before ? radius : halved(before, radius, isUnder),
        toMetres: radius,
        worstMetres: overlap,
        worstAtMetres: radius,
      };
      if (overlap < open.worstMetres) open = { ...open, worstMetres: overlap, worstAtMetres: radius };
    } else if (open) {
      bands.push({ ...open, toMetres: halved(radius, before, isUnder) });
      open = undefined;
    }
    before = radius;
  }
  return open ? [...bands, { ...open, toMetres: LARGEST_RADIUS_METRES }] : bands;
}

/** The least overlap as a function of the radius: `turnOverlaps` without its names, since thousands of radii are looked at. */
function leastInTurns(blades: readonly SweptBlade[], side: 1 | -1): (radius: number) => number {
  const places = blades.map(({ xMetres, yMetres, lengthMetres }) => ({ x: xMetres, squared: yMetres ** 2, half: lengthMetres / 2 }));
  return leastOver(places.length, (k, radius, span) => {
    const { x, squared, half } = places[k] as (typeof places)[number];
    const at = Math.sqrt((side * radius - x) ** 2 + squared);
    span[0] = at - half;
    span[1] = at + half;
  });
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
