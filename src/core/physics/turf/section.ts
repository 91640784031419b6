import { type Plane, planeHeight } from "@/core/basics/geometry";
import type { Spindle } from "@/core/machine";

export type CutPoint = {
  x: number;
  /** Height the grass is left at, or `undefined` where no blade passes. */
  height?: number;
};

/** Points of the section across a swath; 10 mm apart by default. */
export const SECTION_STEP_METRES = 0.01;

/**
 * What a straight pass leaves across its width, worked out from the plane of the tips (physics): at each x the lowest of the front
 * and rear arc of every blade that covers it. x in metres to the driver's right, rising.
 */
export function cutSection(args: {
  spindles: readonly Spindle[];
  planeOf: (spindle: Spindle) => Plane;
  from: number;
  to: number;
  step?: number;
}): CutPoint[] {
  const step = args.step ?? SECTION_STEP_METRES;
  const count = Math.max(1, Math.round((args.to - args.from) / step));
  return Array.from({ length: count + 1 }, (_, k) => {
    const x = args.from + ((args.to - args.from) * k) / count;
    const heights = args.spindles.flatMap((spindle) => arcHeights(spindle, args.planeOf(spindle), x));
    return heights.length === 0 ? { x } : { x, height: Math.min(...heights) };
  });
}

const EDGE_METRES = 1e-9;

function arcHeights(spindle: Spindle, plane: Plane, x: number): number[] {
  const radius = spindle.tipCircleDiameterMetres / 2;
  const off = x - spindle.xMetres;
  // The outermost tip itself must count, whatever the last bit of its place.
  if (Math.abs(off) > radius + EDGE_METRES) return [];
  const reach = Math.sqrt(Math.max(0, radius * radius - off * off));
  return [planeHeight(plane, { x, y: spindle.yMetres + reach }), planeHeight(plane, { x, y: spindle.yMetres - reach })];
}

/** Passes beside each other all one way, or each turned against the last. */
export type PassWay = "one-way" | "up-and-down";

/**
 * The ledge between two passes that overlap, metres, 0 or more (physics): the lower of both cuts the overlap, so where the lower one's edge ends
 * the other stands over it as high as it is that far in from its own edge. Up and down high meets high and low meets low, and next to nothing
 * is left of it. `undefined` where nothing is cut, or the passes do not overlap.
 */
export function ledgeBetweenPasses(section: readonly CutPoint[], passes: { overlapMetres: number; way: PassWay }): number | undefined {
  const cut = section.filter((point): point is Required<CutPoint> => point.height !== undefined);
  const [first, last] = [cut[0], cut.at(-1)];
  const { overlapMetres: overlap, way } = passes;
  if (!first || !last || overlap < 0 || overlap > last.x - first.x) return undefined;
  const [left, right] = [first.height, last.height];
  const [inLeft, inRight] = [heightAt(cut, first.x + overlap), heightAt(cut, last.x - overlap)];
  // Each pair: what stands beside the edge that ends there, and that edge.
  const steps = way === "one-way" ? [inRight - left, inLeft - right] : [inRight - right, inLeft - left];
  return Math.max(0, ...steps);
}

function heightAt(cut: readonly Required<CutPoint>[], x: number): number {
  const after = cut.findIndex((point) => point.x >= x);
  const [a, b] = [cut[Math.max(0, after - 1)], cut[Math.max(0, after)]];
  if (!a || !b) throw new RangeError("outside the section");
  return b.x === a.x ? b.height : a.height + ((b.height - a.height) * (x - a.x)) / (b.x - a.x);
}
