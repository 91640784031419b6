import type { Point } from "@/core/basics/geometry";
import { leastOverlap, type SweptBlade, straightOverlaps, turnOverlaps } from "@/core/physics/blades/overlap";

/** How the deck travels: straight with its nose turned, or about a point on the line of the axle that does not steer. */
export type Travel = { kind: "straight"; crabRadians: number } | { kind: "turn"; radiusMetres: number };

export type OverlapScene = {
  discs: { id: string; centre: Point; radius: number }[];
  /** What each blade covers across the way of travel, metres from the middle of the swath, and where neighbours share or miss. */
  bars: { id: string; from: number; to: number }[];
  gaps: { from: number; to: number; overlapMetres: number; between: readonly [string, string] }[];
  least: number;
  /** Turning centre, where there is one near enough to draw. */
  centre?: Point;
  bounds: { left: number; right: number; near: number; far: number };
};

/**
 * Blades from above in the machine's own axes, and beneath them what each covers across its travel: straight, the lateral places; in a turn,
 * radii about the turning centre, the outside of the turn on the side it lies on. Metres.
 */
export function overlapScene(blades: readonly SweptBlade[], travel: Travel): OverlapScene {
  const discs = blades.map(({ id, xMetres, yMetres, lengthMetres }) => ({
    id,
    centre: { x: xMetres, y: yMetres },
    radius: lengthMetres / 2,
  }));
  const places = placesAcross(blades, travel);
  const middle = (Math.min(...places.map(({ from }) => from)) + Math.max(...places.map(({ to }) => to))) / 2;
  const bars = places.map(({ id, from, to }) => ({ id, from: from - middle, to: to - middle }));
  const found = travel.kind === "straight" ? straightOverlaps(blades, travel.crabRadians) : turnOverlaps(blades, travel.radiusMetres);
  const gaps = found.flatMap(({ between, overlapMetres }) => {
    const [one, other] = between.map((id) => bars.find((bar) => bar.id === id));
    if (!one || !other) return [];
    const [inner, outer] = one.from <= other.from ? [one, other] : [other, one];
    return [{ between, overlapMetres, from: Math.min(inner.to, outer.from), to: Math.max(inner.to, outer.from) }];
  });
  return {
    discs,
    bars,
    gaps,
    least: leastOverlap(found),
    ...(travel.kind === "turn" ? { centre: { x: travel.radiusMetres, y: 0 } } : {}),
    bounds: boundsOf(discs),
  };
}

function placesAcross(blades: readonly SweptBlade[], travel: Travel): { id: string; from: number; to: number }[] {
  return blades.map(({ id, xMetres: x, yMetres: y, lengthMetres }) => {
    const at =
      travel.kind === "straight"
        ? x * Math.cos(travel.crabRadians) - y * Math.sin(travel.crabRadians)
        : -Math.sign(travel.radiusMetres) * Math.hypot(travel.radiusMetres - x, y);
    return { id, from: at - lengthMetres / 2, to: at + lengthMetres / 2 };
  });
}

function boundsOf(discs: OverlapScene["discs"]): OverlapScene["bounds"] {
  return {
    left: Math.min(...discs.map(({ centre, radius }) => centre.x - radius)),
    right: Math.max(...discs.map(({ centre, radius }) => centre.x + radius)),
    near: Math.min(...discs.map(({ centre, radius }) => centre.y - radius)),
    far: Math.max(...discs.map(({ centre, radius }) => centre.y + radius)),
  };
}
