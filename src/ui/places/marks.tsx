"use client";

import type { Assessment, DeckDetail } from "@/core/checks";
import { type Plane, type Point, planeHeight } from "@/core/geometry";
import { type Machine, pointOf, type Standpoint, seenFrom } from "@/core/machine";
import { formatTurns } from "@/core/units";
import { contourLines } from "@/drawings/plan/scene";
import { useSeat } from "@/ui/person";
import { showSize } from "@/ui/words/checks";
import type { Surface } from "./drawing-panel";

/** The tips' plane as lines of equal departure from where it should be, low side washed. */
export function Tilt(args: {
  surface: Surface;
  outline: readonly Point[];
  standpoint: Standpoint;
  toPage: (p: Point) => Point;
  every: number;
}) {
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

/** A tip further off than this is drawn as off (common practice, 1/16 in); nearer than the other it is simply right. */
const NOTICED_METRES = 0.0016;
const NOT_WORTH_METRES = 0.0008;

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

/** At each tip read: how far off its target, and what the ruler will read when it is right. */
export function Tips({
  machine,
  standpoint,
  toPage,
  assessment,
}: {
  machine: Machine;
  standpoint: Standpoint;
  toPage: (p: Point) => Point;
  assessment: Assessment | undefined;
}) {
  const { system } = useSeat();
  if (assessment?.check !== "deck-level") return null;
  const { tips } = assessment.detail as DeckDetail;
  const isCrowded = tips.length > 8;
  return (
    <g fontFamily="var(--font-mono)" fontSize={13} textAnchor="middle">
      {tips.map((tip) => {
        const at = toPage(seenFrom(standpoint, { x: tip.xMetres, y: tip.yMetres }));
        const off = tip.heightMetres - tip.targetMetres;
        const spindle = machine.spindles.find(({ id }) => id === tip.spindleId);
        const centre = spindle ? toPage(seenFrom(standpoint, pointOf(spindle))) : at;
        return (
          <g key={tip.key}>
            <line x1={centre.x} y1={centre.y} x2={at.x} y2={at.y} stroke="var(--chalk)" strokeWidth={3} strokeOpacity={0.8} />
            {!isCrowded && (
              <text
                x={at.x}
                y={at.y + 32}
                fill={Math.abs(off) > NOTICED_METRES ? "var(--out-chalk)" : "var(--good-chalk)"}
                stroke="var(--dye-deep)"
                strokeWidth={4}
                paintOrder="stroke"
                fontWeight={600}
              >
                {Math.abs(off) < NOT_WORTH_METRES ? "right" : `${off > 0 ? "+" : "−"}${showSize(off, system).replace(/ (in|mm)$/, "")}`}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

export function HangerTurns({
  machine,
  standpoint,
  toPage,
  assessment,
}: {
  machine: Machine;
  standpoint: Standpoint;
  toPage: (p: Point) => Point;
  assessment: Assessment | undefined;
}) {
  const turns = assessment?.check === "deck-level" ? ((assessment.detail as DeckDetail).plan?.hangers ?? []) : [];
  return (
    <g fontFamily="var(--font-sans)" textAnchor="middle">
      {(machine.deck?.hangers ?? []).map((hanger) => {
        const at = toPage(seenFrom(standpoint, pointOf(hanger)));
        const turn = turns.find(({ id }) => id === hanger.id);
        const isMoved = turn !== undefined && turn.turns !== 0;
        return (
          <g key={hanger.id} transform={`translate(${at.x} ${at.y})`}>
            <path
              d="M-6 -6h12v12h-12z"
              fill={isMoved ? "var(--out-chalk)" : "var(--dye-deep)"}
              stroke="var(--chalk)"
              strokeWidth={1.6}
              transform="rotate(45)"
            />
            {isMoved && (
              <text
                y={-14}
                fontSize={20}
                fontWeight={700}
                fill="var(--out-chalk)"
                stroke="var(--dye-deep)"
                strokeWidth={4}
                paintOrder="stroke"
              >
                {turn.turns > 0 ? "↑" : "↓"}
                {formatTurns(turn.turns)}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Which way the machine drives. */
export function Compass({ standpoint, unit }: { standpoint: Standpoint; unit: string }) {
  const ahead = seenFrom(standpoint, { x: 0, y: 1 });
  const angle = (Math.atan2(ahead.x, ahead.y) * 180) / Math.PI;
  return (
    <g transform="translate(26 28)">
      <rect x={-18} y={-20} width={unit ? 222 : 118} height={40} fill="var(--dye)" />
      <path d="M0 14V-13M-7 -5L0 -14L7 -5" fill="none" stroke="var(--chalk)" strokeWidth={2.2} transform={`rotate(${angle})`} />
      <text x={16} y={5} fontSize={12} fill="var(--chalk-soft)">
        drives this way{unit ? `; figures in ${unit}` : ""}
      </text>
    </g>
  );
}
