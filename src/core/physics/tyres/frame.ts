import { type Plane, type Point, planeHeight, solveSquare } from "@/core/basics/geometry";

/** A spring under the frame: where it stands and how stiff, newtons per metre. `pivotGroup` names a centre-pivoted axle. */
export type TyreSupport = Point & { stiffness: number; pivotGroup?: string };

export type FrameOnTyres = {
  weightNewtons: number;
  /** Centre of gravity on the ground plan. */
  centre: Point;
  supports: readonly TyreSupport[];
  /** Where each centre-pivoted axle carries the frame. */
  pivots?: Readonly<Record<string, Point>>;
};

/**
 * How far the frame settles, as a plane of drops (metres, positive down), from Σ Kᵢ qᵢqᵢᵀ · c = W·(1, x_g, y_g)ᵀ (physics).
 * The two tyres of a pivoted axle act as one support at the pivot with K = 4·K₁K₂/(K₁ + K₂).
 * `undefined` where the supports cannot carry a plane (fewer than three, or on one line).
 */
export function settleFrame(frame: FrameOnTyres): Plane | undefined {
  const matrix = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ];
  for (const { x, y, stiffness } of withPivots(frame)) {
    const q = [1, x, y];
    for (let i = 0; i < 3; i++) {
      const row = matrix[i] as number[];
      for (let j = 0; j < 3; j++) row[j] = (row[j] ?? 0) + stiffness * (q[i] ?? 0) * (q[j] ?? 0);
    }
  }
  const { weightNewtons: weight, centre } = frame;
  const solved = solveSquare(matrix, [weight, weight * centre.x, weight * centre.y]);
  if (!solved) return undefined;
  const [height = 0, slopeRight = 0, slopeForward = 0] = solved;
  return { height, slopeRight, slopeForward };
}

function withPivots({ supports, pivots = {} }: FrameOnTyres): TyreSupport[] {
  const single = supports.filter((support) => !support.pivotGroup || !pivots[support.pivotGroup]);
  const joined = Object.entries(pivots).flatMap(([group, at]) => {
    const [first, second] = supports.filter((support) => support.pivotGroup === group);
    if (!first || !second) return [];
    const stiffness = (4 * first.stiffness * second.stiffness) / (first.stiffness + second.stiffness);
    return [{ ...at, stiffness }];
  });
  return [...single, ...joined];
}

/** Drop of the frame at a place, metres, positive down. */
export function dropAt(settled: Plane, place: Point): number {
  return planeHeight(settled, place);
}
