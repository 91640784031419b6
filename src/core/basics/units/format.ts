import { type Dimension, fromSi, type UnitId, type UnitSystem, unitById } from "./table";

/** What the number is read on: a tape shows sixteenths, a gauge decimals, a fine gauge thousandths. */
export type Instrument = "tape" | "gauge" | "fine";

export type Shown = { number: string; unit: string; text: string };

const MINUS = "\u2212";

/** The unit a person of this system sees and types for a dimension. */
export function shownUnit({ dimension, system }: { dimension: Dimension; system: UnitSystem }): UnitId {
  return SHOWN[dimension][system];
}

const SHOWN: Record<Dimension, Record<UnitSystem, UnitId>> = {
  length: { us: "in", metric: "mm" },
  pressure: { us: "psi", metric: "kpa" },
  torque: { us: "ft-lb", metric: "n-m" },
  speed: { us: "mph", metric: "km/h" },
  rotation: { us: "rpm", metric: "rpm" },
  temperature: { us: "f", metric: "c" },
  mass: { us: "lb", metric: "kg" },
  "small-mass": { us: "small-oz", metric: "small-g" },
  imbalance: { us: "oz-in", metric: "g-mm" },
  distance: { us: "distance-ft", metric: "distance-m" },
  seconds: { us: "seconds-s", metric: "seconds-s" },
  force: { us: "lbf", metric: "n" },
  duration: { us: "h", metric: "h" },
  share: { us: "percent", metric: "percent" },
  angle: { us: "deg", metric: "deg" },
};

const DECIMALS: Record<UnitId, Record<Instrument, number>> = {
  m: { tape: 2, gauge: 2, fine: 3 },
  mm: { tape: 0, gauge: 1, fine: 2 },
  cm: { tape: 1, gauge: 1, fine: 2 },
  in: { tape: 4, gauge: 2, fine: 3 },
  ft: { tape: 1, gauge: 1, fine: 2 },
  thou: { tape: 0, gauge: 0, fine: 0 },
  pa: { tape: 0, gauge: 0, fine: 0 },
  kpa: { tape: 0, gauge: 0, fine: 1 },
  bar: { tape: 2, gauge: 2, fine: 3 },
  psi: { tape: 1, gauge: 1, fine: 2 },
  "n-m": { tape: 0, gauge: 0, fine: 1 },
  "ft-lb": { tape: 0, gauge: 0, fine: 1 },
  "in-lb": { tape: 0, gauge: 0, fine: 0 },
  deg: { tape: 0, gauge: 1, fine: 2 },
  "m/s": { tape: 1, gauge: 1, fine: 2 },
  "km/h": { tape: 1, gauge: 1, fine: 2 },
  mph: { tape: 1, gauge: 1, fine: 2 },
  "ft/min": { tape: 0, gauge: 0, fine: 0 },
  rpm: { tape: 0, gauge: 0, fine: 0 },
  k: { tape: 0, gauge: 0, fine: 1 },
  c: { tape: 0, gauge: 0, fine: 1 },
  f: { tape: 0, gauge: 0, fine: 1 },
  kg: { tape: 1, gauge: 1, fine: 2 },
  g: { tape: 0, gauge: 1, fine: 2 },
  lb: { tape: 1, gauge: 1, fine: 2 },
  oz: { tape: 1, gauge: 1, fine: 2 },
  "small-g": { tape: 0, gauge: 1, fine: 2 },
  "small-oz": { tape: 2, gauge: 2, fine: 3 },
  "g-mm": { tape: 0, gauge: 0, fine: 1 },
  "oz-in": { tape: 2, gauge: 2, fine: 3 },
  "distance-m": { tape: 1, gauge: 1, fine: 2 },
  "distance-ft": { tape: 1, gauge: 1, fine: 2 },
  "distance-in": { tape: 1, gauge: 1, fine: 2 },
  "distance-yd": { tape: 1, gauge: 1, fine: 2 },
  "seconds-s": { tape: 1, gauge: 1, fine: 2 },
  "seconds-min": { tape: 1, gauge: 1, fine: 2 },
  n: { tape: 0, gauge: 0, fine: 1 },
  lbf: { tape: 0, gauge: 0, fine: 1 },
  s: { tape: 0, gauge: 1, fine: 2 },
  min: { tape: 0, gauge: 0, fine: 1 },
  h: { tape: 1, gauge: 1, fine: 2 },
  percent: { tape: 0, gauge: 0, fine: 1 },
};

/** No ruler is divided finer. */
const MOST_HALVINGS = 10;

/** Sixteenths of the whole as a mechanic writes them: 3.3125 → `3 5/16`; negative with a true minus; 0 → `0`. */
export function formatFraction(value: number, denominator = 16): string {
  const parts = Math.round(Math.abs(value) * denominator);
  if (parts === 0) return "0";
  const whole = Math.floor(parts / denominator);
  let top = parts % denominator;
  let bottom = denominator;
  for (let k = 0; k < MOST_HALVINGS && top > 0 && top % 2 === 0; k++) {
    top /= 2;
    bottom /= 2;
  }
  const fraction = top === 0 ? "" : `${top}/${bottom}`;
  const body = [whole > 0 ? String(whole) : "", fraction].filter(Boolean).join(" ");
  return value < 0 ? `${MINUS}${body}` : body;
}

function decimal(value: number, places: number): string {
  const text = Math.abs(value).toFixed(places);
  return value < 0 && Number(text) !== 0 ? `${MINUS}${text}` : text;
}

/**
 * An SI value as this person reads it, in one system throughout: `3 5/16 in` (tape), `3.31 in` (gauge) or `84 mm`.
 * A difference of temperatures is not a temperature: do not pass one.
 */
export function formatQuantity(args: { valueSi: number; dimension: Dimension; system: UnitSystem; instrument?: Instrument }): Shown {
  const { valueSi, dimension, system, instrument = "gauge" } = args;
  const id = shownUnit({ dimension, system });
  const value = fromSi(valueSi, id);
  const number = id === "in" && instrument === "tape" ? formatFraction(value) : decimal(value, DECIMALS[id][instrument]);
  const unit = unitById(id).symbol;
  return { number, unit, text: `${number} ${unit}` };
}

/** A count of turns as it is said at the hanger: 1.5 → `1½`, 0.1667 → `1/6`, 2.8333 → `2 5/6`. Unsigned. */
export function formatTurns(turns: number): string {
  const size = Math.abs(turns);
  const whole = Math.floor(size + 1e-9);
  const rest = size - whole;
  const glyphs: readonly (readonly [number, string])[] = [
    [0.25, "¼"],
    [0.5, "½"],
    [0.75, "¾"],
  ];
  if (rest < 0.01) return String(whole);
  const glyph = glyphs.find(([part]) => Math.abs(part - rest) < 0.01);
  if (glyph) return `${whole > 0 ? whole : ""}${glyph[1]}`;
  const sixths = Math.round(rest * 6);
  if (Math.abs(rest - sixths / 6) < 0.01) return `${whole > 0 ? `${whole} ` : ""}${sixths}/6`;
  return size.toFixed(2);
}
