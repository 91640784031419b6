import * as z from "zod";
import { type Figure, type Finding, judgeDeviation } from "@/core/basics/findings";
import { physicalOrNought } from "@/core/basics/units/physical";
import { type Machine, unitSheetOf, unitsAcross } from "@/core/machine";
import { edgeShare, SQUARE_TOLERANCE_METRES, squaringTurn } from "@/core/physics/reel";
import { byUnitSchema, keepsUnits, noUnits, unitGroups, unknownUnits } from "../by-unit";
import { bySize, settled } from "../settled";
import type { Assessment, Check } from "../types";

const gap = physicalOrNought("metres", 0.1);
export const squareReadingsSchema = byUnitSchema(
  z.object({
    leftGapMetres: gap.optional(),
    rightGapMetres: gap.optional(),
    /** The reel on the bar and the knife against its stop, the rear roller hanging free. */
    rests: z.enum(["as-meant", "rocks"]).optional(),
  }),
);
export type SquareReadings = z.output<typeof squareReadingsSchema>;
type Read = SquareReadings["units"][string];

type Says = {
  action:
    | { code: "turn-eccentric"; place: string; end: "left" | "right"; turns: number; byMetres: number }
    | { code: "close-end"; place: string; end: "left" | "right"; byMetres: number };
  warning: { code: "hangs-clear"; place: string };
  provisional: { code: "unit-unread"; place: string } | { code: "rocks-on-the-bar"; place: string };
  problem: { code: "unknown-unit"; place: string };
};

export type SquareDetail = { across: { unit: string; gapMetres: number; tiltMetres?: number }[] };

/** How the front roller lies on the plate, end to end. The tolerance is on the roller; the cut tilts by the share of it that reaches the edge. */
export const rollerSquare: Check<SquareReadings, SquareDetail, Says> = keepsUnits({
  id: "roller-square",
  ruleVersion: 1,
  cautions: ["reels-isolated"],
  readingsSchema: squareReadingsSchema,
  missing: noUnits,
  problems: (machine, { units }) => unknownUnits(machine, units),
  form: (machine) => ({
    groups: unitGroups(machine),
    fields: unitsAcross(machine).flatMap(({ id }) => [
      {
        kind: "choice" as const,
        path: ["units", id, "rests"],
        group: id,
        label: "Reel on the bar, knife against the stop, rear roller free",
        options: [
          { id: "as-meant", label: "Rests still" },
          { id: "rocks", label: "Rocks" },
        ],
      },
      ...(["left", "right"] as const).map((end) => ({
        kind: "quantity" as const,
        path: ["units", id, `${end}GapMetres`],
        group: id,
        label: `Gap under the roller, ${end}`,
        dimension: "length" as const,
        instrument: "fine" as const,
        range: { least: 0, most: 0.1, usualLeast: 0, usualMost: 0.002 },
      })),
    ]),
  }),
  assess,
});

const isTold = (read: Read | undefined): boolean =>
  read?.leftGapMetres !== undefined && read.rightGapMetres !== undefined && read.rests !== undefined;

/** Left less right. */
const overOf = ({ leftGapMetres, rightGapMetres }: Read): number | undefined =>
  leftGapMetres === undefined || rightGapMetres === undefined ? undefined : leftGapMetres - rightGapMetres;

function findingsAt(place: string, read: Read): Finding[] {
  const over = overOf(read);
  const verdict = over === undefined ? undefined : judgeDeviation({ deviation: over, tolerance: SQUARE_TOLERANCE_METRES });
  const off: Finding[] = [
    ...(verdict === "out"
      ? [{ place, code: "not-square", verdict, causes: bySize(over ?? 0, SQUARE_TOLERANCE_METRES, "front-roller-not-square") }]
      : []),
    ...(verdict === "watch" ? [{ place, code: "near-limit", verdict }] : []),
    ...(read.rests === "rocks" ? [{ place, code: "rocks", verdict: "watch" as const }] : []),
  ];
  return off.length === 0 && isTold(read) ? [{ place, code: "square", verdict: "in-tolerance" }] : off;
}

function assess(machine: Machine, { units }: SquareReadings): Assessment<SquareDetail, Says> {
  const read = unitsAcross(machine).map(({ id }) => ({ id, read: units[id] ?? {} }));
  const told = read.filter((one) => isTold(one.read) && one.read.rests === "as-meant").map(({ id }) => id);
  const isComplete = told.length === read.length;
  return {
    check: "roller-square",
    ruleVersion: rollerSquare.ruleVersion,
    ...settled({
      check: "roller-square",
      findings: read.flatMap((one) => findingsAt(one.id, one.read)),
      clears: { "front-roller-not-square": isComplete },
      told,
      isComplete,
    }),
    provisional: read.flatMap((one): Says["provisional"][] =>
      one.read.rests === "rocks"
        ? [{ code: "rocks-on-the-bar", place: one.id }]
        : isTold(one.read)
          ? []
          : [{ code: "unit-unread", place: one.id }],
    ),
    figures: read.flatMap((one) => figuresOf(machine, one.id, one.read)),
    actions: read.flatMap((one) => actionOf(machine, one.id, one.read)),
    warnings: read.flatMap(({ id, read: { leftGapMetres, rightGapMetres } }) =>
      leftGapMetres !== undefined && rightGapMetres !== undefined && Math.min(leftGapMetres, rightGapMetres) > SQUARE_TOLERANCE_METRES
        ? [{ code: "hangs-clear" as const, place: id }]
        : [],
    ),
    detail: {
      across: read.flatMap((one) => {
        const over = overOf(one.read);
        const tilt = over === undefined ? undefined : tiltOf(machine, one.id, over);
        return over === undefined ? [] : [{ unit: one.id, gapMetres: over, ...(tilt === undefined ? {} : { tiltMetres: tilt }) }];
      }),
    },
  };
}

function tiltOf(machine: Machine, unit: string, over: number): number | undefined {
  const { sideView } = unitSheetOf(machine, unit);
  return sideView && over * edgeShare(sideView);
}

function figuresOf(machine: Machine, place: string, read: Read): Figure[] {
  const over = overOf(read);
  if (over === undefined) return [];
  const tilt = tiltOf(machine, place, over);
  return [
    {
      id: "out-of-square",
      place,
      value: Math.abs(over),
      dimension: "length",
      instrument: "fine",
      tolerance: { kind: "between", most: SQUARE_TOLERANCE_METRES, standing: "common-practice" },
      verdict: judgeDeviation({ deviation: over, tolerance: SQUARE_TOLERANCE_METRES }),
      standing: "measured",
    },
    ...(tilt === undefined
      ? []
      : [
          {
            id: "tilts-the-cut",
            place,
            value: Math.abs(tilt),
            dimension: "length" as const,
            instrument: "fine" as const,
            standing: "physics" as const,
          },
        ]),
  ];
}

/** What shows light is let down, until both ends bear. */
function actionOf(machine: Machine, place: string, read: Read): Says["action"][] {
  const over = overOf(read);
  if (over === undefined || Math.abs(over) <= SQUARE_TOLERANCE_METRES) return [];
  const throwMetres = unitSheetOf(machine, place).adjusters?.squareThrowMetres;
  const byMetres = Math.abs(over);
  if (throwMetres === undefined) return [{ code: "close-end", place, end: over > 0 ? "left" : "right", byMetres }];
  const { leftGapMetres = 0, rightGapMetres = 0 } = read;
  return [{ code: "turn-eccentric", place, ...squaringTurn({ leftGapMetres, rightGapMetres, throwMetres }), byMetres }];
}
