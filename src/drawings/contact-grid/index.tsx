import type { Along, Paper, Setting } from "@/core/physics/reel";

const ALONG: readonly Along[] = ["left", "middle", "right"];
const CELL = 74;
const ROW = 24;
/** Room for the longest name of a row. */
const LEFT = 110;
const TOP = 30;

/** How a trial came out: whole strip cut, half nicked, gap. Told by shape as well as by ink. */
function Outcome({ paper, x, y }: { paper: Paper | undefined; x: number; y: number }) {
  if (!paper) return <circle cx={x} cy={y} r={2} fill="var(--chalk-faint)" />;
  if (paper === "cut") return <path d={`M${x - 13} ${y}H${x - 3}M${x + 3} ${y}H${x + 13}`} stroke="var(--good-chalk)" strokeWidth={5} />;
  if (paper === "pinched")
    return <path d={`M${x - 13} ${y}L${x} ${y + 6}L${x + 13} ${y}`} fill="none" stroke="var(--watch-chalk)" strokeWidth={4} />;
  return <path d={`M${x - 13} ${y}H${x + 13}`} stroke="var(--out-chalk)" strokeWidth={3} />;
}

/** Paper trials of one unit: reel blades down, places along the knife across, and beneath them how the knife stands there. */
export function ContactGrid({
  rows,
  along,
  label,
}: {
  rows: readonly { name: string; paper: Partial<Record<Along, Paper>> }[];
  along: Partial<Record<Along, Setting>>;
  label: string;
}) {
  const height = TOP + rows.length * ROW + 34;
  const width = LEFT + 3 * CELL + 10;
  const x = (k: number) => LEFT + (k + 0.5) * CELL;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="h-full w-full"
      role="img"
      aria-label={label}
      fontFamily="var(--font-mono)"
      fontSize={13}
    >
      {ALONG.map((place, k) => (
        <text key={place} x={x(k)} y={18} textAnchor="middle" fill="var(--chalk-soft)">
          {place}
        </text>
      ))}
      {rows.map(({ name, paper }, row) => (
        <g key={name}>
          <text x={LEFT - 8} y={TOP + row * ROW + 16} textAnchor="end" fill="var(--chalk-soft)">
            {name}
          </text>
          {ALONG.map((place, k) => (
            <Outcome key={place} paper={paper[place]} x={x(k)} y={TOP + row * ROW + 12} />
          ))}
        </g>
      ))}
      <path d={`M${LEFT} ${height - 30}H${width - 10}`} stroke="var(--chalk)" strokeWidth={3} />
      {ALONG.map((place, k) => (
        <text
          key={place}
          x={x(k)}
          y={height - 10}
          textAnchor="middle"
          fontWeight={700}
          fill={along[place] === undefined ? "var(--chalk-faint)" : along[place] === "right" ? "var(--good-chalk)" : "var(--out-chalk)"}
        >
          {along[place] ?? "not read"}
        </text>
      ))}
    </svg>
  );
}
