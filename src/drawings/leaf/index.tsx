const WIDTH = 620;
const HEIGHT = 230;
const BASE = 190;

/** A leaf to scale before the cut, the height of cut, and the line that a third of the leaf ends at. */
export function LeafDrawing({
  beforeMetres,
  cutMetres,
  firstCutMetres,
  say,
}: {
  beforeMetres: number;
  cutMetres?: number | undefined;
  firstCutMetres?: number | undefined;
  say: (metres: number) => string;
}) {
  const y = (metres: number) => BASE - (metres / beforeMetres) * (BASE - 18);
  const third = (beforeMetres * 2) / 3;
  const isTooMuch = firstCutMetres !== undefined;
  const blades = Array.from({ length: 16 }, (_, k) => 40 + k * 19);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="h-full w-full"
      role="img"
      aria-label={`Leaf ${say(beforeMetres)} before the cut${cutMetres === undefined ? "" : `, cut at ${say(cutMetres)}`}; a third ends at ${say(third)}`}
    >
      <line x1={0} x2={WIDTH} y1={BASE} y2={BASE} stroke="var(--chalk)" strokeWidth={2} />
      {blades.map((x, k) => (
        <path
          key={x}
          d={`M${x - 3} ${BASE}Q${x + (k % 3) - 1} ${y(beforeMetres * 0.5)} ${x + ((k * 7) % 9) - 4} ${y(beforeMetres)}Q${x + 2} ${y(beforeMetres * 0.5)} ${x + 3} ${BASE}z`}
          fill="var(--good-chalk)"
          fillOpacity={0.75}
        />
      ))}
      {cutMetres !== undefined && cutMetres < beforeMetres && (
        <rect
          x={26}
          width={316}
          y={y(beforeMetres)}
          height={y(cutMetres) - y(beforeMetres)}
          fill={isTooMuch ? "var(--out-chalk)" : "var(--chalk)"}
          fillOpacity={0.22}
        />
      )}
      <line x1={26} x2={352} y1={y(third)} y2={y(third)} stroke="var(--chalk)" strokeDasharray="9 5" />
      <g fontSize={15} fontFamily="var(--font-mono)" fill="var(--chalk)">
        <text x={360} y={y(third) + 5}>
          a third ends at {say(third)}
        </text>
        <text x={360} y={y(beforeMetres) + 6}>
          stands {say(beforeMetres)}
        </text>
        {cutMetres !== undefined && (
          <g fill={isTooMuch ? "var(--out-chalk)" : "var(--good-chalk)"} fontWeight={700}>
            <line
              x1={26}
              x2={352}
              y1={y(Math.min(cutMetres, beforeMetres))}
              y2={y(Math.min(cutMetres, beforeMetres))}
              stroke="currentColor"
              strokeWidth={2}
            />
            <text x={360} y={Math.max(y(Math.min(cutMetres, beforeMetres)) + 5, y(third) + 24)}>
              cut at {say(cutMetres)}
            </text>
          </g>
        )}
      </g>
    </svg>
  );
}
