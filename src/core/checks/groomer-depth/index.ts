import * as z from "zod";
import type { Figure, Finding, Verdict } from "@/core/basics/findings";
import { table } from "@/core/basics/tables";
import { physical, physicalOrNought } from "@/core/basics/units/physical";
import { type Machine, unitSheetOf, unitsAcross } from "@/core/machine";
import { byUnitSchema, keepsUnits, noUnits, unitGroups, unknownUnits } from "../by-unit";
import { pointsAt, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";

/** Below the height of cut, as a share of it: deeper than half strips the turf (estimate). */
export const DEEPEST_SHARE = 0.5;
/** So near the height of cut, or over it, and it touches nothing. Estimate: a tenth of the height over it. */
export const SHY_SHARE = 0.1;

const height = physical("metres", 0.1);
export const groomerReadingsSchema = byUnitSchema(
  z.object({
    heightMetres: height.optional(),
    groomerMetres: physicalOrNought("metres", 0.15).optional(),
    /** A strip mown with and one without, side by side. */
    strips: z.enum(["better", "alike", "stripped", "not-mown"]).optional(),
  }),
);
export type GroomerReadings = z.output<typeof groomerReadingsSchema>;
type Read = GroomerReadings["units"][string];
type Says = {
  action: { code: "raise-groomer"; place: string; toMetres: number } | { code: "lower-groomer"; place: string; toMetres: number };
  provisional: { code: "unit-unread"; place: string } | { code: "no-strips"; place: string };
  problem: { code: "unknown-unit"; place: string };
};

/** How deep groomers reach below the height of cut, both over the same plate. */
export const groomerDepth: Check<GroomerReadings, { depths: Record<string, number> }, Says> = keepsUnits({
  id: "groomer-depth",
  ruleVersion: 1,
  cautions: ["reels-isolated"],
  readingsSchema: groomerReadingsSchema,
  missing: noUnits,
  problems: (machine, { units }) => unknownUnits(machine, units),
  form: (machine) => ({
    groups: unitGroups(machine),
    fields: unitsAcross(machine).flatMap(({ id }) => [
      ...(
        [
          ["heightMetres", "Height of cut, on the bench", 0.001],
          ["groomerMetres", "Groomer's or brush's lowest point, over the same plate", 0],
        ] as const
      ).map(([key, label, least]) => ({
        kind: "quantity" as const,
        path: ["units", id, key],
        group: id,
        label,
        dimension: "length" as const,
        instrument: "fine" as const,
        range: { least, most: 0.1, usualLeast: least, usualMost: (machine.sheet.heightMostMetres ?? 0.03) + 0.005 },
      })),
      {
        kind: "choice" as const,
        path: ["units", id, "strips"],
        group: id,
        label: "A strip with it beside one without",
        isOptional: true,
        options: [
          { id: "better", label: "Better with" },
          { id: "alike", label: "Alike" },
          { id: "stripped", label: "Stripped with" },
          { id: "not-mown", label: "Not mown yet" },
        ],
      },
    ]),
  }),
  assess,
});

const isTold = (read: Read): boolean => read.heightMetres !== undefined && read.groomerMetres !== undefined;
/** Down from the height of cut. */
const depthOf = ({ heightMetres, groomerMetres }: Read): number | undefined =>
  heightMetres === undefined || groomerMetres === undefined ? undefined : heightMetres - groomerMetres;

function judge(read: Read): { code: string; verdict: Verdict } | undefined {
  const depth = depthOf(read);
  const { heightMetres = 0 } = read;
  if (depth === undefined) return undefined;
  const share = depth / heightMetres;
  if (share > DEEPEST_SHARE) return { code: "too-deep", verdict: "out" };
  if (share < -SHY_SHARE) return { code: "too-shy", verdict: "out" };
  if (share > (DEEPEST_SHARE * 2) / 3) return { code: "near-deep", verdict: "watch" };
  return share < 0 ? { code: "near-shy", verdict: "watch" } : { code: "reaches", verdict: "in-tolerance" };
}

const SHOWS: Partial<Record<string, string>> = table({ "too-deep": "groomer-aggressive", "too-shy": "groomer-shy" });

function findingsAt(place: string, read: Read): Finding[] {
  const judged = judge(read);
  const cause = judged && SHOWS[judged.code];
  const strips: Finding[] = [
    ...(read.strips === "stripped" ? [{ place, code: "stripped", verdict: "out" as const, causes: pointsAt("groomer-aggressive") }] : []),
    ...(read.strips === "alike" ? [{ place, code: "alike", verdict: "watch" as const }] : []),
  ];
  if (!judged) return strips;
  const own: Finding = { place, ...judged, ...(cause ? { causes: shows(cause) } : {}) };
  return judged.verdict === "in-tolerance" && strips.length > 0 ? strips : [own, ...strips];
}

function assess(machine: Machine, { units }: GroomerReadings): Assessment<{ depths: Record<string, number> }, Says> {
  const fitted = unitsAcross(machine).filter(({ id }) => unitSheetOf(machine, id).groomer !== "none");
  const read = fitted.map(({ id }) => ({ id, read: units[id] ?? {} }));
  const told = read.filter((one) => isTold(one.read)).map(({ id }) => id);
  const isComplete = told.length === read.length;
  const findings = read.flatMap((one) => findingsAt(one.id, one.read));
  return {
    check: "groomer-depth",
    ruleVersion: groomerDepth.ruleVersion,
    ...settled({
      check: "groomer-depth",
      findings,
      clears: { "groomer-aggressive": isComplete, "groomer-shy": isComplete },
      told,
      isComplete,
    }),
    provisional: read.flatMap((one): Says["provisional"][] => {
      if (!told.includes(one.id)) return [{ code: "unit-unread", place: one.id }];
      return one.read.strips === undefined || one.read.strips === "not-mown" ? [{ code: "no-strips", place: one.id }] : [];
    }),
    figures: read.flatMap((one) => figuresOf(one.id, one.read)),
    actions: read.flatMap(({ id, read: one }): Says["action"][] => {
      const { heightMetres } = one;
      if (heightMetres === undefined) return [];
      const codes = findings.filter(({ place }) => place === id).map(({ code }) => code);
      if (codes.includes("too-deep") || codes.includes("stripped")) return [{ code: "raise-groomer", place: id, toMetres: heightMetres }];
      return codes.includes("too-shy") ? [{ code: "lower-groomer", place: id, toMetres: heightMetres }] : [];
    }),
    warnings: [],
    detail: {
      depths: Object.fromEntries(
        read.flatMap((one) => {
          const depth = depthOf(one.read);
          return depth === undefined ? [] : [[one.id, depth]];
        }),
      ),
    },
  };
}

function figuresOf(place: string, read: Read): Figure[] {
  const depth = depthOf(read);
  const { heightMetres } = read;
  if (depth === undefined || heightMetres === undefined) return [];
  return [
    {
      id: "below-the-cut",
      place,
      value: depth,
      dimension: "length",
      instrument: "fine",
      tolerance: { kind: "between", least: -SHY_SHARE * heightMetres, most: DEEPEST_SHARE * heightMetres, standing: "estimate" },
      ...(judge(read) ? { verdict: judge(read)?.verdict as Verdict } : {}),
      standing: "measured",
    },
  ];
}
