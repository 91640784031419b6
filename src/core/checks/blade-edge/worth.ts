import { type EdgeCost, edgeCost, grindsLeft, scrapReasons, stockToRemove } from "@/core/blades/edge";
import type { BladeSheet } from "@/core/machine";
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
  grindsLeft?: number;
  /** The duller end. */
  edge?: "sharp" | "dull" | "rounded";
  thinnestSailMetres?: number;
  /** Whether edge and nick of both ends, crack, bend and slot were looked at. */
  isLookedAt: boolean;
};

const DULLER = ["sharp", "dull", "rounded"] as const;

/** What one blade is worth: why it is scrap, or how much to take off and how often it can be done again. Both ends count by their worse. */
export function worthOf(spindleId: string, read: EdgeBlade, sheet: BladeSheet | undefined): BladeWorth {
  const nicks = ENDS.flatMap((end) => read[end].nickMetres ?? []);
  const sails = ENDS.flatMap((end) => read[end].sailMetres ?? []);
  const edges = ENDS.flatMap((end) => read[end].edge ?? []);
  const nick = nicks.length === 0 ? undefined : Math.max(...nicks);
  const sail = sails.length === 0 ? undefined : Math.min(...sails);
  const stock = nick === undefined ? undefined : stockToRemove(nick);
  const edge = [...edges].sort((a, b) => DULLER.indexOf(b) - DULLER.indexOf(a))[0];
  return {
    spindleId,
    scrap: scrapReasons({
      isCracked: read.crack === "cracked",
      isBent: read.bend === "bent",
      isSlotForming: read.slot === "forming",
      ...given("sailThicknessMetres", sail),
      ...given("newSailThicknessMetres", sheet?.sailThicknessMetres),
      ...given("widthMetres", read.widthMetres),
      ...given("leastWidthMetres", sheet?.leastWidthMetres),
      ...given("lengthMetres", read.lengthMetres),
      ...given("leastLengthMetres", sheet?.leastLengthMetres),
    }),
    ...given("deepestNickMetres", nick),
    ...given("stockMetres", stock),
    ...given("thinnestSailMetres", sail),
    ...given("edge", edge),
    ...(read.widthMetres !== undefined && sheet?.leastWidthMetres !== undefined && stock !== undefined
      ? {
          grindsLeft: grindsLeft({
            widthMetres: read.widthMetres,
            leastWidthMetres: sheet.leastWidthMetres,
            stockNowMetres: stock,
            stockPerGrindMetres: STOCK_PER_GRIND_METRES,
          }),
        }
      : {}),
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

export type SetAdvice = "scrap" | "sharpen" | "replace" | "leave" | "not-told";

/**
 * What to do with the whole set, since blades of one deck go together: replaced as soon as one is scrap or has no grind left, or where a
 * new set costs less an hour; sharpened where one is dull or nicked; left alone when all are sharp and whole.
 */
export function adviceOf(worths: readonly BladeWorth[], cost: EdgeCost | undefined): SetAdvice {
  if (worths.some(({ scrap }) => scrap.length > 0)) return "scrap";
  if (worths.length === 0 || worths.some(({ isLookedAt }) => !isLookedAt)) return "not-told";
  if (worths.every(({ edge, deepestNickMetres }) => edge === "sharp" && deepestNickMetres === 0)) return "leave";
  if (worths.some(({ grindsLeft: left }) => left !== undefined && left < 0)) return "replace";
  return cost && cost.replacedPerHour < cost.sharpenedPerHour ? "replace" : "sharpen";
}
