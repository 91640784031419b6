import type { Evidence } from "@/core/basics/findings";
import { featuresOf } from "@/core/catalogue/kinds";
import type { Machine } from "@/core/machine";
import { SISTERS_WITHIN, type SpindlePattern, spindlePattern, TIP_SPEED_LIMIT, WORKING_RANGE } from "@/core/physics/drive/tip-speed";
import type { ReadSpindle } from "./read";

/**
 * What the speeds say together. Spindles whose pulleys differ are compared by their share of what paper gives; low by the tips themselves
 * where nothing else says how fast they should be: under the working range.
 */
export function patternOf(machine: Machine, known: readonly ReadSpindle[]): SpindlePattern {
  const read = known.filter(({ noLoad }) => noLoad !== undefined);
  const hasPaper = read.length > 0 && read.every(({ paper }) => paper !== undefined);
  const speeds = read.map(({ noLoad, paper }) => (noLoad?.revolutionsPerMinute ?? 0) / (hasPaper ? (paper?.revolutionsPerMinute ?? 1) : 1));
  const rated = hasPaper ? 1 : machine.sheet.blade?.ratedRevolutionsPerMinute;
  const pattern = read.length === 0 ? "alike" : spindlePattern(speeds, rated);
  // A machine rated under the range is not slow where it runs as it is rated.
  const isSlow = rated === undefined && read.length > 0 && read.every(({ noLoad }) => (noLoad?.metresPerSecond ?? 0) < WORKING_RANGE.from);
  return pattern === "alike" && isSlow ? "all-low" : pattern;
}

/** What the pattern speaks to; nothing before every spindle was read, since the one not read may be the one that stands. */
export function evidenceOf(args: {
  machine: Machine;
  known: readonly ReadSpindle[];
  pattern: SpindlePattern;
  /** It loses more under load than it should: a belt that slips or a weak engine shows only then. */
  isLabouring: boolean;
}): Evidence[] {
  const { machine, known, pattern, isLabouring } = args;
  const hasBelt = featuresOf(machine).includes("belt");
  const check = "tip-speed";
  const clear = (...causes: string[]): Evidence[] =>
    causes.filter((cause) => hasBelt || cause === "engine-speed-low").map((cause) => ({ check, cause, result: "not-found" }));
  const isOver = known.some(({ noLoad, paper }) => [noLoad, paper].some((one) => (one?.metresPerSecond ?? 0) >= TIP_SPEED_LIMIT));
  if (known.some(({ noLoad }) => noLoad === undefined) || isOver) return [];
  const sags = known.some(({ lowCharge }) => lowCharge !== undefined && lowCharge.metresPerSecond < WORKING_RANGE.from);
  switch (pattern) {
    case "alike":
      if (sags) return [...clear("belt-off", "belt-slipping"), { cause: "engine-speed-low", likelihoodRatio: LOADED_RATIO }];
      return isLabouring ? [...labouring(machine, known), ...clear("belt-off")] : clear("belt-off", "belt-slipping", "engine-speed-low");
    case "one-stopped":
    case "several-stopped":
      return [...(hasBelt ? [{ check, cause: "belt-off", result: "suspect" as const }] : []), ...clear("engine-speed-low")];
    case "one-low":
      return hasBelt
        ? [{ check, cause: "belt-slipping", result: "suspect" }, ...clear("belt-off", "engine-speed-low")]
        : clear("engine-speed-low");
    case "all-low":
      return hasBelt
        ? [{ check, causes: ["engine-speed-low", "belt-slipping"], result: "suspect" }, ...clear("belt-off")]
        : [{ check, cause: "engine-speed-low", result: "suspect" }];
    case "mixed":
      return [];
  }
}

/**
 * What all blades alike losing too much under load, or at low charge, is worth: belts that hold until they are loaded and a weak engine make it so nine times in
 * ten, what loads them (tall, wet, dull, packed, wound) in one machine of four. Counted on the simulated machines, held low for what nobody counted.
 */
const LOADED_RATIO = 4;

/**
 * All right without load, and one loses more under it than its sisters: its belt slips. Where all lose alike, it may be belts or engine, and as well
 * what loads them.
 */
function labouring(machine: Machine, known: readonly ReadSpindle[]): Evidence[] {
  const lost = known.flatMap(({ droop }) => droop ?? []);
  const isOne = lost.length > 1 && Math.max(...lost) - Math.min(...lost) > SISTERS_WITHIN;
  const hasBelt = featuresOf(machine).includes("belt");
  if (isOne) return hasBelt ? [{ check: "tip-speed", cause: "belt-slipping", result: "suspect" }] : [];
  const causes = [...(hasBelt ? ["belt-slipping"] : []), "engine-speed-low"];
  return causes.map((cause) => ({ cause, likelihoodRatio: LOADED_RATIO }));
}
