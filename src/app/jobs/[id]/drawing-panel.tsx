"use client";

import { useEffect, useMemo, useRef } from "react";
import type { Assessment, DeckDetail, TyreDetail } from "@/core/checks";
import { fitPlane, type Plane, type Point, planeHeight } from "@/core/geometry";
import { type Machine, pointOf, STANDPOINT_LABELS, type Standpoint, seenFrom } from "@/core/machine";
import { formatTurns } from "@/core/units";
import { fitInto } from "@/drawings/fit";
import { MachinePlan } from "@/drawings/plan";
import { contourLines, planScene } from "@/drawings/plan/scene";
import { SwathSection } from "@/drawings/section";
import { sectionScene } from "@/drawings/section/scene";
import { useSeat } from "@/ui/person";
import { show, showSize } from "@/ui/words/checks";
import type { Worksheet } from "./use-worksheet";

const WIDTH = 620;
const PLAN_HEIGHT = 400;
const SECTION_HEIGHT = 132;
const STANDPOINTS = Object.keys(STANDPOINT_LABELS) as Standpoint[];
/** A sixteenth of an inch or two millimetres between contour lines. */
const CONTOUR = { us: 0.0254 / 16, metric: 0.002 } as const;

type Surface = { plane: Plane; target: Plane; isEstimate: boolean };

/** The tips' plane to draw: measured, or what the tyres alone are reckoned to do to a level deck. */
function surfaceOf(machine: Machine, assessment: Assessment | undefined): Surface | undefined {
  if (assessment?.check === "deck-level") {
    const { plane, target } = assessment.detail as DeckDetail;
    return plane && target ? { plane, target, isEstimate: false } : undefined;
  }
  if (assessment?.check !== "tyre-pressure") return undefined;
  const { tipChanges } = assessment.detail as TyreDetail;
  if (!tipChanges) return undefined;
  const height = machine.sheet.heightLeastMetres ?? 0.06;
  const fitted = fitPlane(tipChanges.map(({ x, y, change }) => ({ x, y, z: change + height })));
  return fitted.kind === "fitted"
    ? { plane: fitted.planeFit.plane, target: { height, slopeRight: 0, slopeForward: 0 }, isEstimate: true }
    : undefined;
}

export function DrawingPanel(args: {
  machine: Machine;
  standpoint: Standpoint;
  onStandpoint: (standpoint: Standpoint) => void;
  worksheet: Worksheet;
  assessment: Assessment | undefined;
  active: string | undefined;
  onActive: (key: string) => void;
  onStep: (by: 1 | -1) => void;
  canEnter: boolean;
}) {
  const { machine, standpoint, worksheet, assessment } = args;
  const { system } = useSeat();
  const scene = useMemo(() => planScene(machine, standpoint), [machine, standpoint]);
  const isDeck = worksheet.checkId === "deck-level";
  const fit = useMemo(
    () => fitInto({ bounds: isDeck ? scene.deckBounds : scene.bounds, width: WIDTH, height: PLAN_HEIGHT, margin: isDeck ? 58 : 46 }),
    [scene, isDeck],
  );
  const surface = surfaceOf(machine, assessment);
  const section = surface && machine.spindles.length > 0 ? sectionScene({ machine, standpoint, ...surface }) : undefined;
  const ledge =
    section?.ledgeMetres !== undefined && Math.abs(section.ledgeMetres) > 0.0008
      ? `ledge ${showSize(section.ledgeMetres, system)}`
      : undefined;
  const hotWheels =
    assessment?.check === "tyre-pressure"
      ? assessment.figures.flatMap(({ id, place, verdict }) =>
          id === "pressure" && place && (verdict === "out" || verdict === "stop") ? [place] : [],
        )
      : [];
  return (
    <section aria-label="Drawing" className="dye flex min-h-0 flex-col overflow-hidden">
      <div role="toolbar" aria-label="Where I stand" className="flex flex-wrap gap-px border-b border-[var(--chalk-faint)]">
        {STANDPOINTS.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={one === standpoint}
            onClick={() => args.onStandpoint(one)}
            className="min-h-11 flex-1 px-2 text-sm font-semibold text-[var(--chalk)] aria-pressed:bg-[var(--chalk)] aria-pressed:text-[#1a2566]"
          >
            {STANDPOINT_LABELS[one]}
          </button>
        ))}
      </div>
      <div className="grid min-h-0 flex-1 place-items-center [container-type:size] max-lg:aspect-[620/532] max-lg:flex-none">
        <div
          className="relative"
          style={{
            width: `min(100cqw, 100cqh * ${WIDTH / (PLAN_HEIGHT + SECTION_HEIGHT)})`,
            aspectRatio: `${WIDTH} / ${PLAN_HEIGHT + SECTION_HEIGHT}`,
          }}
        >
          <svg
            viewBox={`0 0 ${WIDTH} ${PLAN_HEIGHT + SECTION_HEIGHT}`}
            className="h-full w-full"
            role="img"
            aria-label={`${STANDPOINT_LABELS[standpoint]}: plan of the machine to scale, and the section beneath it. The same figures stand in the table.`}
          >
            <clipPath id="plan-area">
              <rect x={0} y={0} width={WIDTH} height={PLAN_HEIGHT} />
            </clipPath>
            <g clipPath="url(#plan-area)">
              <MachinePlan scene={scene} fit={fit} hot={{ wheels: hotWheels }} />
              {surface && machine.deck && (
                <Tilt
                  surface={surface}
                  outline={machine.deck.outline.map(pointOf)}
                  standpoint={standpoint}
                  toPage={fit.toPage}
                  every={CONTOUR[system]}
                />
              )}
              <Tips machine={machine} standpoint={standpoint} toPage={fit.toPage} assessment={assessment} />
              <HangerTurns machine={machine} standpoint={standpoint} toPage={fit.toPage} assessment={assessment} />
              <Compass
                standpoint={standpoint}
                unit={
                  worksheet.checkId === "tyre-pressure"
                    ? system === "us"
                      ? "psi"
                      : "kPa"
                    : isDeck
                      ? system === "us"
                        ? "inches"
                        : "mm"
                      : ""
                }
              />
            </g>
            <g transform={`translate(0 ${PLAN_HEIGHT})`}>
              {section ? (
                <SwathSection
                  scene={section}
                  toAcross={(across) => fit.toPage({ x: across, y: 0 }).x}
                  pixelsPerMetre={fit.scale}
                  width={WIDTH}
                  height={SECTION_HEIGHT}
                  ledge={ledge}
                  isEstimate={surface?.isEstimate ?? false}
                />
              ) : (
                <text x={WIDTH / 2} y={SECTION_HEIGHT / 2} textAnchor="middle" fontSize={14} fill="var(--chalk-soft)">
                  {emptyWords(worksheet.checkId)}
                </text>
              )}
            </g>
          </svg>
          <div className="pointer-events-none absolute inset-0">
            <Spots {...args} toShare={(p) => shareOf(fit.toPage(p))} />
          </div>
        </div>
      </div>
    </section>
  );
}

function emptyWords(checkId: string): string {
  if (checkId === "deck-level") return "Read three tips that are not on one line: the cut appears here";
  return checkId === "tyre-pressure" ? "Read every tyre: what they do to the deck appears here" : "Nothing to draw for this step";
}

const shareOf = ({ x, y }: { x: number; y: number }) => ({ left: x / WIDTH, top: y / (PLAN_HEIGHT + SECTION_HEIGHT) });

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
function Tips({
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

function HangerTurns({
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
    <g fontFamily="var(--font-mono)" textAnchor="middle">
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
function Compass({ standpoint, unit }: { standpoint: Standpoint; unit: string }) {
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

/** The places themselves: touch one and type there; it is the same field as in the table. */
function Spots(args: Parameters<typeof DrawingPanel>[0] & { toShare: (p: Point) => { left: number; top: number } }) {
  const { worksheet, active, standpoint, canEnter } = args;
  const { system } = useSeat();
  const input = useRef<HTMLInputElement>(null);
  const wantsFocus = useRef(false);
  useEffect(() => {
    if (active !== undefined && wantsFocus.current) input.current?.focus();
  }, [active]);
  if (!canEnter) return <TakenSpots {...args} system={system} />;
  return (
    <>
      {worksheet.places.map((place, order) => {
        const { left, top } = args.toShare(seenFrom(standpoint, place.at));
        const text = worksheet.draft.text[place.key] ?? "";
        const entry = worksheet.entries[place.key];
        const isWrong = entry?.kind === "refused" || entry?.kind === "unread" || worksheet.troubles.byPlace[place.key] !== undefined;
        const box = { left: `${left * 100}%`, top: `${top * 100}%` };
        if (place.key === active) {
          return (
            <input
              key={place.key}
              ref={input}
              aria-label={`${place.label}, on the drawing`}
              className={`num pointer-events-auto absolute z-10 h-11 w-24 -translate-x-1/2 -translate-y-1/2 rounded-[3px] border-2 bg-[var(--chalk)] text-center text-lg text-[#141a2b] ${isWrong ? "border-[#bd2a10]" : "border-[#e06a00]"}`}
              style={box}
              value={text}
              autoComplete="off"
              enterKeyHint="next"
              onFocus={() => {
                wantsFocus.current = true;
              }}
              onBlur={(event) => {
                if (event.relatedTarget) wantsFocus.current = false;
              }}
              onChange={(event) => worksheet.change((draft) => ({ ...draft, text: { ...draft.text, [place.key]: event.target.value } }))}
              onKeyDown={(event) => {
                if (event.key !== "Enter" || event.ctrlKey) return;
                event.preventDefault();
                wantsFocus.current = true;
                args.onStep(event.shiftKey ? -1 : 1);
              }}
            />
          );
        }
        return (
          <button
            key={place.key}
            type="button"
            tabIndex={-1}
            aria-label={`${text || order + 1}: read ${place.label}`}
            className={`num pointer-events-auto absolute grid h-11 min-w-11 -translate-x-1/2 -translate-y-1/2 place-items-center`}
            style={box}
            onClick={() => {
              wantsFocus.current = true;
              args.onActive(place.key);
            }}
          >
            <span
              className={`rounded-[3px] border px-1.5 py-0.5 text-base font-semibold ${isWrong ? "border-[var(--out-chalk)] bg-[var(--out-wash)] text-white" : text ? "border-[var(--chalk)] bg-[var(--chalk)] text-[#141a2b]" : "border-dashed border-[var(--chalk)] bg-[var(--dye-deep)] text-[var(--chalk)]"}`}
            >
              {text || order + 1}
            </span>
          </button>
        );
      })}
      <p className="sr-only" aria-live="polite">
        {active ? worksheet.places.find(({ key }) => key === active)?.label : ""}
      </p>
    </>
  );
}

/** The readings of a take that stands, shown where they were taken. */
function TakenSpots(
  args: Parameters<typeof DrawingPanel>[0] & { toShare: (p: Point) => { left: number; top: number }; system: "us" | "metric" },
) {
  const { assessment, machine, standpoint, system } = args;
  if (!assessment || args.worksheet.checkId !== assessment.check) return null;
  const spots =
    assessment.check === "deck-level"
      ? (assessment.detail as DeckDetail).tips.map((tip) => ({
          key: tip.key,
          at: { x: tip.xMetres, y: tip.yMetres },
          text: show(tip.readMetres, "length", system).replace(/ (in|mm)$/, ""),
        }))
      : (assessment.detail as TyreDetail).wheels?.map(({ wheelId, coldPressurePascals }) => {
          const wheel = machine.wheels.find(({ id }) => id === wheelId);
          return {
            key: wheelId,
            at: wheel ? pointOf(wheel) : { x: 0, y: 0 },
            text: show(coldPressurePascals, "pressure", system, "gauge").replace(/ (psi|kPa)$/, ""),
          };
        });
  return (
    <>
      {(spots ?? []).map(({ key, at, text }) => {
        const { left, top } = args.toShare(seenFrom(standpoint, at));
        return (
          <span
            key={key}
            className="num absolute -translate-x-1/2 -translate-y-1/2 rounded-[3px] bg-[var(--chalk)] px-1.5 text-sm font-semibold text-[#141a2b]"
            style={{ left: `${left * 100}%`, top: `${top * 100}%` }}
          >
            {text}
          </span>
        );
      })}
    </>
  );
}
