import * as z from "zod";
import type { Figure, Finding } from "@/core/basics/findings";
import { physical, physicalOrNought } from "@/core/basics/units/physical";
import { type Machine, type Unit, unitSheetOf, unitsAcross } from "@/core/machine";
import {
  crabThatOpens,
  type LaidUnit,
  leastShared,
  type RolledStretch,
  type RollerLine,
  rolledAcross,
  SKEW_RADIANS,
  type TurnStrip,
  turnThatOpens,
  unitOverlaps,
} from "@/core/physics/reel";
import { noUnits, unitGroups, unknownUnits } from "../by-unit";
import { choices } from "../form";
import { pointsAt, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";

/** Units share at least so much straight ahead. Estimate: half an inch. */
export const LEAST_UNIT_OVERLAP_METRES = 0.0127;
/** A roller without solid ends presses nothing over so much at each end. Estimate. */
export const OPEN_END_METRES = 0.04;

export const layoutReadingsSchema = z.object({
  units: z
    .record(
      z.string(),
      z.object({
        /** Which end of the unit is ahead, and by how much. */
        ahead: z.enum(["square", "left", "right"]).optional(),
        aheadMetres: physicalOrNought("metres", 0.3).optional(),
      }),
    )
    .default({}),
  /** Where light and dark lines lie on the turf. */
  lines: z.enum(["none", "at-overlaps", "elsewhere"]).optional(),
  tightestTurnMetres: physical("metres", 60).optional(),
});
export type LayoutReadings = z.output<typeof layoutReadingsSchema>;
type Read = LayoutReadings["units"][string];
type Says = {
  action:
    | { code: "square-unit"; place: string; end: "left" | "right"; byMetres: number }
    | { code: "turn-wider"; underMetres: number }
    | { code: "solid-ends"; kind: "solid" | "open"; end: "front" | "rear"; row: "front" | "rear" }
    | { code: "vary-direction" };
  warning: { code: "strip-straight"; byMetres: number };
  provisional: { code: "unit-unread"; place: string } | { code: "lines-not-told" };
  problem: { code: "unknown-unit"; place: string };
};
export type LayoutDetail = {
  units: LaidUnit[];
  crabRadians?: number;
  right?: TurnStrip;
  left?: TurnStrip;
  rolled: RolledStretch[];
};

/** How the units cover the swath and roll it, straight, in turns and across slopes, as they stand. */
export const unitLayout: Check<LayoutReadings, LayoutDetail, Says> = {
  id: "unit-layout",
  ruleVersion: 2,
  readingsSchema: layoutReadingsSchema,
  missing: (machine) => [...noUnits(machine), ...(machine.units.length < 2 ? ["one-unit"] : [])],
  problems: (machine, { units }) => unknownUnits(machine, units),
  form: (machine) => ({
    groups: [...unitGroups(machine), { id: "turf", label: "On the turf" }],
    fields: [
      ...unitsAcross(machine).flatMap(({ id, widthMetres }) => [
        {
          kind: "choice" as const,
          path: ["units", id, "ahead"],
          group: id,
          label: "Across the way of travel",
          options: choices(["square", "Square"], ["left", "Left end ahead"], ["right", "Right end ahead"]),
        },
        {
          kind: "quantity" as const,
          path: ["units", id, "aheadMetres"],
          group: id,
          label: "Ahead by",
          isOptional: true,
          dimension: "length" as const,
          instrument: "tape" as const,
          range: { least: 0, most: 0.3, usualLeast: 0, usualMost: widthMetres / 8 },
        },
      ]),
      {
        kind: "choice",
        path: ["lines"],
        group: "turf",
        label: "Light and dark lines",
        options: choices(["none", "None"], ["at-overlaps", "Where units overlap"], ["elsewhere", "Elsewhere"]),
      },
      {
        kind: "quantity",
        path: ["tightestTurnMetres"],
        group: "turf",
        label: "Tightest turn mown, radius at the front axle's middle",
        isOptional: true,
        dimension: "distance",
        instrument: "gauge",
        range: { least: 0.3, most: 60, usualLeast: 0.8, usualMost: 30 },
      },
    ],
  }),
  assess,
};

/** A skew of its unit, positive with the right end forward: what the sheet says where nothing was read. */
function yawOf(unit: Unit, read: Read | undefined): number {
  if (read?.ahead === undefined) return unit.yawRadians ?? 0;
  if (read.ahead === "square") return 0;
  const size = Math.asin(Math.min(1, (read.aheadMetres ?? 0) / unit.widthMetres));
  return read.ahead === "right" ? size : -size;
}

const isTold = (read: Read | undefined): boolean =>
  read?.ahead !== undefined && (read.ahead === "square" || read.aheadMetres !== undefined);

/** Every roller's pressing width over the swath. */
export function rollerLines(machine: Pick<Machine, "units" | "sheet">): RollerLine[] {
  return machine.units.flatMap((unit) => {
    const sheet = unitSheetOf(machine, unit.id);
    return (["front", "rear"] as const).map((end) => {
      const roller = end === "front" ? sheet.frontRoller : sheet.rearRoller;
      const width = roller?.widthMetres ?? unit.widthMetres;
      const half = width / 2 - (roller && !roller.hasSolidEnds ? OPEN_END_METRES : 0);
      return { unitId: unit.id, end, from: unit.xMetres - half, to: unit.xMetres + half };
    });
  });
}

/** Width-weighted spread of how often the swath is rolled. */
function unevenness(stretches: readonly RolledStretch[]): number {
  const width = stretches.reduce((sum, { from, to }) => sum + to - from, 0);
  const mean = stretches.reduce((sum, { from, to, passes }) => sum + (to - from) * passes, 0) / width;
  return stretches.reduce((sum, { from, to, passes }) => sum + (to - from) * (passes - mean) ** 2, 0) / width;
}

/** A change of solid ends has to even the rolling by so much to be worth the rollers. Estimate. */
const WORTH = 0.9;

/** Which rollers, by row and end, with the other kind of ends would roll the swath most evenly; nothing where none is better by a tenth. */
export function solidEndsThatEven(
  machine: Pick<Machine, "units" | "sheet">,
): { row: "front" | "rear"; end: "front" | "rear"; solid: boolean }[] {
  const lines = rollerLines(machine);
  const middle = machine.units.reduce((sum, { yMetres }) => sum + yMetres, 0) / Math.max(1, machine.units.length);
  const rowOf = (unitId: string) => ((machine.units.find(({ id }) => id === unitId)?.yMetres ?? 0) >= middle ? "front" : "rear");
  const isSolid = (unitId: string, end: "front" | "rear") => {
    const sheet = unitSheetOf(machine, unitId);
    return (end === "front" ? sheet.frontRoller : sheet.rearRoller)?.hasSolidEnds ?? true;
  };
  const now = unevenness(rolledAcross(lines));
  const tried = (["front", "rear"] as const).flatMap((row) =>
    (["front", "rear"] as const).map((end) => {
      const changed = lines.map((line) => {
        if (line.end !== end || rowOf(line.unitId) !== row) return line;
        const by = isSolid(line.unitId, end) ? OPEN_END_METRES : -OPEN_END_METRES;
        return { ...line, from: line.from + by, to: line.to - by };
      });
      const first = machine.units.find(({ id }) => rowOf(id) === row);
      return { row, end, solid: first ? !isSolid(first.id, end) : true, after: unevenness(rolledAcross(changed)) };
    }),
  );
  const best = tried.sort((a, b) => a.after - b.after)[0];
  return best && best.after < now * WORTH ? [{ row: best.row, end: best.end, solid: best.solid }] : [];
}

function assess(machine: Machine, readings: LayoutReadings): Assessment<LayoutDetail, Says> {
  const across = unitsAcross(machine);
  const units: LaidUnit[] = across.map((unit) => ({
    id: unit.id,
    xMetres: unit.xMetres,
    yMetres: unit.yMetres,
    widthMetres: unit.widthMetres,
    yawRadians: yawOf(unit, readings.units[unit.id]),
  }));
  const told = across.filter(({ id }) => isTold(readings.units[id])).map(({ id }) => id);
  const isAll = told.length === across.length;
  const isComplete = isAll && readings.lines !== undefined;
  const shared = unitOverlaps(units);
  const crab = crabThatOpens(units);
  const [right, left] = [turnThatOpens(units, 1), turnThatOpens(units, -1)];
  const rolled = rolledAcross(rollerLines(machine));
  const under = Math.max(right?.underMetres ?? 0, left?.underMetres ?? 0);
  const findings = [
    ...across.flatMap((unit) => skewFindings(unit, readings.units[unit.id])),
    ...wholeFindings(readings, shared, right, left),
  ];
  return {
    check: "unit-layout",
    ruleVersion: unitLayout.ruleVersion,
    ...settled({
      check: "unit-layout",
      findings,
      clears: {
        "roller-overlap": readings.lines !== undefined,
        ...(readings.tightestTurnMetres === undefined
          ? {}
          : { "turn-too-tight": isAll && judgeTurn(readings.tightestTurnMetres, under) === "in-tolerance" }),
      },
      told: [
        ...told,
        ...(readings.lines === undefined ? [] : ["lines"]),
        ...(isAll ? ["overlap"] : []),
        ...(readings.tightestTurnMetres === undefined || !isAll ? [] : ["turns"]),
      ],
      isComplete,
    }),
    provisional: [
      ...across.filter(({ id }) => !told.includes(id)).map(({ id }) => ({ code: "unit-unread" as const, place: id })),
      ...(readings.lines === undefined ? [{ code: "lines-not-told" as const }] : []),
    ],
    figures: [...overlapFigures(shared), ...limitFigures({ crab, under, tightest: readings.tightestTurnMetres })],
    actions: actionsOf(machine, readings, findings, under),
    warnings: shared
      .filter(({ overlapMetres }) => overlapMetres < 0)
      .map(({ overlapMetres }) => ({ code: "strip-straight" as const, byMetres: -overlapMetres })),
    detail: {
      units,
      rolled,
      ...(crab === undefined ? {} : { crabRadians: crab }),
      ...(right ? { right } : {}),
      ...(left ? { left } : {}),
    },
  };
}

/** A turn so little wider than one that opens a strip was paced, not measured: watched. Estimate. */
export const NEAR_TURN = 1.1;

function judgeTurn(tightest: number, under: number): "in-tolerance" | "watch" | "out" {
  if (tightest < under) return "out";
  return tightest < under * NEAR_TURN ? "watch" : "in-tolerance";
}

function skewFindings(unit: Unit, read: Read | undefined): Finding[] {
  if (!isTold(read)) return [];
  const skew = Math.abs(yawOf(unit, read));
  if (skew > SKEW_RADIANS) return [{ place: unit.id, code: "skewed", verdict: "out", causes: pointsAt("arm-worn-or-bent") }];
  if (skew > (SKEW_RADIANS * 2) / 3) return [{ place: unit.id, code: "near-skewed", verdict: "watch" }];
  return [{ place: unit.id, code: "square", verdict: "in-tolerance" }];
}

function wholeFindings(
  { lines, tightestTurnMetres: tightest }: LayoutReadings,
  shared: ReturnType<typeof unitOverlaps>,
  right: TurnStrip | undefined,
  left: TurnStrip | undefined,
): Finding[] {
  const least = leastShared(shared)?.overlapMetres ?? 0;
  const under = Math.max(right?.underMetres ?? 0, left?.underMetres ?? 0);
  return [
    ...(least < 0 ? [{ place: "overlap", code: "strip", verdict: "out" as const, causes: pointsAt("arm-worn-or-bent") }] : []),
    ...(least >= 0 && least < LEAST_UNIT_OVERLAP_METRES ? [{ place: "overlap", code: "little-overlap", verdict: "watch" as const }] : []),
    ...(lines === "at-overlaps"
      ? [{ place: "lines", code: "rolled-lines", verdict: "out" as const, causes: shows("roller-overlap") }]
      : []),
    ...(tightest !== undefined && tightest >= under && tightest < under * NEAR_TURN
      ? [{ place: "turns", code: "turns-near", verdict: "watch" as const }]
      : []),
    ...(tightest !== undefined && tightest < under
      ? [{ place: "turns", code: "turns-too-tight", verdict: "out" as const, causes: shows("turn-too-tight") }]
      : []),
  ];
}

function overlapFigures(shared: ReturnType<typeof unitOverlaps>): Figure[] {
  return shared.map(({ between, overlapMetres }) => ({
    id: "unit-overlap",
    place: between.join(":"),
    value: overlapMetres,
    dimension: "length",
    instrument: "fine",
    tolerance: { kind: "between", least: LEAST_UNIT_OVERLAP_METRES, standing: "estimate" },
    verdict: overlapMetres < 0 ? "out" : overlapMetres < LEAST_UNIT_OVERLAP_METRES ? "watch" : "in-tolerance",
    standing: "physics",
  }));
}

function limitFigures({ crab, under, tightest }: { crab: number | undefined; under: number; tightest: number | undefined }): Figure[] {
  return [
    ...(crab === undefined
      ? []
      : [{ id: "opens-at-crab", value: crab, dimension: "angle" as const, instrument: "gauge" as const, standing: "physics" as const }]),
    ...(under === 0
      ? []
      : [
          {
            id: "opens-in-turns",
            value: under,
            dimension: "distance" as const,
            instrument: "gauge" as const,
            ...(tightest === undefined ? {} : { verdict: judgeTurn(tightest, under) }),
            standing: "physics" as const,
          },
        ]),
  ];
}

function actionsOf(machine: Machine, readings: LayoutReadings, findings: readonly Finding[], under: number): Says["action"][] {
  const isFound = (code: string) => findings.some((one) => one.code === code);
  const even = isFound("rolled-lines") ? solidEndsThatEven(machine) : [];
  return [
    ...findings
      .filter(({ code }) => code === "skewed")
      .map(({ place }) => ({
        code: "square-unit" as const,
        place,
        end: readings.units[place]?.ahead === "left" ? ("left" as const) : ("right" as const),
        byMetres: readings.units[place]?.aheadMetres ?? 0,
      })),
    ...(isFound("turns-too-tight") ? [{ code: "turn-wider" as const, underMetres: under }] : []),
    ...even.map(({ row, end, solid }) => ({ code: "solid-ends" as const, kind: solid ? ("solid" as const) : ("open" as const), end, row })),
    ...(isFound("rolled-lines") ? [{ code: "vary-direction" as const }] : []),
  ];
}
