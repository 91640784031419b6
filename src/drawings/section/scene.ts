import { type Plane, type Point, planeHeight } from "@/core/basics/geometry";
import { cuttingEdges, type Machine, type Standpoint, seenFrom } from "@/core/machine";
import { cutSection, ledgeBetweenPasses } from "@/core/physics/turf";

/** `across` is the viewer's x, as in the plan above it; heights in metres above the wheels' plane. */
export type SectionPoint = { across: number; height?: number };

export type SectionScene = {
  kind: "swath" | "fore-and-aft";
  cut: SectionPoint[];
  /** The passes to either side, as far as the drawing shows them. */
  neighbours: SectionPoint[][];
  target: SectionPoint[];
  lowest: number;
  highest: number;
  /** Between passes mown one way, and up and down, metres. */
  ledge?: { oneWayMetres: number; upAndDownMetres: number };
};

/** Passes overlap by 75 mm where the sheet does not say (common practice, 50 to 100 mm). */
export const PASS_OVERLAP_METRES = 0.075;

const acrossOf = (standpoint: Standpoint, p: Point) => seenFrom(standpoint, p).x;

/** The section beneath the plan: the swath across the machine, or, seen from a side, the tips' plane along it. */
export function sectionScene(args: { machine: Machine; plane: Plane; target: Plane; standpoint: Standpoint }): SectionScene {
  return args.standpoint === "left" || args.standpoint === "right" ? foreAndAft(args) : swath(args);
}

function swath({ machine, plane, target, standpoint }: Parameters<typeof sectionScene>[0]): SectionScene {
  const { left, right } = cuttingEdges(machine);
  const profile = (through: Plane) => cutSection({ spindles: machine.spindles, planeOf: () => through, from: left, to: right });
  const section = profile(plane);
  const overlapMetres = machine.sheet.passOverlapMetres ?? PASS_OVERLAP_METRES;
  const spacing = right - left - overlapMetres;
  const drawn = (points: typeof section, shift: number) =>
    points.map(({ x, height }) => ({ across: acrossOf(standpoint, { x: x + shift, y: 0 }), ...(height === undefined ? {} : { height }) }));
  const cut = drawn(section, 0);
  const neighbours = [-1, 1].map((side) => drawn(section, side * spacing));
  const [oneWayMetres, upAndDownMetres] = (["one-way", "up-and-down"] as const).map((way) =>
    ledgeBetweenPasses(section, { overlapMetres, way }),
  );
  return {
    kind: "swath",
    cut,
    neighbours,
    target: drawn(profile(target), 0),
    ...heightRange([...cut, ...drawn(profile(target), 0)]),
    ...(oneWayMetres === undefined || upAndDownMetres === undefined ? {} : { ledge: { oneWayMetres, upAndDownMetres } }),
  };
}

function foreAndAft({ machine, plane, target, standpoint }: Parameters<typeof sectionScene>[0]): SectionScene {
  const reach = machine.spindles.flatMap(({ yMetres, tipCircleDiameterMetres }) => [
    yMetres - tipCircleDiameterMetres / 2,
    yMetres + tipCircleDiameterMetres / 2,
  ]);
  const ends = [Math.min(...reach), Math.max(...reach)].map((y) => ({ x: 0, y }));
  const line = (through: Plane) => ends.map((p) => ({ across: acrossOf(standpoint, p), height: planeHeight(through, p) }));
  return {
    kind: "fore-and-aft",
    cut: line(plane),
    neighbours: [],
    target: line(target),
    ...heightRange([...line(plane), ...line(target)]),
  };
}

function heightRange(points: readonly SectionPoint[]): { lowest: number; highest: number } {
  const heights = points.flatMap(({ height }) => (height === undefined ? [] : [height]));
  if (heights.length === 0) return { lowest: 0, highest: 0 };
  return { lowest: Math.min(...heights), highest: Math.max(...heights) };
}
