import * as z from "zod";
import {
  SISTERS_WITHIN,
  type SpindlePattern,
  spindlePattern,
  TEARS_BELOW,
  TIP_SPEED_LIMIT,
  tipSpeed,
  WORKING_RANGE,
} from "@/core/drive/tip-speed";
import { type Evidence, type Figure, gravest, type Verdict, type Warning } from "@/core/findings";
import { featuresOf } from "@/core/kinds";
import type { Machine, Spindle } from "@/core/machine";
import type { Assessment, Check, ReadingProblem } from "../types";

export const speedReadingsSchema = z.object({
  /** Of each spindle by tachometer, drive engaged, full throttle; 0 for one that stands. */
  spindles: z
    .array(z.object({ spindleId: z.string().min(1).max(60), revolutionsPerMinute: z.number().min(0).max(20_000) }))
    .min(1)
    .max(7),
});

export type SpeedReadings = z.output<typeof speedReadingsSchema>;

export type SpeedDetail = {
  pattern: SpindlePattern;
  spindles: { spindleId: string; revolutionsPerMinute: number; metresPerSecond: number }[];
};

type Read = SpeedDetail["spindles"][number];

const RADIANS = (2 * Math.PI) / 60;

export const tipSpeedCheck: Check<SpeedReadings, SpeedDetail> = {
  id: "tip-speed",
  ruleVersion: 1,
  readingsSchema: speedReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems,
  assess,
};

function problems(machine: Machine, { spindles }: SpeedReadings): ReadingProblem[] {
  const seen = new Set<string>();
  return spindles.flatMap(({ spindleId }, index) => {
    const path = ["spindles", index, "spindleId"];
    const again = seen.has(spindleId);
    seen.add(spindleId);
    if (again) return [{ code: "place-read-twice", path, place: spindleId }];
    return machine.spindles.some(({ id }) => id === spindleId) ? [] : [{ code: "unknown-spindle", path, place: spindleId }];
  });
}

function assess(machine: Machine, readings: SpeedReadings): Assessment<SpeedDetail> {
  const read = readings.spindles.flatMap(({ spindleId, revolutionsPerMinute }): Read[] => {
    const spindle = machine.spindles.find(({ id }) => id === spindleId);
    return spindle ? [{ spindleId, revolutionsPerMinute, metresPerSecond: speedOf(spindle, revolutionsPerMinute) }] : [];
  });
  const fastest = Math.max(0, ...read.map(({ revolutionsPerMinute }) => revolutionsPerMinute));
  const figures = [...read.map(tipFigure), ...(read.length > 1 ? read.map((one) => sisterFigure(one, fastest)) : [])];
  const unread = machine.spindles.filter(({ id }) => !read.some(({ spindleId }) => spindleId === id));
  const pattern = patternOf(read);
  return {
    check: "tip-speed",
    ruleVersion: tipSpeedCheck.ruleVersion,
    verdict: overall(figures, unread.length > 0),
    provisional: unread.map(({ id }) => ({ code: "spindle-unread", place: id })),
    figures,
    evidence: evidenceOf({ machine, read, pattern, isAllRead: unread.length === 0 }),
    actions: [],
    warnings: read.flatMap(warningFor),
    detail: { pattern, spindles: read },
  };
}

function speedOf({ tipCircleDiameterMetres }: Spindle, revolutionsPerMinute: number): number {
  return tipSpeed({ lengthMetres: tipCircleDiameterMetres, radiansPerSecond: revolutionsPerMinute * RADIANS });
}

/** Low by the tips themselves: under the working range. Without a rated speed that is all there is to go by. */
function patternOf(read: readonly Read[]): SpindlePattern {
  const pattern = spindlePattern(read.map(({ revolutionsPerMinute }) => revolutionsPerMinute));
  const isSlow = read.every(({ metresPerSecond }) => metresPerSecond < WORKING_RANGE.from);
  return pattern === "alike" && isSlow ? "all-low" : pattern;
}

function overall(figures: readonly Figure[], someUnread: boolean): Verdict {
  const worst = gravest(figures.flatMap(({ verdict }) => (verdict ? [verdict] : [])));
  return someUnread && (worst === "in-tolerance" || worst === "watch") ? "not-enough-readings" : worst;
}

function tipFigure({ spindleId, metresPerSecond }: Read): Figure {
  return {
    id: "tip-speed",
    place: spindleId,
    value: metresPerSecond,
    dimension: "speed",
    instrument: "gauge",
    tolerance: { kind: "between", least: WORKING_RANGE.from, most: TIP_SPEED_LIMIT, standing: "published-from-memory" },
    verdict: judge(metresPerSecond),
    standing: "measured",
  };
}

function judge(metresPerSecond: number): Verdict {
  if (metresPerSecond >= TIP_SPEED_LIMIT) return "stop";
  if (metresPerSecond < TEARS_BELOW) return "out";
  return metresPerSecond < WORKING_RANGE.from || metresPerSecond > WORKING_RANGE.to ? "watch" : "in-tolerance";
}

/** Against its sisters: within 3 % of the fastest. */
function sisterFigure({ spindleId, revolutionsPerMinute }: Read, fastest: number): Figure {
  const least = fastest * (1 - SISTERS_WITHIN);
  return {
    id: "spindle-speed",
    place: spindleId,
    value: revolutionsPerMinute,
    dimension: "rotation",
    instrument: "gauge",
    tolerance: { kind: "between", least, standing: "estimate" },
    verdict: revolutionsPerMinute < least ? "out" : "in-tolerance",
    standing: "measured",
  };
}

/** What the pattern speaks to; nothing before every spindle was read, since the one not read may be the one that stands. */
function evidenceOf(args: { machine: Machine; read: readonly Read[]; pattern: SpindlePattern; isAllRead: boolean }): Evidence[] {
  const { machine, read, pattern, isAllRead } = args;
  const hasBelt = featuresOf(machine).includes("belt");
  const check = "tip-speed";
  const clear = (...causes: string[]): Evidence[] =>
    causes.filter((cause) => hasBelt || cause === "engine-speed-low").map((cause) => ({ check, cause, result: "not-found" }));
  if (!isAllRead || read.some(({ metresPerSecond }) => metresPerSecond >= TIP_SPEED_LIMIT)) return [];
  switch (pattern) {
    case "alike":
      return clear("belt-off", "belt-slipping", "engine-speed-low");
    case "one-stopped":
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

function warningFor({ spindleId, revolutionsPerMinute, metresPerSecond }: Read): Warning[] {
  if (metresPerSecond >= TIP_SPEED_LIMIT)
    return [{ code: "over-tip-speed-limit", place: spindleId, limitMetresPerSecond: TIP_SPEED_LIMIT }];
  if (revolutionsPerMinute === 0) return [{ code: "blade-stands", place: spindleId }];
  return metresPerSecond < TEARS_BELOW ? [{ code: "too-slow-to-cut", place: spindleId, leastMetresPerSecond: TEARS_BELOW }] : [];
}
