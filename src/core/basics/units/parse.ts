import { table } from "@/core/basics/tables";
import { type Dimension, toSi, UNITS, type Unit, type UnitId, unitById } from "./table";

export type QuantityIssue =
  | { code: "empty-quantity"; example: string }
  | { code: "unreadable-quantity"; text: string; wanted: Dimension; example: string }
  | { code: "division-by-zero"; text: string; example: string }
  | { code: "unit-of-another-kind"; text: string; unit: string; wanted: Dimension; example: string };

export type ParsedQuantity = { ok: true; valueSi: number; unit: UnitId; hadUnit: boolean } | { ok: false; issue: QuantityIssue };

const EXAMPLES: Record<Dimension, Partial<Record<UnitId, string>> & { any: string }> = {
  length: { any: "3 1/4, 3.25 in or 83 mm", mm: "83, 8.3 cm or 3 1/4 in" },
  pressure: { any: "12, 0.83 bar or 83 kPa", kpa: "83, 0.83 bar or 12 psi" },
  torque: { any: "90 ft-lb or 122 N·m" },
  speed: { any: "4 mph or 6.4 km/h" },
  rotation: { any: "3400" },
  temperature: { any: "60 F or 16 C" },
  mass: { any: "12 lb or 5.4 kg" },
  "small-mass": { any: "0.2 oz or 6 g" },
  imbalance: { any: "1 oz·in or 700 g·mm" },
  distance: { any: "100 ft or 30 m" },
  seconds: { any: "12.5" },
  force: { any: "400 lbf or 1780 N" },
  duration: { any: "2.5 h" },
  share: { any: "85 %" },
  angle: { any: "4.5" },
};

const VULGAR: Record<string, string> = table({
  "¼": "1/4",
  "½": "1/2",
  "¾": "3/4",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
});

function tidy(text: string): string {
  return text
    .replace(/[¼½¾⅛⅜⅝⅞]/g, (sign) => ` ${VULGAR[sign]}`)
    .replace(/[″“”]/g, '"')
    .replace(/[′’‘]/g, "'")
    .replace(/[−–—]/g, "-")
    .replace(/⋅|×/g, "·")
    .trim()
    .replace(/\s+/g, " ")
    .toLowerCase();
}

type LeadingNumber = { value: number; rest: string } | "none" | "over-zero";

const MIXED = /^([+-]?)(\d+)(?: |-| - )(\d+) ?\/ ?(\d+)(?!\d)/;
const FRACTION = /^([+-]?) ?(\d+) ?\/ ?(\d+)(?!\d)/;
const GROUPED = /^([+-]?)(\d{1,3}(?:,\d{3})+)(\.\d+)?(?![\d.,])/;
const DECIMAL = /^([+-]?)(\d+(?:[.,]\d*)?|[.,]\d+)(?![\d.,])/;

function signed(sign: string | undefined, value: number): number {
  return sign === "-" ? -value : value;
}

/** The number at the start of tidied text and what follows it. `3,400` is 3400 turns but 3.4 of anything else: nobody sets a tyre to 3400 psi. */
function leadingNumber(text: string, dimension: Dimension): LeadingNumber {
  const mixed = MIXED.exec(text);
  if (mixed) {
    if (Number(mixed[4]) === 0) return "over-zero";
    return { value: signed(mixed[1], Number(mixed[2]) + Number(mixed[3]) / Number(mixed[4])), rest: text.slice(mixed[0].length).trim() };
  }
  const fraction = FRACTION.exec(text);
  if (fraction) {
    if (Number(fraction[3]) === 0) return "over-zero";
    return { value: signed(fraction[1], Number(fraction[2]) / Number(fraction[3])), rest: text.slice(fraction[0].length).trim() };
  }
  const grouped = GROUPED.exec(text);
  if (grouped && (dimension === "rotation" || grouped[3] !== undefined)) {
    const digits = (grouped[2] ?? "").replaceAll(",", "") + (grouped[3] ?? "");
    return { value: signed(grouped[1], Number(digits)), rest: text.slice(grouped[0].length).trim() };
  }
  const decimal = DECIMAL.exec(text);
  if (!decimal) return "none";
  const value = Number((decimal[2] ?? "").replace(",", "."));
  return { value: signed(decimal[1], value), rest: text.slice(decimal[0].length).trim() };
}

function findUnit(spelling: string, dimension: Dimension): Unit | undefined {
  const wanted = spelling.replaceAll(" ", "");
  const all: readonly Unit[] = UNITS;
  const same = all.find((unit) => unit.dimension === dimension && unit.spellings.includes(wanted));
  return same ?? all.find((unit) => unit.spellings.includes(wanted));
}

function feetAndInches(text: string): number | undefined {
  const match = /^(\d+) ?(?:'|ft) ?(.+)$/.exec(text);
  if (!match) return undefined;
  const inches = leadingNumber(match[2] ?? "", "length");
  if (typeof inches === "string" || inches.value < 0 || inches.value >= 12) return undefined;
  if (inches.rest !== "" && findUnit(inches.rest, "length")?.id !== "in") return undefined;
  return toSi(Number(match[1]) * 12 + inches.value, "in");
}

/**
 * The quantity a person typed, in SI (rotation: r/min), or the reason it cannot be read.
 *
 * Reads whole numbers, decimals with point or comma, `.125`, fractions (`1/4`), mixed numbers (`3 1/4`, `3-1/4`, `3¼`),
 * feet and inches (`4' 2 1/2"`), each with any unit of the field's dimension; a bare number takes `bareUnit`.
 * The hyphen in `3-1/4` joins, it never subtracts. A sign is read here and judged by `judgeQuantity`.
 *
 * @example parseQuantity({ text: "3-1/4\"", dimension: "length", bareUnit: "mm" }) // { ok: true, valueSi: 0.08255, ... }
 */
export function parseQuantity({ text, dimension, bareUnit }: { text: string; dimension: Dimension; bareUnit: UnitId }): ParsedQuantity {
  const example = EXAMPLES[dimension][bareUnit] ?? EXAMPLES[dimension].any;
  const tidied = tidy(text);
  if (tidied === "") return { ok: false, issue: { code: "empty-quantity", example } };
  if (dimension === "length") {
    const metres = feetAndInches(tidied);
    if (metres !== undefined) return { ok: true, valueSi: metres, unit: "in", hadUnit: true };
  }
  const number = leadingNumber(tidied, dimension);
  if (number === "over-zero") return { ok: false, issue: { code: "division-by-zero", text, example } };
  if (number === "none") return { ok: false, issue: { code: "unreadable-quantity", text, wanted: dimension, example } };
  if (number.rest === "") return { ok: true, valueSi: toSi(number.value, bareUnit), unit: bareUnit, hadUnit: false };
  const unit = findUnit(number.rest, dimension);
  if (!unit) return { ok: false, issue: { code: "unreadable-quantity", text, wanted: dimension, example } };
  if (unit.dimension !== dimension) {
    return { ok: false, issue: { code: "unit-of-another-kind", text, unit: unit.symbol, wanted: dimension, example } };
  }
  return { ok: true, valueSi: toSi(number.value, unit.id as UnitId), unit: unit.id as UnitId, hadUnit: true };
}

/** What a field takes: refused outside `least`..`most`, asked about outside `usualLeast`..`usualMost`. SI. */
export type QuantityRange = { least: number; most: number; usualLeast?: number; usualMost?: number };

export type QuantityJudgement =
  | { verdict: "accepted" }
  | { verdict: "refused"; code: "negative-quantity" | "below-least" | "above-most"; limitSi: number }
  | { verdict: "asked"; suggestion?: { valueSi: number; unit: UnitId; number: number } };

/** Units a slip is likely to have come from, by dimension. */
const SLIP_UNITS: Partial<Record<Dimension, readonly UnitId[]>> = {
  length: ["mm", "in", "thou", "cm"],
  pressure: ["psi", "kpa", "bar"],
};

/**
 * Whether a read quantity may stand in its field. Outside the hard limits it is refused, unless the same digits in another unit
 * would be usual: then, as for anything unusual, it is asked about with that suggestion (125 in an inch field: 0.125 in?).
 */
export function judgeQuantity(args: {
  valueSi: number;
  unit: UnitId;
  hadUnit: boolean;
  dimension: Dimension;
  range: QuantityRange;
}): QuantityJudgement {
  const { valueSi, unit, hadUnit, dimension, range } = args;
  const usualLeast = range.usualLeast ?? range.least;
  const usualMost = range.usualMost ?? range.most;
  if (valueSi >= usualLeast && valueSi <= usualMost) return { verdict: "accepted" };
  if (valueSi < 0 && range.least >= 0) return { verdict: "refused", code: "negative-quantity", limitSi: range.least };
  const suggestion = hadUnit ? undefined : likelySlip({ valueSi, unit, dimension, usualLeast, usualMost });
  if (suggestion) return { verdict: "asked", suggestion };
  if (valueSi < range.least) return { verdict: "refused", code: "below-least", limitSi: range.least };
  if (valueSi > range.most) return { verdict: "refused", code: "above-most", limitSi: range.most };
  return { verdict: "asked" };
}

function likelySlip(args: { valueSi: number; unit: UnitId; dimension: Dimension; usualLeast: number; usualMost: number }) {
  const { factor, offset = 0 } = unitById(args.unit);
  // Back to the digits as typed: the way through SI leaves some in the sixteenth place.
  const number = Number((args.valueSi / factor - offset).toPrecision(12));
  for (const id of SLIP_UNITS[args.dimension] ?? []) {
    if (id === args.unit) continue;
    const valueSi = toSi(number, id);
    if (valueSi >= args.usualLeast && valueSi <= args.usualMost) return { valueSi, unit: id, number };
  }
  return undefined;
}
