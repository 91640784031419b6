import type { Plane, Point } from "@/core/basics/geometry";
import { type Machine, pointOf, type Standpoint, seenFrom, type Unit, unitSheetOf } from "@/core/machine";

export type Outline = { id: string; corners: Point[] };
export type Disc = { id: string; label: string; centre: Point; radius: number };

/** A machine from above as seen from a standpoint: shapes in metres, x to the viewer's right, y away from them. */
export type PlanScene = {
  wheels: (Outline & { label: string; centre: Point })[];
  axles: { id: string; from: Point; to: Point; pivot?: Point }[];
  deck?: Outline;
  blades: Disc[];
  /** The frame of a unit, its knife from end to end, and its two rollers where its side view says how far apart they are. */
  units: (Outline & { label: string; knife: [Point, Point]; rollers: Point[][] })[];
  hangers: { id: string; label: string; at: Point }[];
  bounds: Bounds;
  /** The deck with its blades and hangers alone, for when only they matter; the whole where there is none. */
  deckBounds: Bounds;
};

export type Bounds = { left: number; right: number; near: number; far: number };

function rectangle(centre: Point, width: number, length: number): Point[] {
  const w = width / 2;
  const l = length / 2;
  return [
    { x: centre.x - w, y: centre.y - l },
    { x: centre.x + w, y: centre.y - l },
    { x: centre.x + w, y: centre.y + l },
    { x: centre.x - w, y: centre.y + l },
  ];
}

const UNIT_DEPTH_METRES = 0.3;

/** A unit from above: as deep as from roller to roller, turned by its yaw about the middle of its knife. */
function unitShape(machine: Machine, unit: Unit, seen: (p: Point) => Point): PlanScene["units"][number] {
  const { sideView: view } = unitSheetOf(machine, unit.id);
  const yaw = unit.yawRadians ?? 0;
  const half = unit.widthMetres / 2;
  /** From across and forward in the unit's own frame. */
  const at = (across: number, forward: number) =>
    seen({
      x: unit.xMetres + across * Math.cos(yaw) - forward * Math.sin(yaw),
      y: unit.yMetres + across * Math.sin(yaw) + forward * Math.cos(yaw),
    });
  const box = (back: number, front: number) => [at(-half, back), at(half, back), at(half, front), at(-half, front)];
  const rollers = view
    ? [view.rear, view.front].map(({ yMetres, radiusMetres }) => {
        const middle = yMetres - view.edge.yMetres;
        return { back: middle - radiusMetres, front: middle + radiusMetres };
      })
    : [];
  const [rear, front] = rollers;
  return {
    id: unit.id,
    label: unit.label,
    corners: rear && front ? box(rear.back, front.front) : box(-UNIT_DEPTH_METRES / 2, UNIT_DEPTH_METRES / 2),
    knife: [at(-half, 0), at(half, 0)],
    rollers: rollers.map((one) => box(one.back, one.front)),
  };
}

export function planScene(machine: Machine, standpoint: Standpoint): PlanScene {
  const seen = (p: Point) => seenFrom(standpoint, p);
  const wheels = machine.wheels.map((wheel) => ({
    id: wheel.id,
    label: wheel.label,
    centre: seen(pointOf(wheel)),
    corners: rectangle(pointOf(wheel), wheel.treadWidthMetres, wheel.diameterMetres).map(seen),
  }));
  const blades = machine.spindles.map((spindle) => ({
    id: spindle.id,
    label: spindle.label,
    centre: seen(pointOf(spindle)),
    radius: spindle.tipCircleDiameterMetres / 2,
  }));
  const units = machine.units.map((unit) => unitShape(machine, unit, seen));
  const deck = machine.deck && { id: "deck", corners: machine.deck.outline.map(pointOf).map(seen) };
  const hangers = (machine.deck?.hangers ?? []).map(({ id, label, ...place }) => ({ id, label, at: seen(pointOf(place)) }));
  const axles = axlesOf(machine, seen);
  const scene = { wheels, axles, blades, units, hangers, ...(deck ? { deck } : {}) };
  const deckOnly = { ...scene, wheels: [], axles: [] };
  return { ...scene, bounds: boundsOf(scene), deckBounds: boundsOf(scene.blades.length > 0 ? deckOnly : scene) };
}

function axlesOf(machine: Machine, seen: (p: Point) => Point): PlanScene["axles"] {
  return [...new Set(machine.wheels.map(({ axle }) => axle))].flatMap((id) => {
    const [first, second] = machine.wheels.filter(({ axle }) => axle === id);
    if (!first || !second) return [];
    const pivot = machine.pivotedAxles.find(({ axle }) => axle === id);
    return [{ id, from: seen(pointOf(first)), to: seen(pointOf(second)), ...(pivot ? { pivot: seen(pointOf(pivot)) } : {}) }];
  });
}

function boundsOf(scene: Omit<PlanScene, "bounds" | "deckBounds">): Bounds {
  const points = [
    ...scene.wheels.flatMap(({ corners }) => corners),
    ...(scene.deck?.corners ?? []),
    ...scene.units.flatMap(({ corners }) => corners),
    ...scene.hangers.map(({ at }) => at),
    ...scene.blades.flatMap(({ centre, radius }) => [
      { x: centre.x - radius, y: centre.y - radius },
      { x: centre.x + radius, y: centre.y + radius },
    ]),
  ];
  const xs = points.map(({ x }) => x);
  const ys = points.map(({ y }) => y);
  if (points.length === 0) return { left: -1, right: 1, near: -1, far: 1 };
  return { left: Math.min(...xs), right: Math.max(...xs), near: Math.min(...ys), far: Math.max(...ys) };
}

/** Straight lines across an outline where the tips' plane departs from its target by whole multiples of `every`, metres. */
export function contourLines(args: {
  outline: readonly Point[];
  departure: Plane;
  every: number;
  standpoint: Standpoint;
}): { departure: number; from: Point; to: Point }[] {
  const { outline, departure, every } = args;
  const at = (p: Point) => departure.height + departure.slopeRight * p.x + departure.slopeForward * p.y;
  const values = outline.map(at);
  const least = Math.ceil(Math.min(...values) / every);
  const most = Math.floor(Math.max(...values) / every);
  const lines: { departure: number; from: Point; to: Point }[] = [];
  for (let k = least; k <= most && lines.length < MOST_CONTOURS; k++) {
    const [from, to] = crossings(outline, (p) => at(p) - k * every);
    if (from && to) lines.push({ departure: k * every, from: seenFrom(args.standpoint, from), to: seenFrom(args.standpoint, to) });
  }
  return lines;
}

const MOST_CONTOURS = 40;

function crossings(outline: readonly Point[], value: (p: Point) => number): Point[] {
  return outline.flatMap((a, k) => {
    const b = outline[(k + 1) % outline.length] as Point;
    const va = value(a);
    const vb = value(b);
    if (va === vb || va > 0 === vb > 0) return [];
    const share = va / (va - vb);
    return [{ x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) }];
  });
}
