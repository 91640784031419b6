"use client";

import type { UnitSystem } from "@/core/basics/units";
import { PictureSlider } from "./picture-slider";
import { sayRadius } from "./shared";

/** Radius on the slider: even steps of its logarithm, a foot to sixty; the far end is straight. */
const LEAST_RADIUS = 0.3;
const MOST_RADIUS = 20;
const STEPS = 400;
const radiusOf = (step: number) => LEAST_RADIUS * (MOST_RADIUS / LEAST_RADIUS) ** (Math.abs(step) / STEPS);
/** Crabbing on a slope seldom passes this, degrees. Estimate. */
const MOST_CRAB = 15;

/** Straight, crabbing or turning, as two sliders have it: left of the middle a left turn, tighter the further out. */
export type Way = { turn: number; crab: number };
export const STRAIGHT: Way = { turn: 0, crab: 0 };

/** Radius of a turn, positive to the right; `undefined` where it goes straight or crabs. */
export const wayRadius = ({ turn }: Way): number | undefined =>
  turn === 0 ? undefined : Math.sign(turn) * radiusOf(STEPS - Math.abs(turn));
export const wayCrab = ({ crab }: Way): number => (crab * Math.PI) / 180;

export function sayWay(way: Way, system: UnitSystem): string {
  const radius = wayRadius(way);
  if (radius !== undefined) return `${radius > 0 ? "Right" : "Left"} turn, ${sayRadius(Math.abs(radius), system)} radius`;
  return way.crab === 0 ? "Straight ahead" : `Nose ${Math.abs(way.crab).toFixed(1)}° ${way.crab > 0 ? "left" : "right"} of travel`;
}

/** Turn and crab, one at a time. */
export function WaySliders({ way, said, onChange }: { way: Way; said: string; onChange: (way: Way) => void }) {
  return (
    <div className="grid gap-x-4 px-3 pb-2 sm:grid-cols-2">
      <PictureSlider
        label="Turn"
        title="Turn"
        ends={["left, tight", "right, tight"]}
        value={way.turn}
        least={-STEPS}
        most={STEPS}
        step={1}
        onChange={(turn) => onChange({ ...way, turn })}
        said={said}
      />
      <PictureSlider
        label="Crab"
        title="Crab"
        ends={["nose right", "nose left"]}
        value={way.crab}
        least={-MOST_CRAB}
        most={MOST_CRAB}
        step={0.1}
        onChange={(crab) => onChange({ turn: 0, crab })}
        said={said}
      />
    </div>
  );
}
