import { clipScene } from "./scene";

const WIDTH = 620;
const HEIGHT = 300;
const LEFT = 92;
const RIGHT = 16;
const TOP = 18;
const FOOT = 44;

export type ClipPoint = { id: string; label: string; clipMetres: number };

/** Where the clip lies between browning and ripples, against the speed travelled, with the speeds at which it would pass either. */
export function ClipWindow(args: {
  metresPerSecond: number;
  heightMetres: number;
  points: readonly ClipPoint[];
  limits: { least: number; most: number };
  sayLength: (metres: number) => string;
  saySpeed: (metresPerSecond: number) => string;
  label: string;
}) {
  const { metresPerSecond, heightMetres, points, limits, sayLength, saySpeed, label } = args;
  const scene = clipScene({
    heightMetres,
    clips: points.map(({ clipMetres }) => clipMetres),
    speeds: [metresPerSecond, limits.most],
  });
  const x = (speed: number) => LEFT + (speed / scene.mostSpeed) * (WIDTH - LEFT - RIGHT);
  const y = (clip: number) => HEIGHT - FOOT - (clip / scene.mostClip) * (HEIGHT - FOOT - TOP);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="h-full w-full"
      role="img"
      aria-label={label}
      fontFamily="var(--font-mono)"
      fontSize={14}
    >
      <rect x={LEFT} y={y(scene.ripples)} width={WIDTH - LEFT - RIGHT} height={y(scene.browns) - y(scene.ripples)} fill="var(--dye-deep)" />
      <path
        d={`M${LEFT} ${y(scene.ripples)}H${WIDTH - RIGHT}M${LEFT} ${y(scene.browns)}H${WIDTH - RIGHT}`}
        stroke="var(--out-chalk)"
        strokeWidth={2}
      />
      <path d={`M${LEFT} ${y(scene.bestFrom)}H${WIDTH - RIGHT}`} stroke="var(--chalk-faint)" strokeDasharray="4 5" />
      <g fill="var(--chalk-soft)">
        <text x={LEFT + 8} y={y(scene.ripples) - 8} fill="var(--out-chalk)">
          ripples
        </text>
        <text x={LEFT + 8} y={y((scene.ripples + scene.bestFrom) / 2) + 5} fill="var(--good-chalk)">
          best
        </text>
        <text x={LEFT + 8} y={y(scene.browns) + 18} fill="var(--out-chalk)">
          browns
        </text>
        <text x={LEFT - 8} y={y(scene.ripples) + 5} textAnchor="end">
          {sayLength(scene.ripples)}
        </text>
        <text x={LEFT - 8} y={y(scene.browns) + 5} textAnchor="end">
          {sayLength(scene.browns)}
        </text>
      </g>
      <path d={`M${LEFT} ${HEIGHT - FOOT}H${WIDTH - RIGHT}`} stroke="var(--chalk)" />
      {points.map(({ id, label: name, clipMetres }, k) => (
        <g key={id}>
          <path
            d={`M${x(0)} ${y(0)}L${x(metresPerSecond)} ${y(clipMetres)}`}
            stroke="var(--chalk-soft)"
            strokeDasharray={k === 0 ? undefined : "6 4"}
          />
          <circle
            cx={x(metresPerSecond)}
            cy={y(clipMetres)}
            r={9}
            fill={clipMetres > scene.ripples || clipMetres < scene.browns ? "var(--out-chalk)" : "var(--good-chalk)"}
            stroke="var(--chalk)"
          />
          {k === 0 && (
            <text x={x(metresPerSecond) - 14} y={y(clipMetres) - 12} textAnchor="end" fill="var(--chalk)" fontWeight={700} fontSize={17}>
              {points.length === 1 ? sayLength(clipMetres) : `${name}: ${sayLength(clipMetres)}`}
            </text>
          )}
        </g>
      ))}
      <g fill="var(--chalk-soft)" textAnchor="middle">
        <text x={x(metresPerSecond)} y={HEIGHT - FOOT + 19} fill="var(--chalk)">
          {saySpeed(metresPerSecond)}
        </text>
        <text x={(LEFT + WIDTH - RIGHT) / 2} y={HEIGHT - 6}>
          works from {saySpeed(limits.least)} to {saySpeed(limits.most)}
        </text>
      </g>
    </svg>
  );
}
