import type { BladeSheet, BoltGrade, HoleShape, StackPart } from "@/core/machine";
import { HEAD_MARKS } from "@/core/physics/blades/fit";
import { holeOutlines } from "./shapes";

const CHALK = "var(--chalk)";
const OUT = "var(--out-chalk)";

/** Holes side by side at one scale: what the sheet wants and what the blade has. */
export function HoleDrawing({
  wanted,
  found,
}: {
  wanted: BladeSheet["hole"];
  found?: { shape: HoleShape; acrossMetres: number } | undefined;
}) {
  const all = [wanted, found].flatMap((one) => (one ? [one] : []));
  if (all.length === 0) return null;
  const largest = Math.max(...all.map(({ shape, acrossMetres }) => acrossMetres * (shape === "two-pins" ? 3.2 : 1)));
  const scale = 74 / largest;
  const isOther =
    wanted !== undefined &&
    found !== undefined &&
    (wanted.shape !== found.shape || Math.abs(wanted.acrossMetres - found.acrossMetres) > 0.0006);
  return (
    <svg viewBox="0 0 190 112" className="h-full w-full" role="img" aria-label="Centre hole to scale: the sheet's, and the blade's">
      {all.map((hole, index) => {
        const isFound = hole === found;
        const x = all.length === 1 ? 95 : 48 + index * 94;
        return (
          <g
            key={isFound ? "found" : "wanted"}
            transform={`translate(${x} 46)`}
            fill="var(--dye-deep)"
            stroke={isFound && isOther ? OUT : CHALK}
            strokeWidth={1.6}
          >
            {holeOutlines(
              hole.shape,
              hole.acrossMetres,
              "secondMetres" in hole ? (hole.secondMetres as number | undefined) : undefined,
            ).map((outline) => (
              <polygon
                key={outline.map(({ x: px, y: py }) => `${px.toFixed(5)} ${py.toFixed(5)}`).join()}
                points={outline.map((p) => `${(p.x * scale).toFixed(1)},${(-p.y * scale).toFixed(1)}`).join(" ")}
              />
            ))}
            <text y={58} textAnchor="middle" fontSize={13} stroke="none" fill={isFound && isOther ? OUT : "var(--chalk-soft)"}>
              {isFound ? "this blade" : "the sheet"}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** The bolt's head from below with the marks of its grade. */
export function BoltHead({ grade, label, isWrong = false }: { grade: BoltGrade; label: string; isWrong?: boolean }) {
  const { lines, stamp } = HEAD_MARKS[grade];
  const ink = isWrong ? OUT : CHALK;
  const corner = (k: number) => [38 * Math.cos((Math.PI * k) / 3), 38 * Math.sin((Math.PI * k) / 3)].map((v) => v.toFixed(1)).join(",");
  return (
    <svg
      viewBox="-60 -46 120 112"
      className="h-full w-full"
      role="img"
      aria-label={`${label}: ${stamp ?? (lines === 0 ? "no marks" : `${lines} radial lines`)}`}
    >
      <polygon points={[0, 1, 2, 3, 4, 5].map(corner).join(" ")} fill="var(--dye-deep)" stroke={ink} strokeWidth={1.8} />
      <circle r={29} fill="none" stroke="var(--chalk-faint)" />
      {Array.from({ length: lines }, (_, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: lines are told apart by their angle alone
        <line key={k} y1={-13} y2={-27} stroke={ink} strokeWidth={3} transform={`rotate(${(360 * k) / lines})`} />
      ))}
      {stamp && (
        <text y={7} textAnchor="middle" fontSize={20} fontWeight={700} fill={ink}>
          {stamp}
        </text>
      )}
      <text y={60} textAnchor="middle" fontSize={13} fill={isWrong ? OUT : "var(--chalk-soft)"}>
        {label}
      </text>
    </svg>
  );
}

const PART_SHAPES: Record<StackPart, { d: string; label: string }> = {
  bolt: { d: "M-16 0h32v-12h-32zM-8 -12v-8h16v8", label: "bolt" },
  "lock-washer": { d: "M-22 0h19l3 -5h22v5h-19l-3 -5h-22z", label: "lock washer" },
  "flat-washer": { d: "M-26 0h52v-4h-52z", label: "flat washer" },
  "cupped-washer-hollow-up": { d: "M-30 -7L-12 0h24L30 -7M-30 -7L-12 -3h24L30 -7", label: "cupped, hollow up" },
  "cupped-washer-hollow-down": { d: "M-30 0L-12 -7h24L30 0M-30 0L-12 -4h24L30 0", label: "cupped, hollow down" },
  blade: { d: "M-92 0h184v-6h-184zM-92 -6l-14 -9v7l12 8M92 -6l14 -9v7l-12 8", label: "blade, sail up" },
  spacer: { d: "M-18 0h36v-10h-36z", label: "spacer" },
  "anti-rotation-plate": { d: "M-34 0h68v-4h-68z", label: "anti-rotation plate" },
  collar: { d: "M-22 0h44v-14h-44z", label: "collar" },
};
const PART_HEIGHT = 21;

/** The stack in section, head down as it is looked up at, to be read from the bolt to the spindle. */
export function StackDrawing({ stack, isReversed }: { stack: readonly StackPart[]; isReversed: boolean }) {
  const height = (stack.length + 1) * PART_HEIGHT + 12;
  return (
    <svg
      viewBox={`-116 ${-height} 360 ${height + 6}`}
      className="h-full w-full"
      role="img"
      aria-label={`Stack from the bolt's head up: ${stack.map((part) => PART_SHAPES[part].label).join(", ")}`}
    >
      <line x1={0} x2={0} y1={0} y2={-height} stroke="var(--chalk-faint)" strokeDasharray="8 3 2 3" />
      {stack.map((part, index) => {
        const isWrong = isReversed && part.startsWith("cupped");
        const shown = isWrong ? (part === "cupped-washer-hollow-up" ? "cupped-washer-hollow-down" : "cupped-washer-hollow-up") : part;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a stack may hold the same washer twice
          <g key={index} transform={`translate(0 ${-index * PART_HEIGHT})`}>
            <path d={PART_SHAPES[shown].d} fill="var(--dye-deep)" stroke={isWrong ? OUT : CHALK} strokeWidth={1.6} strokeLinejoin="round" />
            <text x={112} y={-2} fontSize={13} fill={isWrong ? OUT : "var(--chalk-soft)"}>
              {isWrong ? "hollow the wrong way" : PART_SHAPES[part].label}
            </text>
          </g>
        );
      })}
      <g transform={`translate(0 ${-stack.length * PART_HEIGHT})`}>
        <path d="M-14 2v-16h28v16" fill="none" stroke={CHALK} strokeWidth={1.6} />
        <text x={112} y={-2} fontSize={13} fill="var(--chalk-soft)">
          spindle
        </text>
      </g>
    </svg>
  );
}

/** A blade as it turns, seen from where the mechanic stands: which edge leads, and which way the sail points. */
export function WayRound({
  turns,
  sailUp,
  leads,
  view,
}: {
  turns: "clockwise" | "anticlockwise";
  sailUp: boolean;
  leads: "edge" | "back";
  view: string;
}) {
  const sense = turns === "clockwise" ? 1 : -1;
  const isWrong = !sailUp || leads === "back";
  const ink = isWrong ? OUT : CHALK;
  const edge = leads === "edge" ? sense : -sense;
  return (
    <svg
      viewBox="-120 -64 240 128"
      className="h-full w-full"
      role="img"
      aria-label={`Blade ${view}: turns ${turns}, ${leads === "edge" ? "sharp edge leads" : "blunt back leads"}, sail ${sailUp ? "to the deck" : "to the ground"}`}
    >
      <g transform={`scale(${sense} 1)`} fill="none" stroke="var(--chalk-soft)" strokeWidth={2}>
        <path d={ARC} />
        <path
          d="M-7 -7L0 5L7 -7"
          transform={`translate(${ARC_RADIUS * Math.sin(ARC_END)} ${-ARC_RADIUS * Math.cos(ARC_END)}) rotate(${(ARC_END * 180) / Math.PI - 90})`}
        />
      </g>
      {[0, 180].map((half) => (
        <g key={half} transform={`rotate(${half})`} stroke={ink} fill="var(--dye-deep)" strokeWidth={1.6}>
          <path d="M0 -11H104V11H0" />
          <path d={`M60 ${edge * 11}H104`} strokeWidth={5} stroke={isWrong ? OUT : "var(--good-chalk)"} />
          <path
            d={`M64 ${-edge * 11}H104V${-edge * 3}H64z`}
            fill={sailUp ? "var(--chalk)" : "none"}
            fillOpacity={0.35}
            strokeDasharray={sailUp ? "none" : "3 3"}
          />
        </g>
      ))}
      <circle r={7} fill="var(--dye)" stroke={ink} />
      <text y={58} textAnchor="middle" fontSize={13} fill="var(--chalk-soft)">
        {view}: turns {turns}; thick line is the edge
      </text>
    </svg>
  );
}

const ARC_RADIUS = 44;
/** From the top, the way a clock turns. */
const ARC_END = Math.PI / 3;
const ARC = `M${-ARC_RADIUS * Math.sin(ARC_END)} ${-ARC_RADIUS * Math.cos(ARC_END)}A${ARC_RADIUS} ${ARC_RADIUS} 0 0 1 ${ARC_RADIUS * Math.sin(ARC_END)} ${-ARC_RADIUS * Math.cos(ARC_END)}`;
