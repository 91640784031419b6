const WIDTH = 620;
const HEIGHT = 260;
const SHOWN = 3;

/** Neighbouring passes from above, to scale across: what they share, or the line that stays between them. */
export function PassDrawing({
  widthMetres,
  spacingMetres,
  say,
}: {
  widthMetres: number;
  spacingMetres: number;
  say: (metres: number) => string;
}) {
  const overlap = widthMetres - spacingMetres;
  const across = widthMetres + (SHOWN - 1) * spacingMetres;
  const scale = (WIDTH - 60) / across;
  const left = 30;
  const passes = Array.from({ length: SHOWN }, (_, k) => left + k * spacingMetres * scale);
  const joints = passes.slice(1).map((x) => ({ at: x, size: overlap * scale }));
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="h-full w-full"
      role="img"
      aria-label={overlap < 0 ? `Passes leave a line ${say(-overlap)} wide` : `Passes share ${say(overlap)}`}
    >
      {passes.map((x, k) => (
        <g key={x}>
          <rect
            x={x}
            y={30}
            width={widthMetres * scale}
            height={150}
            fill="var(--chalk)"
            fillOpacity={k % 2 === 0 ? 0.2 : 0.3}
            stroke="var(--chalk)"
            strokeWidth={1}
          />
          <path
            d={`M${x + (widthMetres * scale) / 2} 150V70M${x + (widthMetres * scale) / 2 - 9} 84l9 -15l9 15`}
            fill="none"
            stroke="var(--chalk-soft)"
            strokeWidth={2}
            transform={k % 2 === 0 ? undefined : `rotate(180 ${x + (widthMetres * scale) / 2} 110)`}
          />
        </g>
      ))}
      {joints.map(({ at, size }) => (
        <g key={at} fontFamily="var(--font-mono)" fontSize={16} textAnchor="middle">
          <rect
            x={size < 0 ? at + size : at}
            y={22}
            width={Math.max(2, Math.abs(size))}
            height={166}
            fill={size < 0 ? "var(--out-chalk)" : "var(--good-chalk)"}
            fillOpacity={size < 0 ? 1 : 0.55}
          />
          <text x={at + size / 2} y={212} fontWeight={700} fill={size < 0 ? "var(--out-chalk)" : "var(--good-chalk)"}>
            {size < 0 ? `line ${say(-overlap)}` : say(overlap)}
          </text>
        </g>
      ))}
      <text x={WIDTH / 2} y={246} textAnchor="middle" fontSize={13} fill="var(--chalk-soft)">
        {SHOWN} passes, {say(spacingMetres)} from join to join; cuts {say(widthMetres)} wide
      </text>
    </svg>
  );
}
