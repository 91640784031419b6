import type { Dipstick } from "@/core/physics/drive/dipstick";

const MILLIMETRES = 1000;
const PAGE_WIDTH = 150;
const ROD_X = 45;
const ROD_HALF = 3;
const TOP = 28;
const CHECK_LENGTH = 100;

/** The rod at its true size: a millimetre of the drawing is one of the paper. A line of 100 mm beside it shows whether the printer kept to it. */
export function DipstickDrawing({ dipstick, title, say }: { dipstick: Dipstick; title: string; say: (metres: number) => string }) {
  const [rod, full, low] = [dipstick.rodMetres, dipstick.fullMetres, dipstick.lowMetres].map((metres) => metres * MILLIMETRES) as [
    number,
    number,
    number,
  ];
  const height = TOP + Math.max(rod, CHECK_LENGTH) + 14;
  const mark = (at: number, words: string) => (
    <g>
      <path d={`M${ROD_X - 8} ${TOP + at}h16`} strokeWidth={0.7} />
      <text x={ROD_X + 11} y={TOP + at + 1.2} stroke="none" fill="currentColor">
        {words}
      </text>
    </g>
  );
  return (
    <svg
      viewBox={`0 0 ${PAGE_WIDTH} ${height}`}
      style={{ width: `${PAGE_WIDTH}mm`, height: `${height}mm` }}
      className="max-w-none text-ink print:text-black"
      role="img"
      aria-label={`${title}: rod ${say(dipstick.rodMetres)}, full mark ${say(dipstick.tipToFullMetres)} and low mark ${say(dipstick.tipToLowMetres)} up from the tip`}
      fontSize={3.6}
      fontFamily="var(--font-sans)"
      stroke="currentColor"
      fill="none"
    >
      <text x={4} y={7} fontSize={5} fontWeight={700} stroke="none" fill="currentColor">
        {title}
      </text>
      <text x={4} y={13} stroke="none" fill="currentColor">
        Stop on the cover's face. The line at the right measures 100 mm on the paper;
      </text>
      <text x={4} y={17.5} stroke="none" fill="currentColor">
        if not, print it again at 100 %.
      </text>
      <path d={`M${ROD_X - 12} ${TOP}h24`} strokeWidth={1.2} />
      <path d={`M${ROD_X - ROD_HALF} ${TOP}v${rod}h${2 * ROD_HALF}v${-rod}`} strokeWidth={0.4} />
      <text x={ROD_X - 14} y={TOP + 1.2} textAnchor="end" stroke="none" fill="currentColor">
        stop
      </text>
      {mark(full, `full: ${say(dipstick.fullMetres)} from the stop`)}
      {mark(low, `low: ${say(dipstick.lowMetres)}`)}
      <text x={ROD_X + 11} y={TOP + rod + 1.2} stroke="none" fill="currentColor">
        tip: {say(dipstick.rodMetres)}
      </text>
      <g>
        <path d={`M${PAGE_WIDTH - 20} ${TOP}v${CHECK_LENGTH}m-3 0h6m-6 ${-CHECK_LENGTH}h6`} strokeWidth={0.4} />
        <text x={PAGE_WIDTH - 24} y={TOP + CHECK_LENGTH / 2} textAnchor="end" stroke="none" fill="currentColor">
          100 mm
        </text>
      </g>
    </svg>
  );
}
