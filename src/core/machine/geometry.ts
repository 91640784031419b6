import type { Point } from "@/core/basics/geometry";
import { featuresOf, kindById, type Power } from "@/core/catalogue/kinds";
import type { Machine, Spindle } from "./schema";

export type Direction = "left" | "front" | "right" | "rear";
export const DIRECTIONS: readonly Direction[] = ["left", "front", "right", "rear"];

const TOWARDS: Record<Direction, Point> = {
  left: { x: -1, y: 0 },
  front: { x: 0, y: 1 },
  right: { x: 1, y: 0 },
  rear: { x: 0, y: -1 },
};

export function pointOf({ xMetres, yMetres }: { xMetres: number; yMetres: number }): Point {
  return { x: xMetres, y: yMetres };
}

/** Where a blade's tip is when it points that way. */
export function tipAt(spindle: Spindle, direction: Direction): Point {
  const reach = spindle.tipCircleDiameterMetres / 2;
  return { x: spindle.xMetres + reach * TOWARDS[direction].x, y: spindle.yMetres + reach * TOWARDS[direction].y };
}

type Cutting = Pick<Machine, "spindles" | "units">;

/** Distance between the outermost tips or unit ends, metres; 0 without either. */
export function cuttingWidth(machine: Cutting): number {
  const { left, right } = cuttingEdges(machine);
  return right - left;
}

/** What each blade or unit covers straight ahead, from the driver's left to right: its id, label and x from and to. */
export function cutters({ spindles, units }: Cutting): { id: string; label: string; left: number; right: number }[] {
  const blades = spindles.map((s) => ({ ...s, half: s.tipCircleDiameterMetres / 2 }));
  const reels = units.map((unit) => ({ ...unit, half: unit.widthMetres / 2 }));
  return [...blades, ...reels]
    .map(({ id, label, xMetres, half }) => ({ id, label, left: xMetres - half, right: xMetres + half }))
    .sort((a, b) => a.left + a.right - b.left - b.right);
}

/** x of the outermost tips or unit ends. */
export function cuttingEdges(machine: Cutting): { left: number; right: number } {
  const all = cutters(machine);
  if (all.length === 0) return { left: 0, right: 0 };
  return { left: Math.min(...all.map(({ left }) => left)), right: Math.max(...all.map(({ right }) => right)) };
}

/** Spindles from the driver's left to right. */
export function spindlesAcross({ spindles }: Pick<Machine, "spindles">): Spindle[] {
  return [...spindles].sort((a, b) => a.xMetres - b.xMetres);
}

/** The spindle heights are set at: the one nearest the middle of the cut, the forward one where two tie. */
export function referenceSpindle(machine: Cutting): Spindle | undefined {
  const { left, right } = cuttingEdges(machine);
  const middle = (left + right) / 2;
  const SAME = 0.02;
  return [...machine.spindles].sort((a, b) => {
    const nearer = Math.abs(a.xMetres - middle) - Math.abs(b.xMetres - middle);
    return Math.abs(nearer) > SAME ? nearer : b.yMetres - a.yMetres;
  })[0];
}

export function powerOf(machine: Pick<Machine, "kind" | "features">): Power {
  return featuresOf(machine).includes("battery") ? "battery" : "combustion";
}

export function isRider(machine: Pick<Machine, "kind">): boolean {
  return kindById(machine.kind).isRider;
}
