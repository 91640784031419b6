import type { Fit } from "@/drawings/fit";
import type { BeltScene } from "./scene";

const path = (points: readonly { x: number; y: number }[], { toPage }: Fit) =>
  `${points.map((p, k) => `${k === 0 ? "M" : "L"}${toPage(p).x.toFixed(1)} ${toPage(p).y.toFixed(1)}`).join("")}Z`;

/** The belt over its pulleys, to scale. A pulley the belt's back runs on is drawn hollow; the drive has a cross. */
export function BeltPath({ scene, fit, here, weak }: { scene: BeltScene; fit: Fit; here?: string | undefined; weak?: string | undefined }) {
  const middle = (scene.bounds.left + scene.bounds.right) / 2;
  return (
    <>
      {scene.outline.length > 0 && (
        <path d={path(scene.outline, fit)} fill="var(--dye-deep)" stroke="var(--chalk-faint)" strokeWidth={1.5} />
      )}
      {scene.belt && <path d={path(scene.belt, fit)} fill="none" stroke="var(--chalk)" strokeWidth={5} strokeLinejoin="round" />}
      {scene.pulleys.map(({ id, role, at, radius, isBack }) => {
        const { x, y } = fit.toPage(at);
        const r = Math.max(5, radius * fit.scale - 3);
        const ink = id === weak ? "var(--watch-chalk)" : "var(--chalk)";
        return (
          <g key={id} stroke={ink}>
            <circle
              cx={x}
              cy={y}
              r={r}
              fill={isBack ? "var(--dye)" : "var(--chalk-faint)"}
              fillOpacity={isBack ? 1 : 0.55}
              strokeWidth={id === here ? 4 : 1.8}
              strokeDasharray={isBack ? "5 4" : undefined}
            />
            {role === "drive" && <path d={`M${x - r * 0.5} ${y}h${r}M${x} ${y - r * 0.5}v${r}`} strokeWidth={2} />}
          </g>
        );
      })}
      {scene.pulleys.map(({ id, label, role, at, radius }) => {
        const { x, y } = fit.toPage(at);
        const r = Math.max(5, radius * fit.scale);
        // Idlers crowd about the drive pulley: their names stand to the outer side.
        const side = role !== "idler" ? 0 : at.x < middle ? -1 : 1;
        return (
          <text
            key={id}
            x={x + side * (r + 8)}
            y={side === 0 ? y + r + 17 : y + 5}
            textAnchor={side === 0 ? "middle" : side < 0 ? "end" : "start"}
            fontSize={14}
            fontFamily="var(--font-sans)"
            fill="var(--chalk)"
            stroke="var(--dye-deep)"
            strokeWidth={5}
            strokeLinejoin="round"
            paintOrder="stroke"
          >
            {label}
          </text>
        );
      })}
    </>
  );
}
