/** Balance grades: G 16 is listed for agricultural machinery; G 40 shows what a looser shop rule would pass. From memory. */
export const BALANCE_GRADES = [6.3, 16, 40] as const;
/** No blade is out under this, whatever the grade says: 1 oz·in. Estimate. */
export const OUT_KILOGRAM_METRES = 700e-6;

/** Standard gravity, for a force said as a weight. */
export const GRAVITY = 9.80665;

/**
 * Permissible residual imbalance in kg·m (published, from memory: ISO 21940-11, formerly ISO 1940-1): G·M/ω, with the grade in mm/s as it
 * is named. @example 1.1 kg at 3,200 r/min, G 16: 52.5 g·mm.
 */
export function permissibleImbalance(args: { grade: number; massKilograms: number; radiansPerSecond: number }): number {
  return ((args.grade / 1000) * args.massKilograms) / args.radiansPerSecond;
}

/** Residual imbalance from the mass that brings the light end level, kg·m. */
export function imbalance({ massKilograms, radiusMetres }: { massKilograms: number; radiusMetres: number }): number {
  return massKilograms * radiusMetres;
}

/** Force that an imbalance shakes with, newtons: m·r·ω² (physics). @example 6 g at 255 mm and 3,200 r/min: 172 N. */
export function shakingForce(args: { imbalanceKilogramMetres: number; radiansPerSecond: number }): number {
  return args.imbalanceKilogramMetres * args.radiansPerSecond ** 2;
}

/** The same as it is said: as a weight in kg, so many times a second. */
export function shakingInWords(args: { imbalanceKilogramMetres: number; radiansPerSecond: number }): {
  weightKilograms: number;
  timesPerSecond: number;
} {
  return { weightKilograms: shakingForce(args) / GRAVITY, timesPerSecond: args.radiansPerSecond / (2 * Math.PI) };
}

/** Mass to take off the heavy end at a radius, and how much edge that is for a cross-section in square metres of steel. */
export function stockForBalance(args: { imbalanceKilogramMetres: number; radiusMetres: number; sectionSquareMetres?: number }): {
  massKilograms: number;
  lengthMetres?: number;
} {
  const massKilograms = args.imbalanceKilogramMetres / args.radiusMetres;
  const { sectionSquareMetres } = args;
  return {
    massKilograms,
    ...(sectionSquareMetres ? { lengthMetres: massKilograms / (STEEL_KILOGRAMS_PER_CUBIC_METRE * sectionSquareMetres) } : {}),
  };
}

export const STEEL_KILOGRAMS_PER_CUBIC_METRE = 7850;

/** How far past what is right an imbalance is out, where an ounce-inch would be nearer. Estimate. */
const OUT_OVER_RIGHT = 1.5;

/** An imbalance up to this is right, kg·m: what the grade allows, or what the balancer answers to where that is more. */
export const rightImbalance = (args: { permissible: number; resolution: number }): number => Math.max(args.permissible, args.resolution);

/** An imbalance above this is out, kg·m: an ounce-inch, or one and a half times what is right. */
export const outImbalance = (args: { permissible: number; resolution: number }): number =>
  Math.max(OUT_KILOGRAM_METRES, OUT_OVER_RIGHT * rightImbalance(args));

/** Right up to the grade or what the balancer can resolve, whichever is larger; watch above; out past the larger of an ounce-inch and half as much again. */
export function judgeBalance(args: {
  imbalanceKilogramMetres: number;
  permissible: number;
  resolution: number;
}): "in-tolerance" | "watch" | "out" {
  if (args.imbalanceKilogramMetres > outImbalance(args)) return "out";
  return args.imbalanceKilogramMetres <= rightImbalance(args) ? "in-tolerance" : "watch";
}
