import type { Point } from "./plane";

const turn = (a: Point, b: Point, c: Point): number => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);

/**
 * Corners of the smallest convex shape around points, anticlockwise from the leftmost, those on a straight side left out. Monotone chain
 * (Andrew 1979, from memory). One or two points come back as they are.
 */
export function convexHull(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  if (sorted.length < 3) return sorted;
  const chain = (all: readonly Point[]): Point[] => {
    const kept: Point[] = [];
    for (const point of all) {
      for (let k = kept.length; k > 1 && turn(kept.at(-2) as Point, kept.at(-1) as Point, point) <= 0; k--) kept.pop();
      kept.push(point);
    }
    return kept.slice(0, -1);
  };
  return [...chain(sorted), ...chain([...sorted].reverse())];
}

const sameSide = (value: number) => Math.abs(value) < 1e-12;

/** Whether two sides share a point that is not a corner common to both. */
function meet(a: Point, b: Point, c: Point, d: Point): boolean {
  const [s, t, u, v] = [turn(a, b, c), turn(a, b, d), turn(c, d, a), turn(c, d, b)];
  if ([s, t, u, v].some(sameSide)) return [c, d].some((p) => isOn(a, b, p)) || [a, b].some((p) => isOn(c, d, p));
  return s > 0 !== t > 0 && u > 0 !== v > 0;
}

function isOn(a: Point, b: Point, p: Point): boolean {
  if (!sameSide(turn(a, b, p))) return false;
  return Math.min(a.x, b.x) <= p.x && p.x <= Math.max(a.x, b.x) && Math.min(a.y, b.y) <= p.y && p.y <= Math.max(a.y, b.y);
}

/** The first two sides of a closed outline that cross or touch, by the number of the corner each starts at; none in a sound outline. */
export function crossingSides(corners: readonly Point[]): readonly [number, number] | undefined {
  const n = corners.length;
  const corner = (k: number) => corners[k % n] as Point;
  for (let i = 0; i < n; i++)
    for (let j = i + 2; j < n; j++) {
      if (i === 0 && j === n - 1) continue;
      if (meet(corner(i), corner(i + 1), corner(j), corner(j + 1))) return [i, j];
    }
  return undefined;
}
