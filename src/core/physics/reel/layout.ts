import { halved, leastOver, type Shared, type Span, sharedBetween } from "@/core/basics/geometry";

/** A unit's knife seen from above: its middle, width and yaw (positive: its right end forward), metres and radians, axes as in the deck's README. */
export type LaidUnit = { id: string; xMetres: number; yMetres: number; widthMetres: number; yawRadians?: number | undefined };

/** The two ends of a unit's knife, from its left. */
export function endsOf({ xMetres, yMetres, widthMetres, yawRadians = 0 }: LaidUnit): [{ x: number; y: number }, { x: number; y: number }] {
  const [dx, dy] = [(widthMetres / 2) * Math.cos(yawRadians), (widthMetres / 2) * Math.sin(yawRadians)];
  return [
    { x: xMetres - dx, y: yMetres - dy },
    { x: xMetres + dx, y: yMetres + dy },
  ];
}

/** What each unit covers across the way of travel, crabbing by α (positive: nose left of travel): lateral place x·cos α − y·sin α. */
function straightSpans(units: readonly LaidUnit[], crabRadians: number): Span[] {
  const lateral = ({ x, y }: { x: number; y: number }) => x * Math.cos(crabRadians) - y * Math.sin(crabRadians);
  return units.map((unit) => {
    const [a, b] = endsOf(unit).map(lateral) as [number, number];
    return { id: unit.id, from: Math.min(a, b), to: Math.max(a, b) };
  });
}

/** Radii a unit covers about a turning centre at (r, 0), r > 0 to the right: its ends and, where it lies on the knife, the nearest foot. */
function turnSpans(units: readonly LaidUnit[], radiusMetres: number): Span[] {
  const sign = radiusMetres > 0 ? -1 : 1;
  return units.map((unit) => {
    const [a, b] = endsOf(unit);
    const radii = [a, b].map(({ x, y }) => Math.hypot(radiusMetres - x, y));
    const [ux, uy] = [b.x - a.x, b.y - a.y];
    const t = ((radiusMetres - a.x) * ux - a.y * uy) / (ux * ux + uy * uy);
    if (t > 0 && t < 1) radii.push(Math.hypot(radiusMetres - a.x - t * ux, a.y + t * uy));
    const [least, most] = [Math.min(...radii), Math.max(...radii)];
    return { id: unit.id, from: Math.min(sign * least, sign * most), to: Math.max(sign * least, sign * most) };
  });
}

export const unitOverlaps = (units: readonly LaidUnit[], crabRadians = 0): Shared[] => sharedBetween(straightSpans(units, crabRadians));
export const unitOverlapsInTurn = (units: readonly LaidUnit[], radiusMetres: number): Shared[] =>
  sharedBetween(turnSpans(units, radiusMetres));

export const leastShared = (shared: readonly Shared[]): Shared | undefined =>
  shared.reduce<Shared | undefined>(
    (least, one) => (least === undefined || one.overlapMetres < least.overlapMetres ? one : least),
    undefined,
  );

type Knife = { ax: number; ay: number; bx: number; by: number };
const knivesOf = (units: readonly LaidUnit[]): Knife[] =>
  units.map((unit) => {
    const [a, b] = endsOf(unit);
    return { ax: a.x, ay: a.y, bx: b.x, by: b.y };
  });

function leastAtCrab(units: readonly LaidUnit[]): (crabRadians: number) => number {
  const knives = knivesOf(units);
  return leastOver(knives.length, (k, crab, span) => {
    const { ax, ay, bx, by } = knives[k] as Knife;
    const [cos, sin] = [Math.cos(crab), Math.sin(crab)];
    const [a, b] = [ax * cos - ay * sin, bx * cos - by * sin];
    span[0] = Math.min(a, b);
    span[1] = Math.max(a, b);
  });
}

function leastInTurn(units: readonly LaidUnit[], side: 1 | -1): (radiusMetres: number) => number {
  const knives = knivesOf(units);
  return leastOver(knives.length, (k, radius, span) => {
    const { ax, ay, bx, by } = knives[k] as Knife;
    const centre = side * radius;
    const [a, b] = [Math.hypot(centre - ax, ay), Math.hypot(centre - bx, by)];
    let [nearest, farthest] = [Math.min(a, b), Math.max(a, b)];
    const [ux, uy] = [bx - ax, by - ay];
    const t = ((centre - ax) * ux - ay * uy) / (ux * ux + uy * uy);
    if (t > 0 && t < 1) {
      const foot = Math.hypot(centre - ax - t * ux, ay + t * uy);
      nearest = Math.min(nearest, foot);
      farthest = Math.max(farthest, foot);
    }
    span[0] = side > 0 ? -farthest : nearest;
    span[1] = side > 0 ? -nearest : farthest;
  });
}

const MOST_CRAB_RADIANS = 0.6;
const CRAB_STEP_RADIANS = 0.004;
const SMALLEST_RADIUS_METRES = 0.3;
const LARGEST_RADIUS_METRES = 60;
/** Nothing changes fast in a wide turn, so the steps grow with the radius; the worst is then looked for more finely. */
const GROWTH = 1.02;
const FINER = 24;

/** The smallest crab, to either side, at which a strip opens, radians; `undefined` where none does up to 34°. */
export function crabThatOpens(units: readonly LaidUnit[]): number | undefined {
  const least = leastAtCrab(units);
  const opens = (crab: number) => Math.min(least(crab), least(-crab)) < 0;
  for (let crab = 0; crab <= MOST_CRAB_RADIANS; crab += CRAB_STEP_RADIANS) {
    if (!opens(crab)) continue;
    return crab === 0 ? 0 : halved(crab - CRAB_STEP_RADIANS, crab, opens);
  }
  return undefined;
}

/** A unit further from square to travel is skewed: one degree over its width. Estimate. */
export const SKEW_RADIANS = Math.PI / 180;

export type TurnStrip = { underMetres: number; worstMetres: number; worstAtMetres: number };

/**
 * In turns to one side (1 right, −1 left) about a centre on the axle that does not steer: the radius under which a strip opens, and the widest, with
 * where it is. `undefined` where every turn is covered.
 */
export function turnThatOpens(units: readonly LaidUnit[], side: 1 | -1): TurnStrip | undefined {
  const share = leastInTurn(units, side);
  let worst = { overlap: 0, at: 0 };
  let widest: number | undefined;
  const look = (radius: number) => {
    const overlap = share(radius);
    if (overlap < worst.overlap) worst = { overlap, at: radius };
    return overlap;
  };
  for (let radius = SMALLEST_RADIUS_METRES; radius <= LARGEST_RADIUS_METRES; radius *= GROWTH) if (look(radius) < 0) widest = radius;
  if (widest === undefined) return undefined;
  const { at } = worst;
  for (let k = -FINER; k <= FINER; k++) look(at * GROWTH ** (k / FINER));
  return {
    underMetres: halved(widest * GROWTH, widest, (radius) => share(radius) < 0),
    worstMetres: worst.overlap,
    worstAtMetres: worst.at,
  };
}

/**
 * Where on the knives a line at a place across the swath was drawn: each unit that covers it straight ahead, with how far from its left end. Metres,
 * `xMetres` as the units' own. Empty outside the swath.
 */
export function onKnives(units: readonly LaidUnit[], xMetres: number): { unit: string; fromLeftMetres: number }[] {
  return units.flatMap((unit) => {
    const [a, b] = endsOf(unit);
    const share = (xMetres - a.x) / (b.x - a.x);
    return share < 0 || share > 1 ? [] : [{ unit: unit.id, fromLeftMetres: share * unit.widthMetres }];
  });
}

/** Where across the swath a place on a unit's knife draws its line, straight ahead: the other way about. Metres; `undefined` for no such unit. */
export function onTurf(units: readonly LaidUnit[], at: { unit: string; fromLeftMetres: number }): number | undefined {
  const unit = units.find(({ id }) => id === at.unit);
  if (!unit) return undefined;
  const [a, b] = endsOf(unit);
  return a.x + (at.fromLeftMetres / unit.widthMetres) * (b.x - a.x);
}

/** Which of a unit's rollers press over their whole width. A grooved roller presses less; what is not said presses. */
export type RollerLine = { unitId: string; end: "front" | "rear"; from: number; to: number };
export type RolledStretch = { from: number; to: number; passes: number };

/** How often each stretch across the swath is rolled, from the driver's left; neighbouring stretches differ. */
export function rolledAcross(lines: readonly Pick<RollerLine, "from" | "to">[]): RolledStretch[] {
  const edges = [...new Set(lines.flatMap(({ from, to }) => [from, to]))].sort((a, b) => a - b);
  const stretches = edges.slice(1).map((to, k) => {
    const from = edges[k] as number;
    const middle = (from + to) / 2;
    return { from, to, passes: lines.filter((line) => line.from < middle && line.to > middle).length };
  });
  const joined: RolledStretch[] = [];
  for (const next of stretches) {
    const last = joined.at(-1);
    if (last?.passes === next.passes) last.to = next.to;
    else joined.push({ ...next });
  }
  return joined;
}

/** Share of the rolled width that is rolled just so often. */
export function rolledShare(stretches: readonly RolledStretch[], passes: number): number {
  const width = (some: readonly RolledStretch[]) => some.reduce((sum, { from, to }) => sum + to - from, 0);
  const rolled = stretches.filter((one) => one.passes > 0);
  return rolled.length === 0 ? 0 : width(rolled.filter((one) => one.passes === passes)) / width(rolled);
}
