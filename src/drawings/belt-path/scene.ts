import type { Point } from "@/core/basics/geometry";
import { type Machine, pointOf, type Standpoint, seenFrom } from "@/core/machine";
import { type BeltRoute, beltRoute, type RoutedPulley } from "@/core/physics/drive/belt-route";

export type DrawnPulley = { id: string; label: string; role: "drive" | "spindle" | "idler"; at: Point; radius: number; isBack: boolean };

/** A deck from above with its pulleys and the belt round them, metres, as seen from a standpoint. */
export type BeltScene = {
  outline: Point[];
  pulleys: DrawnPulley[];
  /** The belt as a closed line, the arcs round the pulleys in short steps; absent where the pulleys make no path. */
  belt?: Point[];
  bounds: { left: number; right: number; near: number; far: number };
};

const ARC_STEP = Math.PI / 24;

/** Round each pulley from where the belt comes on to where it leaves, then straight to the next. */
function lineOf(pulleys: readonly RoutedPulley[], { straights, runs }: BeltRoute): Point[] {
  return pulleys.flatMap((pulley, k) => {
    const [before, after] = [straights[(k + straights.length - 1) % straights.length], straights[k]];
    const wrap = runs[k]?.wrap ?? 0;
    if (!before || !after) return [];
    const centre = { x: pulley.xMetres, y: pulley.yMetres };
    const radius = pulley.pitchDiameterMetres / 2;
    const [on, off] = [before.to, after.from].map((p) => Math.atan2(p.y - centre.y, p.x - centre.x)) as [number, number];
    // Whichever way round ends where the belt leaves is the way it lies.
    const missOf = (sign: number) => Math.abs(Math.sin((on + sign * wrap - off) / 2));
    const sign = missOf(1) <= missOf(-1) ? 1 : -1;
    const steps = Math.max(1, Math.ceil(wrap / ARC_STEP));
    return Array.from({ length: steps + 1 }, (_, step) => {
      const angle = on + (sign * wrap * step) / steps;
      return { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) };
    });
  });
}

export function beltScene(machine: Machine, pulleys: NonNullable<Machine["sheet"]["belt"]>["pulleys"], standpoint: Standpoint): BeltScene {
  const seen = (p: Point) => seenFrom(standpoint, p);
  const found = beltRoute(pulleys);
  const outline = (machine.deck?.outline ?? []).map(pointOf).map(seen);
  const drawn = pulleys.map(({ id, label, role, side, pitchDiameterMetres, ...place }) => ({
    id,
    label,
    role,
    at: seen(pointOf(place)),
    radius: pitchDiameterMetres / 2,
    isBack: side === "outside",
  }));
  const edges = [
    ...outline,
    ...drawn.flatMap(({ at, radius }) => [
      { x: at.x - radius, y: at.y - radius },
      { x: at.x + radius, y: at.y + radius },
    ]),
  ];
  const [xs, ys] = [edges.map(({ x }) => x), edges.map(({ y }) => y)];
  return {
    outline,
    pulleys: drawn,
    ...(found.ok ? { belt: lineOf(pulleys, found.route).map(seen) } : {}),
    bounds: { left: Math.min(...xs), right: Math.max(...xs), near: Math.min(...ys), far: Math.max(...ys) },
  };
}
