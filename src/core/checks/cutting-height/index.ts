import * as z from "zod";
import {
  type Evidence,
  type Figure,
  type Finding,
  judgeDeviation,
  MOVED_BY_OTHERS_RATIO,
  measuredLikelihoodRatio,
  type Verdict,
} from "@/core/findings";
import { instrument } from "@/core/instruments";
import { kindById } from "@/core/kinds";
import { type Machine, unitsAcross } from "@/core/machine";
import { type LearntOffset, learnOffset, type Stubble, settingFor, stubbleOf, WANTED_READINGS } from "@/core/turf/stubble";
import type { Form } from "../form";
import { evidenceOf as evidenceOfFindings, findingsOf, pointsAt, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";

/** Mean of the stubble against the setting: 1/8 in for rotary (common practice), 0.010 in for reel (estimate). */
export const HEIGHT_TOLERANCE = {
  rotary: { metres: 0.003, standing: "common-practice" },
  reel: { metres: 0.00025, standing: "estimate" },
} as const;

const height = z.number().positive().max(0.4);

export const heightReadingsSchema = z.object({
  /** What dial, pin, notch or bench says. */
  settingMetres: height.optional(),
  /** Prism or ruler, one for each prick of the stubble. */
  heightsMetres: z.array(height).max(1000).default([]),
  ground: z.enum(["firm", "soft"]).optional(),
  /** The turf it was cut on, as the shop calls it: its offset is learnt from earlier visits there. */
  turf: z.string().trim().max(80).optional(),
  wantedMetres: height.optional(),
  /** Earlier visits of this machine. */
  visits: z
    .array(
      z.object({
        turf: z.string().max(80).optional(),
        offsetMetres: z.number().min(-0.2).max(0.2),
        spreadMetres: z.number().min(0).max(0.2),
        count: z.number().int().min(1),
        ageDays: z.number().min(0),
      }),
    )
    .max(200)
    .default([]),
  /** Of a reel machine, the stubble behind each unit by itself. */
  unitHeights: z.record(z.string(), z.array(height).max(200)).optional(),
  /** Rake of the blades at their last level, front less rear; a raked blade cuts lower than its centre stands. */
  rakeMetres: z.number().min(-0.05).max(0.05).optional(),
});

export type HeightReadings = z.output<typeof heightReadingsSchema>;

export type HeightDetail = {
  heightsMetres: number[];
  stubble?: Stubble;
  settingMetres?: number;
  offsetMetres?: number;
  learnt: LearntOffset;
  suggested?: { wantedMetres: number; settingMetres: number; plusMinusMetres: number };
  rakeLowersMetres?: number;
};

type Says = {
  action: { code: "set-height"; settingMetres: number; wantedMetres: number; plusMinusMetres: number; visits: number };
  warning: { code: "rake-cuts-lower"; byMetres: number };
  problem: { code: "unknown-unit"; place: string };
  provisional: { code: "few-pricks"; count: number; wanted: number } | { code: "soft-ground" } | { code: "wanted-not-told" };
};

export const cuttingHeight: Check<HeightReadings, HeightDetail, Says> = {
  id: "cutting-height",
  ruleVersion: 3,
  readingsSchema: heightReadingsSchema,
  missing: () => [],
  problems: (machine, { unitHeights = {} }) =>
    unknownPlaces({ read: unitHeights, known: machine.units, path: "unitHeights", code: "unknown-unit" }),
  form: formOf,
  wants: "visits",
  assess,
};

function formOf(machine: Machine): Form {
  const isReel = kindById(machine.kind).cutsWith === "reel";
  const { heightLeastMetres: least, heightMostMetres: most } = machine.sheet;
  const range = {
    least: 0.001,
    most: 0.4,
    usualLeast: Math.max(0.001, (least ?? 0.012) - (isReel ? 0.002 : 0.012)),
    usualMost: (most ?? 0.15) + (isReel ? 0.01 : 0.05),
  };
  const instrument = isReel ? ("fine" as const) : ("tape" as const);
  const length = { dimension: "length", instrument, range } as const;
  return {
    groups: [
      { id: "setting", label: isReel ? "The bench" : "The setting" },
      { id: "stubble", label: "The stubble" },
      { id: "wanted", label: "Height that is wanted" },
      ...(isReel && machine.units.length > 1 ? [{ id: "units", label: "Unit by unit", isFolded: true }] : []),
    ],
    fields: [
      {
        kind: "quantity",
        path: ["settingMetres"],
        group: "setting",
        label: isReel ? "Bench height" : "Dial, pin or notch says",
        ...length,
      },
      { kind: "list", path: ["heightsMetres"], group: "stubble", label: "Stubble, reading by reading", wanted: WANTED_READINGS, ...length },
      {
        kind: "choice",
        path: ["ground"],
        group: "stubble",
        label: "The ground",
        isOptional: true,
        options: [
          { id: "firm", label: "Firm" },
          { id: "soft", label: "Soft" },
        ],
      },
      { kind: "text", path: ["turf"], group: "stubble", label: "Which turf", isOptional: true, most: 80 },
      {
        kind: "quantity",
        path: ["wantedMetres"],
        group: "wanted",
        label: "Height to cut at",
        ...(isReel ? {} : { isOptional: true }),
        ...length,
      },
      ...(isReel && machine.units.length > 1
        ? unitsAcross(machine).map(({ id, label }) => ({
            kind: "list" as const,
            path: ["unitHeights", id],
            group: "units",
            label: `Stubble behind the ${label.toLowerCase()}`,
            isOptional: true,
            wanted: 5,
            ...length,
          }))
        : []),
    ],
  };
}

const DAYS_SAME_VISIT = 0;

function assess(machine: Machine, readings: HeightReadings): Assessment<HeightDetail, Says> {
  const { cutsWith } = kindById(machine.kind);
  const { settingMetres, heightsMetres } = readings;
  const stubble = stubbleOf(heightsMetres, instrument(cutsWith === "reel" ? "prism" : "stubble-ruler").resolution);
  const offsetMetres = stubble && settingMetres !== undefined ? stubble.meanMetres - settingMetres : undefined;
  const learnt = learnOffset(visitsOf(readings, stubble, offsetMetres), cutsWith);
  const wanted = readings.wantedMetres ?? settingMetres;
  const suggested = wanted === undefined || learnt.visits === 0 ? undefined : { wantedMetres: wanted, ...settingFor(wanted, learnt) };
  const rakeLowersMetres = readings.rakeMetres === undefined ? undefined : Math.abs(readings.rakeMetres) / 2;
  const standardError = stubble && stubble.spreadMetres / Math.sqrt(stubble.count);
  const tolerance = HEIGHT_TOLERANCE[cutsWith];
  const figure =
    offsetMetres === undefined ? undefined : offsetFigure({ offsetMetres, standardError: standardError ?? 0, tolerance, cutsWith });
  const isEnough = heightsMetres.length >= WANTED_READINGS;
  const isReel = cutsWith === "reel";
  const bench = isReel ? benchOf(readings) : { findings: [], figures: [] };
  const units = isReel ? unitsOf(machine, readings) : { findings: [], figures: [], isAll: false };
  const byReel = [...bench.findings, ...units.findings];
  return {
    check: "cutting-height",
    ruleVersion: cuttingHeight.ruleVersion,
    ...settled({
      check: "cutting-height",
      findings: [...(figure ? findingsOf([figure]) : []), ...byReel],
      evidence: [
        ...(figure ? evidenceOf({ cutsWith, figure, tolerance: tolerance.metres, hasWanted: readings.wantedMetres !== undefined }) : []),
        ...evidenceOfFindings({
          check: "cutting-height",
          findings: byReel,
          clears: { ...(bench.findings.length > 0 ? { "height-misset": true } : {}) },
        }),
      ],
      told: [
        ...(figure ? ["machine"] : []),
        ...(bench.findings.length > 0 ? ["bench"] : []),
        ...(units.isAll ? machine.units.map(({ id }) => id) : []),
      ],
      isComplete: figure !== undefined && (!isReel || readings.wantedMetres !== undefined),
    }),
    provisional: [
      ...(figure && !isEnough ? [{ code: "few-pricks" as const, count: heightsMetres.length, wanted: WANTED_READINGS }] : []),
      ...(readings.ground === "soft" ? [{ code: "soft-ground" as const }] : []),
      ...(isReel && readings.wantedMetres === undefined ? [{ code: "wanted-not-told" as const }] : []),
    ],
    figures: [
      ...stubbleFigures(stubble, cutsWith),
      ...(figure ? [figure] : []),
      ...bench.figures,
      ...units.figures,
      ...learntFigures(learnt, cutsWith),
    ],
    actions: actionsOf({ isWanted: readings.wantedMetres !== undefined, verdict: figure?.verdict, suggested, learnt }),
    warnings:
      rakeLowersMetres !== undefined && rakeLowersMetres > 0.0005 ? [{ code: "rake-cuts-lower" as const, byMetres: rakeLowersMetres }] : [],
    detail: {
      heightsMetres,
      learnt,
      ...(stubble ? { stubble } : {}),
      ...(settingMetres === undefined ? {} : { settingMetres }),
      ...(offsetMetres === undefined ? {} : { offsetMetres }),
      ...(suggested ? { suggested } : {}),
      ...(rakeLowersMetres === undefined ? {} : { rakeLowersMetres }),
    },
  };
}

/** Earlier visits on the same turf and this one. */
function visitsOf({ visits, turf }: HeightReadings, stubble: Stubble | undefined, offsetMetres: number | undefined) {
  const here = visits.filter((visit) => turf === undefined || turf === "" || visit.turf?.toLowerCase() === turf.toLowerCase());
  const now =
    stubble && offsetMetres !== undefined
      ? [{ offsetMetres, spreadMetres: stubble.spreadMetres, count: stubble.count, ageDays: DAYS_SAME_VISIT }]
      : [];
  return [...here, ...now];
}

function offsetFigure(args: {
  offsetMetres: number;
  standardError: number;
  tolerance: { metres: number; standing: "common-practice" | "estimate" };
  cutsWith: "rotary" | "reel";
}): Figure & { verdict: Verdict } {
  const { offsetMetres, standardError, tolerance } = args;
  return {
    id: "over-the-setting",
    value: offsetMetres,
    standardError,
    dimension: "length",
    instrument: "fine",
    tolerance: { kind: "about", target: 0, plusMinus: tolerance.metres, standing: tolerance.standing },
    verdict: judgeDeviation({ deviation: offsetMetres, tolerance: tolerance.metres, standardError }),
    standing: "measured",
  };
}

function stubbleFigures(stubble: Stubble | undefined, cutsWith: "rotary" | "reel"): Figure[] {
  if (!stubble) return [];
  const instrument = cutsWith === "reel" ? "fine" : "gauge";
  const figure = (id: string, value: number): Figure => ({ id, value, dimension: "length", instrument, standing: "measured" });
  return [
    figure("stubble-mean", stubble.meanMetres),
    figure("stubble-95", stubble.plusMinusMetres),
    figure("stubble-spread", stubble.spreadMetres),
  ];
}

function learntFigures({ offsetMetres, plusMinusMetres, visits }: LearntOffset, cutsWith: "rotary" | "reel"): Figure[] {
  if (visits === 0) return [];
  return [
    {
      id: "learnt-offset",
      value: offsetMetres,
      standardError: plusMinusMetres,
      dimension: "length",
      instrument: cutsWith === "reel" ? "fine" : "gauge",
      standing: "estimate",
    },
  ];
}

/** Bench against the height that is wanted: so far apart, and it is set to something else. Estimate: 0.008 in. */
export const BENCH_TOLERANCE_METRES = 0.0002;

function benchOf({ settingMetres, wantedMetres }: HeightReadings): { findings: Finding[]; figures: Figure[] } {
  if (settingMetres === undefined || wantedMetres === undefined) return { findings: [], figures: [] };
  const value = settingMetres - wantedMetres;
  const verdict = judgeDeviation({ deviation: value, tolerance: BENCH_TOLERANCE_METRES });
  const finding: Finding = {
    place: "bench",
    code: verdict === "in-tolerance" ? "bench-as-wanted" : "bench-off",
    verdict,
    ...(verdict === "out" ? { causes: shows("height-misset") } : {}),
  };
  const figure: Figure = {
    id: "bench-over-wanted",
    value,
    dimension: "length",
    instrument: "fine",
    tolerance: { kind: "about", target: 0, plusMinus: BENCH_TOLERANCE_METRES, standing: "estimate" },
    verdict,
    standing: "measured",
  };
  return { findings: [finding], figures: [figure] };
}

type OfUnits = { findings: Finding[]; figures: Figure[]; isAll: boolean };

/** A unit whose stubble stands so far off the middle of all of them is not alike. Estimate: the reel's own tolerance. */
function unitsOf(machine: Machine, { unitHeights = {} }: HeightReadings): OfUnits {
  const read = machine.units.flatMap(({ id }) => {
    const stubble = stubbleOf(unitHeights[id] ?? [], instrument("prism").resolution);
    return stubble ? [{ id, stubble }] : [];
  });
  const isAll = read.length === machine.units.length && read.length > 1;
  if (read.length < 2) return { findings: [], figures: [], isAll };
  const means = read.map(({ stubble }) => stubble.meanMetres).sort((a, b) => a - b);
  // Of two, half way between.
  const middle = ((means[Math.floor((means.length - 1) / 2)] ?? 0) + (means[Math.floor(means.length / 2)] ?? 0)) / 2;
  const tolerance = HEIGHT_TOLERANCE.reel.metres;
  const judged = read.map(({ id, stubble }) => {
    const standardError = stubble.spreadMetres / Math.sqrt(stubble.count);
    // Stubble scatters: only what stands out of its own scatter is told, and a bench gauge tells the rest.
    const isOff = Math.abs(stubble.meanMetres - middle) - standardError >= tolerance;
    return { id, meanMetres: stubble.meanMetres, standardError, isOff };
  });
  return {
    isAll,
    findings: judged.map(
      ({ id, isOff }): Finding =>
        isOff
          ? { place: id, code: "unit-off", verdict: "out", causes: pointsAt("units-not-alike") }
          : { place: id, code: "unit-like", verdict: "in-tolerance" },
    ),
    figures: judged.map(
      ({ id, meanMetres, standardError, isOff }): Figure => ({
        id: "unit-stubble",
        place: id,
        value: meanMetres,
        standardError,
        dimension: "length",
        instrument: "fine",
        tolerance: { kind: "about", target: middle, plusMinus: tolerance, standing: HEIGHT_TOLERANCE.reel.standing },
        verdict: isOff ? "out" : "in-tolerance",
        standing: "measured",
      }),
    ),
  };
}

/** One figure for several causes on a reel machine: that it is off, not why. */
function evidenceOf(args: {
  cutsWith: "rotary" | "reel";
  figure: Figure & { verdict: Verdict };
  tolerance: number;
  hasWanted: boolean;
}): Evidence[] {
  const { cutsWith, figure, tolerance, hasWanted } = args;
  const check = "cutting-height";
  if (cutsWith === "rotary")
    return [
      {
        cause: "height-misset",
        likelihoodRatio: Math.min(
          MOVED_BY_OTHERS_RATIO,
          measuredLikelihoodRatio({
            deviation: figure.value,
            tolerance,
            standardUncertainty: figure.standardError ?? 0,
            sides: "two",
          }),
        ),
      },
    ];
  // Where the bench was held against what is wanted, what is left between bench and turf is the turf's or the roller's.
  const misset = hasWanted ? [] : ["height-misset"];
  const causes = [...misset, "roller-sinks", "thatch-build-up"];
  if (figure.verdict === "out") {
    const off = figure.value < 0 ? causes : misset;
    return off.length === 0 ? [] : [{ check, causes: off, result: "suspect" } as Evidence];
  }
  return figure.verdict === "in-tolerance"
    ? ["roller-sinks", "thatch-build-up"].map((cause) => ({ check, cause, result: "not-found" as const }))
    : [];
}

/** The setting to use: where a height is wanted, or where what is cut is not what is set. */
function actionsOf(args: {
  isWanted: boolean;
  verdict: Verdict | undefined;
  suggested: HeightDetail["suggested"];
  learnt: LearntOffset;
}): Says["action"][] {
  const { isWanted, verdict, suggested, learnt } = args;
  const isOff = verdict !== undefined && verdict !== "in-tolerance";
  if (!suggested || !(isWanted || isOff)) return [];
  return [{ code: "set-height", ...suggested, visits: learnt.visits }];
}
