import * as z from "zod";
import type { Figure, Finding } from "@/core/basics/findings";
import { physical } from "@/core/basics/units/physical";
import { type Bracket, bracketFor, FACINGS, type Machine, nearestBracket, unitSheetOf, unitsAcross } from "@/core/machine";
import { movedRoller, scalpingRadius, stanceOf, travelFor, wheelbaseOf } from "@/core/physics/reel";
import { heightOfAll, noUnits, unitGroups, unknownUnits } from "../by-unit";
import { settled, shows } from "../settled";
import type { Assessment, Check } from "../types";

export const positionReadingsSchema = z.object({
  /** Height of cut the units are to be set for. */
  heightMetres: physical("metres", 0.1).optional(),
  groomer: z.enum(["fitted", "none"]).optional(),
  units: z
    .record(z.string(), z.object({ number: z.number().int().min(1).max(20).optional(), facing: z.enum(FACINGS).optional() }))
    .default({}),
});
export type PositionReadings = z.output<typeof positionReadingsSchema>;
type Read = PositionReadings["units"][string];

type Says = {
  action: { code: "move-bracket"; place: string; number: number; facing: string };
  warning: { code: "not-made-up-at-the-rear" };
  provisional:
    | { code: "unit-unread"; place: string }
    | { code: "height-not-told" }
    | { code: "no-row-for-height"; place: string; heightMetres: number };
  problem: { code: "unknown-unit"; place: string };
};
export type PositionDetail = { wanted: Record<string, Bracket>; scalpsUnderMetres?: number };

/** The front roller's hole and facing against the sheet's table by height of cut and groomer. */
export const rollerPosition: Check<PositionReadings, PositionDetail, Says> = {
  id: "roller-position",
  ruleVersion: 2,
  readingsSchema: positionReadingsSchema,
  missing: (machine) => [
    ...noUnits(machine),
    ...(machine.units.some(({ id }) => !unitSheetOf(machine, id).brackets) ? ["no-bracket-table"] : []),
  ],
  problems: (machine, { units }) => unknownUnits(machine, units),
  form: (machine) => ({
    groups: [{ id: "wanted", label: "What they are set for" }, ...unitGroups(machine)],
    fields: [
      heightOfAll(machine, "wanted"),
      {
        kind: "choice",
        path: ["groomer"],
        group: "wanted",
        label: "Groomer or brush",
        options: [
          { id: "fitted", label: "Fitted" },
          { id: "none", label: "None" },
        ],
      },
      ...unitsAcross(machine).flatMap(({ id }) => [
        {
          kind: "number" as const,
          path: ["units", id, "number"],
          group: id,
          label: "Bracket stands in hole",
          least: 1,
          most: 20,
          isWhole: true,
        },
        {
          kind: "choice" as const,
          path: ["units", id, "facing"],
          group: id,
          label: "Bracket faces",
          options: [
            { id: "forward", label: "Forward" },
            { id: "rearward", label: "Rearward" },
          ],
        },
      ]),
    ],
  }),
  assess,
};

function findingsAt(place: string, read: Read, wanted: Bracket | undefined): Finding[] {
  if (!wanted) return [];
  const causes = shows("front-roller-position");
  const off: Finding[] = [
    ...(read.number !== undefined && read.number !== wanted.number ? [{ place, code: "wrong-hole", verdict: "out" as const, causes }] : []),
    ...(read.facing !== undefined && read.facing !== wanted.facing
      ? [{ place, code: "wrong-facing", verdict: "out" as const, causes }]
      : []),
  ];
  const isTold = read.number !== undefined && read.facing !== undefined;
  return off.length === 0 && isTold ? [{ place, code: "as-the-table", verdict: "in-tolerance" }] : off;
}

function assess(machine: Machine, { heightMetres, groomer, units }: PositionReadings): Assessment<PositionDetail, Says> {
  const isAsked = heightMetres !== undefined && groomer !== undefined;
  const read = unitsAcross(machine).map(({ id }) => ({
    id,
    read: units[id] ?? {},
    wanted: isAsked ? bracketFor(machine, id, heightMetres, groomer === "fitted") : undefined,
    nearest: isAsked ? nearestBracket(machine, id, heightMetres, groomer === "fitted") : undefined,
  }));
  const told = read.filter((one) => one.wanted && one.read.number !== undefined && one.read.facing !== undefined).map(({ id }) => id);
  // No row is for that height: what the nearest one calls wrong stays wrong, and nothing is called right by it.
  const findings = read.flatMap((one) =>
    findingsAt(one.id, one.read, one.wanted ?? one.nearest).filter(({ verdict }) => one.wanted !== undefined || verdict === "out"),
  );
  const isComplete = told.length === read.length;
  const figures = heightMetres === undefined ? [] : groundFigures(machine, heightMetres);
  const scalps = figures.find(({ id }) => id === "scalps-under");
  return {
    check: "roller-position",
    ruleVersion: rollerPosition.ruleVersion,
    ...settled({ check: "roller-position", findings, clears: { "front-roller-position": isComplete }, told, isComplete }),
    provisional: [
      ...(isAsked ? [] : [{ code: "height-not-told" as const }]),
      ...read.flatMap((one): Says["provisional"][] => {
        if (isAsked && !one.wanted) return [{ code: "no-row-for-height", place: one.id, heightMetres }];
        return told.includes(one.id) ? [] : [{ code: "unit-unread", place: one.id }];
      }),
    ],
    figures,
    actions: read.flatMap((one) =>
      one.wanted && findings.some(({ place, verdict }) => place === one.id && verdict === "out")
        ? [{ code: "move-bracket" as const, place: one.id, ...one.wanted }]
        : [],
    ),
    warnings: findings.some(({ verdict }) => verdict === "out") ? [{ code: "not-made-up-at-the-rear" }] : [],
    detail: {
      wanted: Object.fromEntries(read.flatMap((one) => (one.wanted ? [[one.id, one.wanted]] : []))),
      ...(scalps ? { scalpsUnderMetres: scalps.value } : {}),
    },
  };
}

/** Wheelbase, and the sharpest crest the first unit clears at that height. */
function groundFigures(machine: Machine, heightMetres: number): Figure[] {
  const [first] = unitsAcross(machine);
  const view = first && unitSheetOf(machine, first.id).sideView;
  if (!view || !stanceOf(view)) return [];
  const up = travelFor({ view, end: "rear", heightMetres });
  const scalps = up === undefined ? undefined : scalpingRadius(movedRoller(view, "rear", up));
  const figure = (id: string, value: number): Figure => ({ id, value, dimension: "length", instrument: "gauge", standing: "physics" });
  return [figure("wheelbase", wheelbaseOf(view)), ...(scalps ? [figure("scalps-under", scalps.radiusMetres)] : [])];
}
