import type { Fit } from "@/drawings/fit";
import type { BeltScene } from "./scene";

const path = (points: readonly { x: number; y: number }[], { toPage }: Fit) =>
  `${points.map((p, k) => `${k === 0 ? "M" : "L"}${toPage(p).x.toFixed(1)} ${toPage(p).y.toFixed(1)}`).join("")}Z`;

/** The belt over its pulleys, to scale. A pulley the belt's back runs on is drawn hollow; the drive has a cross. */
export function BeltPath({ scene, fit, here, weak }: { scene: BeltScene; fit: Fit; here?: string | undefined; weak?: string | undefined }) {
  return (
    <>
      {scene.outline.length > 0 && (
        <path d={path(scene.outline, fit)} fill="var(--dye-deep)" stroke="var(--chalk-faint)" strokeWidth={1.5} />
      )}
      {scene.belt && <path d={path(scene.belt, fit)} fill="none" stroke="var(--chalk)" strokeWidth={5} strokeLinejoin="round" />}
      {scene.pulleys.map(({ id, label, role, at, radius, isBack }) => {
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
            <text x={x} y={y + r + 15} textAnchor="middle" fontSize={13} stroke="none" fill="var(--chalk)" fontFamily="var(--font-sans)">
              {label}
            </text>
          </g>
        );
      })}
    </>
  );
}
