import type { Point } from "@/core/basics/geometry";
import type { HoleShape } from "@/core/machine";

/** A hole to scale about its middle: closed outlines, metres. A star's waist and a spline's root are drawn in usual proportion (estimates). */
export function holeOutlines(shape: HoleShape, acrossMetres: number, secondMetres?: number): Point[][] {
  const r = acrossMetres / 2;
  switch (shape) {
    case "round":
      return [circle(r)];
    case "star-5":
      return [star(5, r, STAR_WAIST)];
    case "star-6":
      return [star(6, r, STAR_WAIST)];
    case "star-7":
      return [star(7, r, STAR_WAIST)];
    case "spline":
      return [star(SPLINE_TEETH, r, SPLINE_ROOT)];
    case "two-flats":
      return [flats(r, (secondMetres ?? acrossMetres * FLATS_SHARE) / 2)];
    case "two-pins": {
      const pitch = secondMetres ?? acrossMetres * PIN_PITCH;
      return [circle(r), ...[-1, 1].map((side) => circle(r * PIN_SHARE).map(({ x, y }) => ({ x: x + (side * pitch) / 2, y })))];
    }
  }
}

const STAR_WAIST = 0.72;
const SPLINE_TEETH = 15;
const SPLINE_ROOT = 0.87;
const FLATS_SHARE = 0.75;
const PIN_PITCH = 2.6;
const PIN_SHARE = 0.45;
const STEPS = 48;

function circle(radius: number): Point[] {
  return Array.from({ length: STEPS }, (_, step) => polar(radius, (2 * Math.PI * step) / STEPS));
}

function star(points: number, outer: number, waist: number): Point[] {
  return Array.from({ length: 2 * points }, (_, step) => polar(step % 2 === 0 ? outer : outer * waist, (Math.PI * step) / points));
}

/** A round hole with two flats that face each other. */
function flats(radius: number, half: number): Point[] {
  return circle(radius).map(({ x, y }) => ({ x: Math.max(-half, Math.min(half, x)), y }));
}

const polar = (radius: number, angle: number): Point => ({ x: radius * Math.sin(angle), y: radius * Math.cos(angle) });
