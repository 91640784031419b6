import * as z from "zod";
import type { Figure, Finding, Verdict } from "@/core/basics/findings";
import { physical } from "@/core/basics/units/physical";
import { type Machine, type Spindle, spindlesAcross } from "@/core/machine";
import { type ClearRange, clearRanges, closestApproach, type TimedPair, toothAngle } from "@/core/physics/blades/timing";
import type { Form, QuantityAsked } from "../form";
import { pointsAt, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";

/** Geared neighbours keep this distance over a full turn. Estimate: 1/4 in. */
export const LEAST_TIMED_GAP_METRES = 0.006;
/** Width of a blade whose sheet gives none. Estimate: 2 1/2 in. */
const USUAL_WIDTH_METRES = 0.0635;
const DEGREE = Math.PI / 180;

export const timingReadingsSchema = z.object({
  /** By neighbours from the driver's left, "left:middle". */
  pairs: z
    .record(
      z.string(),
      z.object({
        /** Between the two blades with the left one on the line of their centres; of opposite ones, the sum of their angles. */
        phaseDegrees: z.number().min(0).max(180).optional(),
        /** Play of the gears as felt at the blade. */
        lashDegrees: z.number().min(0).max(90).optional(),
        turned: z.enum(["clear", "touches"]).optional(),
        /** How the marks on the two shafts stood, where they were marked before the box came off. */
        marks: z.enum(["in-line", "off", "none"]).optional(),
      }),
    )
    .default({}),
  /** Lengths as measured, corner to corner, where they are not the sheet's. */
  blades: z.record(z.string(), z.object({ lengthMetres: physical("metres", 2).optional() })).default({}),
});

export type TimingReadings = z.output<typeof timingReadingsSchema>;

export type TimingDetail = {
  /** Corner to corner, by spindle, where a blade was measured. */
  fitted?: Record<string, number>;
  pairs: {
    id: string;
    sense: "same" | "opposite";
    phaseDegrees?: number;
    lashDegrees?: number;
    gapMetres?: number;
    atDegrees?: number;
    /** By so much, about one tooth of the coupling, it stands from square to its neighbour. */
    oneToothDegrees?: number;
    clearDegrees: [number, number][];
  }[];
};

type Says = {
  action: { code: "retime"; place: string; from: number; to: number } | { code: "look-at-marks"; place: string; offDegrees: number };
  warning: { code: "not-run-mistimed" };
  provisional: { code: "not-turned"; place: string } | { code: "blade-width-assumed"; metres: number };
  problem: { code: "unknown-pair"; place: string } | { code: "unknown-spindle"; place: string };
};

export const bladeTiming: Check<TimingReadings, TimingDetail, Says> = {
  id: "blade-timing",
  ruleVersion: 3,
  cautions: ["turn-by-hand"],
  readingsSchema: timingReadingsSchema,
  missing: (machine) => (machine.spindles.length < 2 ? ["one-blade"] : []),
  problems: (machine, { pairs, blades }) => [
    ...Object.keys(pairs)
      .filter((id) => !neighbours(machine).some((pair) => pair.id === id))
      .map((id) => ({ code: "unknown-pair" as const, path: ["pairs", id], place: id })),
    ...unknownPlaces({ read: blades, known: machine.spindles, path: "blades", code: "unknown-spindle" }),
  ],
  form: formOf,
  assess,
};

type Neighbours = { id: string; one: Spindle; other: Spindle };

function neighbours(machine: Machine): Neighbours[] {
  const across = spindlesAcross(machine);
  return across.slice(1).flatMap((other, index) => {
    const one = across[index];
    return one ? [{ id: `${one.id}:${other.id}`, one, other }] : [];
  });
}

/** The pair as the gears hold it: sizes from the sheet, turning from the spindles. */
export function timedPair(machine: Machine, { one, other }: Pick<Neighbours, "one" | "other">): TimedPair {
  const widthMetres = machine.sheet.blade?.widthMetres ?? USUAL_WIDTH_METRES;
  // The tip circle is measured corner to corner: the blade's own length is a little less.
  const bladeOf = ({ tipCircleDiameterMetres: corner }: Spindle) => ({
    lengthMetres: Math.sqrt(Math.max(0, corner ** 2 - widthMetres ** 2)),
    widthMetres,
  });
  return {
    one: bladeOf(one),
    other: bladeOf(other),
    centresMetres: Math.hypot(one.xMetres - other.xMetres, one.yMetres - other.yMetres),
    sense: one.turns === other.turns ? "same" : "opposite",
  };
}

function formOf(machine: Machine): Form {
  const pairs = neighbours(machine);
  return {
    groups: [
      ...pairs.map(({ id, one, other }) => ({
        id,
        label: `${one.label} and ${other.label.toLowerCase()}`,
        at: { x: (one.xMetres + other.xMetres) / 2, y: (one.yMetres + other.yMetres) / 2 },
      })),
      { id: "fitted", label: "Blades that are not the sheet's length", isFolded: true },
    ],
    fields: [
      ...pairs.flatMap(({ id }): Form["fields"] => [
        {
          kind: "choice",
          path: ["pairs", id, "turned"],
          group: id,
          label: "Turned by hand through a full turn",
          options: [
            { id: "clear", label: "Nothing touches" },
            { id: "touches", label: "Touches" },
          ],
        },
        {
          kind: "number",
          path: ["pairs", id, "phaseDegrees"],
          group: id,
          label: "Left one on the line of centres: angle of the other",
          least: 0,
          most: 180,
          unit: "°",
          isOptional: true,
        },
        {
          kind: "number",
          path: ["pairs", id, "lashDegrees"],
          group: id,
          label: "Play felt at the blade",
          least: 0,
          most: 90,
          unit: "°",
          isOptional: true,
        },
        {
          kind: "choice",
          path: ["pairs", id, "marks"],
          group: id,
          label: "Marks on the shafts",
          isOptional: true,
          options: [
            { id: "in-line", label: "In line" },
            { id: "off", label: "A tooth off" },
            { id: "none", label: "Not marked" },
          ],
        },
      ]),
      ...spindlesAcross(machine).map(
        (spindle): QuantityAsked => ({
          kind: "quantity",
          path: ["blades", spindle.id, "lengthMetres"],
          group: "fitted",
          label: `${spindle.label}, corner to corner`,
          isOptional: true,
          dimension: "length",
          instrument: "tape",
          onSheet: spindle.tipCircleDiameterMetres,
          range: {
            least: 0.1,
            most: 2,
            usualLeast: spindle.tipCircleDiameterMetres * 0.8,
            usualMost: spindle.tipCircleDiameterMetres * 1.1,
          },
        }),
      ),
    ],
  };
}

/** The machine with its blades as they were measured: unequal ones are timed as they are. */
export function asFitted(machine: Machine, fitted: Readonly<Record<string, number>> | undefined): Machine {
  if (!fitted) return machine;
  return {
    ...machine,
    spindles: machine.spindles.map((spindle) => ({
      ...spindle,
      tipCircleDiameterMetres: fitted[spindle.id] ?? spindle.tipCircleDiameterMetres,
    })),
  };
}

function assess(sheetMachine: Machine, { pairs, blades }: TimingReadings): Assessment<TimingDetail, Says> {
  const measured = Object.entries(blades).flatMap(([id, { lengthMetres }]) =>
    lengthMetres === undefined ? [] : [[id, lengthMetres] as const],
  );
  const fitted = measured.length === 0 ? undefined : Object.fromEntries(measured);
  const machine = asFitted(sheetMachine, fitted);
  const all = neighbours(machine);
  const detail: TimingDetail = {
    ...(fitted ? { fitted } : {}),
    pairs: all.map((pair) => detailOf(machine, pair, pairs[pair.id])),
  };
  const findings = detail.pairs.flatMap((pair) => findingsAt(pair, pairs[pair.id]));
  const unread = all.filter(({ id }) => pairs[id]?.turned === undefined);
  return {
    check: "blade-timing",
    ruleVersion: bladeTiming.ruleVersion,
    ...settled({
      check: "blade-timing",
      findings,
      // Clear by hand and a tooth out is possible: what nobody asked of the marks clears nothing.
      clears: { "gearbox-mistimed": unread.length === 0 && all.every(({ id }) => pairs[id]?.marks !== undefined) },
      told: all.filter((pair) => !unread.includes(pair)).map(({ id }) => id),
      isComplete: unread.length === 0,
    }),
    provisional: [
      ...unread.map(({ id }) => ({ code: "not-turned" as const, place: id })),
      ...(machine.sheet.blade?.widthMetres === undefined ? [{ code: "blade-width-assumed" as const, metres: USUAL_WIDTH_METRES }] : []),
    ],
    figures: detail.pairs.flatMap(figureOf),
    actions: actionsOf(findings, detail),
    warnings: findings.some(({ verdict }) => verdict === "stop") ? [{ code: "not-run-mistimed" as const }] : [],
    detail,
  };
}

/** The clear range hangs on the machine alone: kept for the next keystroke, since it takes longest. */
const kept = new Map<string, [number, number][]>();
const MOST_KEPT = 30;

function clearDegrees(pair: TimedPair): [number, number][] {
  const key = JSON.stringify(pair);
  const known = kept.get(key);
  if (known) return known;
  if (kept.size >= MOST_KEPT) kept.clear();
  const found = clearRanges(pair, LEAST_TIMED_GAP_METRES).map(degreesOf);
  kept.set(key, found);
  return found;
}

const degreesOf = ({ fromPhase, toPhase }: ClearRange): [number, number] => [fromPhase / DEGREE, toPhase / DEGREE];

function detailOf(machine: Machine, pair: Neighbours, read: TimingReadings["pairs"][string] | undefined): TimingDetail["pairs"][number] {
  const timed = timedPair(machine, pair);
  const base = { id: pair.id, sense: timed.sense, clearDegrees: clearDegrees(timed) };
  if (read?.phaseDegrees === undefined) return base;
  const off = offByTooth(machine, read.phaseDegrees, read.lashDegrees ?? 0);
  // With play in the gears the pair may stand anywhere within it.
  const lash = (read.lashDegrees ?? 0) / 2;
  const worst = (lash === 0 ? [0] : [-lash, 0, lash])
    .map((by) => closestApproach(timed, ((read.phaseDegrees ?? 0) + by) * DEGREE))
    .reduce((least, one) => (one.gapMetres < least.gapMetres ? one : least));
  return {
    ...base,
    phaseDegrees: read.phaseDegrees,
    ...(read.lashDegrees === undefined ? {} : { lashDegrees: read.lashDegrees }),
    gapMetres: worst.gapMetres,
    ...(off === undefined ? {} : { oneToothDegrees: off }),
    atDegrees: worst.atAngle / DEGREE,
  };
}

/** Blades of a geared deck are fitted square to their neighbours (common practice). */
const SQUARE_DEGREES = 90;

/** By how much a pair stands off square, where that is nearer to a tooth of its coupling than to none and more than its play. */
function offByTooth({ sheet }: Machine, phaseDegrees: number, lashDegrees: number): number | undefined {
  const teeth = sheet.gearboxes?.find(({ splineTeeth }) => splineTeeth !== undefined)?.splineTeeth;
  if (teeth === undefined) return undefined;
  const off = Math.abs(phaseDegrees - SQUARE_DEGREES);
  return off > toothAngle(teeth) / DEGREE / 2 && off > lashDegrees / 2 ? off : undefined;
}

function actionsOf(findings: readonly Finding[], { pairs }: TimingDetail): Says["action"][] {
  const off = findings.filter(({ verdict }) => verdict !== "in-tolerance");
  return [...new Set(off.map(({ place }) => place))].map((place): Says["action"] => {
    const own = off.filter((one) => one.place === place);
    const pair = pairs.find(({ id }) => id === place);
    if (own.every(({ code, verdict }) => code === "one-tooth" && verdict === "watch"))
      return { code: "look-at-marks", place, offDegrees: pair?.oneToothDegrees ?? 0 };
    const [from, to] = pair?.clearDegrees[0] ?? [SQUARE_DEGREES, SQUARE_DEGREES];
    return { code: "retime", place, from, to };
  });
}

type Read = TimingReadings["pairs"][string] | undefined;

function findingsAt({ id: place, gapMetres, oneToothDegrees }: TimingDetail["pairs"][number], read: Read): Finding[] {
  const turned = read?.turned;
  // Turned by hand and clear, an angle that says otherwise is one reading against another: it stops, and only points at the cause.
  const causes = turned === "clear" ? pointsAt("gearbox-mistimed") : shows("gearbox-mistimed");
  const off: Finding[] = [
    ...(turned === "touches" || (gapMetres !== undefined && gapMetres <= 0)
      ? [{ place, code: "strikes", verdict: "stop" as const, causes }]
      : []),
    ...(gapMetres !== undefined && gapMetres > 0 && gapMetres < LEAST_TIMED_GAP_METRES
      ? [{ place, code: "too-near", verdict: "out" as const, causes }]
      : []),
    // Clear as it stands, and yet not as it was fitted: only the marks say whether this is the machine's own.
    ...(read?.marks === "off"
      ? [{ place, code: "one-tooth", verdict: "out" as const, causes: shows("gearbox-mistimed") }]
      : oneToothDegrees !== undefined && read?.marks !== "in-line"
        ? [{ place, code: "one-tooth", verdict: "watch" as const, causes: pointsAt("gearbox-mistimed") }]
        : []),
  ];
  return off.length === 0 && turned === "clear" ? [{ place, code: "clear", verdict: "in-tolerance" }] : off;
}

function figureOf({ id, gapMetres }: TimingDetail["pairs"][number]): Figure[] {
  if (gapMetres === undefined) return [];
  const verdict: Verdict = gapMetres <= 0 ? "stop" : gapMetres < LEAST_TIMED_GAP_METRES ? "out" : "in-tolerance";
  return [
    {
      id: "closest-approach",
      place: id,
      value: gapMetres,
      dimension: "length",
      instrument: "fine",
      tolerance: { kind: "between", least: LEAST_TIMED_GAP_METRES, standing: "estimate" },
      verdict,
      standing: "physics",
    },
  ];
}
