const WIDTH = 620;
const HEIGHT = 240;
const RADIUS_SHARE = 0.9;

/** What each edge takes as the machine goes forward: the arcs of successive edges to scale, and the length of sharp edge they may not outgrow. */
export function BiteDrawing({
  biteMetres,
  sharpMetres,
  say,
}: {
  biteMetres: number;
  sharpMetres: number;
  say: (metres: number) => string;
}) {
  const shown = Math.max(sharpMetres, biteMetres) * 3.2;
  const scale = (HEIGHT - 70) / shown;
  const isOver = biteMetres > sharpMetres;
  const count = Math.max(2, Math.min(60, Math.floor(shown / biteMetres)));
  const middle = 225;
  const half = 180;
  const arc = (y: number) => `M${middle - half} ${y + 34}Q${middle} ${y - 34 * RADIUS_SHARE} ${middle + half} ${y + 34}`;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="h-full w-full"
      role="img"
      aria-label={`Each edge bites ${say(biteMetres)}; ${say(sharpMetres)} of it is sharp`}
    >
      {Array.from({ length: count }, (_, k) => HEIGHT - 50 - k * biteMetres * scale).map((y, k) => (
        <path
          key={y}
          d={arc(y)}
          fill="none"
          stroke={isOver ? "var(--out-chalk)" : "var(--chalk)"}
          strokeOpacity={k === 0 ? 1 : 0.65}
          strokeWidth={k === 0 ? 2.4 : 1.4}
        />
      ))}
      <g transform="translate(480 0)" fontFamily="var(--font-mono)" fontSize={15}>
        <path
          d={`M0 ${HEIGHT - 50}v${-sharpMetres * scale}m-7 0h14m-14 ${sharpMetres * scale}h14`}
          stroke="var(--good-chalk)"
          strokeWidth={3}
          fill="none"
        />
        <text x={14} y={HEIGHT - 50 - (sharpMetres * scale) / 2} fill="var(--good-chalk)">
          sharp {say(sharpMetres)}
        </text>
        <path
          d={`M-26 ${HEIGHT - 50}v${-biteMetres * scale}m-7 0h14m-14 ${biteMetres * scale}h14`}
          stroke={isOver ? "var(--out-chalk)" : "var(--chalk)"}
          strokeWidth={3}
          fill="none"
        />
        <text x={-13} y={HEIGHT - 16} fill={isOver ? "var(--out-chalk)" : "var(--chalk)"} fontWeight={700} textAnchor="middle">
          bite {say(biteMetres)}
        </text>
      </g>
    </svg>
  );
}
