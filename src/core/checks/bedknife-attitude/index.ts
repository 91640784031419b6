import * as z from "zod";
import { type Figure, type Finding, judgeDeviation, type Verdict } from "@/core/basics/findings";
import { physical, physicalOrNought } from "@/core/basics/units/physical";
import { heightEndOf, type Machine, unitSheetOf, unitsAcross } from "@/core/machine";
import { LEAST_CLEARANCE_SHARE, movedRoller, type Stance, stanceOf, travelFor } from "@/core/physics/reel";
import { byUnitSchema, keepsUnits, noUnits, unitGroups, unknownUnits } from "../by-unit";
import { pointsAt, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";

/** An angle is read no closer than this. Estimate. */
const ANGLE_ERROR_RADIANS = (0.25 * Math.PI) / 180;

const size = physicalOrNought("metres", 0.1);
export const attitudeReadingsSchema = byUnitSchema(
  z.object({
    heightMetres: physical("metres", 0.1).optional(),
    heelMetres: size.optional(),
    toeMetres: size.optional(),
    attitudeRadians: z.number().min(-0.6).max(0.6).optional(),
    thicknessMetres: physical("metres", 0.03).optional(),
    /** How the knife's front face meets the grass. */
    face: z.enum(["holds-upright", "lays-forward", "drags-back"]).optional(),
  }),
);
export type AttitudeReadings = z.output<typeof attitudeReadingsSchema>;
type Read = AttitudeReadings["units"][string];
type Says = {
  action:
    | { code: "thinner-knife"; place: string; heightMetres: number }
    | { code: "set-attitude"; place: string; heightEnd: "front" | "rear"; hasHoles: boolean }
    | { code: "grind-front-face"; place: string };
  warning:
    | { code: "under-least-thickness"; place: string }
    | { code: "knife-not-for-height"; place: string }
    | { code: "height-out-of-reach"; place: string; end: "front" | "rear" };
  provisional: { code: "unit-unread"; place: string } | { code: "no-attitude-on-sheet"; place: string };
  problem: { code: "unknown-unit"; place: string };
};
export type AttitudeDetail = { reckoned: Record<string, Stance> };

/** The knife's attitude, heel and toe at the height it is set to. */
export const bedknifeAttitude: Check<AttitudeReadings, AttitudeDetail, Says> = keepsUnits({
  id: "bedknife-attitude",
  ruleVersion: 2,
  cautions: ["reels-isolated"],
  readingsSchema: attitudeReadingsSchema,
  missing: noUnits,
  problems: (machine, { units }) => unknownUnits(machine, units),
  form: (machine) => ({
    groups: unitGroups(machine),
    fields: unitsAcross(machine).flatMap(({ id }) => {
      const most = (machine.sheet.heightMostMetres ?? 0.03) + 0.005;
      const knife = unitSheetOf(machine, id).bedknife;
      const length = (key: string, label: string, usual: { least: number; most: number }) => ({
        kind: "quantity" as const,
        path: ["units", id, key],
        group: id,
        label,
        dimension: "length" as const,
        instrument: "fine" as const,
        range: { least: 0, most: 0.1, usualLeast: usual.least, usualMost: usual.most },
      });
      return [
        length("heightMetres", "Height of cut, on the bench", { least: 0.001, most }),
        length("heelMetres", "Lowest rear corner of knife or bedbar, over the plate", { least: 0, most }),
        length("toeMetres", "Lowest point ahead of the edge, over the plate", { least: 0, most }),
        {
          ...length("thicknessMetres", "Lip of the knife, how thick", {
            least: (knife?.leastThicknessMetres ?? 0.001) * 0.9,
            most: (knife?.thicknessMetres ?? 0.008) * 1.05,
          }),
          range: {
            least: 0.0001,
            most: 0.03,
            usualLeast: (knife?.leastThicknessMetres ?? 0.001) * 0.9,
            usualMost: (knife?.thicknessMetres ?? 0.008) * 1.05,
          },
        },
        {
          kind: "quantity" as const,
          path: ["units", id, "attitudeRadians"],
          group: id,
          label: "Top face against the plate, front edge lower",
          isOptional: unitSheetOf(machine, id).attitude === undefined,
          dimension: "angle" as const,
          instrument: "gauge" as const,
          range: { least: -0.6, most: 0.6, usualLeast: -0.1, usualMost: 0.25 },
        },
        {
          kind: "choice" as const,
          path: ["units", id, "face"],
          group: id,
          label: "Front face, against the grass",
          options: [
            { id: "holds-upright", label: "Holds it upright" },
            { id: "lays-forward", label: "Too steep: lays it forward" },
            { id: "drags-back", label: "Too erect: drags it back" },
          ],
        },
      ];
    }),
  }),
  assess,
});

const isTold = (machine: Machine, place: string, read: Read): boolean =>
  read.heightMetres !== undefined &&
  read.heelMetres !== undefined &&
  read.toeMetres !== undefined &&
  read.thicknessMetres !== undefined &&
  read.face !== undefined &&
  (unitSheetOf(machine, place).attitude === undefined || read.attitudeRadians !== undefined);

/** Of a clearance: out under a third of the height, watched up to half as much again. */
function judgeClearance(clear: number, height: number): Verdict {
  const share = clear / height;
  if (share < LEAST_CLEARANCE_SHARE) return "out";
  return share < LEAST_CLEARANCE_SHARE * 1.2 ? "watch" : "in-tolerance";
}

function judgeAttitude(machine: Machine, place: string, radians: number): Verdict {
  const bounds = unitSheetOf(machine, place).attitude;
  if (!bounds) return "in-tolerance";
  const middle = (bounds.leastRadians + bounds.mostRadians) / 2;
  return judgeDeviation({
    deviation: radians - middle,
    tolerance: (bounds.mostRadians - bounds.leastRadians) / 2,
    standardError: ANGLE_ERROR_RADIANS,
  });
}

/** Whether the sheet says this knife is for another height. */
function isNotForHeight(machine: Machine, place: string, height: number): boolean {
  const { fromHeightMetres: from = 0, toHeightMetres: to = Number.POSITIVE_INFINITY } = unitSheetOf(machine, place).bedknife ?? {};
  return height < from - 1e-9 || height > to + 1e-9;
}

/** No heel: the knife is too thick for the height. No toe: the unit leans on its nose, which the front roller's place decides. */
function findingsAt(machine: Machine, place: string, read: Read): Finding[] {
  const { heightMetres: height, heelMetres: heel, toeMetres: toe, attitudeRadians: attitude } = read;
  const clear = (code: string, value: number | undefined, cause: string): Finding[] => {
    if (value === undefined || height === undefined) return [];
    const verdict = judgeClearance(value, height);
    if (verdict === "in-tolerance") return [];
    return [{ place, code: verdict === "out" ? code : `${code}-near`, verdict, ...(verdict === "out" ? { causes: shows(cause) } : {}) }];
  };
  const tipped = attitude === undefined ? "in-tolerance" : judgeAttitude(machine, place, attitude);
  const off: Finding[] = [
    ...clear("no-heel", heel, "bedknife-too-thick"),
    ...clear("no-toe", toe, "bedknife-too-thick"),
    ...(tipped === "out" ? [{ place, code: "attitude-off", verdict: tipped, causes: shows("bedknife-attitude-wrong") }] : []),
    ...(tipped === "watch" ? [{ place, code: "attitude-near", verdict: tipped }] : []),
    ...(read.face === "lays-forward" || read.face === "drags-back"
      ? [{ place, code: read.face, verdict: "out" as const, causes: pointsAt("bedknife-attitude-wrong") }]
      : []),
  ];
  return off.length === 0 && isTold(machine, place, read) ? [{ place, code: "right", verdict: "in-tolerance" }] : off;
}

function assess(machine: Machine, { units }: AttitudeReadings): Assessment<AttitudeDetail, Says> {
  const read = unitsAcross(machine).map(({ id }) => ({ id, read: units[id] ?? {} }));
  const told = read.filter((one) => isTold(machine, one.id, one.read)).map(({ id }) => id);
  const isComplete = told.length === read.length;
  const findings = read.flatMap((one) => findingsAt(machine, one.id, one.read));
  return {
    check: "bedknife-attitude",
    ruleVersion: bedknifeAttitude.ruleVersion,
    ...settled({
      check: "bedknife-attitude",
      findings,
      clears: {
        "bedknife-too-thick": isComplete,
        "bedknife-attitude-wrong": isComplete && read.every(({ id }) => unitSheetOf(machine, id).attitude !== undefined),
      },
      told,
      isComplete,
    }),
    provisional: read.flatMap((one): Says["provisional"][] => [
      ...(told.includes(one.id) ? [] : [{ code: "unit-unread" as const, place: one.id }]),
      ...(unitSheetOf(machine, one.id).attitude ? [] : [{ code: "no-attitude-on-sheet" as const, place: one.id }]),
    ]),
    figures: read.flatMap((one) => figuresOf(machine, one.id, one.read)),
    actions: findings.flatMap(({ place, code }): Says["action"][] => {
      const height = units[place]?.heightMetres;
      if ((code === "no-heel" || code === "no-toe") && height !== undefined)
        return [{ code: "thinner-knife", place, heightMetres: height }];
      if (code === "attitude-off")
        return [
          {
            code: "set-attitude",
            place,
            heightEnd: heightEndOf({ machine, unit: place }),
            hasHoles: unitSheetOf(machine, place).brackets !== undefined,
          },
        ];
      return code === "lays-forward" || code === "drags-back" ? [{ code: "grind-front-face", place }] : [];
    }),
    warnings: read.flatMap((one): Says["warning"][] => {
      const least = unitSheetOf(machine, one.id).bedknife?.leastThicknessMetres;
      const { thicknessMetres: thick, heightMetres: height } = one.read;
      return [
        ...(least !== undefined && thick !== undefined && thick < least ? [{ code: "under-least-thickness" as const, place: one.id }] : []),
        ...(height !== undefined && unitSheetOf(machine, one.id).sideView && reckoned(machine, one.id, one.read).length === 0
          ? [{ code: "height-out-of-reach" as const, place: one.id, end: heightEndOf({ machine, unit: one.id }) }]
          : []),
        ...(height !== undefined && isNotForHeight(machine, one.id, height)
          ? [{ code: "knife-not-for-height" as const, place: one.id }]
          : []),
      ];
    }),
    detail: { reckoned: Object.fromEntries(read.flatMap((one) => reckoned(machine, one.id, one.read).map((stance) => [one.id, stance]))) },
  };
}

/** What the unit's own side view gives at that height, made at the roller its height screws move. */
function reckoned(machine: Machine, place: string, { heightMetres }: Read): Stance[] {
  const view = unitSheetOf(machine, place).sideView;
  if (!view || heightMetres === undefined) return [];
  const end = heightEndOf({ machine, unit: place });
  const up = travelFor({ view, end, heightMetres });
  const stance = up === undefined ? undefined : stanceOf(movedRoller(view, end, up));
  return stance ? [stance] : [];
}

function figuresOf(machine: Machine, place: string, read: Read): Figure[] {
  const { heightMetres: height, attitudeRadians: attitude } = read;
  const bounds = unitSheetOf(machine, place).attitude;
  const clear = (id: string, value: number | undefined): Figure[] =>
    value === undefined || height === undefined
      ? []
      : [
          {
            id,
            place,
            value,
            dimension: "length",
            instrument: "fine",
            tolerance: { kind: "between", least: height * LEAST_CLEARANCE_SHARE, standing: "estimate" },
            verdict: judgeClearance(value, height),
            standing: "measured",
          },
        ];
  const angle = (id: string, value: number | undefined, standing: "measured" | "physics"): Figure[] =>
    value === undefined
      ? []
      : [
          {
            id,
            place,
            value,
            dimension: "angle",
            instrument: "gauge",
            ...(bounds
              ? {
                  tolerance: { kind: "between" as const, least: bounds.leastRadians, most: bounds.mostRadians, standing: "sheet" as const },
                }
              : {}),
            ...(standing === "measured" ? { verdict: judgeAttitude(machine, place, value) } : {}),
            standing,
          },
        ];
  return [
    ...clear("heel-clearance", read.heelMetres),
    ...clear("toe-clearance", read.toeMetres),
    ...angle("attitude", attitude, "measured"),
    ...angle("attitude-by-geometry", reckoned(machine, place, read)[0]?.attitudeRadians, "physics"),
  ];
}
