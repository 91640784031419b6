/** Two depths under the cover's face, and how far a rod dipped to its stop came up wet. Metres. */
export type DipstickInput = {
  /** From the cover's face to the top of the shaft: where the oil should stand. */
  coverToShaftTopMetres: number;
  /** From the cover's face to the floor beneath the hole. */
  coverToFloorMetres: number;
  /** From the rod's tip up. */
  wetMetres?: number | undefined;
};

export type Dipstick = {
  /** From the stop to the tip: clear of the floor, so that it rests on its stop. */
  rodMetres: number;
  /** From the stop down to the full mark. */
  fullMetres: number;
  /** From the stop down to the lowest the oil may stand. */
  lowMetres: number;
  /** From the tip up to each, as the rod is held. */
  tipToFullMetres: number;
  tipToLowMetres: number;
  /** Of the oil as dipped under the full mark; negative over it. */
  shortMetres?: number;
};

export type DipstickProblem = { code: "floor-above-shaft" | "no-room-for-a-mark" | "wetter-than-the-rod"; mostMetres?: number };

/** A rod on its stop must not stand on the floor. Estimate. */
const TIP_CLEARANCE = 0.003;
/** Lowest oil under the full mark. Estimate. */
const LOW_BELOW = 0.006;

/**
 * A rod for a box without a dipstick of its own, marked where the shaft's top is (common practice): stop on the cover's face, full mark at
 * the depth of the shaft's top, low mark 6 mm beneath, tip 3 mm off the floor.
 * @example 57 and 95 mm: a rod of 92 mm, full 35 mm and low 29 mm up from its tip.
 */
export function dipstick(input: DipstickInput): { ok: true; dipstick: Dipstick } | { ok: false; problem: DipstickProblem } {
  const { coverToShaftTopMetres: full, coverToFloorMetres: floor, wetMetres } = input;
  if (floor <= full) return { ok: false, problem: { code: "floor-above-shaft" } };
  const [rodMetres, lowMetres] = [floor - TIP_CLEARANCE, full + LOW_BELOW];
  if (rodMetres <= lowMetres) return { ok: false, problem: { code: "no-room-for-a-mark" } };
  if (wetMetres !== undefined && wetMetres > rodMetres)
    return { ok: false, problem: { code: "wetter-than-the-rod", mostMetres: rodMetres } };
  return {
    ok: true,
    dipstick: {
      rodMetres,
      fullMetres: full,
      lowMetres,
      tipToFullMetres: rodMetres - full,
      tipToLowMetres: rodMetres - lowMetres,
      ...(wetMetres === undefined ? {} : { shortMetres: rodMetres - wetMetres - full }),
    },
  };
}
