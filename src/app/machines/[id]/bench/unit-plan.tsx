"use client";

import type { Machine } from "@/core/machine";
import { fitInto } from "@/drawings/fit";
import { MachinePlan } from "@/drawings/plan";
import { planScene } from "@/drawings/plan/scene";

const WIDTH = 376;
const HEIGHT = 190;
/** Under a unit, for its name. */
const NAME = 18;

/** All units from above with their rollers; one is chosen by touching it, or with Tab and Enter. */
export function UnitPlan(args: { machine: Machine; chosen: string; can: readonly string[]; onChoose: (unit: string) => void }) {
  const { machine, chosen, can, onChoose } = args;
  // The units alone, as large as they go.
  const scene = { ...planScene(machine, "behind"), wheels: [], axles: [] };
  const corners = scene.units.flatMap((one) => one.corners);
  const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)];
  const bounds = { left: Math.min(...xs), right: Math.max(...xs), near: Math.min(...ys), far: Math.max(...ys) };
  const fit = fitInto({ bounds, width: WIDTH, height: HEIGHT - NAME, margin: 12 });
  return (
    <fieldset className="dye mt-1" aria-label="Units from above">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full">
        <MachinePlan scene={scene} fit={fit} />
        {scene.units.map(({ id, label, corners }) => {
          const at = corners.map(fit.toPage);
          const [left, top] = [Math.min(...at.map(({ x }) => x)), Math.min(...at.map(({ y }) => y))];
          const [right, bottom] = [Math.max(...at.map(({ x }) => x)), Math.max(...at.map(({ y }) => y))];
          const grow = Math.max(0, 44 - (bottom - top)) / 2;
          const isChosen = id === chosen;
          return (
            // biome-ignore lint/a11y/useSemanticElements: a button cannot stand in a drawing
            <g
              key={id}
              role="button"
              tabIndex={0}
              aria-pressed={isChosen}
              aria-disabled={!can.includes(id)}
              aria-label={can.includes(id) ? label : `${label}, no side view on the sheet`}
              className="cursor-pointer outline-none focus-visible:[&>rect]:stroke-[var(--watch-chalk)]"
              onClick={() => can.includes(id) && onChoose(id)}
              onKeyDown={(event) => {
                if (event.key !== "Enter" && event.key !== " ") return;
                event.preventDefault();
                if (can.includes(id)) onChoose(id);
              }}
            >
              <rect
                x={left}
                y={top - grow}
                width={right - left}
                height={bottom - top + 2 * grow}
                fill={isChosen ? "var(--chalk)" : "transparent"}
                fillOpacity={isChosen ? 0.22 : 0}
                stroke={isChosen ? "var(--chalk)" : "transparent"}
                strokeWidth={3}
              />
              <text x={(left + right) / 2} y={bottom + grow + 14} fontSize={13} fill="var(--chalk)" textAnchor="middle">
                {label.replace(/ unit$/i, "")}
              </text>
            </g>
          );
        })}
      </svg>
    </fieldset>
  );
}
