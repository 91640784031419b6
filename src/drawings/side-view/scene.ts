import { alongGround, crestHeight, groundLine, heightOver, type SidePoint, type SideView, stanceOf } from "@/core/physics/reel";

export type SideParts = SideView & { reel?: SidePoint | undefined; reelRadiusMetres?: number | undefined };
export type SideCircle = { id: "front" | "rear" | "reel"; x: number; z: number; radius: number };

/** A unit from its left side, metres: x forward along the ground line, z up from it. */
export type SideScene = {
  circles: SideCircle[];
  edge: { x: number; z: number };
  heel?: { x: number; z: number };
  toe?: { x: number; z: number };
  /** Outline of knife and bedbar, from the edge back along its top, down to the heel and forward to the toe. */
  knife: { x: number; z: number }[];
  /** The crest that just touches, from roller to roller. */
  crest?: { x: number; z: number }[];
  bounds: { left: number; right: number; top: number };
};

/** Depth of the knife drawn where its heel is not on the sheet. */
const USUAL_DEPTH_METRES = 0.03;

const CREST_POINTS = 32;

/** The crest of a radius under both rollers, in the ground's frame. */
function crestOf(parts: SideParts, radiusMetres: number, from: number, to: number): { x: number; z: number }[] {
  return Array.from({ length: CREST_POINTS + 1 }, (_, k) => from + ((to - from) * k) / CREST_POINTS).flatMap((x) => {
    const z = crestHeight({ view: parts, crestRadiusMetres: radiusMetres, along: x });
    return z === undefined ? [] : [{ x, z }];
  });
}

/** The unit in the ground's frame; `undefined` where it cannot stand. */
export function sideScene(parts: SideParts, crestRadiusMetres?: number): SideScene | undefined {
  const ground = groundLine(parts);
  if (!ground || !stanceOf(parts)) return undefined;
  const seen = (point: SidePoint) => ({ x: alongGround(ground, point), z: heightOver(ground, point) });
  const circles: SideCircle[] = [
    ...(["front", "rear"] as const).map((id) => ({ id, ...seen(parts[id]), radius: parts[id].radiusMetres })),
    ...(parts.reel && parts.reelRadiusMetres ? [{ id: "reel" as const, ...seen(parts.reel), radius: parts.reelRadiusMetres }] : []),
  ];
  const edge = seen(parts.edge);
  const heel = parts.heel && seen(parts.heel);
  const toe = parts.toe && seen(parts.toe);
  const face = (parts.faceRadians ?? 0) + ground.tiltRadians;
  const back = {
    x: (heel?.x ?? edge.x - USUAL_DEPTH_METRES) + 0,
    z: edge.z + Math.tan(face) * (edge.x - (heel?.x ?? edge.x - USUAL_DEPTH_METRES)),
  };
  const knife = [edge, back, ...(heel ? [heel] : []), ...(toe ? [toe] : [])];
  const all = circles.map(({ x, z, radius }) => ({ left: x - radius, right: x + radius, top: z + radius }));
  return {
    circles,
    edge,
    ...(heel ? { heel } : {}),
    ...(toe ? { toe } : {}),
    knife,
    ...(crestRadiusMetres ? { crest: crestOf(parts, crestRadiusMetres, seen(parts.rear).x, seen(parts.front).x) } : {}),
    bounds: {
      left: Math.min(...all.map(({ left }) => left)),
      right: Math.max(...all.map(({ right }) => right)),
      top: Math.max(...all.map(({ top }) => top)),
    },
  };
}
