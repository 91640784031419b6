import type { Point } from "@/core/basics/geometry";
import { endsOf, type LaidUnit, type RolledStretch } from "@/core/physics/reel";

/** Units from above with the step chart of how often the swath is rolled beneath, one scale across. Metres, x to the driver's right, y forward. */
export type SwathScene = {
  units: { id: string; corners: Point[]; knife: [Point, Point] }[];
  rolled: RolledStretch[];
  mostPasses: number;
  bounds: { left: number; right: number; near: number; far: number };
};

/** From front roller to rear roller, drawn. */
const DEPTH_METRES = 0.22;

export function swathScene(units: readonly LaidUnit[], rolled: readonly RolledStretch[]): SwathScene {
  const drawn = units.map((unit) => {
    const [a, b] = endsOf(unit);
    const yaw = unit.yawRadians ?? 0;
    const off = { x: (-Math.sin(yaw) * DEPTH_METRES) / 2, y: (Math.cos(yaw) * DEPTH_METRES) / 2 };
    const moved = (p: Point, by: 1 | -1): Point => ({ x: p.x + by * off.x, y: p.y + by * off.y });
    return { id: unit.id, corners: [moved(a, -1), moved(b, -1), moved(b, 1), moved(a, 1)], knife: [a, b] as [Point, Point] };
  });
  const points = drawn.flatMap(({ corners }) => corners);
  return {
    units: drawn,
    rolled: [...rolled],
    mostPasses: Math.max(1, ...rolled.map(({ passes }) => passes)),
    bounds: {
      left: Math.min(...points.map(({ x }) => x)),
      right: Math.max(...points.map(({ x }) => x)),
      near: Math.min(...points.map(({ y }) => y)),
      far: Math.max(...points.map(({ y }) => y)),
    },
  };
}
