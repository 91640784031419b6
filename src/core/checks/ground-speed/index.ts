import * as z from "zod";
import { type Evidence, type Figure, measuredLikelihoodRatio, type Verdict } from "@/core/basics/findings";
import { physical } from "@/core/basics/units/physical";
import { kindById } from "@/core/catalogue/kinds";
import { isRider, type Machine } from "@/core/machine";
import { bite } from "@/core/physics/drive/tip-speed";
import type { Form } from "../form";
import { settled } from "../settled";
import { timedRun } from "../timed-run";
import type { Assessment, Check } from "../types";

/** Length of sharp edge near a blade's tip; a bite beyond it leaves leaves standing. Estimate: 2 1/2 in. */
export const SHARP_EDGE_METRES = 0.0635;
/** Slower than this a rotary mower mulls over its own clippings. Estimate: 1.5 mph. */
export const SLOWEST_METRES_PER_SECOND = 0.67;
/**
 * Faster than this the deck hunts on its wheels and the blades are asked for more than they clear, whatever the bite: 6 mph riding, 3 1/2 mph
 * on foot (common practice).
 */
export const FASTEST_METRES_PER_SECOND = { riding: 2.7, walking: 1.6 } as const;
/** Past a limit by less than this share the speed is watched: a stopwatch and a driver's foot stray so far. Estimate. */
export const NEAR_SHARE = 0.15;
const RADIANS = (2 * Math.PI) / 60;

export const groundSpeedReadingsSchema = z.object({
  distanceMetres: physical("metres", 2000).optional(),
  /** One or several runs over that distance. */
  seconds: z.array(physical("seconds", 3600)).max(20).default([]),
  revolutionsPerMinute: physical("revolutionsPerMinute", 20_000).optional(),
  throttle: z.enum(["full", "below-full"]).optional(),
});

export type GroundSpeedReadings = z.output<typeof groundSpeedReadingsSchema>;
export type GroundSpeedDetail = { metresPerSecond?: number; biteMetres?: number; fastestMetresPerSecond?: number };

type Says = {
  action:
    | { code: "drive-slower"; mostMetresPerSecond: number }
    | { code: "drive-faster"; leastMetresPerSecond: number }
    | { code: "full-throttle" };
  warning: { code: "operating-finding" } | { code: "bite-at-rated-speed"; revolutions: number };
  provisional: { code: "one-run" } | { code: "no-blade-speed" } | { code: "below-full-throttle" };
};

export const groundSpeed: Check<GroundSpeedReadings, GroundSpeedDetail, Says> = {
  id: "ground-speed",
  ruleVersion: 5,
  readingsSchema: groundSpeedReadingsSchema,
  missing: () => [],
  problems: () => [],
  form: formOf,
  assess,
};

/** A reel has no bite: what its speed does to the cut is its clip, read with the reels. */
const isReel = (machine: Machine): boolean => kindById(machine.kind).cutsWith === "reel";

function formOf(machine: Machine): Form {
  return {
    groups: [{ id: "run", label: "Timed over a distance" }, ...(isReel(machine) ? [] : [{ id: "blades", label: "The blades meanwhile" }])],
    fields: [
      ...timedRun("run"),
      {
        kind: "choice",
        path: ["throttle"],
        group: "run",
        label: "Throttle",
        options: [
          { id: "full", label: "Full" },
          { id: "below-full", label: "Below full" },
        ],
      },
      ...(isReel(machine)
        ? []
        : [
            {
              kind: "quantity" as const,
              path: ["revolutionsPerMinute"],
              group: "blades",
              label: "Blades turn at",
              isOptional: machine.sheet.blade?.ratedRevolutionsPerMinute !== undefined,
              dimension: "rotation" as const,
              instrument: "gauge" as const,
              range: { least: 1, most: 20_000, usualLeast: 1500, usualMost: 4500 },
            },
          ]),
    ],
  };
}

function assess(
  machine: Machine,
  { distanceMetres, seconds, revolutionsPerMinute, throttle }: GroundSpeedReadings,
): Assessment<GroundSpeedDetail, Says> {
  const time = seconds.length === 0 ? undefined : seconds.reduce((sum, one) => sum + one, 0) / seconds.length;
  const speed = distanceMetres === undefined || time === undefined ? undefined : distanceMetres / time;
  const turns = isReel(machine) ? undefined : (revolutionsPerMinute ?? machine.sheet.blade?.ratedRevolutionsPerMinute);
  const edges = machine.sheet.blade?.edges ?? 2;
  const bitten =
    speed === undefined || turns === undefined
      ? undefined
      : bite({ groundMetresPerSecond: speed, edges, radiansPerSecond: turns * RADIANS });
  const practice = isRider(machine) ? FASTEST_METRES_PER_SECOND.riding : FASTEST_METRES_PER_SECOND.walking;
  const fastest = Math.min(practice, turns === undefined ? practice : (SHARP_EDGE_METRES * edges * turns) / 60);
  const check = "ground-speed";
  const isOver = speed !== undefined && speed > fastest * (1 + ROUNDING);
  const isUnder = speed !== undefined && !isReel(machine) && speed < SLOWEST_METRES_PER_SECOND * (1 - ROUNDING);
  const isFast = isOver && speed > fastest * (1 + NEAR_SHARE);
  const isSlow = isUnder && speed < SLOWEST_METRES_PER_SECOND * (1 - NEAR_SHARE);
  const evidence =
    speed === undefined ? [] : evidenceOf({ machine, speed, fastest, isBiteKnown: bitten !== undefined, runs: seconds.length });
  const actions: Says["action"][] = [
    ...(isOver ? [{ code: "drive-slower" as const, mostMetresPerSecond: fastest }] : []),
    ...(isUnder ? [{ code: "drive-faster" as const, leastMetresPerSecond: SLOWEST_METRES_PER_SECOND }] : []),
    ...(throttle === "below-full" ? [{ code: "full-throttle" as const }] : []),
  ];
  return {
    check,
    ruleVersion: groundSpeed.ruleVersion,
    ...settled({
      check,
      findings:
        speed === undefined
          ? []
          : [
              {
                place: "machine",
                code: isOver ? "too-fast" : isUnder ? "too-slow" : "travels",
                verdict: isFast || isSlow ? "out" : isOver || isUnder ? "watch" : judge(bitten),
              },
            ],
      evidence,
      told: speed === undefined ? [] : ["machine"],
      isComplete: speed !== undefined,
    }),
    provisional: [
      ...(seconds.length === 1 ? [{ code: "one-run" as const }] : []),
      ...(speed !== undefined && turns === undefined && !isReel(machine) ? [{ code: "no-blade-speed" as const }] : []),
      ...(throttle === "below-full" ? [{ code: "below-full-throttle" as const }] : []),
    ],
    figures: figuresOf(speed, bitten, fastest),
    actions,
    warnings: [
      ...(isOver || isUnder || throttle === "below-full" ? [{ code: "operating-finding" as const }] : []),
      ...(speed !== undefined && turns !== undefined && revolutionsPerMinute === undefined
        ? [{ code: "bite-at-rated-speed" as const, revolutions: turns }]
        : []),
    ],
    detail: {
      ...(speed === undefined ? {} : { metresPerSecond: speed }),
      ...(bitten === undefined ? {} : { biteMetres: bitten }),
      fastestMetresPerSecond: fastest,
    },
  };
}

/** A sound machine is driven at two thirds of the most, and at one and a half of the least. Estimate. */
const USUAL_SHARE = 2 / 3;
/** Of one run: a stopwatch, and where the foot stands. Estimate. */
const RUN_SHARE = 0.05;

/** How far past its limit, with its error: a speed is measured, and by how much it is off says how likely it is no slip. */
function evidenceOf(args: { machine: Machine; speed: number; fastest: number; isBiteKnown: boolean; runs: number }): Evidence[] {
  const { machine, speed, fastest } = args;
  const standardUncertainty = (RUN_SHARE * speed) / Math.sqrt(Math.max(1, args.runs));
  const over = USUAL_SHARE * fastest;
  const high = measuredLikelihoodRatio({ deviation: speed - over, tolerance: fastest - over, standardUncertainty, sides: "one" });
  const under = SLOWEST_METRES_PER_SECOND / USUAL_SHARE;
  const low = measuredLikelihoodRatio({
    deviation: under - speed,
    tolerance: under - SLOWEST_METRES_PER_SECOND,
    standardUncertainty,
    sides: "one",
  });
  return [
    // Without the blades' speed the bite may still be too long at a walk: nothing clears it.
    ...(high > 1 || args.isBiteKnown || isReel(machine) ? [{ cause: "ground-speed-high", likelihoodRatio: high }] : []),
    ...(isReel(machine) ? [] : [{ cause: "ground-speed-low", likelihoodRatio: low }]),
  ];
}

/** A reading on the limit is not over it by the last bit of a conversion. */
const ROUNDING = 1e-9;

function judge(bitten: number | undefined): Verdict {
  return bitten !== undefined && bitten > (SHARP_EDGE_METRES * 2) / 3 ? "watch" : "in-tolerance";
}

function figuresOf(speed: number | undefined, bitten: number | undefined, fastest: number): Figure[] {
  return [
    ...(speed === undefined
      ? []
      : [
          {
            id: "travels",
            value: speed,
            dimension: "speed" as const,
            instrument: "gauge" as const,
            tolerance: {
              kind: "between" as const,
              least: SLOWEST_METRES_PER_SECOND,
              most: fastest,
              standing: Object.values<number>(FASTEST_METRES_PER_SECOND).includes(fastest)
                ? ("common-practice" as const)
                : ("estimate" as const),
            },
            standing: "measured" as const,
          },
        ]),
    ...(bitten === undefined
      ? []
      : [
          {
            id: "bite",
            value: bitten,
            dimension: "length" as const,
            instrument: "fine" as const,
            tolerance: { kind: "between" as const, most: SHARP_EDGE_METRES, standing: "estimate" as const },
            standing: "physics" as const,
          },
        ]),
  ];
}
