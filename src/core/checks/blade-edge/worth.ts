import type { BladeSheet } from "@/core/machine";
import { type EdgeCost, edgeCost, grindsLeft, judgeSail, scrapReasons, stockToRemove } from "@/core/physics/blades/edge";
import { type EdgeBlade, type EdgeReadings, ENDS } from "./schema";

/** Width that a usual sharpening takes off. Estimate. */
export const STOCK_PER_GRIND_METRES = 0.0015;
/** A nick as deep as this is damage, not wear. Common practice: 1/16 in. */
export const DAMAGING_NICK_METRES = 0.0015;

export type BladeWorth = {
  spindleId: string;
  scrap: ReturnType<typeof scrapReasons>;
  deepestNickMetres?: number;
  /** To get under the deepest nick. */
  stockMetres?: number;
  /** Never below 0. */
  grindsLeft?: number;
  /** By how much the width left under this grind is under the sheet's least; an estimate, since what a grind takes is one. */
  pastLimitMetres?: number;
  /** Looks bent, and nobody has held it against another. */
  isBendOpen: boolean;
  /** Width or length within a reading's error of the sheet's least; a sail that two thirds of what it may lose has gone from. */
  atLimit: ("width" | "length" | "sail")[];
  /** The duller end. */
  edge?: "sharp" | "dull" | "rounded";
  thinnestSailMetres?: number;
  /** Whether edge and nick of both ends, crack, bend and slot were looked at. */
  isLookedAt: boolean;
};

/** A tape and a rule are read to this. Common practice: half of a 32nd. */
export const TAPE_ERROR_METRES = 0.0004;

const lessError = (least: number | undefined) => (least === undefined ? undefined : least - TAPE_ERROR_METRES);
const isNear = (value: number | undefined, least: number | undefined): boolean =>
  value !== undefined && least !== undefined && Math.abs(value - least) <= TAPE_ERROR_METRES;

const DULLER = ["sharp", "dull", "rounded"] as const;

/** What one blade is worth: why it is scrap, or how much to take off and how often it can be done again. Both ends count by their worse. */
export function worthOf(spindleId: string, read: EdgeBlade, sheet: BladeSheet | undefined, tracked?: "bent" | "straight"): BladeWorth {
  // Tracked on its own shaft and turned end for end it is surer than by eye, whichever the eye says.
  const isTrackedBent = tracked === "bent";
  const nicks = ENDS.flatMap((end) => read[end].nickMetres ?? []);
  const sails = ENDS.flatMap((end) => read[end].sailMetres ?? []);
  const edges = ENDS.flatMap((end) => read[end].edge ?? []);
  const nick = nicks.length === 0 ? undefined : Math.max(...nicks);
  const sail = sails.length === 0 ? undefined : Math.min(...sails);
  const stock = nick === undefined ? undefined : stockToRemove(nick);
  const pastLimit =
    read.widthMetres === undefined || sheet?.leastWidthMetres === undefined || stock === undefined
      ? undefined
      : Math.max(0, sheet.leastWidthMetres - (read.widthMetres - stock));
  const edge = [...edges].sort((a, b) => DULLER.indexOf(b) - DULLER.indexOf(a))[0];
  return {
    spindleId,
    scrap: scrapReasons({
      isCracked: read.crack === "cracked",
      isBent: isTrackedBent || (read.bend === "bent" && read.bendCompared === "unlike"),
      isSlotForming: read.slot === "forming",
      ...given("sailThicknessMetres", sail),
      ...given("newSailThicknessMetres", sheet?.sailThicknessMetres),
      ...given("widthMetres", read.widthMetres),
      ...given("leastWidthMetres", lessError(sheet?.leastWidthMetres)),
      ...given("lengthMetres", read.lengthMetres),
      ...given("leastLengthMetres", lessError(sheet?.leastLengthMetres)),
    }),
    ...given("deepestNickMetres", nick),
    ...given("stockMetres", stock),
    ...given("thinnestSailMetres", sail),
    ...given("edge", edge),
    ...(read.widthMetres !== undefined && sheet?.leastWidthMetres !== undefined && stock !== undefined
      ? {
          grindsLeft: Math.max(
            0,
            grindsLeft({
              widthMetres: read.widthMetres,
              leastWidthMetres: sheet.leastWidthMetres,
              stockNowMetres: stock,
              stockPerGrindMetres: STOCK_PER_GRIND_METRES,
            }),
          ),
        }
      : {}),
    ...(pastLimit === undefined || pastLimit === 0 ? {} : { pastLimitMetres: pastLimit }),
    isBendOpen: !isTrackedBent && read.bend === "bent" && read.bendCompared === undefined,
    atLimit: [
      ...(isNear(read.widthMetres, sheet?.leastWidthMetres) ? (["width"] as const) : []),
      ...(isNear(read.lengthMetres, sheet?.leastLengthMetres) ? (["length"] as const) : []),
      ...(judgeSail(sail, sheet?.sailThicknessMetres) === "watch" ? (["sail"] as const) : []),
    ],
    isLookedAt:
      read.crack !== undefined &&
      read.bend !== undefined &&
      read.slot !== undefined &&
      edges.length === ENDS.length &&
      nicks.length === ENDS.length,
  };
}

function given<K extends string, V>(key: K, value: V | undefined): { [P in K]?: V } {
  return value === undefined ? {} : ({ [key]: value } as { [P in K]: V });
}

/** Cost of an edge each way, where price, sharpening and hours are known from the readings or the sheet. */
export function costOf(money: EdgeReadings["money"], sheet: BladeSheet | undefined): EdgeCost | undefined {
  const price = money.price ?? sheet?.price;
  const sharpening = money.sharpening ?? sheet?.sharpeningCost;
  const sharpenings = money.sharpenings ?? sheet?.sharpenings;
  const hoursPerEdge = money.hoursPerEdge ?? sheet?.hoursPerEdge;
  if (price === undefined || sharpening === undefined || sharpenings === undefined || hoursPerEdge === undefined) return undefined;
  return edgeCost({ price, sharpening, fitting: money.fitting ?? sheet?.fittingCost ?? 0, sharpenings, hoursPerEdge });
}

export type SetAdvice = "scrap" | "sharpen" | "replace" | "leave" | "one-nicked" | "not-told";

/** What grinding or replacing costs now, where a price is known; money without a currency is a figure of the shop's own. */
export type Money = { amount: number; currency?: string };

/** A nick in some blades of a set that is sharp otherwise: what each way out takes. */
export type NickWays = {
  places: string[];
  deepestMetres: number;
  /** New blades for those alone. */
  replace: { count: number; money?: Money };
  /** The other end cuts where the nick is: left, where it is no damage yet. */
  mayLeave: boolean;
  /** The whole set ground under it, the good ones too; not where one of them would be past its limit. */
  grind?: { stockMetres: number; count: number; money?: Money };
};

export function nickWays(worths: readonly BladeWorth[], money: EdgeReadings["money"], sheet: BladeSheet | undefined): NickWays | undefined {
  const nicked = worths.filter(({ deepestNickMetres = 0 }) => deepestNickMetres > 0);
  const isSharpOtherwise = worths.every(({ edge, isLookedAt }) => edge === "sharp" && isLookedAt);
  if (nicked.length === 0 || nicked.length === worths.length || !isSharpOtherwise) return undefined;
  const deepestMetres = Math.max(...nicked.map(({ deepestNickMetres = 0 }) => deepestNickMetres));
  const currency = money.currency ?? sheet?.currency;
  const cost = (each: number | undefined, count: number) =>
    each === undefined ? {} : { money: { amount: each * count, ...(currency ? { currency } : {}) } };
  const price = money.price ?? sheet?.price;
  const fitting = money.fitting ?? sheet?.fittingCost ?? 0;
  const sharpening = money.sharpening ?? sheet?.sharpeningCost;
  return {
    places: nicked.map(({ spindleId }) => spindleId),
    deepestMetres,
    replace: { count: nicked.length, ...cost(price === undefined ? undefined : price + fitting, nicked.length) },
    mayLeave: deepestMetres < DAMAGING_NICK_METRES,
    ...(worths.some(({ pastLimitMetres = 0, grindsLeft: left }) => pastLimitMetres > 0 || left === 0)
      ? {}
      : {
          grind: {
            stockMetres: stockToRemove(deepestMetres),
            count: worths.length,
            ...cost(sharpening === undefined ? undefined : sharpening + fitting, worths.length),
          },
        }),
  };
}

/**
 * What to do with the whole set, since blades of one deck go together: replaced as soon as one is scrap or has no grind left, or where a
 * new set costs less an hour; sharpened where one is dull; left alone when all are sharp and whole. A nick in one sends no good one to be ground:
 * its ways out are told.
 */
export function adviceOf(worths: readonly BladeWorth[], cost: EdgeCost | undefined, ways: NickWays | undefined): SetAdvice {
  if (worths.some(({ scrap }) => scrap.length > 0)) return "scrap";
  if (worths.length === 0 || worths.some(({ isLookedAt }) => !isLookedAt)) return "not-told";
  if (worths.every(({ edge, deepestNickMetres }) => edge === "sharp" && deepestNickMetres === 0)) return "leave";
  if (ways) return "one-nicked";
  if (worths.some(({ pastLimitMetres = 0 }) => pastLimitMetres > TAPE_ERROR_METRES)) return "replace";
  return cost && cost.replacedPerHour < cost.sharpenedPerHour ? "replace" : "sharpen";
}
