import * as z from "zod";
import type { Evidence, Figure, Finding } from "@/core/basics/findings";
import { instrument } from "@/core/basics/instruments";
import { physical, physicalOrNought } from "@/core/basics/units/physical";
import { type BladeSheet, type Machine, pointOf, spindlesAcross } from "@/core/machine";
import {
  imbalance,
  judgeBalance,
  OUT_KILOGRAM_METRES,
  outImbalance,
  permissibleImbalance,
  rightImbalance,
  shakingForce,
  shakingInWords,
  stockForBalance,
} from "@/core/physics/blades/balance";
import type { Form } from "../form";
import { settled, shows } from "../settled";
import type { Assessment, At, Check } from "../types";
import { unknownPlaces } from "../verdicts";

/** What a shop's balancer shows at the tip. */
export const USUAL_RESOLUTION_KILOGRAMS = instrument("balancer").resolution;
/** Past this no grinding within reason brings it level: the blade goes. Estimate: four ounce-inches. */
const PAST_GRINDING = 4 * OUT_KILOGRAM_METRES;
const RADIANS = (2 * Math.PI) / 60;

const GRADES = { "6.3": 6.3, "16": 16, "40": 40 } as const;

export const balanceReadingsSchema = z.object({
  grade: z.enum(["6.3", "16", "40"]).default("16"),
  set: z.enum(["together", "one-new"]).optional(),
  /** Least mass at the tip that the balancer answers to. */
  resolutionKilograms: physical("kilograms", 0.1).optional(),
  revolutionsPerMinute: physical("revolutionsPerMinute", 20_000).optional(),
  massKilograms: physical("kilograms", 30).optional(),
  /** How much of the edge is ground off over its thickness: what a length of it weighs. */
  grindDepthMetres: physical("metres", 0.05).optional(),
  blades: z
    .record(
      z.string(),
      z.object({
        /** The mass that brings the light end level, and how far from the middle it hung; 0 where the blade hangs level by itself. */
        addedKilograms: physicalOrNought("kilograms", 2).optional(),
        radiusMetres: physical("metres", 1).optional(),
        light: z.enum(["A", "B"]).optional(),
      }),
    )
    .default({}),
});

export type BalanceReadings = z.output<typeof balanceReadingsSchema>;

export type BalanceDetail = {
  permissible?: number;
  resolution: number;
  blades: {
    spindleId: string;
    imbalance: number;
    force?: number;
    weightKilograms?: number;
    timesPerSecond?: number;
    takeOffKilograms?: number;
    takeOffLengthMetres?: number;
    heavy?: "A" | "B";
  }[];
};

type Says = {
  action:
    | { code: "replace-unbalanced"; place: string }
    | { code: "take-off-heavy-end"; place: string; massKilograms: number | undefined; end?: string; lengthMetres?: number };
  warning: { code: "one-new-among-worn" };
  provisional: { code: "place-unread"; place: string } | { code: "no-balance-terms" };
  problem:
    | { code: "unknown-spindle"; place: string }
    | { code: "beyond-the-tip"; mostMetres: number }
    | { code: "light-end-without-weight"; place: string };
};
type Problem = Says["problem"] & At;

export const bladeBalance: Check<BalanceReadings, BalanceDetail, Says> = {
  id: "blade-balance",
  ruleVersion: 2,
  cautions: ["freed-blade"],
  readingsSchema: balanceReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems,
  form: formOf,
  assess,
};

function problems(machine: Machine, { blades }: BalanceReadings): Problem[] {
  const beyond = machine.spindles.flatMap(({ id, tipCircleDiameterMetres }): Problem[] => {
    const radius = blades[id]?.radiusMetres;
    return radius !== undefined && radius > tipCircleDiameterMetres / 2 + 0.02
      ? [{ code: "beyond-the-tip" as const, path: ["blades", id, "radiusMetres"], mostMetres: tipCircleDiameterMetres / 2 }]
      : [];
  });
  const contradictory = Object.entries(blades).flatMap(([place, { addedKilograms, light }]): Problem[] =>
    addedKilograms === 0 && light ? [{ code: "light-end-without-weight" as const, path: ["blades", place, "light"], place }] : [],
  );
  return [
    ...contradictory,
    ...unknownPlaces({ read: blades, known: machine.spindles, path: "blades", code: "unknown-spindle" }),
    ...beyond,
  ];
}

function formOf(machine: Machine): Form {
  const across = spindlesAcross(machine);
  const { blade } = machine.sheet;
  return {
    groups: [
      ...across.map((spindle) => ({ id: spindle.id, label: spindle.label, at: pointOf(spindle) })),
      { id: "set", label: "The set" },
      {
        id: "terms",
        label: "What it is judged by",
        isFolded: blade?.massKilograms !== undefined && blade.ratedRevolutionsPerMinute !== undefined,
      },
    ],
    fields: [
      ...across.flatMap((spindle): Form["fields"] => bladeFields(spindle.id, spindle.tipCircleDiameterMetres)),
      {
        kind: "choice",
        path: ["set"],
        group: "set",
        label: "Blades of this deck",
        isOptional: true,
        options: [
          { id: "together", label: "All of one age" },
          { id: "one-new", label: "One new among worn" },
        ],
      },
      ...termFields(blade),
    ],
  };
}

function bladeFields(id: string, tipCircle: number): Form["fields"] {
  return [
    {
      kind: "quantity",
      path: ["blades", id, "addedKilograms"],
      group: id,
      label: "Mass that levels it (0: hangs level)",
      dimension: "small-mass",
      instrument: "gauge",
      range: { least: 0, most: 2, usualLeast: 0, usualMost: 0.2 },
    },
    {
      kind: "quantity",
      path: ["blades", id, "radiusMetres"],
      group: id,
      label: "Hung this far from the middle",
      dimension: "length",
      instrument: "tape",
      range: { least: 0.02, most: 1, usualLeast: tipCircle / 6, usualMost: tipCircle / 2 + 0.005 },
    },
    {
      kind: "choice",
      path: ["blades", id, "light"],
      group: id,
      label: "Light end",
      isOptional: true,
      options: [
        { id: "A", label: "A, the marked" },
        { id: "B", label: "B" },
      ],
    },
  ];
}

function termFields(blade: BladeSheet | undefined): Form["fields"] {
  return [
    {
      kind: "choice",
      path: ["grade"],
      group: "terms",
      label: "Grade",
      isOptional: true,
      options: [
        { id: "16", label: "G 16, farm machinery" },
        { id: "6.3", label: "G 6.3, finer" },
        { id: "40", label: "G 40, looser" },
      ],
    },
    {
      kind: "quantity",
      path: ["massKilograms"],
      group: "terms",
      label: "A blade weighs",
      isOptional: blade?.massKilograms !== undefined,
      dimension: "mass",
      instrument: "fine",
      range: { least: 0.05, most: 30, usualLeast: 0.3, usualMost: 6 },
    },
    {
      kind: "quantity",
      path: ["revolutionsPerMinute"],
      group: "terms",
      label: "It turns at",
      isOptional: blade?.ratedRevolutionsPerMinute !== undefined,
      dimension: "rotation",
      instrument: "gauge",
      range: { least: 1, most: 20_000, usualLeast: 1500, usualMost: 4500 },
    },
    {
      kind: "quantity",
      path: ["resolutionKilograms"],
      group: "terms",
      label: "The balancer answers to, at the tip",
      isOptional: true,
      dimension: "small-mass",
      instrument: "gauge",
      range: { least: 0.0001, most: 0.1, usualLeast: 0.0005, usualMost: 0.01 },
    },
    {
      kind: "quantity",
      path: ["grindDepthMetres"],
      group: "terms",
      label: "Ground off the edge at a pass",
      isOptional: true,
      dimension: "length",
      instrument: "fine",
      range: { least: 0.0001, most: 0.05, usualLeast: 0.0003, usualMost: 0.012 },
    },
  ];
}

type Terms = { massKilograms?: number | undefined; radiansPerSecond?: number | undefined; permissible?: number | undefined };

function termsOf(machine: Machine, readings: BalanceReadings): Terms {
  const massKilograms = readings.massKilograms ?? machine.sheet.blade?.massKilograms;
  const revolutions = readings.revolutionsPerMinute ?? machine.sheet.blade?.ratedRevolutionsPerMinute;
  const radiansPerSecond = revolutions === undefined ? undefined : revolutions * RADIANS;
  const permissible =
    massKilograms === undefined || radiansPerSecond === undefined
      ? undefined
      : permissibleImbalance({ grade: GRADES[readings.grade], massKilograms, radiansPerSecond });
  return { massKilograms, radiansPerSecond, permissible };
}

function assess(machine: Machine, readings: BalanceReadings): Assessment<BalanceDetail, Says> {
  const terms = termsOf(machine, readings);
  const tip = Math.min(...machine.spindles.map(({ tipCircleDiameterMetres }) => tipCircleDiameterMetres / 2));
  const resolution = (readings.resolutionKilograms ?? USUAL_RESOLUTION_KILOGRAMS) * tip;
  const blades = spindlesAcross(machine).flatMap(({ id }) => bladeOf({ machine, id, readings, terms }));
  const figures = blades.flatMap((blade) => figuresOf(blade, terms, resolution));
  const unread = machine.spindles.filter(({ id }) => !blades.some(({ spindleId }) => spindleId === id));
  const findings = figures.flatMap(({ id, place, verdict }): Finding[] =>
    id === "imbalance" && place && verdict
      ? [{ place, code: verdict === "in-tolerance" ? "balanced" : "unbalanced", verdict, causes: verdict === "out" ? shows(CAUSE) : [] }]
      : [],
  );
  return {
    check: "blade-balance",
    ruleVersion: bladeBalance.ruleVersion,
    ...settled({
      check: "blade-balance",
      findings,
      evidence: evidenceOf(blades, findings, unread.length === 0),
      told: blades.map(({ spindleId }) => spindleId),
      isComplete: unread.length === 0,
    }),
    provisional: [
      ...unread.map(({ id }) => ({ code: "place-unread" as const, place: id })),
      ...(terms.permissible === undefined ? [{ code: "no-balance-terms" as const }] : []),
    ],
    figures,
    actions: blades.flatMap((blade) => actionsOf(blade, terms, resolution)),
    warnings: readings.set === "one-new" ? [{ code: "one-new-among-worn" as const }] : [],
    detail: { resolution, blades, ...(terms.permissible === undefined ? {} : { permissible: terms.permissible }) },
  };
}

function bladeOf(args: { machine: Machine; id: string; readings: BalanceReadings; terms: Terms }): BalanceDetail["blades"] {
  const { machine, id, readings, terms } = args;
  const read = readings.blades[id];
  if (read?.addedKilograms === undefined || (read.addedKilograms > 0 && read.radiusMetres === undefined)) return [];
  const amount = imbalance({ massKilograms: read.addedKilograms, radiusMetres: read.radiusMetres ?? 0 });
  const thickness = machine.sheet.blade?.thicknessMetres;
  const section = thickness !== undefined && readings.grindDepthMetres !== undefined ? thickness * readings.grindDepthMetres : undefined;
  const tip = (machine.spindles.find((spindle) => spindle.id === id)?.tipCircleDiameterMetres ?? 0) / 2;
  const take =
    amount > 0
      ? stockForBalance({
          imbalanceKilogramMetres: amount,
          radiusMetres: tip * GRIND_AT,
          ...(section ? { sectionSquareMetres: section } : {}),
        })
      : undefined;
  const { radiansPerSecond } = terms;
  const shaking = radiansPerSecond === undefined ? undefined : { imbalanceKilogramMetres: amount, radiansPerSecond };
  return [
    {
      spindleId: id,
      imbalance: amount,
      ...(shaking ? { force: shakingForce(shaking), ...shakingInWords(shaking) } : {}),
      ...(take ? { takeOffKilograms: take.massKilograms } : {}),
      ...(take?.lengthMetres === undefined ? {} : { takeOffLengthMetres: take.lengthMetres }),
      ...(read.light ? { heavy: read.light === "A" ? ("B" as const) : ("A" as const) } : {}),
    },
  ];
}

/** Where on the cutting edge stock comes off, as a share of the tip's radius: the middle of the sharp part. Estimate. */
const GRIND_AT = 0.85;

function figuresOf(blade: BalanceDetail["blades"][number], { permissible }: Terms, resolution: number): Figure[] {
  const most = rightImbalance({ permissible: permissible ?? 0, resolution });
  const verdict = judgeBalance({ imbalanceKilogramMetres: blade.imbalance, permissible: permissible ?? 0, resolution });
  return [
    {
      id: "imbalance",
      place: blade.spindleId,
      value: blade.imbalance,
      dimension: "imbalance",
      instrument: "gauge",
      tolerance: {
        kind: "between",
        most,
        standing: permissible !== undefined && permissible >= resolution ? "published-from-memory" : "estimate",
        ...(permissible !== undefined && permissible >= resolution ? { source: "ISO 21940-11" } : {}),
      },
      verdict,
      standing: "measured",
    },
    ...(blade.force === undefined
      ? []
      : [
          {
            id: "shaking-force",
            place: blade.spindleId,
            value: blade.force,
            dimension: "force" as const,
            instrument: "gauge" as const,
            standing: "physics" as const,
          },
        ]),
  ];
}

const CAUSE = "blade-unbalanced";

/** Near the limit it neither clears nor accuses; nor does what a coarse balancer cannot tell from level, where it is over an ounce-inch. */
function evidenceOf(blades: BalanceDetail["blades"], findings: readonly Finding[], isComplete: boolean): Evidence[] {
  const check = "blade-balance";
  const cause = CAUSE;
  const verdicts = findings.map(({ verdict }) => verdict);
  if (verdicts.includes("out")) return [{ check, cause, result: "seen" }];
  if (!isComplete) return [];
  const isUnresolved = blades.some((blade) => blade.imbalance > OUT_KILOGRAM_METRES);
  return [{ check, cause, result: isUnresolved || verdicts.includes("watch") ? "unclear" : "not-found" }];
}

function actionsOf(blade: BalanceDetail["blades"][number], { permissible }: Terms, resolution: number): Says["action"][] {
  const limits = { permissible: permissible ?? 0, resolution };
  if (blade.imbalance > Math.max(PAST_GRINDING, outImbalance(limits))) return [{ code: "replace-unbalanced", place: blade.spindleId }];
  if (blade.imbalance <= rightImbalance(limits)) return [];
  return [
    {
      code: "take-off-heavy-end",
      place: blade.spindleId,
      massKilograms: blade.takeOffKilograms,
      ...(blade.takeOffLengthMetres === undefined ? {} : { lengthMetres: blade.takeOffLengthMetres }),
      ...(blade.heavy ? { end: blade.heavy } : {}),
    },
  ];
}
