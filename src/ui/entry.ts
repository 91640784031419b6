import {
  type Dimension,
  fromSi,
  judgeQuantity,
  parseQuantity,
  type QuantityIssue,
  type QuantityRange,
  shownUnit,
  type UnitSystem,
} from "@/core/basics/units";
import type { Field } from "@/core/checks";

/** What became of the text in a field. */
export type Entry =
  | { kind: "empty" }
  | { kind: "unread"; issue: QuantityIssue }
  | { kind: "refused"; code: "negative-quantity" | "below-least" | "above-most"; limitSi: number }
  | { kind: "asked"; valueSi: number; suggestion?: { valueSi: number; unit: string; number: number } }
  | { kind: "read"; valueSi: number };

/** Digits enough that an untouched reading comes back as itself. */
const DIGITS = 12;

/** A value as a bare number in a reader's units: typed again, it is the same. */
export function writeQuantity({ valueSi, dimension, system }: { valueSi: number; dimension: Dimension; system: UnitSystem }): string {
  return String(Number(fromSi(valueSi, shownUnit({ dimension, system })).toPrecision(DIGITS)));
}

/** What was typed at a place, in SI; `sure` is the text its writer has already stood by. */
export function readEntry(args: {
  text: string;
  place: { dimension: Dimension; range: QuantityRange };
  system: UnitSystem;
  sure?: string | undefined;
}): Entry {
  const { text, place, system } = args;
  if (text.trim() === "") return { kind: "empty" };
  const parsed = parseQuantity({ text, dimension: place.dimension, bareUnit: shownUnit({ dimension: place.dimension, system }) });
  if (!parsed.ok) return { kind: "unread", issue: parsed.issue };
  const judged = judgeQuantity({ ...parsed, dimension: place.dimension, range: place.range });
  if (judged.verdict === "refused") return { kind: "refused", code: judged.code, limitSi: judged.limitSi };
  if (judged.verdict === "asked" && args.sure !== text) {
    const isPossible = parsed.valueSi >= place.range.least && parsed.valueSi <= place.range.most;
    if (!isPossible && !judged.suggestion)
      return { kind: "refused", code: parsed.valueSi > place.range.most ? "above-most" : "below-least", limitSi: place.range.most };
    return { kind: "asked", valueSi: parsed.valueSi, ...(judged.suggestion ? { suggestion: judged.suggestion } : {}) };
  }
  if (parsed.valueSi > place.range.most) return { kind: "refused", code: "above-most", limitSi: place.range.most };
  if (parsed.valueSi < place.range.least) return { kind: "refused", code: "below-least", limitSi: place.range.least };
  return { kind: "read", valueSi: parsed.valueSi };
}

/** One piece of a pasted list that cannot stand as it is, and why. */
export type BadPiece = { text: string; why: "unreadable" | "negative" | "impossible" | "unusual" };
export type ListEntry = { kind: "list"; valuesSi: number[]; texts: string[]; bad: BadPiece[] };
export type NumberEntry =
  | { kind: "number"; value: number }
  | { kind: "no-number"; why: "unreadable" | "below" | "above" | "broken"; limit?: number };
export type FieldEntry =
  | Entry
  | ListEntry
  | NumberEntry
  | { kind: "chosen"; id: string }
  | { kind: "text"; text: string }
  | { kind: "too-long"; most: number };

const WHY_BAD: Partial<Record<Entry["kind"], BadPiece["why"]>> = { unread: "unreadable", asked: "unusual", refused: "impossible" };

/** A row of spreadsheet cells or one reading a line; a space before a fraction or a unit joins, any other space parts. */
const PARTS = /[\n\r\t;]+|,\s+|\s*\|\s*/;
const SPACES = /\s+(?!\d+\s?\/\s?\d+)(?![a-zA-Z"'″′]+(?:\s|$))/;

/** A piece that is no reading by itself may be several with spaces between; with a word among them it stays whole, to be seen as it was typed. */
function partsOf(piece: string, field: { dimension: Dimension; range: QuantityRange }, system: UnitSystem): string[] {
  const kindOf = (text: string) => readEntry({ text, place: field, system }).kind;
  if (kindOf(piece) === "read") return [piece];
  const parts = piece.split(SPACES);
  return parts.some((part) => kindOf(part) === "unread") ? [piece] : parts;
}

/** The readings in a text of many, and what among it is none. Nothing of the text is lost: what is bad is named as it stands. */
export function readList(args: {
  text: string;
  field: { dimension: Dimension; range: QuantityRange };
  system: UnitSystem;
  sure?: string | undefined;
}): ListEntry {
  const { text, field, system } = args;
  const isSure = args.sure === text;
  const pieces = text
    .split(PARTS)
    .map((piece) => piece.trim())
    .filter((piece) => piece !== "")
    .flatMap((piece) => partsOf(piece, field, system));
  const entries = pieces.map((piece) => ({
    piece,
    entry: readEntry({ text: piece, place: field, system, ...(isSure ? { sure: piece } : {}) }),
  }));
  const good = entries.flatMap(({ piece, entry }) => (entry.kind === "read" ? [{ piece, valueSi: entry.valueSi }] : []));
  return {
    kind: "list",
    valuesSi: good.map(({ valueSi }) => valueSi),
    texts: good.map(({ piece }) => piece),
    bad: entries.flatMap(({ piece, entry }): BadPiece[] => {
      const why = entry.kind === "refused" && entry.code === "negative-quantity" ? "negative" : WHY_BAD[entry.kind];
      return why ? [{ text: piece, why }] : [];
    }),
  };
}

function readNumber(text: string, field: { least: number; most: number; isWhole?: boolean }): NumberEntry {
  const value = Number(text.trim().replace(",", "."));
  if (!Number.isFinite(value)) return { kind: "no-number", why: "unreadable" };
  if (value < field.least) return { kind: "no-number", why: "below", limit: field.least };
  if (value > field.most) return { kind: "no-number", why: "above", limit: field.most };
  return field.isWhole && !Number.isInteger(value) ? { kind: "no-number", why: "broken" } : { kind: "number", value };
}

/** What the text of any field comes to. */
export function readField(args: { field: Field; text: string; system: UnitSystem; sure?: string | undefined }): FieldEntry {
  const { field, text, system, sure } = args;
  if (text.trim() === "") return { kind: "empty" };
  switch (field.kind) {
    case "quantity":
      return readEntry({ text, place: field, system, sure });
    case "list":
      return readList({ text, field, system, sure });
    case "choice":
      return field.options.some(({ id }) => id === text) ? { kind: "chosen", id: text } : { kind: "empty" };
    case "number":
      return readNumber(text, field);
    case "text":
      return text.trim().length > field.most ? { kind: "too-long", most: field.most } : { kind: "text", text: text.trim() };
  }
}

/** The value a field gives to its readings; `undefined` where it gives none. */
export function valueIn(entry: FieldEntry): number | string | number[] | undefined {
  switch (entry.kind) {
    case "read":
      return entry.valueSi;
    case "list":
      return entry.valuesSi;
    case "chosen":
      return entry.id;
    case "number":
      return entry.value;
    case "text":
      return entry.text;
    default:
      return undefined;
  }
}

/** Typed, and cannot be taken as it stands. */
export function isWrong(entry: FieldEntry): boolean {
  if (entry.kind === "list") return entry.bad.length > 0;
  return valueIn(entry) === undefined && entry.kind !== "empty";
}
