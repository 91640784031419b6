import type { Point } from "@/core/basics/geometry";

export type TurnedBlade = { id: string; centre: Point; lengthMetres: number; widthMetres: number; angle: number };

const WIDTH = 620;
const HEIGHT = 270;
const MARGIN = 16;

/** Geared blades at one angle of the crank, to scale, each with the circle it sweeps; a pair that lies in each other is marked. */
export function TimingDrawing({ blades, struck, label }: { blades: readonly TurnedBlade[]; struck: readonly string[]; label: string }) {
  const xs = blades.flatMap(({ centre, lengthMetres }) => [centre.x - lengthMetres / 2, centre.x + lengthMetres / 2]);
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const ys = blades.flatMap(({ centre, lengthMetres }) => [centre.y - lengthMetres / 2, centre.y + lengthMetres / 2]);
  const [near, far] = [Math.min(...ys), Math.max(...ys)];
  const scale = Math.min((WIDTH - 2 * MARGIN) / (right - left), (HEIGHT - 2 * MARGIN) / (far - near));
  const at = ({ x, y }: Point) => ({ x: WIDTH / 2 + (x - (left + right) / 2) * scale, y: HEIGHT / 2 - (y - (near + far) / 2) * scale });
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="h-full w-full" role="img" aria-label={label}>
      {blades.map(({ id, centre, lengthMetres, widthMetres, angle }) => {
        const { x, y } = at(centre);
        const isStruck = struck.includes(id);
        return (
          <g key={id} transform={`translate(${x} ${y})`} stroke={isStruck ? "var(--out-chalk)" : "var(--chalk)"}>
            <circle r={(Math.hypot(lengthMetres, widthMetres) / 2) * scale} fill="none" strokeDasharray="6 5" stroke="var(--chalk-faint)" />
            <rect
              x={(-lengthMetres / 2) * scale}
              y={(-widthMetres / 2) * scale}
              width={lengthMetres * scale}
              height={widthMetres * scale}
              transform={`rotate(${(-angle * 180) / Math.PI})`}
              fill={isStruck ? "var(--out-wash)" : "var(--dye-deep)"}
              strokeWidth={1.8}
            />
            <circle r={4} fill="var(--chalk)" stroke="none" />
          </g>
        );
      })}
    </svg>
  );
}
