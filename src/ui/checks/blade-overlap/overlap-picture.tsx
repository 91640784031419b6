"use client";

import { useState } from "react";
import { LEAST_OVERLAP_METRES, type SweptBlade } from "@/core/blades/overlap";
import { OverlapDrawing } from "@/drawings/overlap";
import { overlapScene, type Travel } from "@/drawings/overlap/scene";
import { useSeat } from "../../person";
import { sayRadius, show } from "../shared";

/** Radius on the slider: even steps of its logarithm, a foot to sixty; the far end is straight. */
const LEAST_RADIUS = 0.3;
const MOST_RADIUS = 20;
const STEPS = 400;
const radiusOf = (step: number) => LEAST_RADIUS * (MOST_RADIUS / LEAST_RADIUS) ** (Math.abs(step) / STEPS);
/** Crabbing on a slope seldom passes this, degrees. Estimate. */
const MOST_CRAB = 15;

/** The deck in a turn or crabbing, by slider: left of the middle a left turn, right of it a right one, tighter the further out. */
export function OverlapPicture({ blades }: { blades: readonly SweptBlade[] }) {
  const { system } = useSeat();
  const [turn, setTurn] = useState(0);
  const [crab, setCrab] = useState(0);
  const radius = turn === 0 ? undefined : Math.sign(turn) * radiusOf(STEPS - Math.abs(turn));
  const travel: Travel =
    radius === undefined ? { kind: "straight", crabRadians: (crab * Math.PI) / 180 } : { kind: "turn", radiusMetres: radius };
  const scene = overlapScene(blades, travel);
  const say = (metres: number) => show(metres, "length", system, "fine");
  const heading =
    radius === undefined
      ? crab === 0
        ? "Straight ahead"
        : `Nose ${Math.abs(crab).toFixed(1)}° ${crab > 0 ? "left" : "right"} of travel`
      : `${radius > 0 ? "Right" : "Left"} turn, ${sayRadius(Math.abs(radius), system)} radius`;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <p className="px-3 pt-2 text-lg font-bold" aria-live="polite">
        {heading}: {scene.least < 0 ? `strip of ${say(-scene.least)}` : `${say(scene.least)} shared`}
      </p>
      <div className="grid min-h-0 flex-1 place-items-center">
        <OverlapDrawing scene={scene} travel={travel} leastMetres={LEAST_OVERLAP_METRES} say={say} label={heading} />
      </div>
      <div className="grid gap-x-4 px-3 pb-2 sm:grid-cols-2">
        <Slider label="Turn" ends={["left, tight", "right, tight"]} value={turn} most={STEPS} step={1} onChange={setTurn} said={heading} />
        <Slider
          label="Crab"
          ends={["nose right", "nose left"]}
          value={crab}
          most={MOST_CRAB}
          step={0.1}
          onChange={(next) => {
            setTurn(0);
            setCrab(next);
          }}
          said={heading}
        />
      </div>
    </div>
  );
}

function Slider(args: {
  label: string;
  ends: readonly [string, string];
  value: number;
  most: number;
  step: number;
  said: string;
  onChange: (value: number) => void;
}) {
  const { label, ends, value, most } = args;
  return (
    <label className="block text-sm text-[var(--chalk)]">
      <span className="flex justify-between">
        <span>{ends[0]}</span>
        <strong>{label}</strong>
        <span>{ends[1]}</span>
      </span>
      <input
        type="range"
        className="h-11 w-full accent-[var(--chalk)]"
        min={-most}
        max={most}
        step={args.step}
        value={value}
        aria-label={label}
        aria-valuetext={args.said}
        onChange={(event) => args.onChange(Number(event.target.value))}
      />
    </label>
  );
}
