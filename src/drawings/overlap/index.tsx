import { fitInto } from "../fit";
import type { OverlapScene, Travel } from "./scene";

const WIDTH = 620;
const PLAN = 318;
const BARS = 96;
const ROW = 14;

/** The blades in their travel, and what they leave between them: the strip appears where it will. */
export function OverlapDrawing(args: {
  scene: OverlapScene;
  travel: Travel;
  leastMetres: number;
  say: (metres: number) => string;
  label: string;
}) {
  const { scene, travel, leastMetres, say } = args;
  const fit = fitInto({ bounds: scene.bounds, width: WIDTH, height: PLAN, margin: 14 });
  const across = (metres: number) => WIDTH / 2 + metres * fit.scale;
  const bad = scene.gaps.filter(({ overlapMetres }) => overlapMetres < leastMetres);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${PLAN + BARS}`} className="h-full w-full" role="img" aria-label={args.label}>
      <g fill="none" stroke="var(--chalk)">
        {scene.discs.map(({ id, centre, radius }) => {
          const { x, y } = fit.toPage(centre);
          return (
            <g key={id}>
              <circle cx={x} cy={y} r={radius * fit.scale} fill="var(--chalk)" fillOpacity={0.09} strokeWidth={1.6} />
              <path d={`M${x - 5} ${y}h10M${x} ${y - 5}v10`} strokeWidth={1.4} />
              <TravelMark x={x} y={y} centre={centre} travel={travel} />
            </g>
          );
        })}
      </g>
      <g transform={`translate(0 ${PLAN + 6})`} fontFamily="var(--font-mono)" fontSize={14} textAnchor="middle">
        {scene.bars.map(({ id, from, to }, row) => (
          <rect
            key={id}
            x={across(from)}
            y={(row % 2) * ROW}
            width={(to - from) * fit.scale}
            height={ROW - 3}
            fill="var(--chalk)"
            fillOpacity={0.55}
          />
        ))}
        {scene.gaps.map(({ between, from, to, overlapMetres }) => {
          const isStrip = overlapMetres < 0;
          const isBad = overlapMetres < leastMetres;
          const middle = across((from + to) / 2);
          return (
            <g key={between.join(" ")}>
              {isStrip ? (
                <rect x={across(from)} y={-4} width={Math.max(2, (to - from) * fit.scale)} height={44} fill="var(--out-chalk)" />
              ) : (
                <line
                  x1={middle}
                  x2={middle}
                  y1={-4}
                  y2={34}
                  stroke={isBad ? "var(--out-chalk)" : "var(--good-chalk)"}
                  strokeWidth={isBad ? 4 : 2}
                />
              )}
              <text y={58} x={middle} fill={isBad ? "var(--out-chalk)" : "var(--chalk)"} fontWeight={isBad ? 700 : 500}>
                {isStrip ? `strip ${say(-overlapMetres)}` : say(overlapMetres)}
              </text>
            </g>
          );
        })}
        <text
          x={WIDTH / 2}
          y={82}
          fontFamily="var(--font-sans)"
          fontSize={13}
          fill={bad.length > 0 ? "var(--out-chalk)" : "var(--chalk-soft)"}
        >
          {bad.length > 0 ? "What stays standing, or soon will, seen from behind" : "What neighbours share, seen from behind"}
        </text>
      </g>
    </svg>
  );
}

/** Which way a blade's middle moves. */
function TravelMark({ x, y, centre, travel }: { x: number; y: number; centre: { x: number; y: number }; travel: Travel }) {
  const ahead =
    travel.kind === "straight"
      ? { x: Math.sin(travel.crabRadians), y: Math.cos(travel.crabRadians) }
      : tangent({ x: travel.radiusMetres - centre.x, y: -centre.y }, Math.sign(travel.radiusMetres));
  const angle = (Math.atan2(ahead.x, ahead.y) * 180) / Math.PI;
  return (
    <path
      d="M0 -10V-34M-6 -26L0 -35L6 -26"
      transform={`translate(${x} ${y}) rotate(${angle})`}
      strokeWidth={1.8}
      stroke="var(--chalk-soft)"
    />
  );
}

/** Square to the way to the turning centre, forwards. */
function tangent(toCentre: { x: number; y: number }, side: number): { x: number; y: number } {
  const far = Math.hypot(toCentre.x, toCentre.y) || 1;
  return { x: (-side * toCentre.y) / far, y: (side * toCentre.x) / far };
}
