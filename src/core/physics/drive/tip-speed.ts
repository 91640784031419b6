/** At or over this no blade is run (published, from memory: ANSI/OPEI B71.1 and B71.4, 19,000 ft/min). */
export const TIP_SPEED_LIMIT = 96.52;
const METRES_PER_SECOND_PER_FOOT_PER_MINUTE = 0.00508;
/** Below this an edge pushes and tears rather than cuts. Common practice: 14,000 ft/min. */
export const TEARS_BELOW = 14_000 * METRES_PER_SECOND_PER_FOOT_PER_MINUTE;
/** The range worked in. Common practice: 16,000 to 18,500 ft/min. */
export const WORKING_RANGE = {
  from: 16_000 * METRES_PER_SECOND_PER_FOOT_PER_MINUTE,
  to: 18_500 * METRES_PER_SECOND_PER_FOOT_PER_MINUTE,
} as const;
/** Spindles of one deck within this of each other. Estimate. */
export const SISTERS_WITHIN = 0.03;
/** Drop from no load to load beyond this says dull, packed, overloaded or weak, where the machine has no baseline. Estimate. */
export const MOST_DROOP = 0.12;

/** Speed of a blade's tip, m/s: π·L·n, L tip to tip, turning in radians a second. @example 20.5 in at 3,400 r/min: 92.7 m/s. */
export function tipSpeed({ lengthMetres, radiansPerSecond }: { lengthMetres: number; radiansPerSecond: number }): number {
  return (lengthMetres / 2) * radiansPerSecond;
}

/** The fastest a blade of this length may turn and stay under the limit, radians a second. */
export function fastestTurning(lengthMetres: number): number {
  return (2 * TIP_SPEED_LIMIT) / lengthMetres;
}

/**
 * Speed of a spindle worked out from the engine's: × drive/driven pulley (pitch diameters: outside diameters give another ratio) × tooth
 * ratio × (1 − slip). Same unit out as in.
 */
export function spindleSpeed(args: {
  engine: number;
  drivePitchMetres: number;
  drivenPitchMetres: number;
  toothRatio?: number;
  slip?: number;
}): number {
  return args.engine * (args.drivePitchMetres / args.drivenPitchMetres) * (args.toothRatio ?? 1) * (1 - (args.slip ?? 0));
}

/** Share of the worked-out speed that is lost: 1 − measured/ideal. */
export function slipOf({ measured, ideal }: { measured: number; ideal: number }): number {
  return 1 - measured / ideal;
}

/** Share of the no-load speed that is lost under load. */
export function droopOf({ noLoad, loaded }: { noLoad: number; loaded: number }): number {
  return 1 - loaded / noLoad;
}

/** What a slower blade keeps of its air (published: fan laws): flow ∝ n, pressure ∝ n², power ∝ n³. @example 2,900 of 3,400: 73 % of the pressure. */
export function liftLeft({ now, rated }: { now: number; rated: number }): { flow: number; pressure: number; power: number } {
  const share = now / rated;
  return { flow: share, pressure: share ** 2, power: share ** 3 };
}

/** Travel per cutting edge, metres (physics): ground speed over edges a second. @example 6 mph, 3,000 r/min, two edges: 1.06 in. */
export function bite(args: { groundMetresPerSecond: number; edges: number; radiansPerSecond: number }): number {
  return (args.groundMetresPerSecond * 2 * Math.PI) / (args.edges * args.radiansPerSecond);
}

export type SpindlePattern = "alike" | "one-stopped" | "several-stopped" | "one-low" | "all-low" | "mixed";

/**
 * What the speeds of one deck's spindles say together: alike; one stopped (belt off, pin or key sheared, gear broken), or several (the drive belt, the clutch); one low (its belt or
 * bearing); all low against what they should be (engine, drive belt, clutch); or mixed. `rated` as the sheet or the pulleys give it.
 */
export function spindlePattern(speeds: readonly number[], rated?: number): SpindlePattern {
  const fastest = Math.max(...speeds);
  const stopped = speeds.filter((speed) => speed <= 0).length;
  if (stopped > 0) return stopped === 1 ? "one-stopped" : "several-stopped";
  const low = speeds.filter((speed) => speed < fastest * (1 - SISTERS_WITHIN));
  if (low.length === 1 && speeds.length > 1) return "one-low";
  if (low.length > 1) return "mixed";
  return rated !== undefined && fastest < rated * (1 - SISTERS_WITHIN) ? "all-low" : "alike";
}
