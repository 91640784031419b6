import * as z from "zod";
import { type Evidence, type Figure, type Finding, judgeDeviation, type Verdict } from "@/core/basics/findings";
import { physical, physicalOrNought } from "@/core/basics/units/physical";
import { kindById } from "@/core/catalogue/kinds";
import type { Machine } from "@/core/machine";
import { choices, type Form } from "../form";
import { settled } from "../settled";
import type { Assessment, Check } from "../types";

/** Height before the cut over height of cut: a mowing takes no more than a third of the leaf. Common practice. */
export const MOST_BEFORE_TO_CUT = 1.5;
/** Thatch deeper than this lets a machine sink. Estimate: 1/2 in. */
const MOST_THATCH_METRES = 0.0127;

const height = physical("metres", 1);

export const turfReadingsSchema = z.object({
  beforeMetres: z.array(height).max(200).default([]),
  cutMetres: height.optional(),
  growthMetresPerDay: z.number().min(0).max(0.1).optional(),
  moisture: z.enum(["dry", "damp", "wet"]).optional(),
  density: z.enum(["dense", "usual", "thin"]).optional(),
  thatchMetres: physicalOrNought("metres", 0.2).optional(),
  lie: z.enum(["upright", "leaning", "flat"]).optional(),
  ground: z.enum(["flat", "gentle", "rough"]).optional(),
  /** What the rest of the fleet leaves on the same turf. */
  others: z.enum(["same", "better", "not-seen"]).optional(),
  direction: z.enum(["varied", "same"]).optional(),
});

export type TurfReadings = z.output<typeof turfReadingsSchema>;

export type TurfDetail = {
  beforeMetres?: number;
  cutMetres?: number;
  /** Share of the leaf that this mowing takes. */
  share?: number;
  /** The lowest first cut that keeps to a third. */
  firstCutMetres?: number;
  /** Heights of the cuts that each keep to a third, the last one the height wanted. */
  stagesMetres?: number[];
  /** From just mown until a third has grown. */
  daysToThird?: number;
  ground: "good" | "gross-faults-only" | "not-told";
};

type Says = {
  action:
    | { code: "cut-in-stages"; heightsMetres: number[]; daysBetween: number }
    | { code: "wait-for-dry" }
    | { code: "mow-within"; days: number }
    | { code: "judge-elsewhere" }
    | { code: "vary-direction" };
  warning: { code: "others-cut-the-same" };
  provisional: { code: "turf-not-all-told" };
};

export const turfCondition: Check<TurfReadings, TurfDetail, Says> = {
  id: "turf-condition",
  ruleVersion: 3,
  readingsSchema: turfReadingsSchema,
  missing: () => [],
  problems: () => [],
  form: formOf,
  assess,
};

function formOf(machine: Machine): Form {
  const isReel = kindById(machine.kind).cutsWith === "reel";
  const most = (machine.sheet.heightMostMetres ?? 0.12) + 0.05;
  const length = { dimension: "length", instrument: isReel ? "fine" : "tape" } as const;
  return {
    groups: [
      { id: "leaf", label: "The leaf" },
      { id: "turf", label: "The turf" },
      { id: "others", label: "Beside it" },
    ],
    fields: [
      {
        kind: "list",
        path: ["beforeMetres"],
        group: "leaf",
        label: "Height before the cut",
        wanted: 3,
        ...length,
        range: { least: 0.002, most: 1, usualLeast: 0.003, usualMost: 0.4 },
      },
      {
        kind: "quantity",
        path: ["cutMetres"],
        group: "leaf",
        label: "Height of cut",
        ...length,
        range: { least: 0.001, most: 0.4, usualLeast: (machine.sheet.heightLeastMetres ?? 0.01) * 0.8, usualMost: most },
      },
      {
        kind: "quantity",
        path: ["growthMetresPerDay"],
        group: "leaf",
        label: "It grows in a day",
        isOptional: true,
        dimension: "length",
        instrument: "fine",
        range: { least: 0, most: 0.1, usualLeast: 0, usualMost: 0.03 },
      },
      {
        kind: "choice",
        path: ["moisture"],
        group: "turf",
        label: "Moisture",
        options: choices(["dry", "Dry"], ["damp", "Damp"], ["wet", "Wet"]),
      },
      {
        kind: "choice",
        path: ["density"],
        group: "turf",
        label: "Stand",
        options: choices(["dense", "Dense"], ["usual", "Usual"], ["thin", "Thin"]),
      },
      {
        kind: "choice",
        path: ["lie"],
        group: "turf",
        label: "Leaf lies",
        isOptional: true,
        options: choices(["upright", "Upright"], ["leaning", "Leaning"], ["flat", "Flat"]),
      },
      {
        kind: "choice",
        path: ["ground"],
        group: "turf",
        label: "Ground",
        options: choices(["flat", "Flat"], ["gentle", "Gentle"], ["rough", "Rough"]),
      },
      {
        kind: "quantity",
        path: ["thatchMetres"],
        group: "turf",
        label: "Thatch",
        isOptional: true,
        dimension: "length",
        instrument: "tape",
        range: { least: 0, most: 0.2, usualLeast: 0, usualMost: 0.06 },
      },
      {
        kind: "choice",
        path: ["others"],
        group: "others",
        label: "The other machines on it",
        isOptional: true,
        options: choices(["same", "Cut the same"], ["better", "Cut better"], ["not-seen", "Not seen"]),
      },
      ...(isReel
        ? [
            {
              kind: "choice" as const,
              path: ["direction"],
              group: "others",
              label: "Direction of mowing",
              isOptional: true,
              options: choices(["varied", "Varied"], ["same", "Always the same"]),
            },
          ]
        : []),
    ],
  };
}

function assess(machine: Machine, readings: TurfReadings): Assessment<TurfDetail, Says> {
  const leaf = leafOf(readings);
  const findings = findingsIn(readings, leaf.share);
  const ground = groundOf(readings);
  const isComplete =
    leaf.share !== undefined && readings.moisture !== undefined && readings.ground !== undefined && readings.density !== undefined;
  return {
    check: "turf-condition",
    ruleVersion: turfCondition.ruleVersion,
    ...settled({
      check: "turf-condition",
      findings,
      evidence: evidenceOf({ readings, findings, isComplete, isReel: kindById(machine.kind).cutsWith === "reel" }),
      told: findings.map(({ place }) => place),
      isComplete,
    }),
    provisional: isComplete ? [] : [{ code: "turf-not-all-told" as const }],
    figures: figuresOf(readings, leaf),
    actions: actionsOf(readings, leaf, ground),
    warnings: readings.others === "same" ? [{ code: "others-cut-the-same" as const }] : [],
    detail: { ...leaf, ground },
  };
}

type Leaf = Omit<TurfDetail, "ground">;

function leafOf({ beforeMetres, cutMetres, growthMetresPerDay }: TurfReadings): Leaf {
  const before = beforeMetres.length === 0 ? undefined : beforeMetres.reduce((sum, one) => sum + one, 0) / beforeMetres.length;
  return {
    ...(before === undefined ? {} : { beforeMetres: before }),
    ...(cutMetres === undefined ? {} : { cutMetres }),
    ...(before === undefined || cutMetres === undefined ? {} : { share: Math.max(0, 1 - cutMetres / before) }),
    ...(before !== undefined && cutMetres !== undefined && before > MOST_BEFORE_TO_CUT * cutMetres
      ? { firstCutMetres: before / MOST_BEFORE_TO_CUT, stagesMetres: stagesTo(cutMetres, before) }
      : {}),
    ...(cutMetres !== undefined && growthMetresPerDay ? { daysToThird: ((MOST_BEFORE_TO_CUT - 1) * cutMetres) / growthMetresPerDay } : {}),
  };
}

/** Between two cuts that each took a third the leaf has to recover. Common practice: two or three days. */
export const DAYS_BETWEEN = 3;

/**
 * Heights of cut from tall grass down to the one wanted, metres, each no lower than two thirds of what stood before it.
 * @example from 300 mm to 50: 200, 133, 89, 59, 50.
 */
export function stagesTo(cutMetres: number, beforeMetres: number): number[] {
  const cuts = Math.ceil(Math.log(beforeMetres / cutMetres) / Math.log(MOST_BEFORE_TO_CUT) - 1e-9);
  const stages = Array.from({ length: Math.max(0, cuts - 1) }, (_, k) => beforeMetres / MOST_BEFORE_TO_CUT ** (k + 1));
  return [...stages, cutMetres];
}

/** A third of the leaf, to the last bit of a conversion. */
const THIRD = 1 - 1 / MOST_BEFORE_TO_CUT;

function findingsIn(readings: TurfReadings, share: number | undefined): Finding[] {
  const { moisture, density, ground, lie, thatchMetres, direction } = readings;
  const looked = (place: string, code: string | undefined, bad: Record<string, Verdict>): Finding[] =>
    code === undefined ? [] : [{ place, verdict: bad[code] ?? "in-tolerance", code }];
  return [
    ...(share === undefined ? [] : [{ place: "leaf", code: "share", verdict: judgeDeviation({ deviation: share, tolerance: THIRD }) }]),
    ...looked("moisture", moisture, { wet: "out", damp: "watch" }),
    ...looked("density", density, { thin: "watch" }),
    ...looked("ground", ground, { rough: "out", gentle: "watch" }),
    ...looked("lie", lie, { flat: "watch" }),
    ...(thatchMetres === undefined
      ? []
      : [{ place: "thatch", code: "depth", verdict: judgeDeviation({ deviation: thatchMetres, tolerance: MOST_THATCH_METRES }) }]),
    ...looked("direction", direction, { same: "out" }),
  ];
}

/** Whether this turf shows a fine fault at all: poor turf shows only gross ones. Common practice. */
function groundOf({ density, moisture, ground }: TurfReadings): TurfDetail["ground"] {
  if (density === undefined || moisture === undefined || ground === undefined) return "not-told";
  return density === "thin" || moisture === "wet" || ground === "rough" ? "gross-faults-only" : "good";
}

function figuresOf({ thatchMetres }: TurfReadings, { beforeMetres, cutMetres, share }: Leaf): Figure[] {
  if (beforeMetres === undefined) return [];
  return [
    {
      id: "height-before",
      value: beforeMetres,
      dimension: "length",
      instrument: "tape",
      ...(cutMetres === undefined
        ? {}
        : { tolerance: { kind: "between", most: MOST_BEFORE_TO_CUT * cutMetres, standing: "common-practice" } as const }),
      ...(share === undefined ? {} : { verdict: judgeDeviation({ deviation: share, tolerance: THIRD }) }),
      standing: "measured",
    },
    ...(thatchMetres === undefined
      ? []
      : [
          {
            id: "thatch",
            value: thatchMetres,
            dimension: "length" as const,
            instrument: "tape" as const,
            tolerance: { kind: "between" as const, most: MOST_THATCH_METRES, standing: "estimate" as const },
            verdict: judgeDeviation({ deviation: thatchMetres, tolerance: MOST_THATCH_METRES }),
            standing: "measured" as const,
          },
        ]),
  ];
}

function evidenceOf(args: { readings: TurfReadings; findings: readonly Finding[]; isComplete: boolean; isReel: boolean }): Evidence[] {
  const { readings, findings, isComplete, isReel } = args;
  const check = "turf-condition";
  const verdictOf = (place: string) => findings.find((one) => one.place === place)?.verdict;
  // Near a third is still no more than a third.
  const leaf = verdictOf("leaf") === "watch" ? "in-tolerance" : verdictOf("leaf");
  const told = (cause: string, verdicts: readonly (Verdict | undefined)[]): Evidence[] => {
    if (verdicts.includes("out")) return [{ check, cause, result: "seen" }];
    if (verdicts.some((verdict) => verdict === undefined)) return [];
    return [{ check, cause, result: verdicts.includes("watch") ? "unclear" : "not-found" }];
  };
  return [
    ...(isComplete || verdictOf("leaf") === "out" || readings.moisture === "wet"
      ? told("too-wet-or-tall", [leaf, verdictOf("moisture")])
      : []),
    ...(readings.ground === "gentle"
      ? [{ check, cause: "ground-undulates", result: "suspect" as const }]
      : told("ground-undulates", [verdictOf("ground")])),
    ...(isReel ? told("same-direction", [verdictOf("direction")]) : []),
    ...(isReel ? told("thatch-build-up", [verdictOf("thatch")]) : []),
  ];
}

function actionsOf(readings: TurfReadings, leaf: Leaf, ground: TurfDetail["ground"]): Says["action"][] {
  return [
    ...(leaf.stagesMetres === undefined
      ? []
      : [{ code: "cut-in-stages" as const, heightsMetres: leaf.stagesMetres, daysBetween: DAYS_BETWEEN }]),
    ...(readings.moisture === "wet" ? [{ code: "wait-for-dry" as const }] : []),
    ...(leaf.daysToThird === undefined ? [] : [{ code: "mow-within" as const, days: Math.floor(leaf.daysToThird) }]),
    ...(ground === "gross-faults-only" ? [{ code: "judge-elsewhere" as const }] : []),
    ...(readings.direction === "same" ? [{ code: "vary-direction" as const }] : []),
  ];
}
