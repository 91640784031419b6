import { type LeastSquaresFit, solveLeastSquares } from "./least-squares";

/** x to the driver's right, y forward, metres. */
export type Point = { x: number; y: number };

/** z = height + slopeRight·x + slopeForward·y, metres and metres per metre. */
export type Plane = { height: number; slopeRight: number; slopeForward: number };

export type HeightAt = Point & { z: number };

export type PlaneFit = { plane: Plane; fit: LeastSquaresFit };

export type PlaneResult =
  | { kind: "fitted"; planeFit: PlaneFit }
  | { kind: "refused"; issue: { code: "too-few-readings"; needed: number; given: number } | { code: "collinear-readings" } };

/** Points that spread less than this across their own line are taken as on one line: no tape places a tip better. */
export const LEAST_SPREAD_METRES = 0.02;

export function planeHeight(plane: Plane, { x, y }: Point): number {
  return plane.height + plane.slopeRight * x + plane.slopeForward * y;
}

/** `plane` plus `change`, term by term. */
export function addPlanes(plane: Plane, change: Plane): Plane {
  return {
    height: plane.height + change.height,
    slopeRight: plane.slopeRight + change.slopeRight,
    slopeForward: plane.slopeForward + change.slopeForward,
  };
}

/**
 * The plane through heights by least squares. Needs three places that are not on one line (spread of at least
 * `LEAST_SPREAD_METRES` across it); fewer or collinear are refused as such. Coefficients in the fit: height, right, forward.
 */
export function fitPlane(heights: readonly HeightAt[]): PlaneResult {
  const places = distinctPlaces(heights);
  if (places < 3) return { kind: "refused", issue: { code: "too-few-readings", needed: 3, given: places } };
  if (spreadAcrossLine(heights) < LEAST_SPREAD_METRES) return { kind: "refused", issue: { code: "collinear-readings" } };
  const solved = solveLeastSquares(
    heights.map(({ x, y }) => [1, x, y]),
    heights.map(({ z }) => z),
  );
  if (solved.kind === "refused") return { kind: "refused", issue: { code: "collinear-readings" } };
  const [height = 0, slopeRight = 0, slopeForward = 0] = solved.fit.coefficients;
  return { kind: "fitted", planeFit: { plane: { height, slopeRight, slopeForward }, fit: solved.fit } };
}

function distinctPlaces(points: readonly Point[]): number {
  return new Set(points.map(({ x, y }) => `${x.toFixed(4)} ${y.toFixed(4)}`)).size;
}

/** The extent of the points square to the line they lie closest to, metres. */
export function spreadAcrossLine(points: readonly Point[]): number {
  const count = points.length;
  const meanX = points.reduce((sum, p) => sum + p.x, 0) / count;
  const meanY = points.reduce((sum, p) => sum + p.y, 0) / count;
  let xx = 0;
  let xy = 0;
  let yy = 0;
  for (const point of points) {
    xx += (point.x - meanX) ** 2;
    yy += (point.y - meanY) ** 2;
    xy += (point.x - meanX) * (point.y - meanY);
  }
  const along = 0.5 * Math.atan2(2 * xy, xx - yy);
  const across = points.map((p) => -(p.x - meanX) * Math.sin(along) + (p.y - meanY) * Math.cos(along));
  return Math.max(...across) - Math.min(...across);
}
