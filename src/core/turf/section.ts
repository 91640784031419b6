import { type Plane, planeHeight } from "@/core/geometry";
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

/** The ledge a pass leaves against the one beside it, mown the same way: right edge minus left edge, metres. */
export function ledgeBetweenPasses(section: readonly CutPoint[]): number | undefined {
  const cut = section.filter(({ height }) => height !== undefined);
  const first = cut[0]?.height;
  const last = cut.at(-1)?.height;
  return first === undefined || last === undefined ? undefined : last - first;
}
