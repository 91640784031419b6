import type { ReactNode } from "react";
import type { Point } from "@/core/basics/geometry";
import { type Fit, fitInto } from "../fit";
import type { PlanScene } from "./scene";

const points = (corners: readonly Point[], fit: Fit) =>
  corners
    .map(fit.toPage)
    .map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`)
    .join(" ");

/** The machine from above in chalk; what is entered and found is drawn over it by the caller with the same fit. */
export function MachinePlan({ scene, fit, hot = {} }: { scene: PlanScene; fit: Fit; hot?: { wheels?: readonly string[] } }) {
  return (
    <g fill="none" stroke="var(--chalk)" strokeWidth={1.4} strokeLinejoin="round">
      {scene.axles.map(({ id, from, to, pivot }) => {
        const a = fit.toPage(from);
        const b = fit.toPage(to);
        const c = pivot && fit.toPage(pivot);
        return (
          <g key={id} stroke="var(--chalk-faint)">
            <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} strokeDasharray="10 3 2 3" />
            {c && <circle cx={c.x} cy={c.y} r={4} />}
          </g>
        );
      })}
      {scene.wheels.map((wheel) => (
        <polygon
          key={wheel.id}
          points={points(wheel.corners, fit)}
          fill={hot.wheels?.includes(wheel.id) ? "var(--out-wash)" : "var(--dye-deep)"}
          stroke={hot.wheels?.includes(wheel.id) ? "var(--out-chalk)" : "var(--chalk)"}
        />
      ))}
      {scene.deck && <polygon points={points(scene.deck.corners, fit)} fill="var(--dye-deep)" fillOpacity={0.55} strokeWidth={2} />}
      {scene.blades.map(({ id, centre, radius }) => {
        const c = fit.toPage(centre);
        return (
          <g key={id}>
            <circle
              cx={c.x}
              cy={c.y}
              r={radius * fit.scale}
              fill="var(--chalk)"
              fillOpacity={0.07}
              strokeDasharray="6 4"
              stroke="var(--chalk-soft)"
            />
            <path d={`M${c.x - 5} ${c.y}h10M${c.x} ${c.y - 5}v10`} />
          </g>
        );
      })}
      {scene.units.map((unit) => (
        <g key={unit.id}>
          <polygon points={points(unit.corners, fit)} fill="var(--chalk)" fillOpacity={0.07} />
          {unit.rollers.map((roller, k) => (
            <polygon key={k === 0 ? "rear" : "front"} points={points(roller, fit)} fill="var(--dye-deep)" strokeOpacity={0.7} />
          ))}
          <polyline points={points(unit.knife, fit)} fill="none" strokeWidth={2.5} />
        </g>
      ))}
    </g>
  );
}

/** A small picture of a machine by itself, for lists. */
export function PlanThumbnail({
  scene,
  width = 84,
  height = 64,
  label,
}: {
  scene: PlanScene;
  width?: number;
  height?: number;
  label: string;
}): ReactNode {
  const fit = fitInto({ bounds: scene.bounds, width, height, margin: 5 });
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width={width} height={height} role="img" aria-label={label} className="dye rounded-[3px]">
      <MachinePlan scene={scene} fit={fit} />
    </svg>
  );
}
