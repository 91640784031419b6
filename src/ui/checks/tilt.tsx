import { type Plane, type Point, planeHeight } from "@/core/basics/geometry";
import type { UnitSystem } from "@/core/basics/units";
import { pointOf, type Standpoint, seenFrom } from "@/core/machine";
import { contourLines } from "@/drawings/plan/scene";
import { SwathSection } from "@/drawings/section";
import { sectionScene } from "@/drawings/section/scene";
import type { BeneathArgs, OverlayArgs } from "./face";
import { showSize } from "./shared";

/** The tips' plane to draw: measured, or reckoned from something else. */
export type Surface = { plane: Plane; target: Plane; isEstimate: boolean };

/** A sixteenth of an inch or two millimetres between contour lines. */
const CONTOUR: Record<UnitSystem, number> = { us: 0.0254 / 16, metric: 0.002 };

/** The plane over the deck's outline. */
export function DeckTilt({ surface, machine, standpoint, system, toPage }: OverlayArgs & { surface: Surface | undefined }) {
  if (!surface || !machine.deck) return null;
  return (
    <Tilt surface={surface} outline={machine.deck.outline.map(pointOf)} standpoint={standpoint} toPage={toPage} every={CONTOUR[system]} />
  );
}

/** A ledge lower than this is none to see. */
const SEEN_METRES = 0.0008;

/** The section of the swath that the plane leaves, or what it takes to draw one. */
export function Swath({ surface, waiting, ...args }: BeneathArgs & { surface: Surface | undefined; waiting: string }) {
  const { machine, standpoint, system, toPage, width, height } = args;
  if (!surface || machine.spindles.length === 0)
    return (
      <text x={width / 2} y={height / 2} textAnchor="middle" fontSize={14} fill="var(--chalk-soft)">
        {waiting}
      </text>
    );
  const scene = sectionScene({ machine, standpoint, ...surface });
  const { ledge } = scene;
  return (
    <SwathSection
      scene={scene}
      toAcross={(across) => toPage({ x: across, y: 0 }).x}
      pixelsPerMetre={args.pixelsPerMetre}
      width={width}
      height={height}
      ledge={
        ledge && ledge.oneWayMetres > SEEN_METRES
          ? `ledge ${showSize(ledge.oneWayMetres, system)} one way, ${ledge.upAndDownMetres > SEEN_METRES ? showSize(ledge.upAndDownMetres, system) : "none"} up and down`
          : undefined
      }
      isEstimate={surface.isEstimate}
    />
  );
}

/** The tips' plane as lines of equal departure from where it should be, low side washed. */
function Tilt(args: { surface: Surface; outline: readonly Point[]; standpoint: Standpoint; toPage: (p: Point) => Point; every: number }) {
  const { plane, target } = args.surface;
  const departure = {
    height: plane.height - target.height,
    slopeRight: plane.slopeRight - target.slopeRight,
    slopeForward: plane.slopeForward - target.slopeForward,
  };
  const lines = contourLines({ outline: args.outline, departure, every: args.every, standpoint: args.standpoint });
  const polygon = args.outline
    .map((p) => args.toPage(seenFrom(args.standpoint, p)))
    .map(({ x, y }) => `${x},${y}`)
    .join(" ");
  const low = lowSide(args.outline, departure, args.standpoint, args.toPage);
  return (
    <g>
      {low && (
        <>
          <linearGradient id="low-side" gradientUnits="userSpaceOnUse" x1={low.from.x} y1={low.from.y} x2={low.to.x} y2={low.to.y}>
            <stop offset="0" stopColor="var(--out-chalk)" stopOpacity={low.strength} />
            <stop offset="0.55" stopColor="var(--out-chalk)" stopOpacity={0} />
          </linearGradient>
          <polygon points={polygon} fill="url(#low-side)" />
        </>
      )}
      {lines.map(({ departure: value, from, to }) => {
        const a = args.toPage(from);
        const b = args.toPage(to);
        const isZero = Math.abs(value) < 1e-9;
        return (
          <line
            key={value}
            x1={a.x}
            y1={a.y}
            x2={b.x}
            y2={b.y}
            stroke={isZero ? "var(--chalk)" : value < 0 ? "var(--out-chalk)" : "var(--chalk-soft)"}
            strokeWidth={isZero ? 1.8 : 0.9}
            strokeOpacity={0.85}
          />
        );
      })}
    </g>
  );
}

/** Washed fully at 6 mm across the deck. */
const FULL_WASH_METRES = 0.006;

function lowSide(outline: readonly Point[], departure: Plane, standpoint: Standpoint, toPage: (p: Point) => Point) {
  const sorted = [...outline].sort((a, b) => planeHeight(departure, a) - planeHeight(departure, b));
  const [lowest] = sorted;
  const highest = sorted.at(-1);
  const slope = Math.hypot(departure.slopeRight, departure.slopeForward);
  if (!lowest || !highest || slope === 0) return undefined;
  const drop = planeHeight(departure, highest) - planeHeight(departure, lowest);
  const down = {
    x: lowest.x + (departure.slopeRight / slope) * (drop / slope),
    y: lowest.y + (departure.slopeForward / slope) * (drop / slope),
  };
  return {
    from: toPage(seenFrom(standpoint, lowest)),
    to: toPage(seenFrom(standpoint, down)),
    strength: Math.min(0.6, (drop / FULL_WASH_METRES) * 0.35),
  };
}
