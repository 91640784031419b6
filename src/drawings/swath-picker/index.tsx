"use client";

import type { PointerEvent } from "react";
import { cutters, cuttingEdges, type Machine } from "@/core/machine";
import { joins, placeAt, type SwathPlace } from "./place";

export type { SwathPlace } from "./place";

const WIDTH = 640;
const HEIGHT = 96;
const MARGIN = 70;

/** Where in the swath: the cutting width of this machine with its blades or units; touch one, a join, an edge, or all of it. */
export function SwathPicker({
  machine,
  value,
  onChange,
}: {
  machine: Machine;
  value: SwathPlace | undefined;
  onChange: (place: SwathPlace) => void;
}) {
  const { left, right } = cuttingEdges(machine);
  const width = right - left;
  if (width === 0) return null;
  const toX = (metres: number) => MARGIN + ((metres - left) / width) * (WIDTH - 2 * MARGIN);
  const all = cutters(machine);
  const touch = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const x = ((event.clientX - box.left) / box.width) * WIDTH;
    onChange(placeAt(((x - MARGIN) / (WIDTH - 2 * MARGIN)) * width + left, all, { left, right }));
  };
  const band =
    value?.where === "band" && value.fromMetres !== undefined && value.toMetres !== undefined
      ? [toX(value.fromMetres), toX(value.toMetres)]
      : undefined;
  return (
    <fieldset>
      <legend className="caps mb-1">Where in the swath, seen from the seat</legend>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="dye w-full touch-manipulation"
        onPointerUp={touch}
        role="img"
        aria-label="The swath with its blades; the buttons beneath say the same"
      >
        <rect x={toX(left)} y={34} width={toX(right) - toX(left)} height={36} fill="var(--chalk)" fillOpacity={0.12} />
        {all.map(({ id, left: from, right: to }) => (
          <rect
            key={id}
            x={toX(from)}
            y={isForward(machine, id) ? 28 : 38}
            width={toX(to) - toX(from)}
            height={38}
            fill="none"
            stroke="var(--chalk-soft)"
            strokeWidth={1.4}
          />
        ))}
        {value?.where === "all-over" && (
          <rect x={toX(left)} y={24} width={toX(right) - toX(left)} height={56} fill="var(--out-chalk)" fillOpacity={0.45} />
        )}
        {value?.where === "between-passes" &&
          [toX(left), toX(right)].map((x) => (
            <rect key={x} x={x - 9} y={20} width={18} height={64} fill="var(--out-chalk)" fillOpacity={0.8} />
          ))}
        {band && (
          <rect
            x={band[0]}
            y={20}
            width={Math.max(8, (band[1] ?? 0) - (band[0] ?? 0))}
            height={64}
            fill="var(--out-chalk)"
            fillOpacity={0.7}
          />
        )}
        <g fontSize={13} fill="var(--chalk)">
          <text x={MARGIN / 2} y={54} textAnchor="middle">
            left
          </text>
          <text x={WIDTH - MARGIN / 2} y={54} textAnchor="middle">
            right
          </text>
          <text x={WIDTH / 2} y={16} textAnchor="middle">
            touch where it is
          </text>
        </g>
      </svg>
      <div className="mt-1 flex flex-wrap gap-1">
        <PlaceButton label="All over" isOn={value?.where === "all-over"} onPick={() => onChange({ where: "all-over" })} />
        {all.map(({ id, label, left: from, right: to }) => (
          <PlaceButton
            key={id}
            label={label}
            isOn={isBand(value, from, to)}
            onPick={() => onChange({ where: "band", fromMetres: from, toMetres: to })}
          />
        ))}
        {joins(all).map(({ label, from, to }) => (
          <PlaceButton
            key={label}
            label={label}
            isOn={isBand(value, from, to)}
            onPick={() => onChange({ where: "band", fromMetres: from, toMetres: to })}
          />
        ))}
        <PlaceButton
          label="Where passes meet"
          isOn={value?.where === "between-passes"}
          onPick={() => onChange({ where: "between-passes" })}
        />
      </div>
    </fieldset>
  );
}

/** What stands forward of the others is drawn further up: forward is up. */
export function isForward({ spindles, units }: Pick<Machine, "spindles" | "units">, id: string): boolean {
  const all = spindles.length > 0 ? spindles : units;
  const middle = all.reduce((sum, { yMetres }) => sum + yMetres, 0) / Math.max(1, all.length);
  return (all.find((one) => one.id === id)?.yMetres ?? middle) >= middle;
}

function PlaceButton({ label, isOn, onPick }: { label: string; isOn: boolean; onPick: () => void }) {
  return (
    <button type="button" aria-pressed={isOn} className={`btn px-3 ${isOn ? "btn-on" : ""}`} onClick={onPick}>
      {label}
    </button>
  );
}

const isBand = (value: SwathPlace | undefined, from: number, to: number) =>
  value?.where === "band" && value.fromMetres === from && value.toMetres === to;
