import * as z from "zod";
import { type Evidence, type Figure, judgeDeviation, measuredLikelihoodRatio } from "@/core/basics/findings";
import { instrument, scaleUncertainty } from "@/core/basics/instruments";
import { PSI_PASCALS, type QuantityRange } from "@/core/basics/units";
import { physical, physicalOrNought } from "@/core/basics/units/physical";
import { DIRECTIONS, type Machine, pointOf, tipAt, type Wheel } from "@/core/machine";
import { type FrameOnTyres, predictTipChange, pressureAtTemperature, type TipChange, tyreStiffness } from "@/core/physics/tyres";
import type { Field, Form, QuantityAsked } from "../form";
import { byPlace, textAt } from "../listed";
import { findingsOf, settled } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";

/** ±1 psi of the sheet, and between the two tyres of an axle (estimate; needs a gauge of 0 to 30 psi). */
export const PRESSURE_TOLERANCE_PASCALS = 7000;

const oneSchema = z.object({
  pressurePascals: physicalOrNought("pascals", 700_000).optional(),
  /** Of the air in the tyre; without it the reading counts as cold, of this morning. */
  temperatureKelvin: z.number().min(230).max(370).optional(),
});

/** A list of tyres, each with its wheel, is read too: so rule version 2 wrote them. */
const byWheel = byPlace((one) => textAt(one, "wheelId"), ["wheelId"]);

export const tyreReadingsSchema = z.object({
  /** By wheel. */
  tyres: z.preprocess(byWheel, z.record(z.string().min(1).max(60), oneSchema).default({})),
  /** What the cold reading is related to, where a warm tyre was read. */
  coldTemperatureKelvin: z.number().min(230).max(330).optional(),
  gaugeStepPascals: physical("pascals", 100_000).optional(),
});

export type TyreReadings = z.output<typeof tyreReadingsSchema>;

export type TyreDetail = {
  wheels: { wheelId: string; coldPressurePascals: number; targetPascals?: number; targetNowPascals?: number }[];
  /** What these pressures do to a frame-hung deck against the target pressures; absent where it cannot be reckoned. */
  tipChanges?: (TipChange & { spindleId: string; direction: string })[];
  /** Why it is absent. */
  noTipChanges?: "no-deck" | "self-carried-deck" | "no-weight" | "no-sheet-pressure" | "tyre-unread" | "no-plane";
};

/** `cold`, `target`: as of a cold tyre; `shown`, `wanted`: what the gauge shows now and is to show, other figures only while the air is warm. */
type Read = { wheel: Wheel; cold: number; shown: number; target?: number; wanted?: number };

type Says = {
  action:
    | { code: "set-pressure"; place: string; fromPascals: number; toPascals: number; coldFromPascals?: number; coldToPascals?: number }
    | { code: "ask-sheet-pressure"; place: string }
    | { code: "find-leak"; place: string };
  warning:
    | { code: "gauge-too-coarse"; stepPascals: number; tolerancePascals: number }
    | { code: "above-moulded-maximum"; place: string; maximumPascals: number }
    | { code: "no-sheet-pressure"; place: string }
    | { code: "below-sheet-least"; place: string; leastPascals: number }
    | { code: "pressure-offset-in-use"; offsetPascals: number };
  provisional: { code: "tyre-unread"; place: string };
  problem: { code: "unknown-wheel"; place: string };
};

export const tyrePressure: Check<TyreReadings, TyreDetail, Says> = {
  id: "tyre-pressure",
  ruleVersion: 4,
  cautions: ["tyre-maximum"],
  readingsSchema: tyreReadingsSchema,
  missing: (machine) => (pneumatic(machine).length === 0 ? ["no-air-tyres"] : []),
  problems: (machine, { tyres }) => unknownPlaces({ read: tyres, known: pneumatic(machine), path: "tyres", code: "unknown-wheel" }),
  form: formOf,
  trend: {
    dimension: "pressure",
    lines: (machine) => pneumatic(machine).map(({ id, label }) => ({ id, label })),
    toleranceSi: ({ sheet }) => sheet.pressureTolerancePascals ?? PRESSURE_TOLERANCE_PASCALS,
    values: ({ detail }) =>
      Object.fromEntries(
        detail.wheels.flatMap(({ wheelId, coldPressurePascals, targetPascals }) =>
          targetPascals === undefined ? [] : [[wheelId, coldPressurePascals - targetPascals]],
        ),
      ),
  },
  assess,
};

function pneumatic(machine: Machine): Wheel[] {
  return machine.wheels.filter(({ isPneumatic }) => isPneumatic);
}

const PRESSURE_RANGE: QuantityRange = { least: 0, most: 100 * PSI_PASCALS, usualLeast: 3 * PSI_PASCALS, usualMost: 50 * PSI_PASCALS };
const STEP_RANGE: QuantityRange = { least: 100, most: 100_000, usualLeast: 300, usualMost: 5 * PSI_PASCALS };
const AIR_RANGE: QuantityRange = { least: 230, most: 370, usualLeast: 255, usualMost: 345 };
const COLD_RANGE: QuantityRange = { least: 230, most: 330, usualLeast: 255, usualMost: 315 };

/** Wheels in the order one walks round a machine: up the left side, down the right. */
function walkedRound(machine: Machine): Wheel[] {
  const tyres = pneumatic(machine);
  const left = tyres.filter(({ xMetres }) => xMetres < 0).sort((a, b) => a.yMetres - b.yMetres);
  const right = tyres.filter(({ xMetres }) => xMetres >= 0).sort((a, b) => b.yMetres - a.yMetres);
  return [...left, ...right];
}

function formOf(machine: Machine): Form {
  const wheels = walkedRound(machine);
  const quantity = (asked: Omit<QuantityAsked, "kind">): Field => ({ kind: "quantity", ...asked });
  const warm = { group: "warm", isOptional: true, dimension: "temperature", instrument: "gauge" } as const;
  return {
    groups: [
      { id: "tyres", label: "Every wheel, cold" },
      { id: "gauge", label: "The gauge" },
      { id: "warm", label: "Read warm", note: "Pressure rises with the air in the tyre: it is reckoned back to cold.", isFolded: true },
    ],
    fields: [
      ...wheels.map((wheel) =>
        quantity({
          path: ["tyres", wheel.id, "pressurePascals"],
          group: "tyres",
          label: wheel.label,
          at: pointOf(wheel),
          dimension: "pressure",
          instrument: "gauge",
          range: PRESSURE_RANGE,
        }),
      ),
      quantity({
        path: ["gaugeStepPascals"],
        group: "gauge",
        label: "Shows steps of",
        isOptional: true,
        dimension: "pressure",
        instrument: "gauge",
        range: STEP_RANGE,
      }),
      quantity({ ...warm, path: ["coldTemperatureKelvin"], label: "Cold, this morning", range: COLD_RANGE }),
      ...wheels.map(({ id, label }) =>
        quantity({ ...warm, path: ["tyres", id, "temperatureKelvin"], label: `${label}: air in the tyre`, range: AIR_RANGE }),
      ),
    ],
  };
}

/** The pressure a wheel should have: the sheet's, less the machine's own offset, never under the sheet's least. */
export function targetPressure(machine: Machine, wheel: Wheel): number | undefined {
  if (wheel.sheetPressurePascals === undefined) return undefined;
  const wanted = wheel.sheetPressurePascals + (machine.sheet.pressureOffsetPascals ?? 0);
  return Math.max(wanted, wheel.leastPressurePascals ?? 0);
}

function assess(machine: Machine, readings: TyreReadings): Assessment<TyreDetail, Says> {
  const step = readings.gaugeStepPascals ?? instrument("low-pressure-gauge").resolution;
  const tolerance = machine.sheet.pressureTolerancePascals ?? PRESSURE_TOLERANCE_PASCALS;
  const standing = machine.sheet.pressureTolerancePascals === undefined ? "estimate" : "sheet";
  const read = coldReadings(machine, readings);
  const own = read.flatMap((tyre) => wheelFigure({ tyre, tolerance, standing }));
  const pairs = axlePairs(read).map((pair) => pairFigure({ ...pair, tolerance, standing }));
  const figures = [...own, ...pairs];
  const unread = pneumatic(machine).filter((wheel) => !read.some((tyre) => tyre.wheel.id === wheel.id));
  return {
    check: "tyre-pressure",
    ruleVersion: tyrePressure.ruleVersion,
    ...settled({
      check: "tyre-pressure",
      findings: findingsOf(figures),
      evidence: evidenceOf({ read, pairs, tolerance, uncertainty: scaleUncertainty(step), isComplete: unread.length === 0 }),
      told: read.map(({ wheel }) => wheel.id),
      isComplete: unread.length === 0,
    }),
    provisional: unread.map((wheel) => ({ code: "tyre-unread", place: wheel.id })),
    figures,
    actions: read.flatMap(actionFor),
    warnings: warningsFor({ machine, read, step, tolerance }),
    detail: { wheels: read.map(wheelDetail), ...tipChanges(machine, read) },
  };
}

function coldReadings(machine: Machine, readings: TyreReadings): Read[] {
  return Object.entries(readings.tyres).flatMap(([wheelId, { pressurePascals, temperatureKelvin }]) => {
    const wheel = pneumatic(machine).find(({ id }) => id === wheelId);
    if (!wheel || pressurePascals === undefined) return [];
    const { coldTemperatureKelvin: toKelvin } = readings;
    const isWarm = temperatureKelvin !== undefined && toKelvin !== undefined;
    const cold = isWarm ? pressureAtTemperature({ pressurePascals, fromKelvin: temperatureKelvin, toKelvin }) : pressurePascals;
    const target = targetPressure(machine, wheel);
    if (target === undefined) return [{ wheel, cold, shown: pressurePascals }];
    const wanted = isWarm ? pressureAtTemperature({ pressurePascals: target, fromKelvin: toKelvin, toKelvin: temperatureKelvin }) : target;
    return [{ wheel, cold, shown: pressurePascals, target, wanted }];
  });
}

function wheelFigure(args: { tyre: Read; tolerance: number; standing: "estimate" | "sheet" }): Figure[] {
  const { tyre, tolerance, standing } = args;
  const { wheel, cold, target } = tyre;
  const base = { id: "pressure", place: wheel.id, value: cold, dimension: "pressure", instrument: "gauge", standing: "measured" } as const;
  const most = wheel.mouldedMaximumPascals;
  if (most !== undefined && cold > most) {
    return [{ ...base, tolerance: { kind: "between", most, standing: "sheet" }, verdict: "stop" }];
  }
  if (target === undefined) return [{ ...base, verdict: "not-enough-readings" }];
  const low = wheel.leastPressurePascals !== undefined && cold < wheel.leastPressurePascals;
  const judged = judgeDeviation({ deviation: cold - target, tolerance });
  return [{ ...base, tolerance: { kind: "about", target, plusMinus: tolerance, standing }, verdict: low ? "out" : judged }];
}

/** The two wheels of each axle, driver's left first. */
function axlePairs(read: readonly Read[]): { axle: string; left: Read; right: Read }[] {
  const axles = [...new Set(read.map(({ wheel }) => wheel.axle))];
  return axles.flatMap((axle) => {
    const [left, right] = read.filter(({ wheel }) => wheel.axle === axle).sort((a, b) => a.wheel.xMetres - b.wheel.xMetres);
    return left && right ? [{ axle, left, right }] : [];
  });
}

function pairFigure(args: { axle: string; left: Read; right: Read; tolerance: number; standing: "estimate" | "sheet" }): Figure {
  const difference = args.right.cold - args.left.cold;
  return {
    id: "axle-difference",
    place: args.axle,
    value: difference,
    dimension: "pressure",
    instrument: "gauge",
    tolerance: { kind: "about", target: 0, plusMinus: args.tolerance, standing: args.standing },
    verdict: judgeDeviation({ deviation: difference, tolerance: args.tolerance }),
    standing: "measured",
  };
}

/**
 * Unequal: the axle that differs most. Off the sheet: the mean of all, since one soft tyre is the other cause. While a tyre is unread a figure
 * may accuse and never clears.
 */
function evidenceOf(args: {
  read: readonly Read[];
  pairs: readonly Figure[];
  tolerance: number;
  uncertainty: number;
  isComplete: boolean;
}): Evidence[] {
  const evidence: Evidence[] = [];
  const widest = Math.max(...args.pairs.map(({ value }) => Math.abs(value)));
  if (args.pairs.length > 0) {
    evidence.push({
      cause: "tyres-unequal",
      likelihoodRatio: measuredLikelihoodRatio({
        deviation: widest,
        tolerance: args.tolerance,
        standardUncertainty: args.uncertainty * Math.SQRT2,
        sides: "two",
      }),
    });
  }
  const offsets = args.read.flatMap(({ cold, target }) => (target === undefined ? [] : [cold - target]));
  if (offsets.length > 1 && offsets.length === args.read.length) {
    const mean = offsets.reduce((sum, value) => sum + value, 0) / offsets.length;
    evidence.push({
      cause: "tyres-off-spec",
      likelihoodRatio: measuredLikelihoodRatio({
        deviation: mean,
        tolerance: args.tolerance,
        standardUncertainty: args.uncertainty / Math.sqrt(offsets.length),
        sides: "two",
      }),
    });
  }
  return evidence.filter((one) => args.isComplete || !("likelihoodRatio" in one) || one.likelihoodRatio > 1);
}

/** Worth touching the valve for: half the step a shop gauge shows. */
const NOT_WORTH_PASCALS = 1700;

function actionFor({ wheel, cold, target, shown, wanted }: Read): Says["action"][] {
  if (target === undefined || wanted === undefined) return [{ code: "ask-sheet-pressure", place: wheel.id }];
  if (Math.abs(cold - target) <= NOT_WORTH_PASCALS) return [];
  // The valve is turned by what the gauge shows now.
  const isWarm = wanted !== target;
  const set: Says["action"] = {
    code: "set-pressure",
    place: wheel.id,
    fromPascals: shown,
    toPascals: wanted,
    ...(isWarm ? { coldFromPascals: cold, coldToPascals: target } : {}),
  };
  return cold < target / 2 ? [set, { code: "find-leak", place: wheel.id }] : [set];
}

function warningsFor(args: { machine: Machine; read: readonly Read[]; step: number; tolerance: number }): Says["warning"][] {
  const warnings: Says["warning"][] = [];
  if (args.step > args.tolerance) warnings.push({ code: "gauge-too-coarse", stepPascals: args.step, tolerancePascals: args.tolerance });
  for (const { wheel, cold, target } of args.read) {
    const most = wheel.mouldedMaximumPascals;
    if (most !== undefined && cold > most) warnings.push({ code: "above-moulded-maximum", place: wheel.id, maximumPascals: most });
    if (target === undefined) warnings.push({ code: "no-sheet-pressure", place: wheel.id });
    const least = wheel.leastPressurePascals;
    if (least !== undefined && cold < least) warnings.push({ code: "below-sheet-least", place: wheel.id, leastPascals: least });
  }
  if (args.machine.sheet.pressureOffsetPascals) {
    warnings.push({ code: "pressure-offset-in-use", offsetPascals: args.machine.sheet.pressureOffsetPascals });
  }
  return warnings;
}

function wheelDetail({ wheel, cold, target, wanted }: Read): TyreDetail["wheels"][number] {
  return {
    wheelId: wheel.id,
    coldPressurePascals: cold,
    ...(target === undefined ? {} : { targetPascals: target }),
    ...(wanted === undefined || wanted === target ? {} : { targetNowPascals: wanted }),
  };
}

/** The frame on these tyres, and what its tips do against the target pressures (estimate: a range). */
function tipChanges(machine: Machine, read: readonly Read[]): Pick<TyreDetail, "tipChanges" | "noTipChanges"> {
  if (!machine.deck || machine.spindles.length === 0) return { noTipChanges: "no-deck" };
  if (machine.deck.mount !== "frame-hung") return { noTipChanges: "self-carried-deck" };
  if (!machine.frame) return { noTipChanges: "no-weight" };
  const needed = pneumatic(machine);
  if (needed.some((wheel) => !read.some((tyre) => tyre.wheel.id === wheel.id))) return { noTipChanges: "tyre-unread" };
  if (read.some(({ target }) => target === undefined)) return { noTipChanges: "no-sheet-pressure" };
  const tips = machine.spindles.flatMap((spindle) =>
    DIRECTIONS.map((direction) => ({ spindleId: spindle.id, direction, ...tipAt(spindle, direction) })),
  );
  const moved = predictTipChange({
    now: frameOn(machine, (wheel) => read.find((tyre) => tyre.wheel.id === wheel.id)?.cold ?? 0),
    reference: frameOn(machine, (wheel) => targetPressure(machine, wheel) ?? 0),
    tips,
  });
  if (!moved) return { noTipChanges: "no-plane" };
  return {
    tipChanges: moved.map((change, k) => ({ ...change, spindleId: tips[k]?.spindleId ?? "", direction: tips[k]?.direction ?? "" })),
  };
}

/** A solid wheel stands in as a tyre too stiff to notice. */
const SOLID_STIFFNESS = 1e7;

/** The machine's frame on its wheels, each at the pressure `pressureOf` gives. The machine must have a weight. */
export function frameOn(machine: Machine, pressureOf: (wheel: Wheel) => number): FrameOnTyres {
  if (!machine.frame) throw new Error("a frame without weight cannot be settled");
  return {
    weightNewtons: machine.frame.weightNewtons,
    centre: pointOf(machine.frame),
    pivots: Object.fromEntries(machine.pivotedAxles.map((axle) => [axle.axle, pointOf(axle)])),
    supports: machine.wheels.map((wheel) => ({
      ...pointOf(wheel),
      pivotGroup: wheel.axle,
      stiffness: wheel.isPneumatic ? tyreStiffness({ pressurePascals: pressureOf(wheel), ...wheel }) : SOLID_STIFFNESS,
    })),
  };
}
