import { type Face, grindsLeft, REEL_GRIND_METRES, reelLife } from "./grinding";

/** What was taken off a face in one grind, as it was counted: in-feeds of so much, and the passes made. */
export type FaceTally = { plannedMetres: number; inFeeds: number; inFeedMetres: number; passes: number };
/** Of a reel spun: in-feeds off its radius; whether it was relieved after. */
export type ReelTally = FaceTally & { isRelieved: boolean };
/** `isClamped`: clamped, traverse locked and guards on before the wheel was brought in, by the word of whoever ground it. */
export type Ground = Record<Face, FaceTally> & { isClamped: true; reel?: ReelTally | undefined };

/** What a knife's and a reel's life is reckoned from, as a unit's sheet has it. */
export type KnifeSizes = {
  thicknessMetres: number;
  leastThicknessMetres?: number | undefined;
  depthMetres?: number | undefined;
  leastDepthMetres?: number | undefined;
  hoursBetweenGrinds?: number | undefined;
};
export type ReelSizes = { newDiameterMetres: number; scrapDiameterMetres: number };

/** Taken off a face, metres: the tally, not the plan. */
export const takenOff = ({ inFeeds, inFeedMetres }: Pick<FaceTally, "inFeeds" | "inFeedMetres">): number => inFeeds * inFeedMetres;

/** A grind of a knife nobody has ground here yet takes so much of each face. Estimate: 0.008 in. */
export const USUAL_REMOVAL_METRES = 0.0002;
/** Hours of cutting a knife gives where the sheet does not say. Estimate. */
export const USUAL_GRIND_HOURS = 100;
/** With so many grinds left the next knife is ordered. Estimate. */
export const ORDER_AT_GRINDS = 1;
/** Grinds that shops count on in the whole life of a thin knife: one school the first, another the second (common practice); the arithmetic decides. */
export const EXPECTED_GRINDS = [1, 5] as const;

export type KnifeLife = {
  /** Thickness of the lip and depth of the front as they should be now. */
  topMetres?: number;
  frontMetres?: number;
  taken: Record<Face, number>;
  grindsMade: number;
  /** By the arithmetic: the lesser face, at what a grind took here on average. */
  left?: {
    grinds: number;
    by: Face;
    /** Of cutting, with the edge that is on it now; and until the next knife is ordered, 0 once it is time. */
    hours: number;
    orderInHours: number;
  };
  isToOrder: boolean;
};

/**
 * Life of a bedknife by its sheet and what was ground off it since it was fitted, newest last. A face the sheet has no least for does not limit;
 * where neither has one there is nothing to reckon. `sinceHours`: cut with the edge that is on it.
 */
export function knifeLife(bedknife: KnifeSizes | undefined, ground: readonly Ground[], sinceHours = 0): KnifeLife {
  const taken = { top: total(ground, "top"), front: total(ground, "front") };
  const grindsMade = ground.length;
  if (!bedknife) return { taken, grindsMade, isToOrder: false };
  const { thicknessMetres: top, leastThicknessMetres: leastTop, depthMetres: front, leastDepthMetres: leastFront } = bedknife;
  const now = { top: top - taken.top, front: front === undefined ? undefined : front - taken.front };
  const usual = (face: Face) => (grindsMade === 0 ? USUAL_REMOVAL_METRES : taken[face] / grindsMade);
  const left = grindsLeft({
    top: { nowMetres: now.top, leastMetres: leastTop ?? 0 },
    front: { nowMetres: now.front ?? 0, leastMetres: leastFront ?? 0 },
    removal: {
      top: leastTop === undefined ? 0 : usual("top"),
      front: leastFront === undefined || front === undefined ? 0 : usual("front"),
    },
  });
  const hours = bedknife.hoursBetweenGrinds ?? USUAL_GRIND_HOURS;
  // An edge past its hours is due for the next grind; the grinds that are left are as long as ever.
  const edgeHours = Math.max(0, hours - sinceHours);
  return {
    topMetres: now.top,
    ...(now.front === undefined ? {} : { frontMetres: now.front }),
    taken,
    grindsMade,
    // The edge that is on it now, and one more after each grind that is left.
    ...(left
      ? {
          left: {
            ...left,
            hours: edgeHours + hours * left.grinds,
            orderInHours: left.grinds <= ORDER_AT_GRINDS ? 0 : edgeHours + hours * (left.grinds - ORDER_AT_GRINDS - 1),
          },
        }
      : {}),
    isToOrder: left !== undefined && left.grinds <= ORDER_AT_GRINDS,
  };
}

const total = (ground: readonly Ground[], face: Face): number => ground.reduce((sum, one) => sum + takenOff(one[face]), 0);

/** Where a reel stands: its smallest diameter now, from where that is known, and its life by the scrap size. */
export type ReelStanding = { nowMetres: number; from: "measured" | "sheet"; share: number; grinds: number; grindsMade: number };

/**
 * A reel by its sheet, its last measured diameters and what was spun off since: each in-feed comes off the radius where the reel is thickest, and off the
 * rest once it is round. `tallies`: all that were counted, and `since`: those after it was measured; a grind to come takes what they took on average.
 * `undefined` without a sheet.
 */
export function reelStanding(args: {
  reel: ReelSizes | undefined;
  measured?: { smallestMetres: number; largestMetres: number } | undefined;
  tallies: readonly ReelTally[];
  since: readonly ReelTally[];
}): ReelStanding | undefined {
  const { reel, measured, tallies, since } = args;
  if (!reel) return undefined;
  const offDiameter = (all: readonly ReelTally[]) => all.reduce((sum, one) => sum + 2 * takenOff(one), 0);
  const nowMetres = measured
    ? Math.min(measured.smallestMetres, measured.largestMetres - offDiameter(since))
    : reel.newDiameterMetres - offDiameter(tallies);
  const usual = offDiameter(tallies) / Math.max(1, tallies.length);
  const life = reelLife({
    nowMetres,
    newMetres: reel.newDiameterMetres,
    scrapMetres: reel.scrapDiameterMetres,
    perGrindMetres: usual > 0 ? usual : REEL_GRIND_METRES,
  });
  return { nowMetres, from: measured ? "measured" : "sheet", ...life, grindsMade: tallies.length };
}
