import { type SpeedMark, type SpeedRow, type SpeedZones, speedScene } from "./scene";

export type { SpeedMark, SpeedRow } from "./scene";

const WIDTH = 620;
const LEFT = 128;
const RIGHT = 20;
const TOP = 46;
const ROW = 44;
const FOOT = 34;
/** Room above and below a row for its marks to stand apart. */
const LIFT: Record<SpeedMark, number> = { paper: -9, "no-load": 0, loaded: 9, "low-charge": 9 };

const WORDS: Record<SpeedMark, string> = { paper: "on paper", "no-load": "no load", loaded: "cutting", "low-charge": "low charge" };

/** Each spindle's tip speed on one scale: where an edge tears, the range worked in, and the limit; on paper, without load, cutting, at low charge. */
export function SpeedDrawing({
  rows,
  zones,
  say,
  label,
}: {
  rows: readonly SpeedRow[];
  zones: SpeedZones;
  say: (metresPerSecond: number) => string;
  label: string;
}) {
  const scene = speedScene(rows, zones);
  const height = TOP + rows.length * ROW + FOOT;
  const x = (share: number) => LEFT + share * (WIDTH - LEFT - RIGHT);
  const bottom = height - FOOT;
  // Said in figures: what was read last, else what paper gives.
  const read = rows.map(({ marks }) => {
    const told = (["loaded", "no-load", "paper"] as const).map((kind) => marks.find((mark) => mark.kind === kind)).find(Boolean);
    return told && say(told.metresPerSecond);
  });
  const kinds = [...new Set(rows.flatMap(({ marks }) => marks.map(({ kind }) => kind)))];
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} className="h-full w-full" role="img" aria-label={label} fontFamily="var(--font-mono)">
      <rect
        x={x(scene.at(zones.from))}
        y={TOP}
        width={x(scene.at(zones.to)) - x(scene.at(zones.from))}
        height={bottom - TOP}
        fill="var(--dye-deep)"
      />
      <path d={`M${x(scene.at(zones.tears))} ${TOP}V${bottom}`} stroke="var(--chalk-faint)" strokeDasharray="4 5" />
      <path d={`M${x(scene.at(zones.limit))} ${TOP - 6}V${bottom + 6}`} stroke="var(--out-chalk)" strokeWidth={3} />
      <g fontSize={14}>
        <text x={x(scene.at(zones.limit))} y={16} textAnchor="end" fill="var(--out-chalk)" fontWeight={700}>
          never from {say(zones.limit)}
        </text>
        <text x={(x(scene.at(zones.from)) + x(scene.at(zones.to))) / 2} y={TOP - 8} textAnchor="middle" fill="var(--good-chalk)">
          works here
        </text>
        <text x={x(scene.at(zones.tears)) - 6} y={TOP - 8} textAnchor="end" fill="var(--chalk-soft)">
          tears
        </text>
      </g>
      {scene.rows.map(({ id, label: name, marks }, k) => {
        const y = TOP + (k + 0.5) * ROW;
        return (
          <g key={id}>
            <path d={`M${LEFT} ${y}H${WIDTH - RIGHT}`} stroke="var(--chalk-faint)" strokeOpacity={0.5} />
            <text x={LEFT - 10} y={y - 2} textAnchor="end" fontSize={14} fill="var(--chalk-soft)">
              {name}
            </text>
            <text x={LEFT - 10} y={y + 15} textAnchor="end" fontSize={15} fontWeight={700} fill="var(--chalk)">
              {read[k] ?? ""}
            </text>
            {marks.map(({ kind, share, isOver, isSlow }) => (
              <Mark key={kind} kind={kind} x={x(share)} y={y + LIFT[kind]} ink={isOver || isSlow ? "var(--out-chalk)" : "var(--chalk)"} />
            ))}
          </g>
        );
      })}
      <g fontSize={13} fill="var(--chalk-soft)">
        {kinds.map((kind, k) => (
          <g key={kind} transform={`translate(${LEFT + k * 122} ${height - 12})`}>
            <Mark kind={kind} x={0} y={-4} ink="var(--chalk)" />
            <text x={12}>{WORDS[kind]}</text>
          </g>
        ))}
      </g>
    </svg>
  );
}

function Mark({ kind, x, y, ink }: { kind: SpeedMark; x: number; y: number; ink: string }) {
  if (kind === "paper") return <path d={`M${x - 7} ${y}h14M${x} ${y - 7}v14`} stroke={ink} strokeWidth={2} />;
  if (kind === "no-load") return <circle cx={x} cy={y} r={7} fill={ink} />;
  return (
    <circle
      cx={x}
      cy={y}
      r={6}
      fill="var(--dye)"
      stroke={ink}
      strokeWidth={2.2}
      strokeDasharray={kind === "low-charge" ? "3 3" : undefined}
    />
  );
}
