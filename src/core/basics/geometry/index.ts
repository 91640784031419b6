export { convexHull, crossingSides } from "./hull";
export { type LeastSquaresFit, type LeastSquaresResult, solveLeastSquares } from "./least-squares";
export { solveSquare } from "./linear";
export {
  addPlanes,
  fitPlane,
  type HeightAt,
  LEAST_SPREAD_METRES,
  type Plane,
  type PlaneFit,
  type Point,
  planeHeight,
  spreadAcrossLine,
} from "./plane";
export { halved, leastOver, type Shared, type Span, sharedBetween } from "./spans";
