import type { SectionPoint, SectionScene } from "./scene";

const LEAST_SPAN_METRES = 0.014;

/**
 * The turf as a pass leaves it, aligned with the plan above: `toAcross` is the plan's own mapping of the viewer's x.
 * Heights are drawn larger than widths; by how much is written on it.
 */
export function SwathSection(args: {
  scene: SectionScene;
  toAcross: (across: number) => number;
  pixelsPerMetre: number;
  width: number;
  height: number;
  ledge?: string | undefined;
  isEstimate?: boolean;
}) {
  const { scene, toAcross, width, height } = args;
  const soil = height - 16;
  const middle = (scene.lowest + scene.highest) / 2;
  const span = Math.max(scene.highest - scene.lowest, LEAST_SPAN_METRES);
  // A ledge has a line of its own: beside what the drawing is it has no room on a narrow screen.
  const top = args.ledge ? 50 : 34;
  const room = height - top - 28;
  const perMetre = room / span;
  const toY = (z: number) => top + room / 2 - (z - middle) * perMetre;
  const times = Math.round(perMetre / args.pixelsPerMetre);
  return (
    <g>
      {scene.neighbours.map((points, k) => (
        <path key={k === 0 ? "left" : "right"} d={area(points, toAcross, toY, soil)} fill="var(--chalk)" fillOpacity={0.1} />
      ))}
      <path d={area(scene.cut, toAcross, toY, soil)} fill="var(--chalk)" fillOpacity={0.2} />
      <path d={blades(scene.cut, toAcross, toY, soil)} stroke="var(--chalk-soft)" strokeWidth={1} fill="none" />
      <path d={line(scene.cut, toAcross, toY)} stroke="var(--chalk)" strokeWidth={2.4} fill="none" />
      <path d={line(scene.target, toAcross, toY)} stroke="var(--watch-chalk)" strokeWidth={1.4} strokeDasharray="7 5" fill="none" />
      <line x1={0} x2={width} y1={soil} y2={soil} stroke="var(--chalk-soft)" strokeWidth={2} />
      <g fontSize={12} fill="var(--chalk)" fontFamily="var(--font-sans)">
        <text x={8} y={17}>
          {scene.kind === "swath" ? "The swath, cut" : "Fore and aft, blade tips"}
          {args.isEstimate ? " (estimate, from the tyres alone)" : ""}
        </text>
        <text x={width - 8} y={17} textAnchor="end" fill="var(--chalk-soft)">
          {`heights ×${times}`} · <tspan fill="var(--watch-chalk)">- - as it should be</tspan>
        </text>
        {args.ledge && (
          <text x={8} y={36} fontWeight={700} fontSize={14} fill="var(--out-chalk)">
            {args.ledge}
          </text>
        )}
      </g>
    </g>
  );
}

type Map1 = (value: number) => number;
const known = (points: readonly SectionPoint[]) => points.filter((p): p is { across: number; height: number } => p.height !== undefined);
const xy = (x: number, y: number) => `${x.toFixed(1)} ${y.toFixed(1)}`;

function line(points: readonly SectionPoint[], toAcross: Map1, toY: Map1): string {
  return known(points)
    .map(({ across, height }, k) => `${k === 0 ? "M" : "L"}${xy(toAcross(across), toY(height))}`)
    .join("");
}

function area(points: readonly SectionPoint[], toAcross: Map1, toY: Map1, soil: number): string {
  const cut = known(points);
  const first = cut[0];
  const last = cut.at(-1);
  if (!first || !last) return "";
  return `${line(points, toAcross, toY)}L${xy(toAcross(last.across), soil)}L${xy(toAcross(first.across), soil)}Z`;
}

/** Every fifth point as a standing leaf. */
function blades(points: readonly SectionPoint[], toAcross: Map1, toY: Map1, soil: number): string {
  return known(points)
    .filter((_, k) => k % 5 === 0)
    .map(({ across, height }) => `M${xy(toAcross(across), soil)}L${xy(toAcross(across), toY(height) + 1)}`)
    .join("");
}
