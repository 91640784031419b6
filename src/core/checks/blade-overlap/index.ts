import * as z from "zod";
import { type Evidence, type Figure, type Finding, measuredLikelihoodRatio, type Verdict } from "@/core/basics/findings";
import { instrument } from "@/core/basics/instruments";
import { physical } from "@/core/basics/units/physical";
import { featuresOf } from "@/core/catalogue/kinds";
import { type Machine, pointOf, spindlesAcross } from "@/core/machine";
import {
  badRadii,
  bladesOf,
  clearances,
  LEAST_CLEARANCE_METRES,
  LEAST_OVERLAP_METRES,
  leastOverlap,
  type RadiusBand,
  type SweptBlade,
  straightOverlaps,
  WEAR_TO_WATCH_METRES,
  wearLeft,
  widthOfCut,
} from "@/core/physics/blades/overlap";
import type { Form } from "../form";
import { findingsOf, settled } from "../settled";
import type { Assessment, At, Check } from "../types";
import { unknownPlaces } from "../verdicts";

export const overlapReadingsSchema = z.object({
  /** Tip to tip, corner to corner on the diagonal where ends are square. */
  blades: z.record(z.string(), z.object({ lengthMetres: physical("metres", 2) })).default({}),
});

export type OverlapReadings = z.output<typeof overlapReadingsSchema>;

export type OverlapDetail = {
  blades: SweptBlade[];
  widthMetres: number;
  wearLeftMetres: number;
  /** Radii of right and left turns in which neighbours share less than the least. */
  right: RadiusBand[];
  left: RadiusBand[];
};

type Says = {
  action:
    | { code: "replace-short-set"; overlapMetres: number }
    | { code: "wider-turns"; fromMetres: number; toMetres: number; worstMetres: number; atMetres: number };
  warning: { code: "blades-strike"; place?: string };
  provisional: { code: "as-on-the-sheet"; place: string };
  problem: { code: "unknown-spindle"; place: string } | { code: "blade-longer-than-deck"; place: string; mostMetres: number };
};
type Problem = Says["problem"] & At;

export const bladeOverlap: Check<OverlapReadings, OverlapDetail, Says> = {
  id: "blade-overlap",
  ruleVersion: 3,
  cautions: ["turn-by-hand"],
  readingsSchema: overlapReadingsSchema,
  missing: (machine) => (machine.spindles.length < 2 ? ["one-blade"] : []),
  problems,
  form: formOf,
  assess,
};

/** So much longer than the sheet's tip circle and a blade is another part, or misread. Estimate. */
const LONGER_BY = 0.05;

function problems(machine: Machine, { blades }: OverlapReadings): Problem[] {
  const tooLong = machine.spindles.flatMap(({ id, tipCircleDiameterMetres: sheet }): Problem[] => {
    const read = blades[id]?.lengthMetres;
    return read !== undefined && read > sheet + LONGER_BY
      ? [{ code: "blade-longer-than-deck" as const, path: ["blades", id, "lengthMetres"], place: id, mostMetres: sheet + LONGER_BY }]
      : [];
  });
  return [...unknownPlaces({ read: blades, known: machine.spindles, path: "blades", code: "unknown-spindle" }), ...tooLong];
}

function formOf(machine: Machine): Form {
  const across = spindlesAcross(machine);
  return {
    groups: across.map((spindle) => ({ id: spindle.id, label: spindle.label, at: pointOf(spindle) })),
    fields: across.map(({ id, tipCircleDiameterMetres: sheet }) => ({
      kind: "quantity",
      path: ["blades", id, "lengthMetres"],
      group: id,
      label: "Tip to tip, corner to corner",
      dimension: "length",
      instrument: "tape",
      range: { least: 0.1, most: 2, usualLeast: sheet - 0.06, usualMost: sheet + 0.02 },
    })),
  };
}

/** Blades as read; what was not read stands as on the sheet, and the result is not complete. */
export function bladesRead(machine: Machine, { blades }: OverlapReadings): SweptBlade[] {
  return bladesOf(machine).map((blade) => ({ ...blade, lengthMetres: blades[blade.id]?.lengthMetres ?? blade.lengthMetres }));
}

function assess(machine: Machine, readings: OverlapReadings): Assessment<OverlapDetail, Says> {
  const blades = bladesRead(machine, readings);
  const unread = machine.spindles.filter(({ id }) => !readings.blades[id]);
  const figures = [...overlapFigures(blades), ...clearanceFigures(machine, blades), wearFigure(blades), widthFigure(blades)];
  const isRead = (place: string) => place.split(":").every((id) => readings.blades[id] !== undefined);
  const detail: OverlapDetail = {
    blades,
    widthMetres: widthOfCut(blades),
    wearLeftMetres: wearLeft(blades),
    right: badRadii({ blades, side: 1, limitMetres: LEAST_OVERLAP_METRES }),
    left: badRadii({ blades, side: -1, limitMetres: LEAST_OVERLAP_METRES }),
  };
  return {
    check: "blade-overlap",
    ruleVersion: bladeOverlap.ruleVersion,
    ...settled({
      check: "blade-overlap",
      findings: [...findingsOf(figures, "set"), ...turnFindings(machine, detail)],
      evidence: unread.length === 0 ? [...evidenceOf(machine, blades), ...otherPart(machine, blades)] : [],
      told: [
        ...figures.flatMap(({ place }) => (place !== undefined && isRead(place) ? [place] : [])),
        ...(unread.length === 0 ? ["set", "turns"] : []),
      ],
      isComplete: unread.length === 0,
    }),
    provisional: unread.map(({ id }) => ({ code: "as-on-the-sheet" as const, place: id })),
    figures,
    actions: actionsOf(blades, detail),
    warnings: figures
      .filter(({ verdict: found }) => found === "stop")
      .map(({ place }) => ({ code: "blades-strike" as const, ...(place ? { place } : {}) })),
    detail,
  };
}

function overlapFigures(blades: readonly SweptBlade[]): Figure[] {
  return straightOverlaps(blades).map(({ between, overlapMetres }) => ({
    id: "overlap",
    place: between.join(":"),
    value: overlapMetres,
    dimension: "length",
    instrument: "fine",
    tolerance: { kind: "between", least: LEAST_OVERLAP_METRES, standing: "estimate" },
    verdict:
      overlapMetres < LEAST_OVERLAP_METRES
        ? "out"
        : overlapMetres < LEAST_OVERLAP_METRES + 2 * WEAR_TO_WATCH_METRES
          ? "watch"
          : "in-tolerance",
    standing: "measured",
  }));
}

/** Only free blades must clear each other: geared ones are kept apart by their timing. */
function clearanceFigures(machine: Machine, blades: readonly SweptBlade[]): Figure[] {
  if (featuresOf(machine).includes("gears")) return [];
  const across = spindlesAcross(machine).map(({ id }) => id);
  const isNeighbour = ([a, b]: readonly [string, string]) => Math.abs(across.indexOf(a) - across.indexOf(b)) === 1;
  const judge = (clear: number): Verdict => {
    if (clear <= 0) return "stop";
    if (clear < LEAST_CLEARANCE_METRES - WEAR_TO_WATCH_METRES) return "out";
    return clear < LEAST_CLEARANCE_METRES ? "watch" : "in-tolerance";
  };
  return clearances(blades)
    .filter(({ between, clearanceMetres }) => isNeighbour(between) || clearanceMetres <= LEAST_CLEARANCE_METRES)
    .map(({ between, clearanceMetres }) => ({
      id: "blade-clearance",
      place: between.join(":"),
      value: clearanceMetres,
      dimension: "length",
      instrument: "fine",
      tolerance: { kind: "between", least: LEAST_CLEARANCE_METRES, standing: "estimate" },
      verdict: judge(clearanceMetres),
      standing: "measured",
    }));
}

function wearFigure(blades: readonly SweptBlade[]): Figure {
  const value = wearLeft(blades);
  return {
    id: "wear-left",
    value,
    dimension: "length",
    instrument: "fine",
    tolerance: { kind: "between", least: 0, standing: "estimate" },
    verdict: value < 0 ? "out" : value < WEAR_TO_WATCH_METRES ? "watch" : "in-tolerance",
    standing: "physics",
  };
}

function widthFigure(blades: readonly SweptBlade[]): Figure {
  return { id: "width-of-cut", value: widthOfCut(blades), dimension: "length", instrument: "tape", standing: "physics" };
}

/** Tape read to a sixteenth. Estimate. */
const LENGTH_UNCERTAINTY_METRES = instrument("tape").uncertainty;

/** How far the least overlap has gone from what the sheet's blades share towards the least there may be. */
function evidenceOf(machine: Machine, blades: readonly SweptBlade[]): Evidence[] {
  const asNew = leastOverlap(straightOverlaps(bladesOf(machine)));
  const now = leastOverlap(straightOverlaps(blades));
  const room = asNew - LEAST_OVERLAP_METRES;
  const cause = "blade-worn-short";
  if (room <= 0) return [{ check: "blade-overlap", cause, result: now < 0 ? "suspect" : "not-found" }];
  const ratio = measuredLikelihoodRatio({
    deviation: asNew - now,
    tolerance: room,
    standardUncertainty: LENGTH_UNCERTAINTY_METRES,
    sides: "one",
  });
  return [{ cause, likelihoodRatio: ratio }];
}

/** No blade is worn so far under the sheet's least before its machine is complained of. Estimate. */
const PAST_WEAR_METRES = 0.015;

/** Far under the least the sheet lets a blade wear to, it is another, shorter blade; short of that a tape cannot tell wear from another part. */
function otherPart({ sheet }: Machine, blades: readonly SweptBlade[]): Evidence[] {
  const { leastLengthMetres: least, lengthMetres: asNew } = sheet.blade ?? {};
  if (least === undefined || asNew === undefined) return [];
  const isUnder = blades.some(({ lengthMetres }) => lengthMetres < least - PAST_WEAR_METRES);
  return isUnder ? [{ check: "blade-overlap", cause: "blade-wrong-part", result: "suspect" }] : [];
}

/** So much wider than the sheet's own blades leave in the same turns, and the strip is their wear. Estimate: what a tape tells. */
const WIDER_STRIP_METRES = 0.003;

/** A strip this narrow closes with the next reading of a tape: watched. Estimate. */
const STRIP_TO_WATCH_METRES = 0.001;

/** Staggered blades leave a strip in some turns by design; one that wear has opened or widened is what was complained of. */
function turnFindings(machine: Machine, { right, left }: OverlapDetail): Finding[] {
  const worst = (bands: readonly { worstMetres: number }[]) => Math.min(0, ...bands.map(({ worstMetres }) => worstMetres));
  const now = Math.min(worst(right), worst(left));
  const fresh = bladesOf(machine);
  const asNew = Math.min(...([1, -1] as const).map((side) => worst(badRadii({ blades: fresh, side, limitMetres: LEAST_OVERLAP_METRES }))));
  // A strip there is, or a blade's wear away from one.
  if (now >= 0 || now >= asNew - (WIDER_STRIP_METRES * 2) / 3) return [];
  const isWide = now < asNew - WIDER_STRIP_METRES && now < -STRIP_TO_WATCH_METRES;
  return [{ place: "turns", code: isWide ? "strip-in-turns" : "near-strip-in-turns", verdict: isWide ? "out" : "watch" }];
}

function actionsOf(blades: readonly SweptBlade[], { right, left }: OverlapDetail): Says["action"][] {
  const least = leastOverlap(straightOverlaps(blades));
  if (least < LEAST_OVERLAP_METRES) return [{ code: "replace-short-set", overlapMetres: least }];
  const worst = [...right, ...left].sort((a, b) => a.worstMetres - b.worstMetres)[0];
  return worst
    ? [
        {
          code: "wider-turns",
          fromMetres: worst.fromMetres,
          toMetres: worst.toMetres,
          worstMetres: worst.worstMetres,
          atMetres: worst.worstAtMetres,
        },
      ]
    : [];
}
