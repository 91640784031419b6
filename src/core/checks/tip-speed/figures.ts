import { MOST_DROOP, SISTERS_WITHIN, TEARS_BELOW, TIP_SPEED_LIMIT, WORKING_RANGE } from "@/core/drive/tip-speed";
import type { Figure, Tolerance, Verdict } from "@/core/findings";
import type { Machine } from "@/core/machine";
import { SHARP_EDGE_METRES } from "../ground-speed";
import type { ReadSpindle, Speed } from "./read";

/** A belt that runs slower than its pulleys give by more than this slips. Estimate; a sound V-belt creeps by 1 to 2 % (common practice). */
export const MOST_SLIP = 0.05;
/** Over the machine's own usual droop by this. Estimate. */
const OVER_USUAL_DROOP = 0.03;

function judge(metresPerSecond: number): Verdict {
  if (metresPerSecond >= TIP_SPEED_LIMIT) return "stop";
  if (metresPerSecond < TEARS_BELOW) return "out";
  return metresPerSecond < WORKING_RANGE.from || metresPerSecond > WORKING_RANGE.to ? "watch" : "in-tolerance";
}

const TIP_TOLERANCE: Tolerance = {
  kind: "between",
  least: WORKING_RANGE.from,
  most: TIP_SPEED_LIMIT,
  standing: "published-from-memory",
  source: "ANSI/OPEI B71.1, B71.4",
};

function tipFigure(id: string, place: string, { metresPerSecond }: Speed, verdict: Verdict): Figure {
  const standing = id === "paper-tip-speed" ? "physics" : "measured";
  return { id, place, value: metresPerSecond, dimension: "speed", instrument: "gauge", tolerance: TIP_TOLERANCE, verdict, standing };
}

/** A figure of shares of one. */
function shareFigure(id: string, place: string, value: number, most?: { most: number; standing: Tolerance["standing"] }): Figure {
  return {
    id,
    place,
    value,
    dimension: "share",
    instrument: "fine",
    ...(most ? { tolerance: { kind: "between", ...most }, verdict: value > most.most ? "out" : "in-tolerance" } : {}),
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
      // Worked out on paper it is only refused at the limit: how it cuts shows when it runs.
      ...(paper
        ? [tipFigure("paper-tip-speed", spindleId, paper, paper.metresPerSecond >= TIP_SPEED_LIMIT ? "stop" : "in-tolerance")]
        : []),
      ...(noLoad ? [tipFigure("tip-speed", spindleId, noLoad, judge(noLoad.metresPerSecond))] : []),
      ...(loaded ? [tipFigure("loaded-tip-speed", spindleId, loaded, judge(loaded.metresPerSecond))] : []),
      ...(lowCharge ? [tipFigure("low-charge-tip-speed", spindleId, lowCharge, judge(lowCharge.metresPerSecond))] : []),
    ]),
    ...sisterFigures(known),
    ...known.flatMap(({ spindleId, slip, droop: lost, lift }) => [
      ...(slip === undefined ? [] : [shareFigure("slip", spindleId, slip, { most: MOST_SLIP, standing: "estimate" })]),
      ...(lost === undefined ? [] : [shareFigure("droop", spindleId, lost, droop)]),
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
    const least = fastest * (1 - SISTERS_WITHIN) * wantedOf(one);
    return {
      id: "spindle-speed",
      place: one.spindleId,
      value,
      dimension: "rotation",
      instrument: "gauge",
      tolerance: { kind: "between", least, standing: "estimate" },
      verdict: value < least ? "out" : "in-tolerance",
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
    verdict: value > SHARP_EDGE_METRES ? "out" : "in-tolerance",
    standing: "physics",
  };
}
