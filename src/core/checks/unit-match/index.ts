import * as z from "zod";
import { type Figure, type Finding, judgeDeviation } from "@/core/basics/findings";
import { physical } from "@/core/basics/units/physical";
import { FACINGS, type Machine, ROLLER_KINDS, unitSheetOf, unitsAcross } from "@/core/machine";
import { byUnitSchema, keepsUnits, noUnits, unitGroups, unknownUnits } from "../by-unit";
import { choices, type Field } from "../form";
import { bySize, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";

/** Within so much of their sisters. Estimate for the reel; bench height common practice, 0.002 in; knife estimate. */
export const ALIKE_WITHIN = { diameterMetres: 0.0015, benchMetres: 0.00005, knifeMetres: 0.0003, knifeLeftMetres: 0.0005 } as const;

const unitRead = z.object({
  blades: z.number().int().min(3).max(20).optional(),
  diameterMetres: physical("metres", 0.4).optional(),
  knife: z.enum(["as-sheet", "another"]).optional(),
  knifeMetres: physical("metres", 0.03).optional(),
  knifeLeftMetres: physical("metres", 0.1).optional(),
  frontRoller: z.enum(ROLLER_KINDS).optional(),
  rearRoller: z.enum(ROLLER_KINDS).optional(),
  hole: z.number().int().min(1).max(20).optional(),
  facing: z.enum(FACINGS).optional(),
  groomer: z.enum(["fitted", "none"]).optional(),
  benchMetres: physical("metres", 0.1).optional(),
});
export const matchReadingsSchema = byUnitSchema(unitRead);
export type MatchReadings = z.output<typeof matchReadingsSchema>;
export type Property = keyof z.output<typeof unitRead>;
export const PROPERTIES: readonly Property[] = [
  "blades",
  "diameterMetres",
  "knife",
  "knifeMetres",
  "knifeLeftMetres",
  "frontRoller",
  "rearRoller",
  "hole",
  "facing",
  "groomer",
  "benchMetres",
];
/** What says little about the cut: asked, and nothing waits for it. */
const OPTIONAL: readonly Property[] = ["knifeLeftMetres", "facing"];

type Says = {
  action: { code: "bring-alike"; place: string; property: Property };
  provisional: { code: "unit-unread"; place: string } | { code: "no-majority"; property: Property };
  problem: { code: "unknown-unit"; place: string };
};
export type Cell = { value?: string | number; isOdd: boolean };
export type MatchDetail = { matrix: { property: Property; usual?: string | number; cells: Record<string, Cell> }[] };

/** All units of a machine against each other, property by property: what differs from most of them stands out. */
export const unitMatch: Check<MatchReadings, MatchDetail, Says> = keepsUnits({
  id: "unit-match",
  ruleVersion: 2,
  readingsSchema: matchReadingsSchema,
  missing: (machine) => [...noUnits(machine), ...(machine.units.length < 2 ? ["one-unit"] : [])],
  problems: (machine, { units }) => unknownUnits(machine, units),
  form: (machine) => ({ groups: unitGroups(machine), fields: unitsAcross(machine).flatMap(({ id }) => fieldsOf(machine, id)) }),
  assess,
});

function fieldsOf(machine: Machine, id: string): Field[] {
  const sheet = unitSheetOf(machine, id);
  const size = (key: Property, label: string, usual: readonly [number, number]): Field => ({
    kind: "quantity",
    path: ["units", id, key],
    group: id,
    label,
    ...(OPTIONAL.includes(key) ? { isOptional: true } : {}),
    dimension: "length",
    instrument: "fine",
    range: {
      least: 0.0001,
      most: key === "diameterMetres" ? 0.4 : key === "knifeMetres" ? 0.03 : 0.1,
      usualLeast: usual[0],
      usualMost: usual[1],
    },
  });
  const pick = (key: Property, label: string, ...pairs: readonly (readonly [string, string])[]): Field => ({
    kind: "choice",
    path: ["units", id, key],
    group: id,
    label,
    ...(OPTIONAL.includes(key) ? { isOptional: true } : {}),
    options: choices(...pairs),
  });
  const { scrapDiameterMetres = 0.08, newDiameterMetres = 0.2 } = sheet.reel ?? {};
  const { thicknessMetres = 0.006, leastThicknessMetres = 0.001, depthMetres = 0.02 } = sheet.bedknife ?? {};
  return [
    { kind: "number", path: ["units", id, "blades"], group: id, label: "Blades on the reel", least: 3, most: 20, isWhole: true },
    size("diameterMetres", "Reel diameter", [scrapDiameterMetres - 0.005, newDiameterMetres + 0.001]),
    pick("knife", "Bedknife", ["as-sheet", sheet.bedknife?.type ?? "As on the sheet"], ["another", "Another"]),
    size("knifeMetres", "Bedknife, how thick", [leastThicknessMetres * 0.9, thicknessMetres * 1.1]),
    size("knifeLeftMetres", "Front face of the knife, what is left", [depthMetres / 4, depthMetres * 1.1]),
    pick("frontRoller", "Front roller", ["smooth", "Smooth"], ["grooved", "Grooved"]),
    pick("rearRoller", "Rear roller", ["smooth", "Smooth"], ["grooved", "Grooved"]),
    { kind: "number", path: ["units", id, "hole"], group: id, label: "Front bracket in hole", least: 1, most: 20, isWhole: true },
    pick("facing", "Front bracket faces", ["forward", "Forward"], ["rearward", "Rearward"]),
    pick("groomer", "Groomer or brush", ["fitted", "Fitted"], ["none", "None"]),
    size("benchMetres", "Bench height", [machine.sheet.heightLeastMetres ?? 0.002, machine.sheet.heightMostMetres ?? 0.03]),
  ];
}

const within = (property: Property): number => (property in ALIKE_WITHIN ? ALIKE_WITHIN[property as keyof typeof ALIKE_WITHIN] : 0);

const isLike = (property: Property, a: string | number, b: string | number): boolean =>
  typeof a === "number" && typeof b === "number" ? Math.abs(a - b) <= within(property) * (1 + 1e-9) : a === b;

/**
 * What most units have, as the value that the most of them are like; `undefined` where no value is shared by more than half of those that were read.
 * Of sizes the middle one among those alike.
 */
export function usualOf(property: Property, values: readonly (string | number)[]): string | number | undefined {
  const liked = values.map((value) => ({ value, like: values.filter((other) => isLike(property, value, other)) }));
  const best = liked.sort((a, b) => b.like.length - a.like.length)[0];
  if (!best || best.like.length * 2 <= values.length) return undefined;
  const sizes = best.like.filter((value): value is number => typeof value === "number").sort((a, b) => a - b);
  return sizes.length > 0 ? sizes[Math.floor((sizes.length - 1) / 2)] : best.value;
}

export type UnitRead = z.output<typeof unitRead>;

/** Units of one machine or of several against each other: of every property the usual value, and which of them differ from it. */
export function matrixOf(
  units: readonly { id: string; read: Partial<Record<Property, string | number | undefined>> }[],
): MatchDetail["matrix"] {
  return PROPERTIES.map((property) => {
    const read = units.flatMap(({ id, read: own }) => {
      const value = own[property];
      return value === undefined ? [] : [{ id, value }];
    });
    const usual = usualOf(
      property,
      read.map(({ value }) => value),
    );
    const isOdd = (value: string | number) =>
      usual === undefined ? read.some((other) => !isLike(property, value, other.value)) : !isLike(property, value, usual);
    return {
      property,
      ...(usual === undefined ? {} : { usual }),
      cells: Object.fromEntries(read.map(({ id, value }) => [id, { value, isOdd: isOdd(value) }])),
    };
  });
}

const CODE: Record<Property, string> = {
  blades: "blades-differ",
  diameterMetres: "diameter-differs",
  knife: "knife-differs",
  knifeMetres: "thickness-differs",
  knifeLeftMetres: "knife-left-differs",
  frontRoller: "front-roller-differs",
  rearRoller: "rear-roller-differs",
  hole: "hole-differs",
  facing: "facing-differs",
  groomer: "groomer-differs",
  benchMetres: "height-differs",
};

/** A size a little off its sisters' may be the gauge's; another part is another part. */
function causesOf(matrix: MatchDetail["matrix"], property: Property, id: string): NonNullable<Finding["causes"]> {
  const row = matrix.find((one) => one.property === property);
  const [usual, value] = [row?.usual, row?.cells[id]?.value];
  const tolerance = within(property);
  if (typeof usual !== "number" || typeof value !== "number" || tolerance === 0) return shows("units-not-alike");
  return bySize(value - usual, tolerance, "units-not-alike");
}

/** A size that still counts as alike, and is over two thirds of the way to not. */
function isNearOdd({ property, usual, cells }: MatchDetail["matrix"][number], id: string): boolean {
  const value = cells[id]?.value;
  if (typeof usual !== "number" || typeof value !== "number") return false;
  return judgeDeviation({ deviation: value - usual, tolerance: within(property) }) === "watch";
}

const isTold = (read: MatchReadings["units"][string] | undefined): boolean =>
  PROPERTIES.every((property) => OPTIONAL.includes(property) || read?.[property] !== undefined);

function assess(machine: Machine, readings: MatchReadings): Assessment<MatchDetail, Says> {
  const across = unitsAcross(machine);
  const matrix = matrixOf(across.map(({ id }) => ({ id, read: readings.units[id] ?? {} })));
  const told = across.filter(({ id }) => isTold(readings.units[id])).map(({ id }) => id);
  const isComplete = told.length === across.length;
  const findings = across.flatMap(({ id }): Finding[] => {
    const odd = matrix.filter(({ cells }) => cells[id]?.isOdd);
    if (odd.length > 0)
      return odd.map(({ property }) => ({
        place: id,
        code: CODE[property],
        verdict: OPTIONAL.includes(property) ? "watch" : "out",
        ...(OPTIONAL.includes(property) ? {} : { causes: causesOf(matrix, property, id) }),
      }));
    if (matrix.some((row) => isNearOdd(row, id))) return [{ place: id, code: "near-unlike", verdict: "watch" }];
    return told.includes(id) ? [{ place: id, code: "alike", verdict: "in-tolerance" }] : [];
  });
  return {
    check: "unit-match",
    ruleVersion: unitMatch.ruleVersion,
    ...settled({ check: "unit-match", findings, clears: { "units-not-alike": isComplete }, told, isComplete }),
    provisional: [
      ...across.filter(({ id }) => !told.includes(id)).map(({ id }) => ({ code: "unit-unread" as const, place: id })),
      ...matrix
        .filter(({ usual, cells }) => usual === undefined && Object.keys(cells).length > 1)
        .map(({ property }) => ({ code: "no-majority" as const, property })),
    ],
    figures: figuresOf(matrix),
    actions: across.flatMap(({ id }) =>
      matrix
        .filter(({ usual, cells }) => usual !== undefined && cells[id]?.isOdd)
        .map(({ property }) => ({ code: "bring-alike" as const, place: id, property })),
    ),
    warnings: [],
    detail: { matrix },
  };
}

/** Bench heights, since they are what the cut shows first. */
function figuresOf(matrix: MatchDetail["matrix"]): Figure[] {
  const heights = matrix.find(({ property }) => property === "benchMetres");
  const { usual, cells = {} } = heights ?? {};
  return Object.entries(cells).flatMap(([place, { value, isOdd }]): Figure[] =>
    typeof value !== "number"
      ? []
      : [
          {
            id: "bench-height",
            place,
            value,
            dimension: "length",
            instrument: "fine",
            ...(typeof usual === "number"
              ? {
                  tolerance: {
                    kind: "about" as const,
                    target: usual,
                    plusMinus: ALIKE_WITHIN.benchMetres,
                    standing: "common-practice" as const,
                  },
                }
              : {}),
            verdict: isOdd ? "out" : heights && isNearOdd(heights, place) ? "watch" : "in-tolerance",
            standing: "measured",
          },
        ],
  );
}
