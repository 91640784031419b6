import * as z from "zod";
import type { Evidence, Figure, Finding, Verdict } from "@/core/basics/findings";
import { physical } from "@/core/basics/units/physical";
import { featuresOf, kindById } from "@/core/catalogue/kinds";
import { cuttingWidth, type Machine } from "@/core/machine";
import { badRadii, bladesOf, LEAST_OVERLAP_METRES } from "@/core/physics/blades/overlap";
import { turnThatOpens } from "@/core/physics/reel";
import type { Form } from "../form";
import { evidenceOf, settled, shows } from "../settled";
import type { Assessment, At, Check } from "../types";
import { NEAR_TURN } from "../unit-layout";

/** Neighbouring passes share this much where the sheet says nothing. Common practice: 2 to 4 in. */
export const PASS_OVERLAP = { least: 0.05, most: 0.1 } as const;
/** Share of a day's path that is mowing; the rest is turning, getting round and emptying. Estimate. */
export const USUAL_EFFICIENCY = 0.8;

export const passReadingsSchema = z.object({
  /** From join to join, several passes at once. */
  acrossMetres: physical("metres", 200).optional(),
  passes: z.number().int().min(1).max(60).optional(),
  steersBy: z.enum(["outer-edge-of-cut", "wheel-mark", "deck-edge", "guess"]).optional(),
  tightestTurnMetres: physical("metres", 60).optional(),
  groundMetresPerSecond: physical("metresPerSecond", 15).optional(),
});

export type PassReadings = z.output<typeof passReadingsSchema>;
export type PassDetail = { spacingMetres?: number; overlapMetres?: number; widthMetres: number; hectaresPerHour?: number };

type Says = {
  action:
    | { code: "closer-passes"; spacingMetres: number }
    | { code: "wider-passes"; spacingMetres: number }
    | { code: "mark-the-edge" }
    | { code: "turn-wider"; radiusMetres: number };
  warning: { code: "operating-finding" };
  provisional: { code: "one-pass" };
  problem: { code: "spacing-cannot-be"; spacingMetres: number; widthMetres: number };
};

export const passOverlap: Check<PassReadings, PassDetail, Says> = {
  id: "pass-overlap",
  ruleVersion: 2,
  readingsSchema: passReadingsSchema,
  missing: (machine) => (cuttingWidth(machine) === 0 ? ["no-spindles"] : []),
  problems,
  form: formOf,
  assess,
};

/** Passes nearer or further apart than these shares of the cut were counted or measured wrong: nobody mows like that. Estimate. */
const SPACING_SHARE = { least: 0.25, most: 2 } as const;

function problems(machine: Machine, { acrossMetres, passes }: PassReadings): (Says["problem"] & At)[] {
  if (acrossMetres === undefined || passes === undefined) return [];
  const [spacingMetres, widthMetres] = [acrossMetres / passes, cuttingWidth(machine)];
  const share = spacingMetres / widthMetres;
  if (share >= SPACING_SHARE.least && share <= SPACING_SHARE.most) return [];
  return [{ code: "spacing-cannot-be", path: ["acrossMetres"], spacingMetres, widthMetres }];
}

function formOf(machine: Machine): Form {
  const width = cuttingWidth(machine);
  const hasTurns = machine.spindles.length > 1;
  return {
    groups: [
      { id: "passes", label: "From join to join" },
      { id: "turns", label: "Turning and steering" },
    ],
    fields: [
      {
        kind: "quantity",
        path: ["acrossMetres"],
        group: "passes",
        label: "Over several passes, join to join",
        dimension: "distance",
        instrument: "tape",
        range: { least: 0.1, most: 200, usualLeast: width * 0.5, usualMost: width * 20 },
      },
      { kind: "number", path: ["passes"], group: "passes", label: "That is so many passes", least: 1, most: 60, isWhole: true },
      {
        kind: "choice",
        path: ["steersBy"],
        group: "turns",
        label: "The operator steers by",
        isOptional: true,
        options: [
          { id: "outer-edge-of-cut", label: "Edge of the cut" },
          { id: "wheel-mark", label: "Wheel mark" },
          { id: "deck-edge", label: "Edge of the deck" },
          { id: "guess", label: "The eye" },
        ],
      },
      ...(hasTurns
        ? [
            {
              kind: "quantity" as const,
              path: ["tightestTurnMetres"],
              group: "turns",
              label: "Tightest turn while cutting, radius",
              isOptional: true,
              dimension: "distance" as const,
              instrument: "tape" as const,
              range: { least: 0.05, most: 60, usualLeast: 0.2, usualMost: 30 },
            },
          ]
        : []),
      {
        kind: "quantity",
        path: ["groundMetresPerSecond"],
        group: "turns",
        label: "Travels at",
        isOptional: true,
        dimension: "speed",
        instrument: "gauge",
        range: { least: 0.1, most: 15, usualLeast: 0.5, usualMost: 6 },
      },
    ],
  };
}

/** Radii of turns, metres: wider than `nearMetres` neighbours share what they should, under `opensMetres` a strip stays; nought: never. */
type Turns = { nearMetres: number; opensMetres: number };

/**
 * The widest turn, either way round, in which neighbours lose each other. A tighter one passes through all the radii on its way in and out, so it
 * is no better: tighter is never safer.
 */
function turnsOf(machine: Machine): Turns {
  const sides = [1, -1] as const;
  const widest = (radii: readonly (number | undefined)[]) => Math.max(0, ...radii.map((one) => one ?? 0));
  if (kindById(machine.kind).cutsWith === "reel") {
    const opens = machine.units.length < 2 ? 0 : widest(sides.map((side) => turnThatOpens(machine.units, side)?.underMetres));
    return { nearMetres: opens * NEAR_TURN, opensMetres: opens };
  }
  if (machine.spindles.length < 2) return { nearMetres: 0, opensMetres: 0 };
  const under = (limitMetres: number) =>
    widest(sides.flatMap((side) => badRadii({ blades: bladesOf(machine), side, limitMetres }).map(({ toMetres }) => toMetres)));
  return { nearMetres: under(LEAST_OVERLAP_METRES), opensMetres: under(0) };
}

function turnFinding({ kind }: Machine, radius: number | undefined, { nearMetres, opensMetres }: Turns): Finding[] {
  if (radius === undefined) return [];
  // A machine that spins on the spot turns so all day, sound or not: that is weighed, and shows nothing by itself.
  const causes = kind === "zero-turn" ? [] : shows(TIGHT);
  if (radius < opensMetres) return [{ place: "turns", code: "turn-strip", verdict: "out", causes }];
  if (radius < nearMetres) return [{ place: "turns", code: "turn-near-strip", verdict: "watch" }];
  return [{ place: "turns", code: "turn-clear", verdict: "in-tolerance" }];
}

function assess(machine: Machine, readings: PassReadings): Assessment<PassDetail, Says> {
  const { acrossMetres, passes, tightestTurnMetres, groundMetresPerSecond } = readings;
  const widthMetres = cuttingWidth(machine);
  const spacing = acrossMetres === undefined || passes === undefined ? undefined : acrossMetres / passes;
  const overlap = spacing === undefined ? undefined : widthMetres - spacing;
  const wanted = machine.sheet.passOverlapMetres ?? PASS_OVERLAP.least;
  const verdict: Verdict = overlap === undefined ? "not-enough-readings" : judge(overlap, wanted);
  const check = "pass-overlap";
  const hasTurns = featuresOf(machine).some((feature) => feature === "several-blades" || feature === "several-units");
  const turns = turnsOf(machine);
  const turned = hasTurns ? turnFinding(machine, tightestTurnMetres, turns) : [];
  const isMissing = turned.some(({ verdict }) => verdict === "out");
  const findings: Finding[] = [
    ...(overlap === undefined ? [] : [{ place: "passes", code: "passes-share", verdict, causes: isLine(overlap) ? shows(SMALL) : [] }]),
    ...turned,
  ];
  const isWeighed = isMissing && machine.kind === "zero-turn";
  const clears = { [SMALL]: overlap !== undefined, ...(hasTurns ? { [TIGHT]: turned.length > 0 && !isWeighed } : {}) };
  const evidence: Evidence[] = [
    ...evidenceOf({ check, findings, clears }),
    ...(isWeighed ? [{ cause: TIGHT, likelihoodRatio: SPINNER_RATIO }] : []),
  ];
  const actions: Says["action"][] = [
    ...(verdict === "out" && overlap !== undefined
      ? [{ code: overlap < wanted ? ("closer-passes" as const) : ("wider-passes" as const), spacingMetres: widthMetres - wanted }]
      : []),
    ...(readings.steersBy === "deck-edge" || readings.steersBy === "guess" ? [{ code: "mark-the-edge" as const }] : []),
    ...(isMissing ? [{ code: "turn-wider" as const, radiusMetres: turns.nearMetres }] : []),
  ];
  return {
    check,
    ruleVersion: passOverlap.ruleVersion,
    ...settled({
      check,
      findings,
      evidence,
      told: [...(overlap === undefined ? [] : ["passes"]), ...(tightestTurnMetres === undefined ? [] : ["turns"])],
      isComplete: overlap !== undefined,
    }),
    provisional: passes === 1 ? [{ code: "one-pass" as const }] : [],
    figures: [overlapFigure(overlap, wanted, machine.sheet.passOverlapMetres !== undefined), ...widthFigure(widthMetres)].flat(),
    actions,
    warnings: actions.length > 0 ? [{ code: "operating-finding" as const }] : [],
    detail: {
      widthMetres,
      ...(spacing === undefined ? {} : { spacingMetres: spacing }),
      ...(overlap === undefined ? {} : { overlapMetres: overlap }),
      ...(spacing === undefined || groundMetresPerSecond === undefined
        ? {}
        : { hectaresPerHour: (spacing * groundMetresPerSecond * USUAL_EFFICIENCY * 3600) / 10_000 }),
    },
  };
}

const SMALL = "pass-overlap-small";
const TIGHT = "turn-too-tight";
/** How many times likelier a machine that spins on the spot is to be turned so while cutting where that is the matter than where it is not. Estimate. */
const SPINNER_RATIO = 10;
/** Half of what passes should share is a line as soon as the wheel strays. Estimate. */
const isLine = (overlap: number): boolean => overlap < PASS_OVERLAP.least / 2;
const leastOf = (wanted: number): number => Math.min(wanted, PASS_OVERLAP.least);
const mostOf = (wanted: number): number => Math.max(wanted, PASS_OVERLAP.most);

/** Right inside what is shown; too little leaves a line; more than twice the most only costs time. */
function judge(overlap: number, wanted: number): Verdict {
  if (isLine(overlap) || overlap > 2 * mostOf(wanted)) return "out";
  return overlap < leastOf(wanted) || overlap > mostOf(wanted) ? "watch" : "in-tolerance";
}

function overlapFigure(overlap: number | undefined, wanted: number, isSheet: boolean): Figure[] {
  if (overlap === undefined) return [];
  return [
    {
      id: "pass-overlap",
      value: overlap,
      dimension: "length",
      instrument: "tape",
      tolerance: {
        kind: "between",
        least: leastOf(wanted),
        most: mostOf(wanted),
        standing: isSheet ? "sheet" : "common-practice",
      },
      verdict: judge(overlap, wanted),
      standing: "measured",
    },
  ];
}

function widthFigure(value: number): Figure[] {
  return [{ id: "width-of-cut", value, dimension: "length", instrument: "tape", standing: "sheet" }];
}
