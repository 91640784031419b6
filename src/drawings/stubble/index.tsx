const WIDTH = 620;
const HEIGHT = 210;
const BASE = 150;
const MARGIN = 44;

/** Every prick as a blade of grass in the order it was read, the mean with its surety, and what the dial said. Heights from the ground, one scale. */
export function StubbleDrawing(args: {
  heightsMetres: readonly number[];
  settingMetres?: number | undefined;
  meanMetres?: number | undefined;
  plusMinusMetres?: number | undefined;
  toleranceMetres: number;
  say: (metres: number) => string;
}) {
  const { heightsMetres, settingMetres, meanMetres, plusMinusMetres = 0, toleranceMetres } = args;
  const top = Math.max(0.01, ...heightsMetres, settingMetres ?? 0) * 1.12;
  const y = (metres: number) => BASE - (metres / top) * (BASE - 12);
  const step = (WIDTH - 2 * MARGIN) / Math.max(10, heightsMetres.length);
  const isOff = meanMetres !== undefined && settingMetres !== undefined && Math.abs(meanMetres - settingMetres) > toleranceMetres;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="h-full w-full"
      role="img"
      aria-label={`${heightsMetres.length} readings of the stubble${meanMetres === undefined ? "" : `, mean ${args.say(meanMetres)}`}${settingMetres === undefined ? "" : `, set to ${args.say(settingMetres)}`}`}
    >
      <line x1={0} x2={WIDTH} y1={BASE} y2={BASE} stroke="var(--chalk)" strokeWidth={2} />
      {settingMetres !== undefined && (
        <g>
          <rect
            x={0}
            width={WIDTH}
            y={y(settingMetres + toleranceMetres)}
            height={Math.max(2, y(settingMetres - toleranceMetres) - y(settingMetres + toleranceMetres))}
            fill="var(--chalk)"
            fillOpacity={0.14}
          />
          <line
            x1={0}
            x2={WIDTH}
            y1={y(settingMetres)}
            y2={y(settingMetres)}
            stroke="var(--chalk)"
            strokeDasharray="9 5"
            strokeWidth={1.6}
          />
        </g>
      )}
      {heightsMetres.map((metres, index) => {
        const x = MARGIN + (index + 0.5) * step;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: pricks are told apart by their order alone
          <path key={index} d={`M${x - 2.4} ${BASE}L${x} ${y(metres)}L${x + 2.4} ${BASE}z`} fill="var(--good-chalk)" />
        );
      })}
      {meanMetres !== undefined && (
        <g stroke={isOff ? "var(--out-chalk)" : "var(--good-chalk)"}>
          <rect
            x={0}
            width={WIDTH}
            y={y(meanMetres + plusMinusMetres)}
            height={Math.max(1, y(meanMetres - plusMinusMetres) - y(meanMetres + plusMinusMetres))}
            fill={isOff ? "var(--out-chalk)" : "var(--good-chalk)"}
            fillOpacity={0.18}
            stroke="none"
          />
          <line x1={0} x2={WIDTH} y1={y(meanMetres)} y2={y(meanMetres)} strokeWidth={2.4} />
        </g>
      )}
      <g fontSize={15} fontFamily="var(--font-mono)" transform={`translate(0 ${BASE + 26})`}>
        <text x={12} fill="var(--chalk)">
          {settingMetres === undefined ? "no setting typed" : `set ${args.say(settingMetres)} (dashed)`}
        </text>
        <text x={WIDTH - 12} textAnchor="end" fontWeight={700} fill={isOff ? "var(--out-chalk)" : "var(--good-chalk)"}>
          {meanMetres === undefined ? "no mean yet" : `cut ${args.say(meanMetres)} ± ${args.say(plusMinusMetres)}`}
        </text>
      </g>
    </svg>
  );
}
