import type { Figure, Finding, Verdict } from "@/core/basics/findings";
import { type BladeSheet, type Machine, spindlesAcross } from "@/core/machine";
import { type EdgeCost, judgeSail } from "@/core/physics/blades/edge";
import { bladesOf, LEAST_OVERLAP_METRES, leastOverlap, straightOverlaps, WEAR_TO_WATCH_METRES } from "@/core/physics/blades/overlap";
import { pointsAt, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";
import { edgeForm } from "./form";
import { type EdgeReadings, ENDS, edgeReadingsSchema } from "./schema";
import {
  adviceOf,
  type BladeWorth,
  costOf,
  DAMAGING_NICK_METRES,
  type NickWays,
  nickWays,
  type SetAdvice,
  TAPE_ERROR_METRES,
  worthOf,
} from "./worth";

export type { EdgeReadings } from "./schema";
export { STOCK_PER_GRIND_METRES } from "./worth";

export type EdgeDetail = {
  blades: BladeWorth[];
  advice: SetAdvice;
  cost?: EdgeCost;
  currency?: string;
  nick?: NickWays;
  leastOverlapMetres?: number;
};

type Says = {
  action:
    | { code: "scrap-blade"; place: string; reason: string }
    | { code: "replace-set"; why: "scrap" | "short" | "worth"; sharpened?: number; replaced?: number; currency?: string }
    | { code: "sharpen-set"; stockMetres: number; grindsLeft?: number; sharpened?: number; replaced?: number; currency?: string }
    | { code: "compare-bend"; place: string }
    | { code: "replace-nicked"; count: number; amount?: number; currency?: string }
    | { code: "leave-nick"; depthMetres: number }
    | { code: "grind-under-nick"; stockMetres: number; count: number; amount?: number; currency?: string }
    | { code: "leave-set" };
  warning: { code: "never-straighten" } | { code: "worn-short-however-sharp"; overlapMetres: number };
  provisional: { code: "place-unread"; place: string };
  problem: { code: "unknown-spindle"; place: string };
};

export const bladeEdge: Check<EdgeReadings, EdgeDetail, Says> = {
  id: "blade-edge",
  ruleVersion: 4,
  cautions: ["freed-blade"],
  readingsSchema: edgeReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems: (machine, { blades }) => unknownPlaces({ read: blades, known: machine.spindles, path: "blades", code: "unknown-spindle" }),
  form: edgeForm,
  wants: "blade-tracks",
  assess,
};

function assess(machine: Machine, readings: EdgeReadings): Assessment<EdgeDetail, Says> {
  const sheet = machine.sheet.blade;
  const blades = spindlesAcross(machine).flatMap(({ id }) => {
    const read = readings.blades[id];
    return read ? [worthOf(id, read, sheet, readings.tracked?.[id])] : [];
  });
  const unread = machine.spindles.filter(({ id }) => !blades.some(({ spindleId, isLookedAt }) => spindleId === id && isLookedAt));
  const cost = costOf(readings.money, sheet);
  const overlap = overlapNow(machine, readings);
  const isComplete = unread.length === 0;
  const ways = isComplete ? nickWays(blades, readings.money, sheet) : undefined;
  const advice = isComplete || blades.some(({ scrap }) => scrap.length > 0) ? adviceOf(blades, cost, ways) : "not-told";
  const currency = readings.money.currency ?? sheet?.currency;
  const isShort = overlap !== undefined && overlap < LEAST_OVERLAP_METRES;
  const findings: Finding[] = [
    ...blades.flatMap(findingsAt),
    ...(overlap !== undefined && !isShort && overlap < LEAST_OVERLAP_METRES + 2 * WEAR_TO_WATCH_METRES
      ? [{ place: "set", code: "near-short", verdict: "watch" as const }]
      : []),
    ...(isShort ? [{ place: "set", code: "worn-short", verdict: "out" as const, causes: shows("blade-worn-short") }] : []),
  ];
  return {
    check: "blade-edge",
    ruleVersion: bladeEdge.ruleVersion,
    ...settled({
      check: "blade-edge",
      findings,
      clears: clearsOf({ machine, readings, isComplete, overlap }),
      told: blades.filter(({ isLookedAt }) => isLookedAt).map(({ spindleId }) => spindleId),
      isComplete,
    }),
    provisional: unread.map(({ id }) => ({ code: "place-unread" as const, place: id })),
    figures: blades.flatMap((worth) => figuresOf(worth, readings, sheet)),
    actions: actionsOf({ blades, advice, cost, overlap, ways, currency }),
    warnings: [
      ...(blades.some(({ scrap }) => scrap.includes("bend") || scrap.includes("crack")) ? [{ code: "never-straighten" as const }] : []),
      ...(overlap !== undefined && overlap < LEAST_OVERLAP_METRES
        ? [{ code: "worn-short-however-sharp" as const, overlapMetres: overlap }]
        : []),
    ],
    detail: {
      blades,
      advice,
      ...(cost ? { cost } : {}),
      ...(currency ? { currency } : {}),
      ...(ways ? { nick: ways } : {}),
      ...(overlap === undefined ? {} : { leastOverlapMetres: overlap }),
    },
  };
}

/** What neighbours share at the lengths read, once every blade of several was. */
function overlapNow(machine: Machine, { blades }: EdgeReadings): number | undefined {
  if (machine.spindles.length < 2 || machine.spindles.some(({ id }) => blades[id]?.lengthMetres === undefined)) return undefined;
  return leastOverlap(
    straightOverlaps(bladesOf(machine).map((blade) => ({ ...blade, lengthMetres: blades[blade.id]?.lengthMetres ?? blade.lengthMetres }))),
  );
}

/** What makes a blade scrap, in the cause it shows; past its limits it is only used up. A bend by eye is told from a new blade's own curve by tracking it. */
function scrapShows(reason: BladeWorth["scrap"][number]): NonNullable<Finding["causes"]> {
  if (reason === "crack") return shows("blade-damaged");
  if (reason === "bend") return shows("blade-bent");
  if (reason === "below-least-length") return shows("blade-worn-short");
  return reason.startsWith("sail") || reason === "slot-forming" ? shows("blade-sail-worn") : [];
}

/** All that is off with a blade; sharp only where it was looked at and nothing is. */
function findingsAt(worth: BladeWorth): Finding[] {
  const { spindleId: place, scrap, edge, deepestNickMetres = 0, isLookedAt, pastLimitMetres = 0, isBendOpen, atLimit } = worth;
  const off: Finding[] = [
    ...scrap.map(
      (code): Finding => ({ place, code, verdict: code === "crack" || code === "bend" ? "stop" : "out", causes: scrapShows(code) }),
    ),
    // Until it is held against another it may be a new blade's own curve, and may be bent: it does not run.
    ...(isBendOpen ? [{ place, code: "bend-to-compare", verdict: "stop" as const, causes: pointsAt("blade-bent") }] : []),
    // What a grind takes is an estimate, and condemns nothing.
    ...(pastLimitMetres > 0 ? [{ place, code: "no-grind-left", verdict: "watch" as const }] : []),
    ...atLimit.map((what): Finding => ({ place, code: `${what}-at-limit`, verdict: "watch" })),
    ...(deepestNickMetres >= DAMAGING_NICK_METRES
      ? [{ place, code: "nicked", verdict: "out" as const, causes: shows("blade-damaged") }]
      : []),
    ...(edge === "rounded" ? [{ place, code: "rounded", verdict: "out" as const, causes: shows("blade-dull") }] : []),
    ...(edge === "dull" ? [{ place, code: "dull", verdict: "watch" as const, causes: pointsAt("blade-dull") }] : []),
    ...(deepestNickMetres > 0 && deepestNickMetres < DAMAGING_NICK_METRES
      ? [{ place, code: "small-nicks", verdict: "watch" as const }]
      : []),
  ];
  return off.length === 0 && isLookedAt ? [{ place, code: "sharp", verdict: "in-tolerance" }] : off;
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
      limit !== undefined &&
      ((limit.most !== undefined && value >= limit.most) || (limit.least !== undefined && value < limit.least - TAPE_ERROR_METRES));
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
    ...length(
      "sail-thinnest",
      worth.thinnestSailMetres,
      sail === undefined ? undefined : { least: sail / 2, standing: "common-practice" },
    ).map((figure): Figure => {
      const verdict = judgeSail(worth.thinnestSailMetres, sail);
      return verdict ? { ...figure, verdict } : figure;
    }),
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
            verdict: (worth.pastLimitMetres ?? 0) > 0 ? ("watch" as const) : ("in-tolerance" as const),
            standing: "estimate" as const,
          },
        ]),
  ];
}

/** What a whole set looked at clears: a sail by both its ends, a length by every blade's. */
function clearsOf(args: {
  machine: Machine;
  readings: EdgeReadings;
  isComplete: boolean;
  overlap: number | undefined;
}): Record<string, boolean> {
  const { machine, readings, isComplete, overlap } = args;
  const sheet = machine.sheet.blade;
  const read = machine.spindles.map(({ id }) => readings.blades[id]);
  const hasSails =
    sheet?.sailThicknessMetres !== undefined && read.every((one) => ENDS.every((end) => one?.[end].sailMetres !== undefined));
  const hasLengths =
    overlap !== undefined ||
    (machine.spindles.length === 1 && sheet?.leastLengthMetres !== undefined && read[0]?.lengthMetres !== undefined);
  return {
    "blade-dull": isComplete,
    "blade-damaged": isComplete,
    "blade-sail-worn": isComplete && hasSails,
    "blade-worn-short": isComplete && hasLengths,
  };
}

function actionsOf(args: {
  blades: readonly BladeWorth[];
  advice: SetAdvice;
  cost: EdgeCost | undefined;
  overlap: number | undefined;
  ways: NickWays | undefined;
  currency: string | undefined;
}): Says["action"][] {
  const { blades, advice, cost, overlap, ways } = args;
  const compare = blades.flatMap(({ spindleId, isBendOpen }) => (isBendOpen ? [{ code: "compare-bend" as const, place: spindleId }] : []));
  const scrap = blades.flatMap(({ spindleId, scrap: reasons }): Says["action"][] =>
    reasons.map((reason) => ({ code: "scrap-blade", place: spindleId, reason })),
  );
  const isShort = overlap !== undefined && overlap < LEAST_OVERLAP_METRES;
  const money = cost
    ? { sharpened: cost.sharpenedPerHour, replaced: cost.replacedPerHour, ...(args.currency ? { currency: args.currency } : {}) }
    : {};
  if (advice === "scrap" || advice === "replace" || (isShort && advice !== "not-told"))
    return [...compare, ...scrap, { code: "replace-set", why: advice === "scrap" ? "scrap" : isShort ? "short" : "worth", ...money }];
  const stock = Math.max(0, ...blades.map(({ stockMetres }) => stockMetres ?? 0));
  if (advice === "one-nicked" && ways) return [...compare, ...nickActions(ways)];
  if (advice === "sharpen") return [...compare, { code: "sharpen-set", stockMetres: stock, ...leastGrinds(blades), ...money }];
  return advice === "leave" ? [...compare, { code: "leave-set" }] : compare;
}

/** Replace those, leave the nick, or grind them all: a mechanic's own choice, with what each takes. */
function nickActions({ deepestMetres, replace, mayLeave, grind }: NickWays): Says["action"][] {
  return [
    ...(mayLeave ? [{ code: "leave-nick" as const, depthMetres: deepestMetres }] : []),
    { code: "replace-nicked", count: replace.count, ...replace.money },
    ...(grind ? [{ code: "grind-under-nick" as const, stockMetres: grind.stockMetres, count: grind.count, ...grind.money }] : []),
  ];
}

function leastGrinds(blades: readonly BladeWorth[]): { grindsLeft?: number } {
  const left = blades.flatMap(({ grindsLeft }) => grindsLeft ?? []);
  return left.length === 0 ? {} : { grindsLeft: Math.min(...left) };
}
