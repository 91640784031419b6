export type EdgeBar = {
  id: string;
  label: string;
  widthMetres: number;
  leastMetres?: number | undefined;
  stockMetres?: number | undefined;
  stockPerGrindMetres: number;
  isScrap: boolean;
};

const WIDTH = 620;
const ROW = 62;

/** The width of each blade's tip to scale: what this sharpening takes, what later ones would, and the line it may not pass. */
export function EdgeDrawing({ bars, say }: { bars: readonly EdgeBar[]; say: (metres: number) => string }) {
  const widest = Math.max(0.01, ...bars.map(({ widthMetres }) => widthMetres));
  const scale = 380 / widest;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${bars.length * ROW + 16}`}
      className="h-full w-full"
      role="img"
      aria-label="Width of each blade's tip, what sharpening takes and where its limit is"
    >
      {bars.map((bar, row) => {
        const left = 130;
        const end = left + bar.widthMetres * scale;
        const stock = (bar.stockMetres ?? 0) * scale;
        const limit = bar.leastMetres === undefined ? undefined : left + bar.leastMetres * scale;
        const later = limit === undefined ? [] : laterGrinds(end - stock, limit, bar.stockPerGrindMetres * scale);
        return (
          <g key={bar.id} transform={`translate(0 ${row * ROW + 14})`} fontSize={14} fill="var(--chalk)">
            <text x={8} y={25}>
              {bar.label}
            </text>
            <rect
              x={left}
              width={end - left}
              y={6}
              height={28}
              fill="var(--dye-deep)"
              stroke={bar.isScrap ? "var(--out-chalk)" : "var(--chalk)"}
              strokeWidth={1.6}
            />
            <rect x={end - stock} width={stock} y={6} height={28} fill="var(--out-chalk)" fillOpacity={0.65} />
            {later.map((x) => (
              <line key={x} x1={x} x2={x} y1={8} y2={32} stroke="var(--chalk-soft)" strokeDasharray="3 3" />
            ))}
            {limit !== undefined && <line x1={limit} x2={limit} y1={0} y2={42} stroke="var(--chalk)" strokeWidth={2.6} />}
            <text
              x={end + 10}
              y={25}
              fontFamily="var(--font-mono)"
              fontWeight={600}
              fill={bar.isScrap ? "var(--out-chalk)" : "var(--chalk)"}
            >
              {bar.isScrap ? "scrap" : say(bar.widthMetres)}
            </text>
            {limit !== undefined && (
              <text x={limit} y={54} textAnchor="middle" fontSize={12} fill="var(--chalk-soft)">
                limit {say(bar.leastMetres ?? 0)}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}

const MOST_LINES = 12;

function laterGrinds(from: number, limit: number, step: number): number[] {
  const lines: number[] = [];
  for (let x = from - step; x >= limit && lines.length < MOST_LINES; x -= step) lines.push(x);
  return lines;
}
