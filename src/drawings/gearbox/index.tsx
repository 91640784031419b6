import type { BoxPart, BoxScene } from "./scene";

const WIDTH = 620;
const HEIGHT = 250;
const TOP = 34;
const DEEP = 190;

/** Where in a box its parts are named, in shares of its depth; the seal at the output below. */
const AT: Record<Exclude<BoxPart, "oil">, number> = { teeth: 0.12, pin: 0.24, bearings: 0.36, seal: 0.97 };
/** Room between a wall and what is written beside it. */
const INSET = 8;

/** Gearboxes cut open: cover at the top, the gear pair, and the oil as it stands against where the sheet wants it. */
export function GearboxDrawing({ boxes, label }: { boxes: readonly BoxScene[]; label: string }) {
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="h-full w-full" role="img" aria-label={label} fontFamily="var(--font-sans)">
      {boxes.map((box) => (
        <OneBox key={box.id} box={box} />
      ))}
    </svg>
  );
}

function OneBox({ box }: { box: BoxScene }) {
  const [left, width] = [box.x * WIDTH, box.width * WIDTH];
  const y = (share: number) => TOP + share * DEEP;
  const ink = (isOff: boolean) => (isOff ? "var(--out-chalk)" : "var(--chalk)");
  const oil = box.parts.find(({ part }) => part === "oil");
  return (
    <g>
      <text x={left + width / 2} y={16} textAnchor="middle" fontSize={13} fontWeight={700} fill="var(--chalk)">
        {box.label}
      </text>
      {box.oil !== undefined && (
        <rect x={left} y={y(box.oil)} width={width} height={y(1) - y(box.oil)} fill={ink(oil?.isOff === true)} fillOpacity={0.22} />
      )}
      <path d={`M${left} ${TOP}V${y(1)}H${left + width}V${TOP}`} fill="none" stroke="var(--chalk)" strokeWidth={2} />
      <path d={`M${left - 6} ${TOP}H${left + width + 6}`} stroke="var(--chalk)" strokeWidth={4} />
      {box.wanted !== undefined && (
        <g>
          <path d={`M${left} ${y(box.wanted)}H${left + width}`} stroke="var(--watch-chalk)" strokeWidth={1.5} strokeDasharray="6 4" />
          <text x={left + 4} y={y(box.wanted) - 4} fontSize={11} fill="var(--watch-chalk)">
            the sheet
          </text>
        </g>
      )}
      <circle
        cx={left + width * 0.78}
        cy={y(0.24)}
        r={width * 0.14}
        fill="none"
        stroke="var(--chalk-soft)"
        strokeDasharray="3 3"
        strokeWidth={3}
      />
      {box.parts.map(({ part, words, isOff }) => {
        const at = part === "oil" ? Math.min(0.88, (box.oil ?? 0.6) + 0.12) : AT[part];
        return (
          <text
            key={part}
            x={left + INSET}
            y={y(at)}
            fontSize={12}
            fontWeight={isOff ? 700 : 500}
            fill={ink(isOff)}
            stroke="var(--dye-deep)"
            strokeWidth={3}
            paintOrder="stroke"
          >
            {words}
          </text>
        );
      })}
    </g>
  );
}
