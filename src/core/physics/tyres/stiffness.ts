/** The part of a tyre's stiffness that needs no air: 16 N/mm. Estimate, good to a factor of two. */
export const CARCASS_STIFFNESS_NEWTONS_PER_METRE = 16_000;
/** Stiffness per √(width × diameter) and pressure. Estimate. */
export const PRESSURE_FACTOR = 2.5;

/**
 * Vertical stiffness of a tyre, newtons per metre: 2.5·p·√(w·D) + carcass (estimate, good to a factor of two).
 * `pressurePascals` is gauge pressure; width is the tread's.
 */
export function tyreStiffness(args: { pressurePascals: number; treadWidthMetres: number; diameterMetres: number }): number {
  const size = Math.sqrt(args.treadWidthMetres * args.diameterMetres);
  return PRESSURE_FACTOR * Math.max(args.pressurePascals, 0) * size + CARCASS_STIFFNESS_NEWTONS_PER_METRE;
}

/** How far a tyre gives under a load, metres; never more than its section height. */
export function sagMetres(args: { loadNewtons: number; stiffness: number; sectionHeightMetres: number }): number {
  return Math.min(args.loadNewtons / args.stiffness, args.sectionHeightMetres);
}
