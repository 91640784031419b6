/** A unit's knife seen from above: its middle, width and yaw (positive: its right end forward), metres and radians, axes as in the deck's README. */
export type LaidUnit = { id: string; xMetres: number; yMetres: number; widthMetres: number; yawRadians?: number | undefined };
export type Shared = { between: readonly [string, string]; overlapMetres: number };

type Span = { id: string; from: number; to: number };

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

/** What each stretch shares with all before it, from the driver's left; negative: a strip that wide is missed. */
function sharedBetween(spans: readonly Span[]): Shared[] {
  const [first, ...rest] = [...spans].sort((a, b) => a.from - b.from);
  if (!first) return [];
  let reach = first;
  return rest.map((next) => {
    const shared = { between: [reach.id, next.id] as const, overlapMetres: Math.min(reach.to - next.from, next.to - next.from) };
    if (next.to > reach.to) reach = next;
    return shared;
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

const least = (shared: readonly Shared[]) => leastShared(shared)?.overlapMetres ?? Number.POSITIVE_INFINITY;

const MOST_CRAB_RADIANS = 0.6;
const CRAB_STEP_RADIANS = 0.001;
const SMALLEST_RADIUS_METRES = 0.3;
const LARGEST_RADIUS_METRES = 60;
const GROWTH = 1.005;

/** The smallest crab, to either side, at which a strip opens, radians; `undefined` where none does up to 34°. */
export function crabThatOpens(units: readonly LaidUnit[]): number | undefined {
  const opens = (crab: number) => Math.min(least(unitOverlaps(units, crab)), least(unitOverlaps(units, -crab))) < 0;
  for (let crab = 0; crab <= MOST_CRAB_RADIANS; crab += CRAB_STEP_RADIANS) {
    if (!opens(crab)) continue;
    return crab === 0 ? 0 : halved(crab - CRAB_STEP_RADIANS, crab, opens);
  }
  return undefined;
}

/** From a value where it does not hold to one where it does. */
function halved(not: number, does: number, holds: (at: number) => boolean): number {
  let [a, b] = [not, does];
  for (let k = 0; k < 40; k++) {
    const middle = (a + b) / 2;
    if (holds(middle)) b = middle;
    else a = middle;
  }
  return (a + b) / 2;
}

export type TurnStrip = { underMetres: number; worstMetres: number; worstAtMetres: number };

/**
 * In turns to one side (1 right, −1 left) about a centre on the axle that does not steer: the radius under which a strip opens, and the widest, with
 * where it is. `undefined` where every turn is covered.
 */
export function turnThatOpens(units: readonly LaidUnit[], side: 1 | -1): TurnStrip | undefined {
  const share = (radius: number) => least(unitOverlapsInTurn(units, side * radius));
  let worst = { overlap: 0, at: 0 };
  let widest: number | undefined;
  for (let radius = SMALLEST_RADIUS_METRES; radius <= LARGEST_RADIUS_METRES; radius *= GROWTH) {
    const overlap = share(radius);
    if (overlap >= 0) continue;
    widest = radius;
    if (overlap < worst.overlap) worst = { overlap, at: radius };
  }
  if (widest === undefined) return undefined;
  return {
    underMetres: halved(widest * GROWTH, widest, (radius) => share(radius) < 0),
    worstMetres: worst.overlap,
    worstAtMetres: worst.at,
  };
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
