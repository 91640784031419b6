import { type SideParts, sideScene } from "./scene";

export type { SideParts } from "./scene";

const WIDTH = 640;
const HEIGHT = 300;
const PAD = 16;
const GROUND = 44;

export type SideMark = "good" | "bad" | undefined;

/** A unit from its left side to scale, the ground line level: rollers, reel, knife; the height of cut, heel and toe as they come out. */
export function SideViewDrawing({
  parts,
  before,
  crestRadiusMetres,
  say,
  label,
  heel,
  toe,
}: {
  parts: SideParts;
  /** What stands, drawn faint behind a what-if. */
  before?: SideParts | undefined;
  /** The crest that just touches, drawn from roller to roller. */
  crestRadiusMetres?: number | undefined;
  say: (metres: number) => string;
  label: string;
  heel?: SideMark;
  toe?: SideMark;
}) {
  const scene = sideScene(parts, crestRadiusMetres);
  if (!scene) return null;
  const ghost = before && sideScene(before);
  const { bounds } = scene;
  const scale = Math.min((WIDTH - 2 * PAD) / (bounds.right - bounds.left), (HEIGHT - GROUND - PAD) / bounds.top);
  const x = (value: number) => WIDTH / 2 + (value - (bounds.left + bounds.right) / 2) * scale;
  const y = (value: number) => HEIGHT - GROUND - value * scale;
  const path = (points: readonly { x: number; z: number }[]) =>
    `${points.map((p, k) => `${k === 0 ? "M" : "L"}${x(p.x)} ${y(p.z)}`).join("")}Z`;
  const ink = (mark: SideMark) => (mark === "bad" ? "var(--out-chalk)" : mark === "good" ? "var(--good-chalk)" : "var(--chalk-soft)");
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="h-full w-full" role="img" aria-label={label} fontFamily="var(--font-mono)">
      <path d={`M0 ${y(0)}H${WIDTH}`} stroke="var(--chalk)" strokeWidth={2} />
      <path d={`M0 ${y(0) + 7}H${WIDTH}`} stroke="var(--chalk-faint)" strokeWidth={8} strokeDasharray="2 5" />
      {scene.crest && scene.crest.length > 1 && (
        <path
          d={scene.crest.map((p, k) => `${k === 0 ? "M" : "L"}${x(p.x)} ${y(p.z)}`).join("")}
          fill="none"
          stroke="var(--watch-chalk)"
          strokeWidth={2}
          strokeDasharray="3 4"
        />
      )}
      {ghost?.circles.map(({ id, ...at }) => (
        <circle key={id} cx={x(at.x)} cy={y(at.z)} r={at.radius * scale} fill="none" stroke="var(--chalk-faint)" strokeDasharray="4 4" />
      ))}
      {ghost && <path d={path(ghost.knife)} fill="none" stroke="var(--chalk-faint)" strokeDasharray="4 4" />}
      {scene.circles.map(({ id, ...at }) => (
        <circle
          key={id}
          cx={x(at.x)}
          cy={y(at.z)}
          r={at.radius * scale}
          fill={id === "reel" ? "none" : "var(--dye-deep)"}
          stroke="var(--chalk)"
          strokeWidth={2}
          strokeDasharray={id === "reel" ? "9 6" : undefined}
        />
      ))}
      <path d={path(scene.knife)} fill="var(--chalk)" fillOpacity={0.85} stroke="var(--chalk)" strokeLinejoin="round" strokeWidth={1.5} />
      <g fontSize={14} fill="var(--chalk-soft)" textAnchor="middle">
        {scene.circles.map(({ id, ...at }) => (
          <text key={id} x={x(at.x)} y={id === "reel" ? y(at.z) + 5 : y(at.z) + 5}>
            {id}
          </text>
        ))}
      </g>
      <path d={`M${x(scene.edge.x)} ${y(0)}V${y(scene.edge.z)}`} stroke="var(--good-chalk)" strokeWidth={2} />
      <text x={x(scene.edge.x) + 8} y={HEIGHT - 12} fontSize={20} fontWeight={700} fill="var(--chalk)" textAnchor="middle">
        {say(scene.edge.z)}
      </text>
      {scene.heel && (
        <text x={x(scene.heel.x) - 60} y={HEIGHT - 14} fontSize={14} fill={ink(heel)} textAnchor="end">
          heel {say(scene.heel.z)}
        </text>
      )}
      {scene.toe && (
        <text x={x(scene.edge.x) + 76} y={HEIGHT - 14} fontSize={14} fill={ink(toe)}>
          toe {say(scene.toe.z)}
        </text>
      )}
    </svg>
  );
}
