import { halved } from "@/core/basics/geometry";

/** A point of a unit seen from the side, metres: y forward, z up, in the unit's own frame (any origin fixed to the unit). */
export type SidePoint = { yMetres: number; zMetres: number };
export type SideRoller = SidePoint & { radiusMetres: number };

/** A unit seen from the side, as far as it decides how it stands. */
export type SideView = {
  front: SideRoller;
  rear: SideRoller;
  /** The cutting edge of the bedknife. */
  edge: SidePoint;
  /** Lowest rear corner of knife and bedbar; lowest point ahead of the edge. */
  heel?: SidePoint | undefined;
  toe?: SidePoint | undefined;
  /** Of the knife's top face in the unit's frame: positive when its front edge is the lower end. */
  faceRadians?: number | undefined;
};

/** Where the ground lies under a unit: its height below a point is `normal · point − offset`. */
export type GroundLine = { tiltRadians: number; normal: SidePoint; offsetMetres: number };

/** How a unit stands. Heights over the ground line; `attitudeRadians` positive when the knife's front edge is the lower end. */
export type Stance = {
  ground: GroundLine;
  /** Of the unit against the sheet's frame: negative is nose up. */
  tiltRadians: number;
  heightMetres: number;
  heelMetres?: number;
  toeMetres?: number;
  attitudeRadians?: number;
};

/** Why a side view stands on nothing. */
export type SideProblem = "rollers-overlap" | "rollers-crossed";

/** What contradicts itself in a side view; empty when it can stand. */
export function sideProblems({ front, rear }: Pick<SideView, "front" | "rear">): SideProblem[] {
  if (front.yMetres <= rear.yMetres) return ["rollers-crossed"];
  const apart = Math.hypot(front.yMetres - rear.yMetres, front.zMetres - rear.zMetres);
  return apart < front.radiusMetres + rear.radiusMetres ? ["rollers-overlap"] : [];
}

/**
 * The common lower tangent of both rollers (physics): θ = atan2(zF − zR, yF − yR) − asin((rF − rR)/|FR|), n = (−sin θ, cos θ), offset n·F − rF.
 * θ turns the unit's frame into the ground's. `undefined` where the rollers overlap or stand the wrong way about.
 */
export function groundLine(view: Pick<SideView, "front" | "rear">): GroundLine | undefined {
  if (sideProblems(view).length > 0) return undefined;
  const { front, rear } = view;
  const [dy, dz] = [front.yMetres - rear.yMetres, front.zMetres - rear.zMetres];
  const tiltRadians = Math.atan2(dz, dy) - Math.asin((front.radiusMetres - rear.radiusMetres) / Math.hypot(dy, dz));
  const normal = { yMetres: -Math.sin(tiltRadians), zMetres: Math.cos(tiltRadians) };
  return { tiltRadians, normal, offsetMetres: normal.yMetres * front.yMetres + normal.zMetres * front.zMetres - front.radiusMetres };
}

/** Height of a point over the ground line, metres. */
export const heightOver = ({ normal, offsetMetres }: GroundLine, { yMetres, zMetres }: SidePoint): number =>
  normal.yMetres * yMetres + normal.zMetres * zMetres - offsetMetres;

/** Along the ground line, metres forward. */
export const alongGround = ({ normal }: GroundLine, { yMetres, zMetres }: SidePoint): number =>
  normal.zMetres * yMetres - normal.yMetres * zMetres;

/**
 * How a unit stands on its rollers; `undefined` where it cannot stand.
 * @example rollers at (3.2, 1.25) r 1.25 and (−3.0, 1.0) r 1.0, edge (0.4, 0.5) in: 0.500 in, level; the front centre 0.060 lower: 0.533, −0.55°.
 */
export function stanceOf(view: SideView): Stance | undefined {
  const ground = groundLine(view);
  if (!ground) return undefined;
  return {
    ground,
    tiltRadians: ground.tiltRadians,
    heightMetres: heightOver(ground, view.edge),
    ...(view.heel ? { heelMetres: heightOver(ground, view.heel) } : {}),
    ...(view.toe ? { toeMetres: heightOver(ground, view.toe) } : {}),
    ...(view.faceRadians === undefined ? {} : { attitudeRadians: view.faceRadians + ground.tiltRadians }),
  };
}

/** Heel or toe clearance under this share of the height drags and scalps. Estimate: a third. */
export const LEAST_CLEARANCE_SHARE = 1 / 3;

export type End = "front" | "rear";

/** The view with a roller's centre moved up by so much, negative down. */
export function movedRoller(view: SideView, end: End, upMetres: number): SideView {
  return { ...view, [end]: { ...view[end], zMetres: view[end].zMetres + upMetres } };
}

/** The view with so much laid on a roller all round: packed grass; negative: turf it sinks into. */
export function laidOn(view: SideView, on: Partial<Record<End, number>>): SideView {
  const thicker = (end: End) => ({ ...view[end], radiusMetres: view[end].radiusMetres + (on[end] ?? 0) });
  return { ...view, front: thicker("front"), rear: thicker("rear") };
}

/** No height adjuster of a unit travels further. Estimate. */
const MOST_TRAVEL_METRES = 0.06;
const TRAVEL_STEP_METRES = 0.001;
const TRAVEL_STEPS = Math.ceil(MOST_TRAVEL_METRES / TRAVEL_STEP_METRES);

/**
 * How far a roller's centre has to go up (negative: down) in the unit for a wanted height of cut; a roller that goes up lets the edge down.
 * By halving; `undefined` where 60 mm of travel either way does not reach it.
 * @example the unit above, front 0.060 lower: 0.500 again with the rear centre 0.073 up, then 1.23° nose up.
 */
export function travelFor(args: { view: SideView; end: End; heightMetres: number }): number | undefined {
  const { view, end, heightMetres } = args;
  const over = (up: number) => (stanceOf(movedRoller(view, end, up))?.heightMetres ?? Number.NaN) - heightMetres;
  let [low, high] = [-MOST_TRAVEL_METRES, MOST_TRAVEL_METRES];
  for (let k = 0; k < TRAVEL_STEPS && low < 0 && Number.isNaN(over(low)); k++) low += TRAVEL_STEP_METRES;
  for (let k = 0; k < TRAVEL_STEPS && high > 0 && Number.isNaN(over(high)); k++) high -= TRAVEL_STEP_METRES;
  if (!(over(low) >= 0 && over(high) <= 0)) return undefined;
  return halved(low, high, (up) => over(up) <= 0);
}

/**
 * Share of a front roller's move that reaches the edge, p = (edge − rear)/(front − rear) along the unit (physics, small moves): a roller out of
 * square by q end to end tilts the cut by q·p over the unit's width; at the rear roller the share is 1 − p.
 */
export function edgeShare({ front, rear, edge }: Pick<SideView, "front" | "rear" | "edge">): number {
  return (edge.yMetres - rear.yMetres) / (front.yMetres - rear.yMetres);
}

export const wheelbaseOf = ({ front, rear }: Pick<SideView, "front" | "rear">): number =>
  Math.hypot(front.yMetres - rear.yMetres, front.zMetres - rear.zMetres);

/**
 * How high a round crest stands over the ground line at a place along it, metres (physics): the crest's circle touches both rollers from below.
 * Equal rollers of radius r, w apart, at mid-span: (Rc + r) − √((Rc + r)² − w²/4) ≈ w²/(8(Rc + r)). `along` as `alongGround`; `undefined`
 * for a crest so sharp that it does not reach between the rollers.
 */
export function crestHeight(args: {
  view: Pick<SideView, "front" | "rear">;
  crestRadiusMetres: number;
  along: number;
}): number | undefined {
  const { view, crestRadiusMetres: radius, along } = args;
  const ground = groundLine(view);
  if (!ground) return undefined;
  const [yF, yR] = [alongGround(ground, view.front), alongGround(ground, view.rear)];
  const [zF, zR] = [view.front.radiusMetres, view.rear.radiusMetres];
  // The circle's centre lies radius + r from each roller's centre: where two circles cross, the lower of both places.
  const [reachF, reachR] = [radius + zF, radius + zR];
  const apart = Math.hypot(yF - yR, zF - zR);
  if (reachF + reachR < apart) return undefined;
  const fromRear = (reachR ** 2 - reachF ** 2 + apart ** 2) / (2 * apart);
  const off = Math.sqrt(Math.max(0, reachR ** 2 - fromRear ** 2));
  const [uy, uz] = [(yF - yR) / apart, (zF - zR) / apart];
  const centre = { y: yR + uy * fromRear + uz * off, z: zR + uz * fromRear - uy * off };
  const across = along - centre.y;
  return Math.abs(across) > radius ? undefined : centre.z + Math.sqrt(radius ** 2 - across ** 2);
}

/** A crest flatter than this is level ground to any unit. */
const FLATTEST_METRES = 1000;
/** Twice what a millionth takes from the sharpest crest to the flattest; a size no roller has must not keep it going. */
const MOST_HALVINGS = 60;

/**
 * The flattest crest that still touches edge, heel or toe, as a radius in metres: any sharper one scalps. By halving; nought where none does,
 * `undefined` where the unit cannot stand or already touches level ground.
 * @example equal rollers of 1.25 in radius 6.5 in apart, edge at mid-span 0.125 in up: 41 in; 5.25 in apart: 26 in.
 */
export function scalpingRadius(view: SideView): { radiusMetres: number; touches: "edge" | "heel" | "toe" } | undefined {
  const ground = groundLine(view);
  if (!ground) return undefined;
  const low = (["edge", "heel", "toe"] as const).flatMap((name) => {
    const point = view[name];
    return point ? [{ name, height: heightOver(ground, point), along: alongGround(ground, point) }] : [];
  });
  if (low.some(({ height }) => height <= 0)) return undefined;
  const touched = (radius: number) =>
    low.find(({ height, along }) => (crestHeight({ view, crestRadiusMetres: radius, along }) ?? Number.POSITIVE_INFINITY) >= height);
  let [sharp, flat] = [view.front.radiusMetres / 10, FLATTEST_METRES];
  const first = touched(sharp);
  if (!first) return { radiusMetres: 0, touches: "edge" };
  let by = first.name;
  for (let k = 0; k < MOST_HALVINGS && flat - sharp > 1e-6 * flat; k++) {
    const middle = Math.sqrt(sharp * flat);
    const at = touched(middle);
    if (at) [sharp, by] = [middle, at.name];
    else flat = middle;
  }
  return { radiusMetres: sharp, touches: by };
}
