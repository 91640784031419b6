"use client";

import { type KeyboardEvent, type PointerEvent, useMemo, useRef } from "react";
import { table } from "@/core/basics/tables";
import type { UnitSystem } from "@/core/basics/units";
import type { Machine } from "@/core/machine";
import { GRID_METRES, type SheetPlace, sheetPlaces, snapped } from "@/core/machine/specification";
import { fitInto } from "@/drawings/fit";
import { MachinePlan } from "@/drawings/plan";
import { planScene } from "@/drawings/plan/scene";

const WIDTH = 760;
const HEIGHT = 680;
const ROOM_METRES = 0.08;
/** A finger is no finer than this. */
const TOUCH_PIXELS = 24;

const STEPS: Record<string, readonly [number, number]> = table({
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
});

/** The machine from above, every place of it to be touched and dragged; arrows move the one in hand by a step of the grid. */
export function PlanBoard(args: {
  machine: Machine;
  here: string | undefined;
  system: UnitSystem;
  label: string;
  onHere: (id: string) => void;
  onMove: (place: SheetPlace, at: { x: number; y: number }, isFirst: boolean) => void;
}) {
  const { machine, here, system } = args;
  const held = useRef<{ id: string; hasMoved: boolean } | undefined>(undefined);
  const scene = planScene(machine, "behind");
  const places = sheetPlaces(machine);
  // The scale stays while something is held: it would run away under the finger.
  const frozen = useRef<ReturnType<typeof fitInto> | undefined>(undefined);
  const fit = useMemo(() => {
    const { bounds } = planScene(machine, "behind");
    const room = {
      left: bounds.left - ROOM_METRES,
      right: bounds.right + ROOM_METRES,
      near: bounds.near - ROOM_METRES,
      far: bounds.far + ROOM_METRES,
    };
    if (held.current && frozen.current) return frozen.current;
    frozen.current = fitInto({ bounds: room, width: WIDTH, height: HEIGHT, margin: 14 });
    return frozen.current;
  }, [machine]);
  const spotOf = (event: PointerEvent<SVGSVGElement>) => {
    const frame = event.currentTarget.getScreenCTM();
    if (!frame) return undefined;
    const page = new DOMPoint(event.clientX, event.clientY).matrixTransform(frame.inverse());
    const origin = fit.toPage({ x: 0, y: 0 });
    return { page, at: { x: (page.x - origin.x) / fit.scale, y: (origin.y - page.y) / fit.scale } };
  };
  const othersOf = ({ sort, id }: SheetPlace) =>
    places.filter((one) => one.sort === sort && one.id !== id).map(({ xMetres, yMetres }) => ({ x: xMetres, y: yMetres }));
  const onKeyDown = (event: KeyboardEvent<SVGSVGElement>) => {
    const step = STEPS[event.key];
    const place = places.find(({ id }) => id === here);
    if (!step || !place) return;
    event.preventDefault();
    const by = GRID_METRES[system] * (event.shiftKey ? 8 : 1);
    args.onMove(place, { x: place.xMetres + step[0] * by, y: place.yMetres + step[1] * by }, true);
  };
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="min-h-0 w-full flex-1 touch-none max-lg:min-h-72"
      role="img"
      tabIndex={0}
      aria-label={args.label}
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        const spot = spotOf(event);
        const near = spot && nearestPlace(places, spot.page, fit);
        if (!near) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = { id: near.id, hasMoved: false };
        args.onHere(near.id);
      }}
      onPointerMove={(event) => {
        const spot = held.current && spotOf(event);
        const place = held.current && places.find(({ id }) => id === held.current?.id);
        if (!held.current || !spot || !place) return;
        const at = snapped({ at: spot.at, others: othersOf(place), system });
        if (at.x === place.xMetres && at.y === place.yMetres) return;
        args.onMove(place, at, !held.current.hasMoved);
        held.current.hasMoved = true;
      }}
      onPointerUp={() => {
        held.current = undefined;
      }}
      onPointerCancel={() => {
        held.current = undefined;
      }}
    >
      <Cross fit={fit} />
      <MachinePlan scene={scene} fit={fit} hot={{ wheels: here ? [here] : [] }} />
      {drawn(places, here).map((place) => (
        <Handle key={`${place.sort} ${place.id}`} place={place} fit={fit} isHere={place.id === here} />
      ))}
    </svg>
  );
}

/** The place in hand lies on top; a gearbox over its blade is drawn once it is in hand. */
function drawn(places: readonly SheetPlace[], here: string | undefined): SheetPlace[] {
  const isOver = (box: SheetPlace) =>
    places.some(({ sort, xMetres, yMetres }) => sort === "spindles" && xMetres === box.xMetres && yMetres === box.yMetres);
  const seen = places.filter((place) => place.id !== here && !(place.sort === "gearboxes" && isOver(place)));
  return [...seen, ...places.filter(({ id }) => id === here)];
}

type Fit = ReturnType<typeof fitInto>;

/** The machine's own axes: its middle, and the axle that does not steer. */
function Cross({ fit }: { fit: Fit }) {
  const { x, y } = fit.toPage({ x: 0, y: 0 });
  return (
    <g stroke="var(--chalk-faint)" strokeWidth={1} strokeDasharray="2 6">
      <path d={`M${x} 0V${HEIGHT}M0 ${y}H${WIDTH}`} />
    </g>
  );
}

function nearestPlace(places: readonly SheetPlace[], page: { x: number; y: number }, fit: Fit): SheetPlace | undefined {
  const near = places
    .map((place) => {
      const at = fit.toPage({ x: place.xMetres, y: place.yMetres });
      return { place, off: Math.hypot(page.x - at.x, page.y - at.y) };
    })
    .filter(({ off }) => off <= TOUCH_PIXELS)
    .sort((a, b) => a.off - b.off);
  return near[0]?.place;
}

const SHAPES: Record<SheetPlace["sort"], string> = {
  spindles: "M-7 0H7M0 -7V7",
  units: "M-9 0H9M-9 -4V4M9 -4V4",
  hangers: "M0 -7L7 0L0 7L-7 0Z",
  antiScalpWheels: "M-4 -6H4V6H-4Z",
  wheels: "M-6 -6H6V6H-6Z",
  gearboxes: "M-7 -7H7V7H-7ZM-7 -7L7 7",
};

/** Where a place is taken hold of; the one in hand is marked and named. */
function Handle({ place, fit, isHere }: { place: SheetPlace; fit: Fit; isHere: boolean }) {
  const { x, y } = fit.toPage({ x: place.xMetres, y: place.yMetres });
  const ink = isHere ? "var(--out-chalk)" : "var(--chalk)";
  return (
    <g transform={`translate(${x} ${y})`} className="cursor-grab">
      <circle r={TOUCH_PIXELS} fill="transparent" />
      <path d={SHAPES[place.sort]} fill="var(--dye-deep)" stroke={ink} strokeWidth={isHere ? 3 : 1.8} />
      {isHere && (
        <text
          y={-14}
          textAnchor="middle"
          fontSize={17}
          fontWeight={700}
          fill={ink}
          stroke="var(--dye-deep)"
          strokeWidth={4}
          paintOrder="stroke"
        >
          {place.label}
        </text>
      )}
    </g>
  );
}
