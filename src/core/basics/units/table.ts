/** What a number measures. A field has one dimension; a unit belongs to one. */
export type Dimension =
  | "length"
  | "pressure"
  | "torque"
  | "speed"
  | "rotation"
  | "temperature"
  | "mass"
  | "small-mass"
  | "imbalance"
  | "distance"
  | "force"
  | "duration"
  | "seconds"
  | "share"
  | "angle";

export type UnitSystem = "us" | "metric";

/** A unit: SI value = (number + offset) × factor. `rotation` stays in revolutions per minute, as the trade and our API do. */
export type Unit = {
  id: string;
  dimension: Dimension;
  factor: number;
  offset?: number;
  /** How it is shown after a number. */
  symbol: string;
  /** Everything a person may type for it, lower case, without spaces. */
  spellings: readonly string[];
};

/*
 * Exact by definition. Source: international yard and pound agreement of 1959 and standard gravity
 * (3rd CGPM, 1901), as listed in NIST SP 811 (published; written from memory).
 */
export const INCH_METRES = 0.0254;
export const FOOT_METRES = 12 * INCH_METRES;
export const POUND_KILOGRAMS = 0.45359237;
export const STANDARD_GRAVITY = 9.80665;
export const POUND_FORCE_NEWTONS = POUND_KILOGRAMS * STANDARD_GRAVITY;
export const PSI_PASCALS = POUND_FORCE_NEWTONS / (INCH_METRES * INCH_METRES);
export const MILE_METRES = 5280 * FOOT_METRES;

export const UNITS = [
  { id: "m", dimension: "length", factor: 1, symbol: "m", spellings: ["m", "metre", "metres", "meter", "meters"] },
  { id: "mm", dimension: "length", factor: 0.001, symbol: "mm", spellings: ["mm", "millimetre", "millimetres"] },
  { id: "cm", dimension: "length", factor: 0.01, symbol: "cm", spellings: ["cm", "centimetre", "centimetres"] },
  { id: "in", dimension: "length", factor: INCH_METRES, symbol: "in", spellings: ["in", "in.", '"', "inch", "inches", "''"] },
  { id: "ft", dimension: "length", factor: FOOT_METRES, symbol: "ft", spellings: ["ft", "ft.", "'", "foot", "feet"] },
  { id: "thou", dimension: "length", factor: INCH_METRES / 1000, symbol: "thou", spellings: ["thou", "mil", "mils"] },
  { id: "pa", dimension: "pressure", factor: 1, symbol: "Pa", spellings: ["pa", "pascal", "pascals"] },
  { id: "kpa", dimension: "pressure", factor: 1000, symbol: "kPa", spellings: ["kpa"] },
  { id: "bar", dimension: "pressure", factor: 100_000, symbol: "bar", spellings: ["bar", "bars"] },
  { id: "psi", dimension: "pressure", factor: PSI_PASCALS, symbol: "psi", spellings: ["psi", "lb/in2", "lbs", "pounds"] },
  { id: "n-m", dimension: "torque", factor: 1, symbol: "N·m", spellings: ["n·m", "nm", "n.m", "n-m", "n*m", "newtonmetres"] },
  {
    id: "ft-lb",
    dimension: "torque",
    factor: FOOT_METRES * POUND_FORCE_NEWTONS,
    symbol: "ft·lb",
    spellings: ["ft-lb", "ftlb", "ft·lb", "ft.lb", "ft-lbs", "ftlbs", "ft·lbs", "lb-ft", "lbft", "lb·ft", "ft-lbf", "lbf·ft"],
  },
  {
    id: "in-lb",
    dimension: "torque",
    factor: INCH_METRES * POUND_FORCE_NEWTONS,
    symbol: "in·lb",
    spellings: ["in-lb", "inlb", "in·lb", "in-lbs", "inlbs", "lb-in"],
  },
  { id: "m/s", dimension: "speed", factor: 1, symbol: "m/s", spellings: ["m/s", "mps"] },
  { id: "km/h", dimension: "speed", factor: 1 / 3.6, symbol: "km/h", spellings: ["km/h", "kmh", "kph", "kmph"] },
  { id: "mph", dimension: "speed", factor: MILE_METRES / 3600, symbol: "mph", spellings: ["mph", "mi/h"] },
  { id: "ft/min", dimension: "speed", factor: FOOT_METRES / 60, symbol: "ft/min", spellings: ["ft/min", "fpm"] },
  { id: "rpm", dimension: "rotation", factor: 1, symbol: "r/min", spellings: ["rpm", "r/min", "rev/min", "revs"] },
  { id: "k", dimension: "temperature", factor: 1, symbol: "K", spellings: ["k", "kelvin"] },
  { id: "c", dimension: "temperature", factor: 1, offset: 273.15, symbol: "°C", spellings: ["c", "°c", "degc", "celsius"] },
  { id: "f", dimension: "temperature", factor: 5 / 9, offset: 459.67, symbol: "°F", spellings: ["f", "°f", "degf", "fahrenheit"] },
  { id: "kg", dimension: "mass", factor: 1, symbol: "kg", spellings: ["kg", "kilo", "kilos"] },
  { id: "g", dimension: "mass", factor: 0.001, symbol: "g", spellings: ["g", "gram", "grams"] },
  { id: "lb", dimension: "mass", factor: POUND_KILOGRAMS, symbol: "lb", spellings: ["lb", "lbs", "pound", "pounds"] },
  { id: "oz", dimension: "mass", factor: POUND_KILOGRAMS / 16, symbol: "oz", spellings: ["oz", "ounce", "ounces"] },
  { id: "small-g", dimension: "small-mass", factor: 0.001, symbol: "g", spellings: ["g", "gram", "grams"] },
  { id: "small-oz", dimension: "small-mass", factor: POUND_KILOGRAMS / 16, symbol: "oz", spellings: ["oz", "ounce", "ounces"] },
  { id: "g-mm", dimension: "imbalance", factor: 1e-6, symbol: "g·mm", spellings: ["g·mm", "gmm", "g.mm", "g-mm"] },
  {
    id: "oz-in",
    dimension: "imbalance",
    factor: (POUND_KILOGRAMS / 16) * INCH_METRES,
    symbol: "oz·in",
    spellings: ["oz·in", "ozin", "oz.in", "oz-in"],
  },
  { id: "distance-m", dimension: "distance", factor: 1, symbol: "m", spellings: ["m", "metre", "metres", "meter", "meters"] },
  { id: "distance-ft", dimension: "distance", factor: FOOT_METRES, symbol: "ft", spellings: ["ft", "ft.", "'", "foot", "feet"] },
  { id: "distance-in", dimension: "distance", factor: INCH_METRES, symbol: "in", spellings: ["in", "in.", "inch", "inches", '"'] },
  { id: "distance-yd", dimension: "distance", factor: 3 * FOOT_METRES, symbol: "yd", spellings: ["yd", "yard", "yards"] },
  { id: "seconds-s", dimension: "seconds", factor: 1, symbol: "s", spellings: ["s", "sec", "second", "seconds"] },
  { id: "seconds-min", dimension: "seconds", factor: 60, symbol: "min", spellings: ["min", "minute", "minutes"] },
  { id: "percent", dimension: "share", factor: 0.01, symbol: "%", spellings: ["%", "percent", "per cent", "pc"] },
  { id: "n", dimension: "force", factor: 1, symbol: "N", spellings: ["n", "newton", "newtons"] },
  { id: "lbf", dimension: "force", factor: POUND_FORCE_NEWTONS, symbol: "lbf", spellings: ["lbf"] },
  { id: "deg", dimension: "angle", factor: Math.PI / 180, symbol: "°", spellings: ["°", "deg", "degree", "degrees"] },
  { id: "s", dimension: "duration", factor: 1, symbol: "s", spellings: ["s", "sec", "seconds"] },
  { id: "min", dimension: "duration", factor: 60, symbol: "min", spellings: ["min", "minutes"] },
  { id: "h", dimension: "duration", factor: 3600, symbol: "h", spellings: ["h", "hr", "hrs", "hour", "hours"] },
] as const satisfies readonly Unit[];

export type UnitId = (typeof UNITS)[number]["id"];

const byId = new Map<string, Unit>(UNITS.map((unit) => [unit.id, unit]));

/** The unit with this id. Throws on an id that is not in the table: a programmer's mistake. */
export function unitById(id: UnitId): Unit {
  const unit = byId.get(id);
  if (!unit) throw new Error(`no unit ${id}`);
  return unit;
}

/** `value` in `unit` as SI (rotation: r/min). */
export function toSi(value: number, unit: UnitId): number {
  const { factor, offset = 0 } = unitById(unit);
  return (value + offset) * factor;
}

/** An SI value (rotation: r/min) in `unit`; the inverse of `toSi`. */
export function fromSi(valueSi: number, unit: UnitId): number {
  const { factor, offset = 0 } = unitById(unit);
  return valueSi / factor - offset;
}
