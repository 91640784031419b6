type Row = { label: string; mean: number; low: number; high: number };
const ROW = 30;
const NAMES = 200;
const WIDTH = 560;

/** Each share as a point with its interval, on one scale; what it says stands in the table beside it. */
export function RateChart({ rows }: { rows: readonly Row[] }) {
  const most = Math.max(0.1, ...rows.map(({ high }) => high));
  const x = (share: number) => NAMES + (share / most) * (WIDTH - NAMES - 20);
  const height = rows.length * ROW + 30;
  const ticks = [0, most / 2, most];
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="w-full self-start"
      role="img"
      aria-label="Shares that came back, with their intervals; the table says the same"
    >
      {ticks.map((share) => (
        <g key={share}>
          <line x1={x(share)} x2={x(share)} y1={4} y2={height - 22} stroke="var(--rule)" />
          <text x={x(share)} y={height - 6} fontSize={13} textAnchor="middle" fill="var(--soft)" className="num">
            {(share * 100).toFixed(0)} %
          </text>
        </g>
      ))}
      {rows.map(({ label, mean, low, high }, k) => {
        const y = 18 + k * ROW;
        return (
          <g key={label}>
            <text x={NAMES - 8} y={y + 5} fontSize={14} textAnchor="end" fill="var(--ink)">
              {label.length > 27 ? `${label.slice(0, 26)}…` : label}
            </text>
            <line x1={x(low)} x2={x(high)} y1={y} y2={y} stroke="var(--dye-text)" strokeWidth={5} strokeLinecap="round" opacity={0.45} />
            <path d={`M${x(mean)} ${y - 8}v16`} stroke="var(--dye-text)" strokeWidth={4} />
          </g>
        );
      })}
    </svg>
  );
}
