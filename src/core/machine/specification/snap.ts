import type { Point } from "@/core/basics/geometry";
import { INCH_METRES, type UnitSystem } from "@/core/basics/units";

/** A place nearer than this to a line it belongs on is meant to be on it. Estimate: half a finger at the plan's scale. */
export const SNAP_METRES = 0.012;
/** What a place is moved by on the plan. */
export const GRID_METRES: Readonly<Record<UnitSystem, number>> = { us: INCH_METRES / 8, metric: 0.002 };

export type Snapped = Point & { to: ("middle" | "twin" | "row")[] };

const near = (a: number, b: number) => Math.abs(a - b) <= SNAP_METRES;
const onGrid = (value: number, step: number) => Math.round(value / step) * step;
/** A tenth of a millimetre: nothing on a deck is placed finer. */
const clean = (value: number) => Math.round(value * 1e4) / 1e4 + 0;

/**
 * Where a place that was let go on the plan is meant to stand: on the machine's middle line, across from another of its sort (the same distance from the
 * middle, the same way forward), or in a row with it; else on the grid. Metres, the machine's axes; `to` says which.
 */
export function snapped(args: { at: Point; others: readonly Point[]; system: UnitSystem }): Snapped {
  const { at, others, system } = args;
  const step = GRID_METRES[system];
  const isMiddle = near(at.x, 0);
  const twin = others.find(({ x }) => !near(x, 0) && near(at.x, -x));
  const row = [...others].sort((a, b) => Math.abs(a.y - at.y) - Math.abs(b.y - at.y)).find(({ y }) => near(at.y, y));
  const x = isMiddle ? 0 : twin ? -twin.x : onGrid(at.x, step);
  const y = row ? row.y : onGrid(at.y, step);
  return {
    x: clean(x),
    y: clean(y),
    to: [...(isMiddle ? (["middle"] as const) : twin ? (["twin"] as const) : []), ...(row ? (["row"] as const) : [])],
  };
}
