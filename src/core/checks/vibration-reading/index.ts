import * as z from "zod";
import type { Evidence, Finding, Verdict } from "@/core/basics/findings";
import { physical } from "@/core/basics/units/physical";
import { type Machine, pointOf, spindlesAcross } from "@/core/machine";
import { choices, type Form } from "../form";
import { settled } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";

const FELT = ["none", "light", "strong"] as const;

export const vibrationReadingsSchema = z.object({
  machine: z
    .object({
      felt: z.enum(FELT).optional(),
      /** What has to run for it to be felt. */
      with: z.enum(["engine-alone", "blades", "travel"]).optional(),
      worst: z.enum(["at-full", "at-one-speed", "all-speeds"]).optional(),
      where: z.enum(["seat", "handle", "deck", "engine"]).optional(),
    })
    .default({}),
  /** Engine or blade speed at which it is worst. */
  worstRevolutionsPerMinute: physical("revolutionsPerMinute", 20_000).optional(),
  /** By a stick held to the hub's cover from outside, or a sensor fixed there: which one is worst. */
  spindles: z.record(z.string(), z.object({ felt: z.enum(FELT) })).default({}),
});

export type VibrationReadings = z.output<typeof vibrationReadingsSchema>;

export type VibrationDetail = {
  /** Shakes once a turn of the blades come so many times a second at that speed. */
  timesPerSecond?: number;
  worstAt: string[];
};

type Says = {
  action: { code: "look-at-engine" } | { code: "look-at-wheels" } | { code: "look-at-blades"; place?: string; single: number };
  warning: { code: "felt-not-recorded" } | { code: "strong-shaking" };
  problem: { code: "unknown-spindle"; place: string };
};

export const vibrationReading: Check<VibrationReadings, VibrationDetail, Says> = {
  id: "vibration-reading",
  ruleVersion: 2,
  cautions: ["sensor-from-distance"],
  readingsSchema: vibrationReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems: (machine, { spindles }) =>
    unknownPlaces({ read: spindles, known: machine.spindles, path: "spindles", code: "unknown-spindle" }),
  form: formOf,
  assess,
};

const FELT_CHOICES = choices(["none", "Nothing"], ["light", "Light"], ["strong", "Strong"]);

function formOf(machine: Machine, soFar: unknown): Form {
  const felt = (soFar as Partial<VibrationReadings>).machine?.felt;
  const across = spindlesAcross(machine);
  const isFelt = felt !== undefined && felt !== "none";
  const choice = (key: "with" | "worst" | "where", label: string, options: ReturnType<typeof choices>) => ({
    kind: "choice" as const,
    group: "whole",
    path: ["machine", key],
    label,
    options,
  });
  return {
    groups: [
      { id: "whole", label: "What is felt" },
      ...across.map((spindle) => ({ id: spindle.id, label: spindle.label, at: pointOf(spindle) })),
    ],
    fields: [
      { kind: "choice", group: "whole", path: ["machine", "felt"], label: "At full throttle, blades on", options: FELT_CHOICES },
      ...(isFelt
        ? [
            choice(
              "with",
              "It is there with",
              choices(["engine-alone", "The engine alone"], ["blades", "The blades on"], ["travel", "Travel only"]),
            ),
            choice("where", "Felt most at", choices(["seat", "Seat"], ["handle", "Handle"], ["deck", "Deck"], ["engine", "Engine"])),
            choice(
              "worst",
              "It is worst",
              choices(["at-full", "At full speed"], ["at-one-speed", "Passing one speed"], ["all-speeds", "At all speeds alike"]),
            ),
            {
              kind: "quantity" as const,
              group: "whole",
              path: ["worstRevolutionsPerMinute"],
              label: "Blades turn then at",
              isOptional: true,
              dimension: "rotation" as const,
              instrument: "gauge" as const,
              range: { least: 1, most: 20_000, usualLeast: 500, usualMost: 6000 },
            },
            ...(across.length > 1
              ? across.map(({ id }) => ({
                  kind: "choice" as const,
                  group: id,
                  path: ["spindles", id, "felt"],
                  label: "At its cover, from outside",
                  options: FELT_CHOICES,
                  isOptional: true,
                }))
              : []),
          ]
        : []),
    ],
  };
}

function assess(machine: Machine, readings: VibrationReadings): Assessment<VibrationDetail, Says> {
  const { felt, with: runs, worst, where } = readings.machine;
  const isFelt = felt === "light" || felt === "strong";
  const isTold = felt === "none" || (isFelt && runs !== undefined && worst !== undefined && where !== undefined);
  const felts = Object.entries(readings.spindles).map(([place, { felt: here }]) => feltAt(place, here));
  const findings = [...(felt === undefined ? [] : [feltAt("machine", felt)]), ...felts];
  const turning = readings.worstRevolutionsPerMinute;
  const worstAt = felts.filter(({ verdict: found }) => found === "out").map(({ place }) => place);
  return {
    check: "vibration-reading",
    ruleVersion: vibrationReading.ruleVersion,
    ...settled({
      check: "vibration-reading",
      findings,
      evidence: evidenceOf(isTold ? readings.machine : {}),
      told: [...(isTold ? ["machine"] : []), ...felts.map(({ place }) => place)],
      isComplete: isTold,
    }),
    provisional: [],
    figures:
      turning === undefined ? [] : [{ id: "worst-at", value: turning, dimension: "rotation", instrument: "gauge", standing: "measured" }],
    actions: actionsOf(machine, readings.machine, worstAt),
    warnings: [
      ...(isFelt ? [{ code: "felt-not-recorded" as const }] : []),
      ...(felt === "strong" && runs === "blades" ? [{ code: "strong-shaking" as const }] : []),
    ],
    detail: { worstAt, ...(turning === undefined ? {} : { timesPerSecond: turning / 60 }) },
  };
}

const FELT_VERDICT: Record<(typeof FELT)[number], Verdict> = { none: "in-tolerance", light: "watch", strong: "out" };

const feltAt = (place: string, felt: (typeof FELT)[number]): Finding => ({ place, code: `felt-${felt}`, verdict: FELT_VERDICT[felt] });

const CAUSES = ["blade-unbalanced", "spindle-bearing-worn"];
const ENGINE = "engine-rough";

/** Blades or spindles shake only while they turn: without them it is neither, but the engine. A hand cannot tell the two apart. */
function evidenceOf({ felt, with: runs }: VibrationReadings["machine"]): Evidence[] {
  const check = "vibration-reading";
  if (felt === undefined) return [];
  const engine: Evidence = { check, cause: ENGINE, result: felt !== "none" && runs === "engine-alone" ? "seen" : "not-found" };
  if (felt !== "none" && runs === "blades") return [{ check, causes: [...CAUSES], result: "suspect" }, engine];
  return [...CAUSES.map((cause): Evidence => ({ check, cause, result: "not-found" })), engine];
}

function actionsOf(machine: Machine, { felt, with: runs }: VibrationReadings["machine"], worstAt: readonly string[]): Says["action"][] {
  if (felt === undefined || felt === "none" || runs === undefined) return [];
  if (runs === "engine-alone") return [{ code: "look-at-engine" }];
  if (runs === "travel") return [{ code: "look-at-wheels" }];
  return [{ code: "look-at-blades", ...(worstAt[0] ? { place: worstAt[0] } : {}), single: machine.spindles.length === 1 ? 1 : 0 }];
}
