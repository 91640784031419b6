const WIDTH = 620;
const HEIGHT = 92;
const LEFT = 84;
const RIGHT = 12;
const TOP = 8;
const FOOT = 18;
const FULL_TURN = 360;

/** The gap between two geared blades over a full turn of the crank, the wanted one as a line, the closest marked, the crank's own place drawn in. */
export function GapOverTurn({
  profileMetres,
  wantedMetres,
  closest,
  crankDegrees,
  say,
  label,
}: {
  profileMetres: readonly number[];
  wantedMetres: number;
  closest: { gapMetres: number; atDegrees: number };
  crankDegrees: number;
  say: (metres: number) => string;
  label: string;
}) {
  const most = Math.max(...profileMetres, wantedMetres * 2);
  const least = Math.min(0, ...profileMetres);
  const x = (degrees: number) => LEFT + (degrees / FULL_TURN) * (WIDTH - LEFT - RIGHT);
  const y = (metres: number) => TOP + ((most - metres) / (most - least)) * (HEIGHT - TOP - FOOT);
  const step = FULL_TURN / Math.max(1, profileMetres.length - 1);
  const line = profileMetres.map((gap, k) => `${k === 0 ? "M" : "L"}${x(k * step).toFixed(1)} ${y(gap).toFixed(1)}`).join("");
  const isBad = closest.gapMetres < wantedMetres;
  const ink = isBad ? "var(--out-chalk)" : "var(--good-chalk)";
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" role="img" aria-label={label} fontFamily="var(--font-mono)" fontSize={12}>
      <path d={`M${LEFT} ${y(0)}H${WIDTH - RIGHT}`} stroke="var(--out-chalk)" strokeWidth={1.5} />
      <path d={`M${LEFT} ${y(wantedMetres)}H${WIDTH - RIGHT}`} stroke="var(--chalk-faint)" strokeDasharray="4 4" />
      <path d={line} fill="none" stroke="var(--chalk)" strokeWidth={2} />
      {[closest.atDegrees, closest.atDegrees + FULL_TURN / 2].map((at) => (
        <circle key={at} cx={x(at % FULL_TURN)} cy={y(closest.gapMetres)} r={5} fill={ink} />
      ))}
      <path d={`M${x(crankDegrees)} ${TOP}V${HEIGHT - FOOT}`} stroke="var(--watch-chalk)" strokeWidth={2} />
      <g fill="var(--chalk-soft)" textAnchor="end">
        <text x={LEFT - 6} y={Math.min(HEIGHT - FOOT, y(0) + 4)}>
          0
        </text>
        <text x={LEFT - 6} y={TOP + 10}>
          {say(most)}
        </text>
      </g>
      <g fill="var(--chalk-soft)" textAnchor="middle">
        {[0, 90, 180, 270, 360].map((at) => (
          <text key={at} x={Math.min(WIDTH - 16, x(at))} y={HEIGHT - 4}>
            {at}°
          </text>
        ))}
      </g>
    </svg>
  );
}

const BAR_HEIGHT = 40;

/** Half a turn of phase: where the pair is clear, where it stands with the gears' play, and where a tooth either way would put it. */
export function PhaseBar({
  clearDegrees,
  phaseDegrees,
  lashDegrees,
  teeth,
  label,
}: {
  clearDegrees: readonly (readonly [number, number])[];
  phaseDegrees: number;
  lashDegrees: number;
  teeth: readonly { phaseDegrees: number; isClear: boolean }[];
  label: string;
}) {
  const x = (degrees: number) => LEFT + (degrees / 180) * (WIDTH - LEFT - RIGHT);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${BAR_HEIGHT}`}
      className="w-full"
      role="img"
      aria-label={label}
      fontFamily="var(--font-mono)"
      fontSize={12}
    >
      <rect x={LEFT} y={6} width={x(180) - LEFT} height={12} fill="var(--out-wash)" stroke="var(--out-chalk)" />
      {clearDegrees.map(([from, to]) => (
        <rect key={from} x={x(from)} y={6} width={Math.max(1.5, x(to) - x(from))} height={12} fill="var(--good-chalk)" />
      ))}
      {teeth.map(({ phaseDegrees: at, isClear }) => (
        <path key={at} d={`M${x(at) - 5} 24l5 -8l5 8z`} fill={isClear ? "var(--good-chalk)" : "var(--out-chalk)"} />
      ))}
      <rect
        x={x(Math.max(0, phaseDegrees - lashDegrees / 2))}
        y={3}
        width={Math.max(3, x(Math.min(180, phaseDegrees + lashDegrees / 2)) - x(Math.max(0, phaseDegrees - lashDegrees / 2)))}
        height={18}
        fill="var(--chalk)"
      />
      <g fill="var(--chalk-soft)" textAnchor="middle">
        {[0, 45, 90, 135, 180].map((at) => (
          <text key={at} x={Math.min(WIDTH - 16, x(at))} y={BAR_HEIGHT - 3}>
            {at}°
          </text>
        ))}
      </g>
    </svg>
  );
}
