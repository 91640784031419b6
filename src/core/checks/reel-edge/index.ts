import * as z from "zod";
import { physicalOrNought } from "@/core/basics/units/physical";
import { cuttingEdges, cuttingWidth, type Machine, unitsAcross } from "@/core/machine";
import { onKnives, onTurf } from "@/core/physics/reel";
import { type UnitReadings, type UnitSays, unitCheck } from "../by-unit";
import { type Field, readAt } from "../form";
import { pointsAt, shows } from "../settled";
import type { Check } from "../types";
import { unknownPlaces } from "../verdicts";

/** Width of a reel blade's land: wider, and the edge presses instead of cutting. Estimate: 1/16 in. */
export const LAND_METRES = 0.0016;

type Code = "reel-rounded" | "reel-dull" | "knife-rounded" | "knife-dull" | "nick-reel" | "nick-knife" | "land-wide" | "no-relief";
type Do = "lap-or-grind" | "grind-reel" | "dress-nick" | "grind-knife";

const DULL = shows("reel-dull");
const NICK = shows("edge-nicked");

const byUnit = unitCheck<Code, Do>({
  id: "reel-edge",
  ruleVersion: 1,
  cautions: ["reels-isolated"],
  asked: [
    {
      kind: "choice",
      key: "reel",
      label: "Reel's edges",
      options: [
        { id: "sharp", label: "Sharp" },
        {
          id: "dull",
          label: "Going dull",
          means: { code: "reel-dull", verdict: "watch", causes: pointsAt("reel-dull"), do: "lap-or-grind" },
        },
        { id: "rounded", label: "Rounded", means: { code: "reel-rounded", verdict: "out", causes: DULL, do: "grind-reel" } },
      ],
    },
    {
      kind: "choice",
      key: "knife",
      label: "Bedknife's edge",
      options: [
        { id: "sharp", label: "Sharp" },
        {
          id: "dull",
          label: "Going dull",
          means: { code: "knife-dull", verdict: "watch", causes: pointsAt("reel-dull"), do: "lap-or-grind" },
        },
        { id: "rounded", label: "Rounded", means: { code: "knife-rounded", verdict: "out", causes: DULL, do: "grind-knife" } },
      ],
    },
    {
      kind: "choice",
      key: "nick",
      label: "Nicks",
      options: [
        { id: "none", label: "None" },
        { id: "knife", label: "In the knife", means: { code: "nick-knife", verdict: "out", causes: NICK, do: "grind-knife" } },
        { id: "reel", label: "In a reel blade", means: { code: "nick-reel", verdict: "out", causes: NICK, do: "dress-nick" } },
      ],
    },
    {
      kind: "choice",
      key: "relief",
      label: "Relief behind the reel's edge",
      options: [
        { id: "there", label: "There" },
        { id: "gone", label: "Worn away", means: { code: "no-relief", verdict: "watch", do: "grind-reel" } },
        { id: "none-wanted", label: "Made without" },
      ],
    },
    {
      kind: "size",
      key: "landMetres",
      label: "Land of a reel blade",
      isOptional: true,
      figure: "land",
      instrument: "fine",
      range: { least: 0, most: 0.02, usualLeast: 0, usualMost: 0.005 },
      most: LAND_METRES,
      standing: "estimate",
      means: { code: "land-wide", causes: pointsAt("reel-dull"), do: "grind-reel" },
    },
  ],
});

type EdgeReadings = UnitReadings & { lineMetres?: number | undefined; nickMetres?: Record<string, number> | undefined };
type Line = { unit: string; fromLeftMetres: number };
type Says = Omit<UnitSays<Do>, "action" | "problem"> & {
  action: UnitSays<Do>["action"] | { code: "look-at-place"; place: string; fromLeftMetres: number };
  warning: { code: "line-outside" } | { code: "draws-elsewhere"; place: string; drawsMetres: number; lineMetres: number };
  problem: UnitSays<Do>["problem"] | { code: "off-the-knife"; place: string; widthMetres: number };
};

/** A line on the turf and the nick that draws it lie no further apart, by tape and by eye. Estimate. */
const LINE_WITHIN_METRES = 0.05;

const lineSchema = z.object({
  /** Of a line on the turf, how far from the left edge of what the machine cuts. */
  lineMetres: physicalOrNought("metres", 10).optional(),
  /** Of a nick, how far from the left end of its unit's knife. */
  nickMetres: z.record(z.string(), physicalOrNought("metres", 2)).optional(),
});

/** Where the nicks that were measured draw their lines, from the left edge of the swath. */
function drawnBy(machine: Machine, { nickMetres = {} }: EdgeReadings): { place: string; drawsMetres: number }[] {
  const { left } = cuttingEdges(machine);
  return unitsAcross(machine).flatMap(({ id }) => {
    const at = nickMetres[id] === undefined ? undefined : onTurf(machine.units, { unit: id, fromLeftMetres: nickMetres[id] });
    return at === undefined ? [] : [{ place: id, drawsMetres: at - left }];
  });
}

/** Edges of reel and bedknife as they are seen and felt; a line on the turf says where on which knife to look first. */
export const reelEdge: Check<EdgeReadings, { read: number; line: Line[] }, Says> = {
  id: byUnit.id,
  ruleVersion: byUnit.ruleVersion,
  ...(byUnit.cautions ? { cautions: byUnit.cautions } : {}),
  missing: byUnit.missing,
  ...(byUnit.wants ? { wants: byUnit.wants } : {}),
  readingsSchema: z.intersection(byUnit.readingsSchema, lineSchema) as unknown as z.ZodType<EdgeReadings>,
  problems: (machine, readings) => [
    ...byUnit.problems(machine, readings),
    ...unknownPlaces({ read: readings.nickMetres ?? {}, known: machine.units, path: "nickMetres", code: "unknown-unit" as const }),
    ...machine.units.flatMap(({ id, widthMetres }) =>
      (readings.nickMetres?.[id] ?? 0) > widthMetres
        ? [{ code: "off-the-knife" as const, path: ["nickMetres", id], place: id, widthMetres }]
        : [],
    ),
  ],
  form: (machine, soFar) => {
    const own = byUnit.form?.(machine, soFar) ?? { groups: [], fields: [] };
    return {
      groups: [
        ...own.groups,
        { id: "turf", label: "A line on the turf", isFolded: true, note: "A nick draws its own: where it lies says where to look." },
      ],
      fields: [
        ...own.fields.flatMap((field): Field[] => {
          const nicked = field.path.at(-1) === "nick" ? readAt(soFar, field.path) : undefined;
          if (nicked !== "knife" && nicked !== "reel") return [field];
          return [
            field,
            {
              kind: "quantity",
              path: ["nickMetres", field.group],
              group: field.group,
              label: "The nick, from the left end of the knife",
              isOptional: true,
              dimension: "length",
              instrument: "tape",
              range: { least: 0, most: 2, usualLeast: 0, usualMost: machine.units.find(({ id }) => id === field.group)?.widthMetres ?? 1 },
            },
          ];
        }),
        {
          kind: "quantity",
          path: ["lineMetres"],
          group: "turf",
          label: "From the left edge of the swath",
          isOptional: true,
          dimension: "length",
          instrument: "tape",
          range: { least: 0, most: 10, usualLeast: 0, usualMost: cuttingWidth(machine) },
        },
      ],
    };
  },
  assess: (machine, readings) => {
    const found = byUnit.assess(machine, readings);
    const { lineMetres } = readings;
    const line = lineMetres === undefined ? [] : onKnives(machine.units, cuttingEdges(machine).left + lineMetres);
    const drawn = drawnBy(machine, readings);
    return {
      ...found,
      figures: [
        ...found.figures,
        ...drawn.map(({ place, drawsMetres }) => ({
          id: "line-on-turf",
          place,
          value: drawsMetres,
          dimension: "length" as const,
          instrument: "tape" as const,
          standing: "physics" as const,
        })),
      ],
      actions: [
        ...line.map(({ unit, fromLeftMetres }) => ({ code: "look-at-place" as const, place: unit, fromLeftMetres })),
        ...found.actions,
      ],
      warnings: [
        ...(lineMetres !== undefined && line.length === 0 ? [{ code: "line-outside" as const }] : []),
        ...(lineMetres === undefined
          ? []
          : drawn.flatMap((one) =>
              Math.abs(one.drawsMetres - lineMetres) > LINE_WITHIN_METRES ? [{ code: "draws-elsewhere" as const, ...one, lineMetres }] : [],
            )),
      ],
      detail: { ...found.detail, line },
    };
  },
};
