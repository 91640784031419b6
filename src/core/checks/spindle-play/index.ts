import * as z from "zod";
import { type Evidence, type Figure, judgeDeviation } from "@/core/findings";
import { featuresOf, kindById } from "@/core/kinds";
import { type Machine, pointOf, powerOf, spindlesAcross } from "@/core/machine";
import { fromSi, toSi } from "@/core/units";
import { choices, type Form } from "../form";
import type { Action, Assessment, Check, Mark } from "../types";
import { overall, tell, unknownPlaces } from "../verdicts";

/** At the tip, of play that is not the blade's. Estimate: 1/16 in. */
export const MOST_PLAY_METRES = 0.0015;
/** A hub this much above the coolest of its sisters is suspect. Estimate. */
export const HOTTER_BY_KELVIN = 20;

export const playReadingsSchema = z.object({
  spindles: z
    .record(
      z.string(),
      z.object({
        playMetres: z.number().min(0).max(0.2).optional(),
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

export const spindlePlay: Check<PlayReadings, { coolestKelvin?: number }> = {
  id: "spindle-play",
  ruleVersion: 2,
  readingsSchema: playReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 || kindById(machine.kind).cutsWith === "reel" ? ["no-spindles"] : []),
  problems: (machine, { spindles }) =>
    unknownPlaces({ read: spindles, known: machine.spindles, path: "spindles", code: "unknown-spindle" }),
  form: formOf,
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

function markOf(machine: Machine, place: string, read: Read, coolest: number | undefined): Mark[] {
  const isLoose = read.playMetres !== undefined && judgeDeviation({ deviation: read.playMetres, tolerance: MOST_PLAY_METRES }) === "out";
  const isHot = read.hubKelvin !== undefined && coolest !== undefined && read.hubKelvin - coolest > HOTTER_BY_KELVIN;
  // What stops it comes before what is only out.
  if (read.key === "sheared") return [{ place, verdict: "stop", code: "key-sheared" }];
  if (read.shaftEnd === "wobbles") return [{ place, verdict: "stop", code: "shaft-wobbles" }];
  if (read.feel === "rough" || read.feel === "binding") return [{ place, verdict: "out", code: read.feel }];
  if (isLoose) return [{ place, verdict: "out", code: "play" }];
  if (read.seat === "step") return [{ place, verdict: "out", code: "step" }];
  if (read.wrap === "grass" || read.wrap === "wire") return [{ place, verdict: "out", code: read.wrap === "wire" ? "wire" : "grass" }];
  if (isHot) return [{ place, verdict: "watch", code: "hot" }];
  if (!isTold(machine, read)) return [];
  const verdict = judgeDeviation({ deviation: read.playMetres ?? 0, tolerance: MOST_PLAY_METRES });
  return [{ place, verdict, code: verdict === "watch" ? "near-limit" : "sound" }];
}

function assess(machine: Machine, { spindles, grease = [] }: PlayReadings): Assessment<{ coolestKelvin?: number }> {
  const mixed = mixedUnits(Object.fromEntries(Object.entries(spindles).map(([place, { hubKelvin }]) => [place, hubKelvin])));
  const heats = Object.entries(spindles).flatMap(([place, { hubKelvin }]) => (mixed.includes(place) ? [] : (hubKelvin ?? [])));
  // A cool one that was most likely typed in the other scale must not make the others look hot; a hot one stays accused until it is read again.
  const coolest = heats.length > 1 ? Math.min(...heats) : undefined;
  const marks = Object.entries(spindles).flatMap(([place, read]) => markOf(machine, place, read, coolest));
  const unread = machine.spindles.filter(({ id }) => !isTold(machine, spindles[id]));
  return {
    check: "spindle-play",
    ruleVersion: spindlePlay.ruleVersion,
    verdict: overall(
      marks.map(({ verdict }) => verdict),
      unread.length === 0,
    ),
    provisional: [
      ...unread.map(({ id }) => ({ code: "place-unread", place: id })),
      ...mixed.map((place) => ({ code: "hub-unit-doubtful", place })),
    ],
    figures: Object.entries(spindles).flatMap(([place, read]) => figuresOf(place, read, coolest)),
    marks,
    evidence: evidenceOf(machine, marks, unread.length === 0),
    actions: [
      ...marks.flatMap((mark) => actionOf(mark, featuresOf(machine).includes("direct-drive"))),
      ...grease.map(({ place, what, overHours }) => ({ code: "grease-spindle" as const, place, what, overHours })),
    ],
    warnings: [
      ...mixed.map((place) => ({ code: "hub-unit-doubtful", place })),
      ...(marks.some(({ code }) => code === "key-sheared" || code === "shaft-wobbles") ? [{ code: "not-run-bent-shaft" }] : []),
    ],
    detail: coolest === undefined ? {} : { coolestKelvin: coolest },
  };
}

function figuresOf(place: string, { playMetres, hubKelvin }: Read, coolest: number | undefined): Figure[] {
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
    ...(hubKelvin === undefined || coolest === undefined
      ? []
      : [
          {
            id: "hub-heat",
            place,
            value: hubKelvin,
            dimension: "temperature" as const,
            instrument: "gauge" as const,
            tolerance: { kind: "between" as const, most: coolest + HOTTER_BY_KELVIN, standing: "estimate" as const },
            verdict: hubKelvin - coolest > HOTTER_BY_KELVIN ? ("watch" as const) : ("in-tolerance" as const),
            standing: "measured" as const,
          },
        ]),
  ];
}

const BEARING: readonly string[] = ["rough", "binding", "play", "step"];

function evidenceOf(machine: Machine, marks: readonly Mark[], isComplete: boolean): Evidence[] {
  const check = "spindle-play";
  const any = (codes: readonly string[]) => marks.some(({ code }) => code !== undefined && codes.includes(code));
  const told = (cause: string, isSeen: boolean, isSuspect = false) => tell({ check, cause, isSeen, isSuspect, isClear: isComplete });
  const isDirect = featuresOf(machine).includes("direct-drive");
  const isPetrol = powerOf(machine) === "combustion";
  return [
    ...(isDirect && isPetrol
      ? told("crankshaft-bent-or-key-sheared", any(["key-sheared", "shaft-wobbles"]), any(["play", "rough", "binding"]))
      : []),
    ...(!isDirect ? told("spindle-bearing-worn", any(BEARING), any(["hot"])) : []),
    ...told("shaft-wrapped", any(["grass", "wire"])),
  ];
}

/** The bearings of an engine's own shaft are not changed at this bench. */
function actionOf({ place, code }: Mark, isDirect: boolean): Action[] {
  if (code === "grass" || code === "wire") return [{ code: "clear-winding", place, what: code }];
  if (code === "step") return [{ code: "seat-bearing", place }];
  if (code === "key-sheared" || code === "shaft-wobbles") return [{ code: "hold-for-crankshaft", place }];
  if (code === undefined || !BEARING.includes(code)) return [];
  return [{ code: isDirect ? "hold-for-crankshaft" : "change-bearings", place }];
}
