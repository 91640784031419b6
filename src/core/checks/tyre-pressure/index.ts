import * as z from "zod";
import { type Evidence, type Figure, judgeDeviation, measuredLikelihoodRatio, type Warning } from "@/core/findings";
import { DIRECTIONS, type Machine, pointOf, tipAt, type Wheel } from "@/core/machine";
import { type FrameOnTyres, predictTipChange, pressureAtTemperature, type TipChange, tyreStiffness } from "@/core/tyres";
import { findingsOf, settled } from "../settled";
import type { Action, Assessment, Check, ReadingProblem } from "../types";

/** ±1 psi of the sheet, and between the two tyres of an axle (estimate; needs a gauge of 0 to 30 psi). */
export const PRESSURE_TOLERANCE_PASCALS = 7000;
/** Standard uncertainty of a reading on a good low-pressure gauge, as a share of its step (uniform reading of a scale). */
const STEP_SHARE = 1 / Math.sqrt(12);
const DEFAULT_GAUGE_STEP_PASCALS = 3447;

export const tyreReadingsSchema = z.object({
  tyres: z
    .array(
      z.object({
        wheelId: z.string().min(1).max(60),
        pressurePascals: z.number().min(0).max(700_000),
        /** Of the air in the tyre; without it the reading counts as cold, of this morning. */
        temperatureKelvin: z.number().min(230).max(370).optional(),
      }),
    )
    .min(1)
    .max(8),
  /** What the cold reading is related to, where a warm tyre was read. */
  coldTemperatureKelvin: z.number().min(230).max(330).optional(),
  gaugeStepPascals: z.number().positive().max(100_000).optional(),
});

export type TyreReadings = z.output<typeof tyreReadingsSchema>;

export type TyreDetail = {
  wheels: { wheelId: string; coldPressurePascals: number; targetPascals?: number }[];
  /** What these pressures do to a frame-hung deck against the target pressures; absent where it cannot be reckoned. */
  tipChanges?: (TipChange & { spindleId: string; direction: string })[];
  /** Why it is absent. */
  noTipChanges?: "no-deck" | "self-carried-deck" | "no-weight" | "no-sheet-pressure" | "tyre-unread" | "no-plane";
};

type Read = { wheel: Wheel; cold: number; target?: number };

export const tyrePressure: Check<TyreReadings, TyreDetail> = {
  id: "tyre-pressure",
  ruleVersion: 2,
  readingsSchema: tyreReadingsSchema,
  missing: (machine) => (pneumatic(machine).length === 0 ? ["no-air-tyres"] : []),
  problems,
  assess,
};

function pneumatic(machine: Machine): Wheel[] {
  return machine.wheels.filter(({ isPneumatic }) => isPneumatic);
}

function problems(machine: Machine, readings: TyreReadings): ReadingProblem[] {
  const seen = new Set<string>();
  return readings.tyres.flatMap(({ wheelId }, index) => {
    const path = ["tyres", index, "wheelId"];
    const again = seen.has(wheelId);
    seen.add(wheelId);
    if (again) return [{ code: "place-read-twice", path, place: wheelId }];
    if (!pneumatic(machine).some(({ id }) => id === wheelId)) return [{ code: "unknown-wheel", path, place: wheelId }];
    return [];
  });
}

/** The pressure a wheel should have: the sheet's, less the machine's own offset, never under the sheet's least. */
export function targetPressure(machine: Machine, wheel: Wheel): number | undefined {
  if (wheel.sheetPressurePascals === undefined) return undefined;
  const wanted = wheel.sheetPressurePascals + (machine.sheet.pressureOffsetPascals ?? 0);
  return Math.max(wanted, wheel.leastPressurePascals ?? 0);
}

function assess(machine: Machine, readings: TyreReadings): Assessment<TyreDetail> {
  const step = readings.gaugeStepPascals ?? DEFAULT_GAUGE_STEP_PASCALS;
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
      evidence: evidenceOf({ read, pairs, tolerance, uncertainty: step * STEP_SHARE, isComplete: unread.length === 0 }),
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
  return readings.tyres.flatMap(({ wheelId, pressurePascals, temperatureKelvin }) => {
    const wheel = pneumatic(machine).find(({ id }) => id === wheelId);
    if (!wheel) return [];
    const { coldTemperatureKelvin: toKelvin } = readings;
    const cold =
      temperatureKelvin && toKelvin ? pressureAtTemperature({ pressurePascals, fromKelvin: temperatureKelvin, toKelvin }) : pressurePascals;
    const target = targetPressure(machine, wheel);
    return [{ wheel, cold, ...(target === undefined ? {} : { target }) }];
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

function actionFor({ wheel, cold, target }: Read): Action[] {
  if (target === undefined) return [{ code: "ask-sheet-pressure", place: wheel.id }];
  if (Math.abs(cold - target) <= NOT_WORTH_PASCALS) return [];
  const set: Action = { code: "set-pressure", place: wheel.id, fromPascals: cold, toPascals: target };
  return cold < target / 2 ? [set, { code: "find-leak", place: wheel.id }] : [set];
}

function warningsFor(args: { machine: Machine; read: readonly Read[]; step: number; tolerance: number }): Warning[] {
  const warnings: Warning[] = [];
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

function wheelDetail({ wheel, cold, target }: Read) {
  return { wheelId: wheel.id, coldPressurePascals: cold, ...(target === undefined ? {} : { targetPascals: target }) };
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
