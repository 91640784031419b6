import { type Figure, type Finding, judgeDeviation, studentT, type Verdict } from "@/core/basics/findings";
import { instrument } from "@/core/basics/instruments";
import { type Machine, unitsAcross } from "@/core/machine";
import { type LearntOffset, learnOffset, type Stubble, settingFor, stubbleOf } from "@/core/physics/turf/stubble";
import { pointsAt, shows } from "../settled";
import type { HeightReadings, Visit } from "./schema";

/** Mean of the stubble against what was meant: 1/8 in for rotary (common practice), 0.010 in for reel (estimate). */
export const HEIGHT_TOLERANCE = {
  rotary: { metres: 0.003, standing: "common-practice" },
  reel: { metres: 0.00025, standing: "estimate" },
} as const;

/** Bench against the height that is wanted: so far apart, and it is set to something else. Estimate: 0.008 in. */
export const BENCH_TOLERANCE_METRES = 0.0002;

/** Place of what all units stand at. */
export const WHOLE_BENCH = "bench";

export type Suggested = { wantedMetres: number; settingMetres: number; plusMinusMetres: number };

/** One unit's stubble and bench height, what its turf made of it on earlier visits too, and what to set for the height that is wanted. */
export type UnitHeight = {
  settingMetres?: number;
  stubble?: Stubble;
  offsetMetres?: number;
  learnt: LearntOffset;
  suggested?: Suggested;
};

const isSameTurf = (a: string | undefined, b: string | undefined): boolean =>
  b === undefined || b === "" || a?.toLowerCase() === b.toLowerCase();

/** Earlier visits to the turf in hand; to any, where it is not told. */
export const visitsTo = (turf: string | undefined, visits: readonly Visit[]): Visit[] =>
  visits.filter((visit) => isSameTurf(visit.turf, turf));

/** This visit among them, once bench and stubble were both read. */
export const visitNow = (stubble: Stubble | undefined, offsetMetres: number | undefined) =>
  stubble && offsetMetres !== undefined ? [{ offsetMetres, spreadMetres: stubble.spreadMetres, count: stubble.count, ageDays: 0 }] : [];

export const suggestedFor = (wantedMetres: number | undefined, learnt: LearntOffset): Suggested | undefined =>
  wantedMetres === undefined || learnt.visits === 0 ? undefined : { wantedMetres, ...settingFor(wantedMetres, learnt) };

/** Every unit of a machine with several, by itself: offset = stubble − bench, learnt with its own earlier visits. */
export function unitHeightsOf(machine: Machine, readings: HeightReadings): Record<string, UnitHeight> {
  const { unitHeights = {}, unitSettings = {}, unitVisits, turf } = readings;
  return Object.fromEntries(
    unitsAcross(machine).map(({ id }) => {
      const stubble = stubbleOf(unitHeights[id] ?? [], instrument("prism").resolution);
      const settingMetres = unitSettings[id] ?? readings.settingMetres;
      const offsetMetres = stubble && settingMetres !== undefined ? stubble.meanMetres - settingMetres : undefined;
      const learnt = learnOffset([...visitsTo(turf, unitVisits[id] ?? []), ...visitNow(stubble, offsetMetres)], "reel");
      const suggested = suggestedFor(readings.wantedMetres, learnt);
      return [
        id,
        {
          learnt,
          ...(settingMetres === undefined ? {} : { settingMetres }),
          ...(stubble ? { stubble } : {}),
          ...(offsetMetres === undefined ? {} : { offsetMetres }),
          ...(suggested ? { suggested } : {}),
        },
      ];
    }),
  );
}

/**
 * Bench height against the height that is wanted. What the turf made of it on earlier visits may be set into it: between the wanted height and that
 * setting nothing is off; beyond, it is, unless the turf shows that it cuts as wanted.
 */
export function benchOf(args: {
  place: string;
  settingMetres: number | undefined;
  wantedMetres: number | undefined;
  /** From earlier visits alone: this one must not excuse itself. */
  before: LearntOffset;
  cutsAsWanted: boolean;
  /** Whether it stands as its sisters do: then all of them are set wrong, and it is not unlike them. */
  isAsSisters?: boolean;
}): { findings: Finding[]; figures: Figure[] } {
  const { place, settingMetres, wantedMetres, before, cutsAsWanted, isAsSisters = false } = args;
  if (settingMetres === undefined || wantedMetres === undefined) return { findings: [], figures: [] };
  const value = settingMetres - wantedMetres;
  const forTurf = before.visits === 0 ? 0 : -before.offsetMetres;
  const beyond = value - Math.min(Math.max(value, Math.min(0, forTurf)), Math.max(0, forTurf));
  const judged = judgeDeviation({ deviation: beyond, tolerance: BENCH_TOLERANCE_METRES });
  const verdict: Verdict = judged === "out" && cutsAsWanted ? "watch" : judged;
  const finding: Finding = {
    place,
    code: verdict === "in-tolerance" ? "bench-as-wanted" : verdict === "watch" ? "bench-near-wanted" : "bench-off",
    verdict,
    // One that stands by itself is off its sisters; what all of them stand at is the setting.
    ...(verdict === "out" ? { causes: shows(place === WHOLE_BENCH || isAsSisters ? "height-misset" : "units-not-alike") } : {}),
  };
  const figure: Figure = {
    id: "bench-over-wanted",
    ...(place === WHOLE_BENCH ? {} : { place }),
    value,
    dimension: "length",
    instrument: "fine",
    tolerance: {
      kind: "between",
      least: Math.min(0, forTurf) - BENCH_TOLERANCE_METRES,
      most: Math.max(0, forTurf) + BENCH_TOLERANCE_METRES,
      standing: "estimate",
    },
    verdict,
    standing: "measured",
  };
  return { findings: [finding], figures: [figure] };
}

/** A unit whose stubble stands so far off the middle of all of them is not alike. Estimate: the reel's own tolerance. */
export function alikeOf(
  machine: Machine,
  units: Readonly<Record<string, UnitHeight>>,
): { findings: Finding[]; figures: Figure[]; isAll: boolean } {
  const read = machine.units.flatMap(({ id }) => {
    const stubble = units[id]?.stubble;
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
    const degrees = stubble.count - 1;
    // Of several units one always stands furthest off by chance: only what is out of its own scatter with 99 in 100 is told.
    const beyond = Math.abs(stubble.meanMetres - middle) - tolerance;
    const verdict: Verdict = beyond <= 0 ? "in-tolerance" : beyond >= studentT(degrees, 0.99) * standardError ? "out" : "watch";
    return { id, meanMetres: stubble.meanMetres, standardError, degrees, verdict, isPointed: beyond >= standardError };
  });
  return {
    isAll,
    findings: judged.map(
      ({ id, verdict, isPointed }): Finding => ({
        place: id,
        code: verdict === "out" ? "unit-off" : verdict === "watch" ? "unit-near-off" : "unit-like",
        verdict,
        // One standard error past it points at the unit; it takes more to call it out.
        ...(isPointed ? { causes: pointsAt("units-not-alike") } : {}),
      }),
    ),
    figures: judged.map(
      ({ id, meanMetres, standardError, degrees, verdict }): Figure => ({
        id: "unit-stubble",
        place: id,
        value: meanMetres,
        standardError,
        degrees,
        dimension: "length",
        instrument: "fine",
        tolerance: { kind: "about", target: middle, plusMinus: tolerance, standing: HEIGHT_TOLERANCE.reel.standing },
        verdict,
        standing: "measured",
      }),
    ),
  };
}
