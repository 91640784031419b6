/** Metal taken off under the deepest nick, so that the new edge is clean. Estimate. */
export const CLEAN_UP_METRES = 0.0005;

/** Stock to remove to get under the deepest nick: nick depth + clean-up. */
export function stockToRemove(nickDepthMetres: number): number {
  return nickDepthMetres + CLEAN_UP_METRES;
}

/**
 * Sharpenings a blade still stands after this one: floor((width now − least width − stock now) / stock of a usual sharpening), the width taken
 * equally from both ends so that balance holds. Below 0 it is past its limit with this grind already.
 */
export function grindsLeft(args: {
  widthMetres: number;
  leastWidthMetres: number;
  stockNowMetres: number;
  stockPerGrindMetres: number;
}): number {
  const left = args.widthMetres - args.leastWidthMetres - args.stockNowMetres;
  return Math.floor(left / args.stockPerGrindMetres + ROUNDING);
}

/** A width that leaves a whole number of grinds must not lose one by the last bit of a conversion. */
const ROUNDING = 1e-9;

export type EdgeCost = {
  /** Sharpened until it is worn out, in money an hour. */
  sharpenedPerHour: number;
  /** Replaced each time instead. */
  replacedPerHour: number;
};

/**
 * Cost of an edge, from price of a blade, cost of one sharpening and balancing, sharpenings in a new blade and hours on an edge; fitting
 * labour falls on every change in both. Sharpening wins exactly when its cost is below the price.
 * @example price 24, sharpening 9, 10 h, 5 sharpenings: 1.15 against 2.40 an hour.
 */
export function edgeCost(args: {
  price: number;
  sharpening: number;
  fitting: number;
  sharpenings: number;
  hoursPerEdge: number;
}): EdgeCost {
  const { price, sharpening, fitting, sharpenings, hoursPerEdge } = args;
  return {
    sharpenedPerHour: (price + sharpenings * sharpening) / ((sharpenings + 1) * hoursPerEdge) + fitting / hoursPerEdge,
    replacedPerHour: (price + fitting) / hoursPerEdge,
  };
}

export type ScrapReason =
  | "crack"
  | "bend"
  | "sail-worn-through"
  | "sail-half-gone"
  | "slot-forming"
  | "below-least-width"
  | "below-least-length";

/** A blade end as looked at and measured; what was not measured is left out. */
export type BladeState = {
  isCracked: boolean;
  isBent: boolean;
  isSlotForming: boolean;
  sailThicknessMetres?: number;
  newSailThicknessMetres?: number;
  widthMetres?: number;
  leastWidthMetres?: number;
  lengthMetres?: number;
  leastLengthMetres?: number;
};

/** Half the sail's thickness gone is the end of a blade. Common practice. */
const LEAST_SAIL_SHARE = 0.5;

/** A sail against its thickness when new, metres: out at half of it or less, watched from two thirds of that loss on. `undefined` where either is not known. */
export function judgeSail(thinnestMetres: number | undefined, newMetres: number | undefined): "in-tolerance" | "watch" | "out" | undefined {
  if (thinnestMetres === undefined || newMetres === undefined) return undefined;
  if (thinnestMetres <= LEAST_SAIL_SHARE * newMetres) return "out";
  return thinnestMetres < (1 - ((1 - LEAST_SAIL_SHARE) * 2) / 3) * newMetres ? "watch" : "in-tolerance";
}

/** Every reason a blade is scrap now; nobody overrules one. Empty: none found among what was looked at. */
export function scrapReasons(state: BladeState): ScrapReason[] {
  const { sailThicknessMetres: sail, newSailThicknessMetres: asNew } = state;
  const isBelow = (value: number | undefined, least: number | undefined) => value !== undefined && least !== undefined && value < least;
  const checks: readonly [ScrapReason, boolean][] = [
    ["crack", state.isCracked],
    ["bend", state.isBent],
    ["slot-forming", state.isSlotForming],
    ["sail-worn-through", sail !== undefined && sail <= 0],
    ["sail-half-gone", sail !== undefined && sail > 0 && asNew !== undefined && sail <= LEAST_SAIL_SHARE * asNew],
    ["below-least-width", isBelow(state.widthMetres, state.leastWidthMetres)],
    ["below-least-length", isBelow(state.lengthMetres, state.leastLengthMetres)],
  ];
  return checks.filter(([, isSo]) => isSo).map(([reason]) => reason);
}
