import type { EdgeCost } from "@/core/blades/edge";
import { bladesOf, LEAST_OVERLAP_METRES, leastOverlap, straightOverlaps } from "@/core/blades/overlap";
import type { Evidence, Figure, Verdict } from "@/core/findings";
import { type BladeSheet, type Machine, spindlesAcross } from "@/core/machine";
import type { Action, Assessment, Check, Mark } from "../types";
import { overall, tell, unknownPlaces } from "../verdicts";
import { edgeForm } from "./form";
import { type EdgeReadings, edgeReadingsSchema } from "./schema";
import { adviceOf, type BladeWorth, costOf, DAMAGING_NICK_METRES, type SetAdvice, worthOf } from "./worth";

export type { EdgeReadings } from "./schema";
export { STOCK_PER_GRIND_METRES } from "./worth";

export type EdgeDetail = { blades: BladeWorth[]; advice: SetAdvice; cost?: EdgeCost; leastOverlapMetres?: number };

export const bladeEdge: Check<EdgeReadings, EdgeDetail> = {
  id: "blade-edge",
  ruleVersion: 1,
  readingsSchema: edgeReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems: (machine, { blades }) => unknownPlaces({ read: blades, known: machine.spindles, path: "blades", code: "unknown-spindle" }),
  form: edgeForm,
  assess,
};

function assess(machine: Machine, readings: EdgeReadings): Assessment<EdgeDetail> {
  const sheet = machine.sheet.blade;
  const blades = spindlesAcross(machine).flatMap(({ id }) => {
    const read = readings.blades[id];
    return read ? [worthOf(id, read, sheet)] : [];
  });
  const unread = machine.spindles.filter(({ id }) => !blades.some(({ spindleId, isLookedAt }) => spindleId === id && isLookedAt));
  const cost = costOf(readings.money, sheet);
  const overlap = overlapNow(machine, readings);
  const isComplete = unread.length === 0;
  const advice = isComplete || blades.some(({ scrap }) => scrap.length > 0) ? adviceOf(blades, cost) : "not-told";
  const marks = blades.flatMap(markOf);
  return {
    check: "blade-edge",
    ruleVersion: bladeEdge.ruleVersion,
    verdict: overall(
      [...marks.map(({ verdict }) => verdict), ...(overlap !== undefined && overlap < LEAST_OVERLAP_METRES ? (["out"] as const) : [])],
      isComplete,
    ),
    provisional: unread.map(({ id }) => ({ code: "place-unread", place: id })),
    figures: blades.flatMap((worth) => figuresOf(worth, readings, sheet)),
    marks,
    evidence: evidenceOf({ blades, isComplete, overlap, sheet }),
    actions: actionsOf({ blades, advice, cost, overlap }),
    warnings: [
      ...(blades.some(({ scrap }) => scrap.includes("bend") || scrap.includes("crack")) ? [{ code: "never-straighten" }] : []),
      ...(overlap !== undefined && overlap < LEAST_OVERLAP_METRES ? [{ code: "worn-short-however-sharp", overlapMetres: overlap }] : []),
    ],
    detail: { blades, advice, ...(cost ? { cost } : {}), ...(overlap === undefined ? {} : { leastOverlapMetres: overlap }) },
  };
}

/** What neighbours share at the lengths read, once every blade of several was. */
function overlapNow(machine: Machine, { blades }: EdgeReadings): number | undefined {
  if (machine.spindles.length < 2 || machine.spindles.some(({ id }) => blades[id]?.lengthMetres === undefined)) return undefined;
  return leastOverlap(
    straightOverlaps(bladesOf(machine).map((blade) => ({ ...blade, lengthMetres: blades[blade.id]?.lengthMetres ?? blade.lengthMetres }))),
  );
}

function markOf({ spindleId: place, scrap, edge, deepestNickMetres, isLookedAt, grindsLeft }: BladeWorth): Mark[] {
  if (scrap.length > 0)
    return [{ place, verdict: scrap.some((one) => one === "crack" || one === "bend") ? "stop" : "out", code: scrap[0] ?? "" }];
  if (!isLookedAt) return [];
  if (grindsLeft !== undefined && grindsLeft < 0) return [{ place, verdict: "out", code: "no-grind-left" }];
  if ((deepestNickMetres ?? 0) >= DAMAGING_NICK_METRES) return [{ place, verdict: "out", code: "nicked" }];
  if (edge === "rounded") return [{ place, verdict: "out", code: "rounded" }];
  if (edge === "dull" || (deepestNickMetres ?? 0) > 0) return [{ place, verdict: "watch", code: edge === "dull" ? "dull" : "small-nicks" }];
  return [{ place, verdict: "in-tolerance", code: "sharp" }];
}

function figuresOf(worth: BladeWorth, { blades }: EdgeReadings, sheet: BladeSheet | undefined): Figure[] {
  const place = worth.spindleId;
  const read = blades[place];
  const length = (
    id: string,
    value: number | undefined,
    limit?: { most?: number; least?: number; standing: "sheet" | "common-practice" },
  ): Figure[] => {
    if (value === undefined) return [];
    const isOut =
      limit !== undefined && ((limit.most !== undefined && value >= limit.most) || (limit.least !== undefined && value < limit.least));
    return [
      {
        id,
        place,
        value,
        dimension: "length",
        instrument: "fine",
        ...(limit ? { tolerance: { kind: "between", ...limit }, verdict: isOut ? ("out" as Verdict) : ("in-tolerance" as Verdict) } : {}),
        standing: "measured",
      },
    ];
  };
  const sail = sheet?.sailThicknessMetres;
  return [
    ...length("deepest-nick", worth.deepestNickMetres, { most: DAMAGING_NICK_METRES, standing: "common-practice" }),
    ...length("stock-to-remove", worth.stockMetres),
    ...length("sail-thinnest", worth.thinnestSailMetres, sail === undefined ? undefined : { least: sail / 2, standing: "common-practice" }),
    ...length(
      "tip-width",
      read?.widthMetres,
      sheet?.leastWidthMetres === undefined ? undefined : { least: sheet.leastWidthMetres, standing: "sheet" },
    ),
    ...length(
      "blade-length",
      read?.lengthMetres,
      sheet?.leastLengthMetres === undefined ? undefined : { least: sheet.leastLengthMetres, standing: "sheet" },
    ),
    ...(worth.grindsLeft === undefined
      ? []
      : [
          {
            id: "grinds-left",
            place,
            value: worth.grindsLeft,
            dimension: "count" as const,
            instrument: "gauge" as const,
            verdict: worth.grindsLeft < 0 ? ("out" as const) : ("in-tolerance" as const),
            standing: "estimate" as const,
          },
        ]),
  ];
}

function evidenceOf(args: {
  blades: readonly BladeWorth[];
  isComplete: boolean;
  overlap: number | undefined;
  sheet: BladeSheet | undefined;
}): Evidence[] {
  const { blades, isComplete, overlap, sheet } = args;
  const check = "blade-edge";
  const any = (isSo: (worth: BladeWorth) => boolean) => blades.some(isSo);
  const told = (cause: string, isSeen: boolean, isSuspect: boolean, isClear: boolean) =>
    tell({ check, cause, isSeen, isSuspect, isClear: isComplete && isClear });
  const sails = blades.flatMap(({ thinnestSailMetres }) => thinnestSailMetres ?? []);
  const isSailKnown = sails.length === blades.length && sails.length > 0 && sheet?.sailThicknessMetres !== undefined;
  return [
    ...told(
      "blade-dull",
      any(({ edge }) => edge === "rounded"),
      any(({ edge }) => edge === "dull"),
      true,
    ),
    ...told(
      "blade-damaged",
      any(({ scrap, deepestNickMetres }) => scrap.includes("crack") || (deepestNickMetres ?? 0) >= DAMAGING_NICK_METRES),
      false,
      true,
    ),
    ...told(
      "blade-sail-worn",
      any(({ scrap }) => scrap.some((one) => one.startsWith("sail") || one === "slot-forming")),
      false,
      isSailKnown,
    ),
    ...told(
      "blade-worn-short",
      any(({ scrap }) => scrap.includes("below-least-length")) || (overlap !== undefined && overlap < LEAST_OVERLAP_METRES),
      false,
      overlap !== undefined,
    ),
  ];
}

function actionsOf(args: {
  blades: readonly BladeWorth[];
  advice: SetAdvice;
  cost: EdgeCost | undefined;
  overlap: number | undefined;
}): Action[] {
  const { blades, advice, cost, overlap } = args;
  const scrap = blades.flatMap(({ spindleId, scrap: reasons }): Action[] =>
    reasons.map((reason) => ({ code: "scrap-blade", place: spindleId, reason })),
  );
  const isShort = overlap !== undefined && overlap < LEAST_OVERLAP_METRES;
  const money = cost ? { sharpened: cost.sharpenedPerHour, replaced: cost.replacedPerHour } : {};
  if (advice === "scrap" || advice === "replace" || (isShort && advice !== "not-told"))
    return [...scrap, { code: "replace-set", why: advice === "scrap" ? "scrap" : isShort ? "short" : "worth", ...money }];
  const stock = Math.max(0, ...blades.map(({ stockMetres }) => stockMetres ?? 0));
  if (advice === "sharpen") return [{ code: "sharpen-set", stockMetres: stock, ...leastGrinds(blades), ...money }];
  return advice === "leave" ? [{ code: "leave-set" }] : [];
}

function leastGrinds(blades: readonly BladeWorth[]): { grindsLeft?: number } {
  const left = blades.flatMap(({ grindsLeft }) => grindsLeft ?? []);
  return left.length === 0 ? {} : { grindsLeft: Math.min(...left) };
}
