import * as z from "zod";
import { type Figure, type Finding, judgeDeviation, type Verdict } from "@/core/basics/findings";
import { physicalOrNought } from "@/core/basics/units/physical";
import { type AntiScalpWheel, type Machine, pointOf } from "@/core/machine";
import type { Form } from "../form";
import { settled, shows } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";

/** Off the ground at the set height. Common practice: 1/4 to 3/4 in. */
export const CLEARANCE = { least: 0.006, most: 0.02 } as const;

const TURNS = ["free", "stiff", "seized", "missing"] as const;

export const antiScalpReadingsSchema = z.object({
  wheels: z
    .record(
      z.string(),
      z.object({
        clearanceMetres: physicalOrNought("metres", 0.3).optional(),
        turns: z.enum(TURNS).optional(),
        hole: z.number().int().min(1).max(20).optional(),
      }),
    )
    .default({}),
});

export type AntiScalpReadings = z.output<typeof antiScalpReadingsSchema>;
type WheelRead = AntiScalpReadings["wheels"][string];

type Says = {
  action:
    | { code: "move-wheel"; place: string; way: "up" | "down"; leastMetres: number; mostMetres: number }
    | { code: "free-wheel"; place: string; state: string }
    | { code: "same-hole"; place: string; twin: string };
  provisional: { code: "place-unread"; place: string };
  problem: { code: "unknown-anti-scalp-wheel"; place: string };
};

export const antiScalpWheels: Check<AntiScalpReadings, { twins: [string, string][] }, Says> = {
  id: "anti-scalp-wheels",
  ruleVersion: 1,
  readingsSchema: antiScalpReadingsSchema,
  missing: (machine) => (wheelsOf(machine).length === 0 ? ["no-anti-scalp-wheels"] : []),
  problems: (machine, { wheels }) =>
    unknownPlaces({ read: wheels, known: wheelsOf(machine), path: "wheels", code: "unknown-anti-scalp-wheel" }),
  form: formOf,
  assess,
};

const wheelsOf = (machine: Machine): AntiScalpWheel[] => machine.deck?.antiScalpWheels ?? [];

function formOf(machine: Machine): Form {
  const wheels = wheelsOf(machine);
  return {
    groups: wheels.map((wheel) => ({ id: wheel.id, label: wheel.label, at: pointOf(wheel) })),
    fields: wheels.flatMap(({ id }): Form["fields"] => [
      {
        kind: "quantity",
        path: ["wheels", id, "clearanceMetres"],
        group: id,
        label: "Clears the ground by",
        dimension: "length",
        instrument: "tape",
        range: { least: 0, most: 0.3, usualLeast: 0, usualMost: 0.08 },
      },
      {
        kind: "choice",
        path: ["wheels", id, "turns"],
        group: id,
        label: "Turns",
        options: [
          { id: "free", label: "Free" },
          { id: "stiff", label: "Stiff" },
          { id: "seized", label: "Seized" },
          { id: "missing", label: "Missing" },
        ],
      },
      {
        kind: "number",
        path: ["wheels", id, "hole"],
        group: id,
        label: "Hole, from the top",
        least: 1,
        most: 20,
        isWhole: true,
        isOptional: true,
      },
    ]),
  };
}

function clearanceVerdict(metres: number): Verdict {
  const middle = (CLEARANCE.least + CLEARANCE.most) / 2;
  return judgeDeviation({ deviation: metres - middle, tolerance: (CLEARANCE.most - CLEARANCE.least) / 2 });
}

/** Twins on other holes than each other, each pair once. */
function unlikeTwins(machine: Machine, read: AntiScalpReadings["wheels"]): [string, string][] {
  return wheelsOf(machine).flatMap(({ id, twin }): [string, string][] => {
    const [mine, other] = [read[id]?.hole, twin === undefined ? undefined : read[twin]?.hole];
    return twin !== undefined && id < twin && mine !== undefined && other !== undefined && mine !== other ? [[id, twin]] : [];
  });
}

const MISSET = "anti-scalp-misset";

/** All that is off with a wheel; right only where nothing is. */
function findingsAt(place: string, read: WheelRead, isUnlike: boolean): Finding[] {
  const height = read.clearanceMetres === undefined ? undefined : clearanceVerdict(read.clearanceMetres);
  const out = (code: string): Finding => ({ place, code, verdict: "out", causes: shows(MISSET) });
  const off: Finding[] = [
    ...(read.turns === "missing" || read.turns === "seized" ? [out(read.turns)] : []),
    ...(isUnlike ? [out("other-hole")] : []),
    ...(height === "out" ? [out((read.clearanceMetres ?? 0) < CLEARANCE.least ? "too-low" : "too-high")] : []),
    ...(read.turns === "stiff" ? [{ place, code: "stiff", verdict: "watch" as const }] : []),
    ...(height === "watch" ? [{ place, code: "near-limit", verdict: "watch" as const }] : []),
  ];
  return off.length === 0 && height !== undefined ? [{ place, code: "right", verdict: height }] : off;
}

function assess(machine: Machine, { wheels }: AntiScalpReadings): Assessment<{ twins: [string, string][] }, Says> {
  const all = wheelsOf(machine);
  const twins = unlikeTwins(machine, wheels);
  const findings = Object.entries(wheels).flatMap(([place, read]) =>
    findingsAt(
      place,
      read,
      twins.some((pair) => pair.includes(place)),
    ),
  );
  const unread = all.filter(
    ({ id }) => wheels[id]?.turns === undefined || (wheels[id].turns !== "missing" && wheels[id].clearanceMetres === undefined),
  );
  const isComplete = unread.length === 0;
  return {
    check: "anti-scalp-wheels",
    ruleVersion: antiScalpWheels.ruleVersion,
    ...settled({
      check: "anti-scalp-wheels",
      findings,
      clears: { [MISSET]: isComplete && all.every(({ id, twin }) => twin === undefined || wheels[id]?.hole !== undefined) },
      told: all.filter((wheel) => !unread.includes(wheel)).map(({ id }) => id),
      isComplete,
    }),
    provisional: unread.map(({ id }) => ({ code: "place-unread", place: id })),
    figures: Object.entries(wheels).flatMap(([place, { clearanceMetres }]) => figureOf(place, clearanceMetres)),
    actions: actionsOf(findings, twins),
    warnings: [],
    detail: { twins },
  };
}

function figureOf(place: string, clearanceMetres: number | undefined): Figure[] {
  if (clearanceMetres === undefined) return [];
  return [
    {
      id: "wheel-clearance",
      place,
      value: clearanceMetres,
      dimension: "length",
      instrument: "tape",
      tolerance: { kind: "between", ...CLEARANCE, standing: "common-practice" },
      verdict: clearanceVerdict(clearanceMetres),
      standing: "measured",
    },
  ];
}

function actionsOf(findings: readonly Finding[], twins: readonly [string, string][]): Says["action"][] {
  return [
    ...findings.flatMap(({ place, code }): Says["action"][] => {
      if (code === "too-low" || code === "too-high")
        return [
          { code: "move-wheel", place, way: code === "too-low" ? "up" : "down", leastMetres: CLEARANCE.least, mostMetres: CLEARANCE.most },
        ];
      return code === "seized" || code === "stiff" || code === "missing" ? [{ code: "free-wheel", place, state: code }] : [];
    }),
    ...twins.map(([place, twin]): Says["action"] => ({ code: "same-hole", place, twin })),
  ];
}
