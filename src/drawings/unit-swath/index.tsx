import type { LaidUnit, RolledStretch } from "@/core/physics/reel";
import { swathScene } from "./scene";

const WIDTH = 640;
const PAD = 14;
const CHART = 84;

/** Units as they stand and, beneath and in line with them, how often each place across the swath is rolled. */
export function UnitSwath({
  units,
  rolled,
  names,
  odd,
  short,
  label,
}: {
  units: readonly LaidUnit[];
  rolled: readonly RolledStretch[];
  names: Readonly<Record<string, string>>;
  /** Units that stand askew. */
  odd: readonly string[];
  /** Neighbours between which a strip is missed. */
  short: readonly string[];
  label: string;
}) {
  const scene = swathScene(units, rolled);
  const { bounds, mostPasses } = scene;
  const scale = (WIDTH - 2 * PAD) / (bounds.right - bounds.left);
  const tall = (bounds.far - bounds.near) * scale;
  const height = tall + CHART + 3 * PAD + 14;
  const x = (value: number) => PAD + (value - bounds.left) * scale;
  const y = (value: number) => PAD + (bounds.far - value) * scale;
  const foot = height - 22;
  const step = (CHART - 12) / mostPasses;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="h-full w-full"
      role="img"
      aria-label={label}
      fontFamily="var(--font-mono)"
      fontSize={14}
    >
      {scene.units.map(({ id, corners, knife }) => {
        const isOdd = odd.includes(id);
        const middle = { x: (knife[0].x + knife[1].x) / 2, y: (knife[0].y + knife[1].y) / 2 };
        return (
          <g key={id}>
            <path
              d={`${corners.map((p, k) => `${k === 0 ? "M" : "L"}${x(p.x)} ${y(p.y)}`).join("")}Z`}
              fill={short.includes(id) ? "var(--out-chalk)" : "var(--dye-deep)"}
              fillOpacity={short.includes(id) ? 0.35 : 1}
              stroke={isOdd ? "var(--out-chalk)" : "var(--chalk)"}
              strokeWidth={isOdd ? 3 : 1.5}
            />
            <path d={`M${x(knife[0].x)} ${y(knife[0].y)}L${x(knife[1].x)} ${y(knife[1].y)}`} stroke="var(--chalk)" strokeWidth={3} />
            <text x={x(middle.x)} y={y(middle.y) - 8} textAnchor="middle" fill={isOdd ? "var(--out-chalk)" : "var(--chalk)"}>
              {names[id]}
            </text>
          </g>
        );
      })}
      {scene.rolled.map(({ from, to, passes }) => (
        <g key={from}>
          <rect
            x={x(from)}
            y={foot - passes * step}
            width={Math.max(1, x(to) - x(from))}
            height={passes * step}
            fill={passes === mostPasses && mostPasses > 2 ? "var(--watch-chalk)" : "var(--chalk-soft)"}
            fillOpacity={0.6}
          />
          {x(to) - x(from) > 14 && (
            <text x={(x(from) + x(to)) / 2} y={foot - passes * step - 3} textAnchor="middle" fill="var(--chalk)">
              {passes}
            </text>
          )}
        </g>
      ))}
      <path d={`M${PAD} ${foot}H${WIDTH - PAD}`} stroke="var(--chalk)" />
      <text x={PAD} y={height - 6} fill="var(--chalk-soft)">
        times rolled, across the swath
      </text>
    </svg>
  );
}
