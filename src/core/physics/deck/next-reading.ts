import { type Point, solveLeastSquares } from "@/core/basics/geometry";

export type Station = Point & { spindleId: string; direction: string };

/**
 * The unread station that would narrow the undecided figure most: least standard error of that slope after adding it
 * (physics: D follows from (AᵀA)⁻¹ alone, no reading needed). `undecided` is the slope across (side) or forward (rake).
 */
export function bestNextStation(args: {
  read: readonly Point[];
  candidates: readonly Station[];
  undecided: "side" | "rake";
}): Station | undefined {
  const column = args.undecided === "side" ? 1 : 2;
  const scored = args.candidates.flatMap((station) => {
    const solved = solveLeastSquares(
      [...args.read, station].map(({ x, y }) => [1, x, y]),
      new Array<number>(args.read.length + 1).fill(0),
    );
    return solved.kind === "fitted" ? [{ station, variance: solved.fit.inverseNormal[column]?.[column] ?? Infinity }] : [];
  });
  return scored.sort((a, b) => a.variance - b.variance)[0]?.station;
}

/** With no plane yet: the unread station farthest from all those read. */
export function farthestStation(args: { read: readonly Point[]; candidates: readonly Station[] }): Station | undefined {
  const reach = (station: Station) => Math.min(...args.read.map((p) => Math.hypot(p.x - station.x, p.y - station.y)), Infinity);
  return [...args.candidates].sort((a, b) => reach(b) - reach(a))[0];
}
