import type { UnitSheet } from "@/core/machine";
import { type Face, grindsLeft } from "./grinding";

/** What was taken off a face in one grind, as it was counted: in-feeds of so much, and the passes made. */
export type FaceTally = { plannedMetres: number; inFeeds: number; inFeedMetres: number; passes: number };
/** `isClamped`: clamped, traverse locked and guards on before the wheel was brought in, by the word of whoever ground it. */
export type Ground = Record<Face, FaceTally> & { isClamped: true };

/** Taken off a face, metres: the tally, not the plan. */
export const takenOff = ({ inFeeds, inFeedMetres }: Pick<FaceTally, "inFeeds" | "inFeedMetres">): number => inFeeds * inFeedMetres;

/** A grind of a knife nobody has ground here yet takes so much of each face. Estimate: 0.008 in. */
export const USUAL_REMOVAL_METRES = 0.0002;
/** Hours of cutting a knife gives where the sheet does not say. Estimate. */
export const USUAL_GRIND_HOURS = 100;
/** With so many grinds left the next knife is ordered. Estimate. */
export const ORDER_AT_GRINDS = 1;

export type KnifeLife = {
  /** Thickness of the lip and depth of the front as they should be now. */
  topMetres?: number;
  frontMetres?: number;
  taken: Record<Face, number>;
  grindsMade: number;
  /** By the arithmetic: the lesser face, at what a grind took here on average. */
  left?: { grinds: number; by: Face; hours: number };
  isToOrder: boolean;
};

/**
 * Life of a bedknife by its sheet and what was ground off it since it was fitted, newest last. A face the sheet has no least for does not limit;
 * where neither has one there is nothing to reckon.
 */
export function knifeLife(bedknife: UnitSheet["bedknife"], ground: readonly Ground[]): KnifeLife {
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
  return {
    topMetres: now.top,
    ...(now.front === undefined ? {} : { frontMetres: now.front }),
    taken,
    grindsMade,
    // The edge that is on it now, and one more after each grind that is left.
    ...(left ? { left: { ...left, hours: hours * (left.grinds + 1) } } : {}),
    isToOrder: left !== undefined && left.grinds <= ORDER_AT_GRINDS,
  };
}

const total = (ground: readonly Ground[], face: Face): number => ground.reduce((sum, one) => sum + takenOff(one[face]), 0);
