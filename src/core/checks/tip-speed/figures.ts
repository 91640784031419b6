import { type Figure, judgeDeviation, type Tolerance, type Verdict } from "@/core/basics/findings";
import type { Machine } from "@/core/machine";
import { paperWay } from "@/core/physics/drive/paper";
import { MOST_DROOP, SISTERS_WITHIN, TEARS_BELOW, TIP_SPEED_LIMIT, WORKING_RANGE } from "@/core/physics/drive/tip-speed";
import { SHARP_EDGE_METRES } from "../ground-speed";
import type { ReadSpindle, Speed } from "./read";

/** A belt that runs slower than its pulleys give by more than this slips. Estimate; a sound V-belt creeps by 1 to 2 % (common practice). */
export const MOST_SLIP = 0.05;
/** Over the machine's own usual droop by this. Estimate. */
const OVER_USUAL_DROOP = 0.03;
/** So near a limit of droop or of sisters, a share of the speed, a tachometer would say either: watched. Not a third, since governors spread as far. Estimate. */
const NEAR_SHARE = 0.01;

function judge(metresPerSecond: number): Verdict {
  if (metresPerSecond >= TIP_SPEED_LIMIT) return "stop";
  if (metresPerSecond < TEARS_BELOW) return "out";
  return metresPerSecond < WORKING_RANGE.from || metresPerSecond > WORKING_RANGE.to ? "watch" : "in-tolerance";
}

const TIP_TOLERANCE: Extract<Tolerance, { kind: "between" }> = {
  kind: "between",
  least: WORKING_RANGE.from,
  most: TIP_SPEED_LIMIT,
  standing: "published-from-memory",
  source: "ANSI/OPEI B71.1, B71.4",
};

/** Worked out on paper it is only held against the limit: how it cuts shows when it runs. */
function judgeOnPaper(metresPerSecond: number): Verdict {
  const verdict = judge(metresPerSecond);
  return metresPerSecond < WORKING_RANGE.from ? "in-tolerance" : verdict;
}

function tipFigure(id: string, place: string, { metresPerSecond: value }: Speed): Figure {
  const isPaper = id === "paper-tip-speed";
  const { least: _, ...most } = TIP_TOLERANCE;
  return {
    id,
    place,
    value,
    dimension: "speed",
    instrument: "gauge",
    tolerance: isPaper ? most : TIP_TOLERANCE,
    verdict: isPaper ? judgeOnPaper(value) : judge(value),
    standing: isPaper ? "physics" : "measured",
  };
}

/** A figure of shares of one. */
function shareFigure(
  id: string,
  place: string,
  value: number,
  judged?: { most: number; watchFrom: number; standing: Tolerance["standing"] },
): Figure {
  const { watchFrom = 0, ...most } = judged ?? { most: 0, standing: "estimate" as const };
  return {
    id,
    place,
    value,
    dimension: "share",
    instrument: "fine",
    ...(judged
      ? {
          tolerance: { kind: "between" as const, ...most },
          verdict: value > most.most ? ("out" as const) : value > watchFrom ? ("watch" as const) : ("in-tolerance" as const),
        }
      : {}),
    standing: "physics",
  };
}

/** Every spindle: on paper, by tachometer, loaded, at low charge; then against its sisters, slip, droop, lift, and the bite of all. */
export function figuresOf(args: { machine: Machine; known: readonly ReadSpindle[]; biteMetres: number | undefined }): Figure[] {
  const { machine, known, biteMetres } = args;
  const usual = machine.sheet.drive?.usualDroop;
  const droop =
    usual === undefined
      ? { most: MOST_DROOP, standing: "estimate" as const }
      : { most: usual + OVER_USUAL_DROOP, standing: "sheet" as const };
  return [
    ...known.flatMap(({ spindleId, paper, noLoad, loaded, lowCharge }) => [
      ...(paper ? [tipFigure("paper-tip-speed", spindleId, paper)] : []),
      ...(noLoad ? [tipFigure("tip-speed", spindleId, noLoad)] : []),
      ...(loaded ? [tipFigure("loaded-tip-speed", spindleId, loaded)] : []),
      ...(lowCharge ? [tipFigure("low-charge-tip-speed", spindleId, lowCharge)] : []),
    ]),
    ...sisterFigures(known),
    ...known.flatMap(({ spindleId, slip, droop: lost, lift }) => [
      // Only a belt slips: gears and shafts that read slower were read wrong, or run slower as a whole.
      ...(slip === undefined || paperWay(machine) !== "belt"
        ? []
        : [shareFigure("slip", spindleId, slip, { most: MOST_SLIP, watchFrom: (MOST_SLIP * 2) / 3, standing: "estimate" })]),
      ...(lost === undefined ? [] : [shareFigure("droop", spindleId, lost, { ...droop, watchFrom: droop.most - NEAR_SHARE })]),
      ...(lift === undefined ? [] : [shareFigure("lift-left", spindleId, lift)]),
    ]),
    ...(biteMetres === undefined ? [] : [biteFigure(biteMetres)]),
  ];
}

/** Against its sisters: within 3 % of the fastest, each by its share of what its own pulley gives where that is known. */
function sisterFigures(known: readonly ReadSpindle[]): Figure[] {
  const read = known.filter(({ noLoad }) => noLoad !== undefined);
  if (read.length < 2) return [];
  const hasPaper = read.every(({ paper }) => paper !== undefined);
  const wantedOf = ({ paper }: ReadSpindle) => (hasPaper ? (paper?.revolutionsPerMinute ?? 1) : 1);
  const fastest = Math.max(...read.map((one) => (one.noLoad?.revolutionsPerMinute ?? 0) / wantedOf(one)));
  return read.map((one) => {
    const value = one.noLoad?.revolutionsPerMinute ?? 0;
    const wanted = fastest * wantedOf(one);
    const least = wanted * (1 - SISTERS_WITHIN);
    return {
      id: "spindle-speed",
      place: one.spindleId,
      value,
      dimension: "rotation",
      instrument: "gauge",
      tolerance: { kind: "between", least, standing: "estimate" },
      verdict: value < least ? "out" : value < least + wanted * NEAR_SHARE ? "watch" : "in-tolerance",
      standing: "measured",
    };
  });
}

function biteFigure(value: number): Figure {
  return {
    id: "bite",
    value,
    dimension: "length",
    instrument: "fine",
    tolerance: { kind: "between", most: SHARP_EDGE_METRES, standing: "estimate" },
    verdict: judgeDeviation({ deviation: value, tolerance: SHARP_EDGE_METRES }),
    standing: "physics",
  };
}
