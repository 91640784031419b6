/** One shop's habit; a unit's own may differ. Estimates. */
export const GRINDING_HABIT = { inFeedMetres: 0.00005, past: 0.00005, minutesAPass: 0.75 } as const;

export type Face = "top" | "front";

/** Passes for each in-feed: the top gets a second one before the next, the front one each. Common practice of one school. */
export const PASSES_AN_IN_FEED: Record<Face, number> = { top: 2, front: 1 };

export type GrindPlan = { face: Face; stockMetres: number; inFeeds: number; passes: number; minutes: number };

/**
 * What it takes to grind out a nick or rounding so deep: stock = depth + 0.05 mm, then in-feeds, passes, minutes. Depth in metres, 0: none of it.
 * @example 0.2 mm on the top: 0.25 mm, 5 in-feeds, 10 passes.
 */
export function planGrind(args: { face: Face; depthMetres: number; inFeedMetres?: number; minutesAPass?: number }): GrindPlan {
  const { face, depthMetres, inFeedMetres = GRINDING_HABIT.inFeedMetres, minutesAPass = GRINDING_HABIT.minutesAPass } = args;
  const stockMetres = depthMetres <= 0 ? 0 : depthMetres + GRINDING_HABIT.past;
  const inFeeds = stockMetres === 0 ? 0 : Math.ceil(stockMetres / inFeedMetres - 1e-9);
  const passes = inFeeds * PASSES_AN_IN_FEED[face];
  return { face, stockMetres, inFeeds, passes, minutes: passes * minutesAPass };
}

/** Traverses without in-feed after the last one, until it sparks no more. Estimate. */
const SPARK_OUT_PASSES = 2;
/** In-feeds of relief behind each blade's land, a pass of that blade each. Estimate. */
const RELIEF_IN_FEEDS = 2;
/** What a spin grind takes off a reel's diameter where none was counted yet. Estimate: 0.02 in. */
export const REEL_GRIND_METRES = 0.0005;

export type ReelPlan = {
  /** Off the radius by spinning. */
  stockMetres: number;
  inFeeds: number;
  passes: number;
  reliefPasses: number;
  minutes: number;
  /** Of the smallest place, once it is done; with whether that is under its scrap size. */
  afterMetres?: number;
  isUnderScrap: boolean;
};

/**
 * What it takes to spin a reel round and nick-free, and to relieve it where its sheet asks: half the taper and the deepest nick (which may lie at the thin
 * end) + 0.05 mm off the radius from where the wheel first touches, a traverse an in-feed, then sparked out; relief blade by blade. All in metres; nothing to
 * take off, nothing planned.
 * @example taper 0.4 mm: 0.25 mm, 5 in-feeds, 7 passes; with a nick of 0.1 mm 0.35 mm, 7 and 9.
 */
export function planReel(args: {
  taperMetres: number;
  nickMetres: number;
  blades: number;
  isRelieved: boolean;
  inFeedMetres?: number;
  minutesAPass?: number;
  /** Smallest diameter read, and the scrap size. */
  nowMetres?: number;
  scrapMetres?: number;
}): ReelPlan {
  const { taperMetres, nickMetres, blades, isRelieved, nowMetres, scrapMetres } = args;
  const { inFeedMetres = GRINDING_HABIT.inFeedMetres, minutesAPass = GRINDING_HABIT.minutesAPass } = args;
  const depth = taperMetres / 2 + nickMetres;
  const stockMetres = depth <= 0 ? 0 : depth + GRINDING_HABIT.past;
  const inFeeds = stockMetres === 0 ? 0 : Math.ceil(stockMetres / inFeedMetres - 1e-9);
  const passes = inFeeds === 0 ? 0 : inFeeds + SPARK_OUT_PASSES;
  const reliefPasses = isRelieved && inFeeds > 0 ? blades * RELIEF_IN_FEEDS : 0;
  // The thin end of a cone loses only what is taken past it.
  const afterMetres = nowMetres === undefined || stockMetres === 0 ? nowMetres : nowMetres - 2 * (nickMetres + GRINDING_HABIT.past);
  return {
    stockMetres,
    inFeeds,
    passes,
    reliefPasses,
    minutes: (passes + reliefPasses) * minutesAPass,
    ...(afterMetres === undefined ? {} : { afterMetres }),
    isUnderScrap: afterMetres !== undefined && scrapMetres !== undefined && afterMetres < scrapMetres,
  };
}

export type KnifeFace = { nowMetres: number; leastMetres: number };

/**
 * Grinds a knife still allows: the lesser of both faces, each (now − least) / removal a grind, rounded down and never negative. A face of which
 * nothing is taken does not limit. `undefined` where nothing is taken of either.
 */
export function grindsLeft(args: {
  top: KnifeFace;
  front: KnifeFace;
  removal: Record<Face, number>;
}): { grinds: number; by: Face } | undefined {
  const { removal } = args;
  const each = (["top", "front"] as const)
    .filter((face) => removal[face] > 0)
    .map((face) => {
      const { nowMetres, leastMetres } = args[face];
      return { by: face, grinds: Math.max(0, Math.floor((nowMetres - leastMetres) / removal[face] + 1e-9)) };
    });
  return each.sort((a, b) => a.grinds - b.grinds)[0];
}

/** Ends of a reel may differ by so much. Estimate: 0.010 in. */
export const CONE_TOLERANCE_METRES = 0.00025;

/** Taper of a reel end to end: the largest less the smallest of its diameters, with the end that is thick. */
export function coneOf(diameters: { leftMetres: number; middleMetres?: number; rightMetres: number }): {
  taperMetres: number;
  thick: "left" | "right";
  /** Middle over the mean of the ends: positive is a barrel, negative a waist. */
  barrelMetres?: number;
} {
  const { leftMetres, middleMetres, rightMetres } = diameters;
  return {
    taperMetres: Math.abs(leftMetres - rightMetres),
    thick: leftMetres >= rightMetres ? "left" : "right",
    ...(middleMetres === undefined ? {} : { barrelMetres: middleMetres - (leftMetres + rightMetres) / 2 }),
  };
}

/** Share of a reel's life left, 1 new to 0 scrap, and how many grinds of so much that is, at least 0. */
export function reelLife(args: { nowMetres: number; newMetres: number; scrapMetres: number; perGrindMetres: number }): {
  share: number;
  grinds: number;
} {
  const { nowMetres, newMetres, scrapMetres, perGrindMetres } = args;
  const left = Math.max(0, nowMetres - scrapMetres);
  return { share: Math.min(1, left / (newMetres - scrapMetres)), grinds: Math.floor(left / perGrindMetres + 1e-9) };
}
