import * as z from "zod";
import { type Figure, type Finding, judgeDeviation } from "@/core/basics/findings";
import { fromSi, toSi } from "@/core/basics/units";
import { physicalOrNought } from "@/core/basics/units/physical";
import { featuresOf } from "@/core/catalogue/kinds";
import { type Machine, pointOf, powerOf, spindlesAcross } from "@/core/machine";
import { choices, type Form } from "../form";
import { pointsAt, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";

/** At the tip, of play that is not the blade's. Estimate: 1/16 in. */
export const MOST_PLAY_METRES = 0.0015;
/** A hub this much above the middle one of its deck is suspect. Estimate. */
export const HOTTER_BY_KELVIN = 20;
/** A hub cooler than this accuses nobody, however cold its sisters are: hot to the hand begins here. Estimate: 50 °C. */
export const HOT_FROM_KELVIN = 323.15;

export const playReadingsSchema = z.object({
  spindles: z
    .record(
      z.string(),
      z.object({
        playMetres: physicalOrNought("metres", 0.2).optional(),
        feel: z.enum(["smooth", "rough", "binding"]).optional(),
        wrap: z.enum(["none", "grass", "wire"]).optional(),
        seat: z.enum(["flush", "step"]).optional(),
        hubKelvin: z.number().min(230).max(500).optional(),
        /** Of a blade on the engine's or motor's own shaft: the key that drives it, and its end as it is turned by hand. */
        key: z.enum(["whole", "sheared"]).optional(),
        shaftEnd: z.enum(["true", "wobbles"]).optional(),
      }),
    )
    .default({}),
  /** What the spindle log says is due; brought by the record. */
  grease: z.array(z.object({ place: z.string(), what: z.enum(["top-up", "purge"]), overHours: z.number().min(0) })).optional(),
});

export type PlayReadings = z.output<typeof playReadingsSchema>;
type Read = PlayReadings["spindles"][string];

type Says = {
  action:
    | { code: "clear-winding"; place: string; what: string }
    | { code: "seat-bearing"; place: string }
    | { code: "hold-for-crankshaft"; place: string }
    | { code: "change-bearings"; place: string }
    | { code: "grease-spindle"; place: string; what: string; overHours: number };
  warning: { code: "hub-unit-doubtful"; place: string } | { code: "not-run-bent-shaft" };
  provisional: { code: "place-unread"; place: string } | { code: "hub-unit-doubtful"; place: string };
  problem: { code: "unknown-spindle"; place: string };
};

export const spindlePlay: Check<PlayReadings, { middleKelvin?: number }, Says> = {
  id: "spindle-play",
  ruleVersion: 4,
  cautions: ["turn-by-hand", "dry-bearing-air"],
  readingsSchema: playReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems: (machine, { spindles }) =>
    unknownPlaces({ read: spindles, known: machine.spindles, path: "spindles", code: "unknown-spindle" }),
  form: formOf,
  wants: "grease-due",
  assess,
};

function formOf(machine: Machine): Form {
  const across = spindlesAcross(machine);
  const isDirect = featuresOf(machine).includes("direct-drive");
  return {
    groups: across.map((spindle) => ({ id: spindle.id, label: spindle.label, at: pointOf(spindle) })),
    fields: across.flatMap(({ id }): Form["fields"] => [
      {
        kind: "quantity",
        path: ["spindles", id, "playMetres"],
        group: id,
        label: "Play at the tip, rocked up and down",
        dimension: "length",
        instrument: "fine",
        range: { least: 0, most: 0.2, usualLeast: 0, usualMost: 0.02 },
      },
      {
        kind: "choice",
        path: ["spindles", id, "feel"],
        group: id,
        label: "Turned slowly, dry",
        options: choices(["smooth", "Smooth"], ["rough", "Rough"], ["binding", "Binding"]),
      },
      {
        kind: "choice",
        path: ["spindles", id, "wrap"],
        group: id,
        label: "Wound on the shaft",
        options: choices(["none", "Nothing"], ["grass", "Grass"], ["wire", "Wire or string"]),
      },
      ...(isDirect
        ? [
            {
              kind: "choice" as const,
              path: ["spindles", id, "key"],
              group: id,
              label: powerOf(machine) === "combustion" ? "Key of blade carrier and flywheel" : "Key of the blade carrier",
              options: choices(["whole", "Whole"], ["sheared", "Sheared or marked"]),
            },
            {
              kind: "choice" as const,
              path: ["spindles", id, "shaftEnd"],
              group: id,
              label: "Shaft's end against a pointer, turned by hand",
              options: choices(["true", "Runs true"], ["wobbles", "Wobbles"]),
            },
          ]
        : [
            {
              kind: "choice" as const,
              path: ["spindles", id, "seat"],
              group: id,
              label: "Bearing in its seat",
              options: choices(["flush", "Flush"], ["step", "Shows a step"]),
            },
          ]),
      {
        kind: "quantity",
        path: ["spindles", id, "hubKelvin"],
        group: id,
        label: "Hub after a run",
        isOptional: true,
        dimension: "temperature",
        instrument: "gauge",
        range: { least: 230, most: 500, usualLeast: 263, usualMost: 400 },
      },
    ]),
  };
}

function isTold(machine: Machine, read: Read | undefined): boolean {
  const isSeen = featuresOf(machine).includes("direct-drive")
    ? read?.key !== undefined && read.shaftEnd !== undefined
    : read?.seat !== undefined;
  return read?.playMetres !== undefined && read.feel !== undefined && read.wrap !== undefined && isSeen;
}

/** A number typed in the other scale of temperature, as it was meant. */
const MEANT: readonly ((kelvin: number) => number)[] = [
  (kelvin) => toSi(fromSi(kelvin, "f"), "c"),
  (kelvin) => toSi(fromSi(kelvin, "c"), "f"),
];

/**
 * Hubs whose heat stands far from all the others as typed, and among them once the same digits are taken in the other scale: most likely typed
 * with the wrong unit.
 */
function mixedUnits(heats: Readonly<Record<string, number | undefined>>): string[] {
  const read = Object.entries(heats).flatMap(([place, kelvin]) => (kelvin === undefined ? [] : [{ place, kelvin }]));
  const isNear = (kelvin: number, others: readonly number[]) => others.every((other) => Math.abs(kelvin - other) <= HOTTER_BY_KELVIN);
  return read.flatMap(({ place, kelvin }) => {
    const others = read.filter((one) => one.place !== place).map((one) => one.kelvin);
    const isFar = others.length > 0 && others.every((other) => Math.abs(kelvin - other) > HOTTER_BY_KELVIN);
    return isFar && MEANT.some((meant) => isNear(meant(kelvin), others)) ? [place] : [];
  });
}

/** What a finding at a spindle says: of a blade on the engine's own shaft the engine's parts, else its bearing. */
function causesOf(machine: Machine, code: string): Finding["causes"] {
  const isDirect = featuresOf(machine).includes("direct-drive");
  if (code === "grass" || code === "wire") return shows("shaft-wrapped");
  if (isDirect && powerOf(machine) !== "combustion") return [];
  if (code === "key-sheared") return shows(KEY);
  if (code === "shaft-wobbles") return shows(CRANK);
  if (isDirect) return BEARING.includes(code) && code !== "step" ? pointsAt(CRANK) : [];
  if (BEARING.includes(code)) return shows("spindle-bearing-worn");
  return code === "hot" ? pointsAt("spindle-bearing-worn") : [];
}

const CRANK = "crankshaft-bent";
const KEY = "key-sheared";
const BEARING: readonly string[] = ["rough", "binding", "play", "step"];

/** The most a hub may be where the middle one of its deck is so warm. */
const hottest = (middleKelvin: number): number => Math.max(middleKelvin + HOTTER_BY_KELVIN, HOT_FROM_KELVIN);

/** The middle one of several heats, of two the cooler: one cool hub makes no sister look hot, as the coolest would. */
function middleOf(heats: readonly number[]): number | undefined {
  if (heats.length < 2) return undefined;
  const sorted = [...heats].sort((a, b) => a - b);
  return sorted[heats.length === 2 ? 0 : Math.floor(heats.length / 2)];
}

/** All that is off with a spindle; sound only where everything was told and nothing is. */
function findingsAt(machine: Machine, place: string, read: Read, middle: number | undefined): Finding[] {
  const found = (code: string, verdict: Finding["verdict"]): Finding => ({ place, code, verdict, causes: causesOf(machine, code) });
  const play = read.playMetres === undefined ? undefined : judgeDeviation({ deviation: read.playMetres, tolerance: MOST_PLAY_METRES });
  const isHot = read.hubKelvin !== undefined && middle !== undefined && read.hubKelvin > hottest(middle);
  const off: Finding[] = [
    ...(read.key === "sheared" ? [found("key-sheared", "stop")] : []),
    ...(read.shaftEnd === "wobbles" ? [found("shaft-wobbles", "stop")] : []),
    ...(read.feel === "rough" || read.feel === "binding" ? [found(read.feel, "out")] : []),
    ...(play === "out" ? [found("play", "out")] : []),
    ...(read.seat === "step" ? [found("step", "out")] : []),
    ...(read.wrap === "grass" || read.wrap === "wire" ? [found(read.wrap, "out")] : []),
    ...(isHot ? [found("hot", "watch")] : []),
    ...(play === "watch" ? [found("near-limit", "watch")] : []),
  ];
  return off.length === 0 && isTold(machine, read) ? [found("sound", "in-tolerance")] : off;
}

function assess(machine: Machine, { spindles, grease = [] }: PlayReadings): Assessment<{ middleKelvin?: number }, Says> {
  const mixed = mixedUnits(Object.fromEntries(Object.entries(spindles).map(([place, { hubKelvin }]) => [place, hubKelvin])));
  const heats = Object.entries(spindles).flatMap(([place, { hubKelvin }]) => (mixed.includes(place) ? [] : (hubKelvin ?? [])));
  // A cool one that was most likely typed in the other scale must not make the others look hot; a hot one stays accused until it is read again.
  const middle = middleOf(heats);
  const findings = Object.entries(spindles).flatMap(([place, read]) => findingsAt(machine, place, read, middle));
  const unread = machine.spindles.filter(({ id }) => !isTold(machine, spindles[id]));
  return {
    check: "spindle-play",
    ruleVersion: spindlePlay.ruleVersion,
    ...settled({
      check: "spindle-play",
      findings,
      clears: clearsOf(machine, unread.length === 0, Object.values(spindles)),
      told: machine.spindles.filter((spindle) => !unread.includes(spindle)).map(({ id }) => id),
      isComplete: unread.length === 0,
    }),
    provisional: [
      ...unread.map(({ id }) => ({ code: "place-unread" as const, place: id })),
      ...mixed.map((place) => ({ code: "hub-unit-doubtful" as const, place })),
    ],
    figures: Object.entries(spindles).flatMap(([place, read]) => figuresOf(place, read, middle)),
    actions: [
      ...findings.flatMap((finding) => actionOf(finding, featuresOf(machine).includes("direct-drive"))),
      ...grease.map(({ place, what, overHours }) => ({ code: "grease-spindle" as const, place, what, overHours })),
    ],
    warnings: [
      ...mixed.map((place) => ({ code: "hub-unit-doubtful" as const, place })),
      ...(findings.some(({ code }) => code === "key-sheared" || code === "shaft-wobbles") ? [{ code: "not-run-bent-shaft" as const }] : []),
    ],
    detail: middle === undefined ? {} : { middleKelvin: middle },
  };
}

function figuresOf(place: string, { playMetres, hubKelvin }: Read, middle: number | undefined): Figure[] {
  return [
    ...(playMetres === undefined
      ? []
      : [
          {
            id: "tip-play",
            place,
            value: playMetres,
            dimension: "length" as const,
            instrument: "fine" as const,
            tolerance: { kind: "between" as const, most: MOST_PLAY_METRES, standing: "estimate" as const },
            verdict: judgeDeviation({ deviation: playMetres, tolerance: MOST_PLAY_METRES }),
            standing: "measured" as const,
          },
        ]),
    ...(hubKelvin === undefined || middle === undefined
      ? []
      : [
          {
            id: "hub-heat",
            place,
            value: hubKelvin,
            dimension: "temperature" as const,
            instrument: "gauge" as const,
            tolerance: { kind: "between" as const, most: hottest(middle), standing: "estimate" as const },
            verdict: hubKelvin > hottest(middle) ? ("watch" as const) : ("in-tolerance" as const),
            standing: "measured" as const,
          },
        ]),
  ];
}

/** Sound causes once every spindle was told of; a hub nobody put a hand to does not clear a bearing whose sisters were felt. */
function clearsOf(machine: Machine, isComplete: boolean, read: readonly Read[]): Record<string, boolean> {
  const isDirect = featuresOf(machine).includes("direct-drive");
  const heats = read.filter(({ hubKelvin }) => hubKelvin !== undefined).length;
  return {
    ...(isDirect && powerOf(machine) === "combustion" ? { [CRANK]: isComplete, [KEY]: isComplete } : {}),
    ...(isDirect ? {} : { "spindle-bearing-worn": isComplete && (heats === 0 || heats === machine.spindles.length) }),
    "shaft-wrapped": isComplete,
  };
}

/** The bearings of an engine's own shaft are not changed at this bench. */
function actionOf({ place, code }: Finding, isDirect: boolean): Says["action"][] {
  if (code === "grass" || code === "wire") return [{ code: "clear-winding", place, what: code }];
  if (code === "step") return [{ code: "seat-bearing", place }];
  if (code === "key-sheared" || code === "shaft-wobbles") return [{ code: "hold-for-crankshaft", place }];
  if (!BEARING.includes(code)) return [];
  return [{ code: isDirect ? "hold-for-crankshaft" : "change-bearings", place }];
}
