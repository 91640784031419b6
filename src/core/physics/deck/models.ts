import { type HeightAt, type Plane, planeHeight, solveLeastSquares } from "@/core/basics/geometry";
import { READING_REPEATABILITY_METRES, REPEATABILITY_WEIGHT } from "./plane-fit";

/** A height with the blade it belongs to and, where the ends are told apart, which end. */
export type BladeReading = HeightAt & { spindleId: string; end?: "A" | "B" };

export type DeckModel =
  | { kind: "whole-deck" }
  | { kind: "spindle-plane"; spindleId: string }
  | { kind: "blade-end"; spindleId: string; end: "A" | "B" };

export type FittedModel = {
  model: DeckModel;
  /** Plane of the rest of the deck. */
  plane: Plane;
  /** Largest departure of the odd blade or end from that plane at its readings. Metres, signed. */
  departureMetres: number;
  /** The odd blade's own height and slopes, or the odd end's height, above that plane. */
  extra: readonly number[];
  bic: number;
  inverseNormal: number[][];
  readingDeviation: number;
};

/** Lead in BIC from which one model is named and not just preferred (published: Kass & Raftery 1995, "strong", from memory). */
export const DECISIVE_BIC = 6;

/**
 * Every model these readings can bear, best first by BIC = N·ln((8σ₀² + RSS)/N) + p·ln n with N = 8 + n:
 * the whole deck one plane; one spindle on a plane of its own; one end of one blade off the plane that the other end keeps.
 * A model whose terms the readings cannot separate is left out: see `untestedSpindles`.
 */
export function compareModels(readings: readonly BladeReading[]): FittedModel[] {
  const spindles = [...new Set(readings.map(({ spindleId }) => spindleId))];
  const models: DeckModel[] = [
    { kind: "whole-deck" },
    ...(spindles.length > 1 ? spindles.map((spindleId) => ({ kind: "spindle-plane" as const, spindleId })) : []),
    ...spindles.flatMap((spindleId) => (["A", "B"] as const).map((end) => ({ kind: "blade-end" as const, spindleId, end }))),
  ];
  return models.flatMap((model) => fitModel(model, readings)).sort((a, b) => a.bic - b.bic);
}

/** The best model where it leads every other account of the deck decisively; two ends of one blade are one account. */
export function decisiveModel(models: readonly FittedModel[]): FittedModel | undefined {
  const [best, ...rest] = models;
  if (!best) return undefined;
  const isSame = ({ model }: FittedModel) =>
    model.kind === "blade-end" && best.model.kind === "blade-end" && model.spindleId === best.model.spindleId;
  const rival = rest.find((other) => !isSame(other));
  return !rival || rival.bic - best.bic >= DECISIVE_BIC ? best : undefined;
}

function extraColumns(model: DeckModel, reading: BladeReading): number[] {
  if (model.kind === "whole-deck") return [];
  const isHere = reading.spindleId === model.spindleId;
  if (model.kind === "spindle-plane") return isHere ? [1, reading.x, reading.y] : [0, 0, 0];
  return [isHere && reading.end === model.end ? 1 : 0];
}

function fitModel(model: DeckModel, readings: readonly BladeReading[]): FittedModel[] {
  const design = readings.map((reading) => [1, reading.x, reading.y, ...extraColumns(model, reading)]);
  const count = readings.length;
  const terms = design[0]?.length ?? 0;
  if (model.kind !== "whole-deck" && count <= terms) return [];
  // With one end alone read, its height is the blade's: nothing there tells an end.
  if (
    model.kind === "blade-end" &&
    new Set(readings.filter(({ spindleId }) => spindleId === model.spindleId).map(({ end }) => end)).size < 2
  )
    return [];
  const solved = solveLeastSquares(
    design,
    readings.map(({ z }) => z),
  );
  if (solved.kind === "refused") return [];
  const { coefficients, residualSumOfSquares, inverseNormal } = solved.fit;
  const [height = 0, slopeRight = 0, slopeForward = 0, ...extra] = coefficients;
  const known = REPEATABILITY_WEIGHT * READING_REPEATABILITY_METRES ** 2;
  const weight = REPEATABILITY_WEIGHT + count;
  return [
    {
      model,
      plane: { height, slopeRight, slopeForward },
      departureMetres: departure(model, extra, readings),
      extra,
      bic: weight * Math.log((known + residualSumOfSquares) / weight) + terms * Math.log(count),
      inverseNormal,
      readingDeviation: Math.sqrt((known + residualSumOfSquares) / (REPEATABILITY_WEIGHT + count - terms)),
    },
  ];
}

function departure(model: DeckModel, extra: readonly number[], readings: readonly BladeReading[]): number {
  if (model.kind === "whole-deck") return 0;
  if (model.kind === "blade-end") return extra[0] ?? 0;
  const own = readings.filter(({ spindleId }) => spindleId === model.spindleId);
  const departures = own.map(({ x, y }) => (extra[0] ?? 0) + (extra[1] ?? 0) * x + (extra[2] ?? 0) * y);
  return departures.reduce((most, value) => (Math.abs(value) > Math.abs(most) ? value : most), 0);
}

/** What a fitted model expects a ruler to show at a place. */
export function expectedHeight({ model, plane, extra }: FittedModel, at: Omit<BladeReading, "z">): number {
  const columns = extraColumns(model, { ...at, z: 0 });
  return planeHeight(plane, at) + columns.reduce((sum, column, k) => sum + column * (extra[k] ?? 0), 0);
}

/** So much apart must two accounts expect a reading before it is worth taking to tell them apart: twice what a ruler repeats to. */
const WORTH_READING_METRES = 2 * READING_REPEATABILITY_METRES;

/**
 * The unread place where the two best accounts of a deck differ most in what they expect, where neither leads decisively; `undefined` where
 * one does, or where no place tells them apart. Two ends of one blade are one account.
 */
export function tellModelsApart<P extends Omit<BladeReading, "z">>(
  models: readonly FittedModel[],
  candidates: readonly P[],
): { between: [DeckModel, DeckModel]; at: P; apartMetres: number } | undefined {
  const [best] = models;
  if (!best || decisiveModel(models)) return undefined;
  const account = ({ kind, ...rest }: DeckModel) => `${kind} ${"spindleId" in rest ? rest.spindleId : ""}`;
  const rival = models.find(({ model }) => account(model) !== account(best.model));
  if (!rival) return undefined;
  const apart = (at: P) => Math.abs(expectedHeight(best, at) - expectedHeight(rival, at));
  const at = [...candidates].sort((a, b) => apart(b) - apart(a))[0];
  return at && apart(at) > WORTH_READING_METRES ? { between: [best.model, rival.model], at, apartMetres: apart(at) } : undefined;
}
