import * as z from "zod";
import { type Figure, type Finding, judgeDeviation } from "@/core/basics/findings";
import { physical } from "@/core/basics/units/physical";
import { type Machine, unitSheetOf, unitsAcross } from "@/core/machine";
import { ALONG, CONE_TOLERANCE_METRES, coneOf, REEL_GRIND_METRES, reelLife } from "@/core/physics/reel";
import { byUnitSchema, keepsUnits, noUnits, unitGroups, unknownUnits } from "../by-unit";
import { bySize, settled } from "../settled";
import type { Assessment, At, Check } from "../types";

/** A reel this much over its new diameter is misread. Estimate. */
const OVER_NEW_METRES = 0.001;

const diameter = physical("metres", 0.4);
export const coneReadingsSchema = byUnitSchema(
  z.object({ leftMetres: diameter.optional(), middleMetres: diameter.optional(), rightMetres: diameter.optional() }),
);
export type ConeReadings = z.output<typeof coneReadingsSchema>;
type Read = ConeReadings["units"][string];
type Says = {
  action: { code: "spin-grind"; place: string; thick: "left" | "right"; taperMetres: number } | { code: "replace-reel"; place: string };
  provisional: { code: "unit-unread"; place: string };
  problem: { code: "unknown-unit"; place: string } | { code: "over-new-diameter"; place: string; mostMetres: number };
};
export type ConeDetail = { life: Record<string, { share: number; grinds: number }> };

/** Reel diameter end to end: taper, barrel, and what is left of it. */
export const reelCone: Check<ConeReadings, ConeDetail, Says> = keepsUnits({
  id: "reel-cone",
  ruleVersion: 2,
  cautions: ["reels-isolated"],
  readingsSchema: coneReadingsSchema,
  missing: noUnits,
  problems,
  form: (machine) => ({
    groups: unitGroups(machine),
    fields: unitsAcross(machine).flatMap(({ id }) => {
      const { newDiameterMetres: most = 0.2, scrapDiameterMetres: least = 0.08 } = unitSheetOf(machine, id).reel ?? {};
      return ALONG.map((along) => ({
        kind: "quantity" as const,
        path: ["units", id, `${along}Metres`],
        group: id,
        label: `Diameter, ${along}`,
        ...(along === "middle" ? { isOptional: true } : {}),
        dimension: "length" as const,
        instrument: "fine" as const,
        range: { least: 0.03, most: 0.4, usualLeast: least - 0.005, usualMost: most + 0.0005 },
      }));
    }),
  }),
  assess,
});

function problems(machine: Machine, { units }: ConeReadings): (Says["problem"] & At)[] {
  const over = Object.entries(units).flatMap(([place, read]) => {
    const newDiameter = unitSheetOf(machine, place).reel?.newDiameterMetres;
    return ALONG.flatMap((along): (Says["problem"] & At)[] => {
      const value = read[`${along}Metres`];
      const mostMetres = (newDiameter ?? Number.POSITIVE_INFINITY) + OVER_NEW_METRES;
      return value !== undefined && value > mostMetres
        ? [{ code: "over-new-diameter", path: ["units", place, `${along}Metres`], place, mostMetres }]
        : [];
    });
  });
  return [...unknownUnits(machine, units), ...over];
}

const isTold = (read: Read): boolean => read.leftMetres !== undefined && read.rightMetres !== undefined;
const all = (read: Read) => ALONG.flatMap((along) => read[`${along}Metres`] ?? []);

function coneAt({ leftMetres, middleMetres, rightMetres }: Read) {
  if (leftMetres === undefined || rightMetres === undefined) return undefined;
  return coneOf({ leftMetres, rightMetres, ...(middleMetres === undefined ? {} : { middleMetres }) });
}

function findingsAt(machine: Machine, place: string, read: Read): Finding[] {
  const cone = coneAt(read);
  const taper = cone && judgeDeviation({ deviation: cone.taperMetres, tolerance: CONE_TOLERANCE_METRES });
  const barrel =
    cone?.barrelMetres === undefined ? undefined : judgeDeviation({ deviation: cone.barrelMetres, tolerance: CONE_TOLERANCE_METRES });
  const scrap = unitSheetOf(machine, place).reel?.scrapDiameterMetres;
  const least = Math.min(...all(read));
  const isScrap = scrap !== undefined && least < scrap;
  const causes = bySize(cone?.taperMetres ?? 0, CONE_TOLERANCE_METRES, "contact-tapered");
  const off: Finding[] = [
    ...(taper === "out" ? [{ place, code: "coned", verdict: taper, causes }] : []),
    ...(barrel === "out" ? [{ place, code: "barrelled", verdict: "watch" as const }] : []),
    ...(isScrap ? [{ place, code: "under-scrap", verdict: "out" as const }] : []),
    // One more grind would take it under.
    ...(scrap !== undefined && !isScrap && least < scrap + REEL_GRIND_METRES
      ? [{ place, code: "near-scrap", verdict: "watch" as const }]
      : []),
    ...(taper === "watch" ? [{ place, code: "near-limit", verdict: taper }] : []),
  ];
  return off.length === 0 && isTold(read) ? [{ place, code: "even", verdict: "in-tolerance" }] : off;
}

function assess(machine: Machine, { units }: ConeReadings): Assessment<ConeDetail, Says> {
  const read = unitsAcross(machine).map(({ id }) => ({ id, read: units[id] ?? {} }));
  const told = read.filter((one) => isTold(one.read)).map(({ id }) => id);
  const findings = read.flatMap((one) => findingsAt(machine, one.id, one.read));
  const isComplete = told.length === read.length;
  return {
    check: "reel-cone",
    ruleVersion: reelCone.ruleVersion,
    // A coned reel is only one way to a contact that is uneven: an even one clears nothing.
    ...settled({ check: "reel-cone", findings, told, isComplete }),
    provisional: read.filter(({ id }) => !told.includes(id)).map(({ id }) => ({ code: "unit-unread" as const, place: id })),
    figures: read.flatMap((one) => figuresOf(machine, one.id, one.read)),
    actions: findings.flatMap(({ place, code }): Says["action"][] => {
      const cone = coneAt(units[place] ?? {});
      if (code === "under-scrap") return [{ code: "replace-reel", place }];
      return code === "coned" && cone ? [{ code: "spin-grind", place, thick: cone.thick, taperMetres: cone.taperMetres }] : [];
    }),
    warnings: [],
    detail: { life: Object.fromEntries(read.flatMap((one) => lifeOf(machine, one.id, one.read).map((life) => [one.id, life]))) },
  };
}

function lifeOf(machine: Machine, place: string, read: Read): { share: number; grinds: number }[] {
  const { reel } = unitSheetOf(machine, place);
  const values = all(read);
  if (!reel || values.length === 0) return [];
  return [
    reelLife({
      nowMetres: Math.min(...values),
      newMetres: reel.newDiameterMetres,
      scrapMetres: reel.scrapDiameterMetres,
      perGrindMetres: REEL_GRIND_METRES,
    }),
  ];
}

function figuresOf(machine: Machine, place: string, read: Read): Figure[] {
  const cone = coneAt(read);
  const scrap = unitSheetOf(machine, place).reel?.scrapDiameterMetres;
  const least = Math.min(...all(read));
  return [
    ...(cone
      ? [
          {
            id: "taper",
            place,
            value: cone.taperMetres,
            dimension: "length" as const,
            instrument: "fine" as const,
            tolerance: { kind: "between" as const, most: CONE_TOLERANCE_METRES, standing: "estimate" as const },
            verdict: judgeDeviation({ deviation: cone.taperMetres, tolerance: CONE_TOLERANCE_METRES }),
            standing: "measured" as const,
          },
        ]
      : []),
    ...(Number.isFinite(least)
      ? [
          {
            id: "smallest-diameter",
            place,
            value: least,
            dimension: "length" as const,
            instrument: "fine" as const,
            ...(scrap === undefined ? {} : { tolerance: { kind: "between" as const, least: scrap, standing: "sheet" as const } }),
            standing: "measured" as const,
          },
        ]
      : []),
    ...lifeOf(machine, place, read).map(({ grinds }) => ({
      id: "reel-grinds-left",
      place,
      value: grinds,
      dimension: "count" as const,
      instrument: "gauge" as const,
      standing: "estimate" as const,
    })),
  ];
}
