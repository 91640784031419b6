"use client";

import { Suspense, useMemo } from "react";
import type { Verdict } from "@/core/basics/findings";
import type { Point } from "@/core/basics/geometry";
import { table } from "@/core/basics/tables";
import { formatQuantity, shownUnit, type UnitSystem, unitById } from "@/core/basics/units";
import { type Assessment, type Field, type Form, keyOf, type QuantityAsked, readAt } from "@/core/checks";
import { type Machine, STANDPOINT_LABELS, type Standpoint, seenFrom } from "@/core/machine";
import { type Fit, fitInto } from "@/drawings/fit";
import { MachinePlan } from "@/drawings/plan";
import { planScene } from "@/drawings/plan/scene";
import { faceOf } from "../checks/faces";
import { sayState } from "../checks/words";
import { VerdictMark } from "../verdict";
import { FieldSpot } from "./field-spot";

const WIDTH = 620;
const HEIGHT = 330;
/** With a section beneath, the plan is given more room; alone it has all of it. */
const TALL = 400;
const ALONE = 500;
const BENEATH_HEIGHT = 132;
const MARGIN = { deck: 34, machine: 46, fields: 58 } as const;

export type BoardArgs = {
  check: string;
  machine: Machine;
  system: UnitSystem;
  form: Form;
  readings: unknown;
  assessment: Assessment | undefined;
  standpoint: Standpoint;
  /** Nothing is drawn beneath it. */
  isAlone: boolean;
  /** What of the machine is shown, where the check does not say. */
  plan?: "deck" | "machine";
  group: string | undefined;
  onGroup: ((group: string) => void) | undefined;
  /** What is typed at the places of fields; absent where nothing may be entered. */
  entry?: {
    active: string | undefined;
    onActive: (key: string) => void;
    onStep: (from: string, by: 1 | -1) => void;
    text: Readonly<Record<string, string>>;
    onText: (key: string, text: string) => void;
    isWrong: (key: string) => boolean;
  };
};

type Placed = QuantityAsked & { at: Point };
const isPlaced = (field: Field): field is Placed => field.kind === "quantity" && field.at !== undefined;

/** The machine to scale, with a spot for each group or field that has a place: touch one and read there. */
export function PlanBoard(args: BoardArgs) {
  const { machine, form, assessment, standpoint, system } = args;
  const { over: Over, beneath: Beneath, plan = args.plan ?? "deck" } = faceOf(args.check);
  const scene = useMemo(() => planScene(machine, standpoint), [machine, standpoint]);
  const placed = form.fields.filter(isPlaced);
  const height = Beneath ? TALL : args.isAlone ? ALONE : HEIGHT;
  const whole = height + (Beneath ? BENEATH_HEIGHT : 0);
  const margin = plan === "deck" && placed.length > 0 ? MARGIN.fields : MARGIN[plan];
  const fit = useMemo(
    () => fitInto({ bounds: plan === "deck" ? scene.deckBounds : scene.bounds, width: WIDTH, height, margin }),
    [scene, plan, height, margin],
  );
  const drawn = { machine, standpoint, system, readings: args.readings, assessment, toPage: fit.toPage };
  const bad = (assessment?.marks ?? []).flatMap(({ place, verdict }) => (verdict === "out" || verdict === "stop" ? [place] : []));
  return (
    <div
      className="grid min-h-0 flex-1 place-items-center [container-type:size] max-lg:flex-none"
      style={{ aspectRatio: `${WIDTH} / ${whole}` }}
    >
      <div className="relative" style={{ width: `min(100cqw, 100cqh * ${WIDTH / whole})`, aspectRatio: `${WIDTH} / ${whole}` }}>
        <svg
          viewBox={`0 0 ${WIDTH} ${whole}`}
          className="h-full w-full"
          role="img"
          aria-label={`${STANDPOINT_LABELS[standpoint]}: ${plan === "deck" ? "the deck" : "the machine"} to scale, with the places to look at${Beneath ? ", and the section of the swath beneath" : ""}. The same figures stand in the table.`}
        >
          <clipPath id="plan-area">
            <rect x={0} y={0} width={WIDTH} height={height} />
          </clipPath>
          <g clipPath="url(#plan-area)">
            <MachinePlan scene={scene} fit={fit} hot={{ wheels: bad }} />
            {Over && (
              <Suspense fallback={null}>
                <Over {...drawn} />
              </Suspense>
            )}
            {placed[0] && <Compass standpoint={standpoint} unit={unitById(shownUnit({ dimension: placed[0].dimension, system })).symbol} />}
          </g>
          {Beneath && (
            <g transform={`translate(0 ${height})`}>
              <Suspense fallback={null}>
                <Beneath {...drawn} pixelsPerMetre={fit.scale} width={WIDTH} height={BENEATH_HEIGHT} />
              </Suspense>
            </g>
          )}
        </svg>
        <GroupSpots {...args} fit={fit} whole={whole} />
        {placed.map((field, order) => {
          const { x, y } = fit.toPage(seenFrom(standpoint, field.at));
          return <SpotOf key={keyOf(field.path)} {...args} field={field} order={order + 1} left={x / WIDTH} top={y / whole} />;
        })}
        {args.entry && (
          <p className="sr-only" aria-live="polite">
            {placed.find(({ path }) => keyOf(path) === args.entry?.active)?.label ?? ""}
          </p>
        )}
      </div>
    </div>
  );
}

/** A place of a field: to type in, or with what was read there. */
function SpotOf(args: BoardArgs & { field: Placed; order: number; left: number; top: number }) {
  const { field, entry, system } = args;
  const key = keyOf(field.path);
  const box = { left: `${args.left * 100}%`, top: `${args.top * 100}%` };
  if (entry)
    return (
      <FieldSpot
        label={field.label}
        order={args.order}
        box={box}
        text={entry.text[key] ?? ""}
        isActive={entry.active === key}
        isWrong={entry.isWrong(key)}
        onActive={() => entry.onActive(key)}
        onText={(text) => entry.onText(key, text)}
        onStep={(by) => entry.onStep(key, by)}
      />
    );
  const read = readAt(args.readings, field.path);
  if (typeof read !== "number") return null;
  return (
    <span
      className="num absolute -translate-x-1/2 -translate-y-1/2 rounded-[3px] bg-[var(--chalk)] px-1.5 text-sm font-semibold text-[#141a2b]"
      style={box}
    >
      {formatQuantity({ valueSi: read, dimension: field.dimension, system, instrument: field.instrument }).number}
    </span>
  );
}

function GroupSpots({ form, assessment, standpoint, fit, whole, ...args }: BoardArgs & { fit: Fit; whole: number }) {
  const placed = form.groups.filter(({ at }) => at !== undefined);
  return placed.map(({ id, label, at }, order) => {
    const { x, y } = fit.toPage(seenFrom(standpoint, at ?? { x: 0, y: 0 }));
    const marks = (assessment?.marks ?? []).filter(({ place }) => place === id);
    return (
      <Spot
        key={id}
        label={label}
        order={order + 1}
        verdict={marks[0]?.verdict}
        said={marks[0]?.code === undefined ? "" : sayState(args.check, marks[0].code)}
        isHere={id === args.group}
        left={x / WIDTH}
        top={y / whole}
        onOpen={args.onGroup && (() => args.onGroup?.(id))}
      />
    );
  });
}

const INK: Record<Verdict, string> = {
  "in-tolerance": "border-[var(--good-chalk)]",
  watch: "border-[var(--chalk)]",
  out: "border-[var(--out-chalk)]",
  stop: "border-[var(--out-chalk)]",
  "not-enough-readings": "border-dashed border-[var(--chalk)]",
};

function Spot(args: {
  label: string;
  order: number;
  verdict: Verdict | undefined;
  said: string;
  isHere: boolean;
  left: number;
  top: number;
  onOpen: (() => void) | undefined;
}) {
  const { label, order, verdict, said, isHere } = args;
  const body = (
    <span
      className={`num flex items-center gap-1.5 rounded-[3px] border-2 px-1.5 py-0.5 text-sm font-semibold whitespace-nowrap ${verdict ? INK[verdict] : "border-dashed border-[var(--chalk)]"} ${isHere ? "bg-[var(--chalk)] text-[#141a2b]" : "bg-[var(--dye-deep)] text-[var(--chalk)]"}`}
    >
      {verdict ? (
        <VerdictMark
          verdict={verdict}
          size={14}
          ink={isHere ? "#141a2b" : verdict === "out" || verdict === "stop" ? "var(--out-chalk)" : "var(--chalk)"}
        />
      ) : (
        order
      )}
      {said}
    </span>
  );
  const place = { left: `${args.left * 100}%`, top: `${args.top * 100}%` };
  const shape = "absolute grid min-h-11 min-w-11 -translate-x-1/2 -translate-y-1/2 place-items-center";
  return args.onOpen ? (
    <button
      type="button"
      tabIndex={-1}
      className={shape}
      style={place}
      aria-label={said ? `${label}: ${said}` : verdict ? label : `${order}. ${label}`}
      onClick={args.onOpen}
    >
      {body}
    </button>
  ) : (
    <span className={shape} style={place}>
      <span className="sr-only">{label}</span>
      {body}
    </span>
  );
}

const UNIT_WORDS: Record<string, string> = table({ in: "inches" });

/** Which way the machine drives. */
function Compass({ standpoint, unit }: { standpoint: Standpoint; unit: string }) {
  const ahead = seenFrom(standpoint, { x: 0, y: 1 });
  const angle = (Math.atan2(ahead.x, ahead.y) * 180) / Math.PI;
  return (
    <g transform="translate(26 28)">
      <path d="M0 14V-13M-7 -5L0 -14L7 -5" fill="none" stroke="var(--chalk)" strokeWidth={2.2} transform={`rotate(${angle})`} />
      <text x={16} y={5} fontSize={12} fill="var(--chalk-soft)" stroke="var(--dye)" strokeWidth={4} paintOrder="stroke">
        drives this way; figures in {UNIT_WORDS[unit] ?? unit}
      </text>
    </g>
  );
}
