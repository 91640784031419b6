import type { Machine } from "@/core/machine";
import { fieldsOf, type SheetField, sheetPlaces, valueAt, withValue } from "./fields";

/** One thing two sheets say differently; a side that says nothing is absent. */
export type SheetDifference = { key: string; field?: SheetField; a?: unknown; b?: unknown };

/** What has a page of its own, or is drawn and not typed. */
export const DRAWN = ["features", "deck.outline", "sheet.belt"] as const;

/** Two numbers nearer than this share of the larger are one: units typed and read back. */
const SAME_SHARE = 1e-6;

export function isSameValue(a: unknown, b: unknown): boolean {
  if (typeof a === "number" && typeof b === "number") return Math.abs(a - b) <= SAME_SHARE * Math.max(Math.abs(a), Math.abs(b));
  if (typeof a !== "object" || a === null || typeof b !== "object" || b === null) return a === b;
  const [keysOfA, keysOfB] = [Object.keys(a), Object.keys(b)].map((keys, k) =>
    keys.filter((key) => ([a, b][k] as Record<string, unknown>)[key] !== undefined),
  ) as [string[], string[]];
  return (
    keysOfA.length === keysOfB.length &&
    keysOfA.every((key) => isSameValue((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]))
  );
}

const difference = (key: string, a: unknown, b: unknown, field?: SheetField): SheetDifference => ({
  key,
  ...(field ? { field } : {}),
  ...(a === undefined ? {} : { a }),
  ...(b === undefined ? {} : { b }),
});

/**
 * Where two sheets of the same sort of machine differ, value by value in the order of the sheet: places that only one of them has first, then what their
 * common places and parts say. Swapped, the sides swap and nothing else.
 */
export function sheetDifferences(a: Machine, b: Machine): SheetDifference[] {
  const placesOf = (machine: Machine) => new Map(sheetPlaces(machine).map((place) => [`${place.sort}.${place.id}`, place.label]));
  const [inA, inB] = [placesOf(a), placesOf(b)];
  const only = [...new Set([...inA.keys(), ...inB.keys()])]
    .filter((key) => inA.has(key) !== inB.has(key))
    .sort()
    .map((key) => difference(key, inA.get(key), inB.get(key)));
  const gone = new Set(only.map(({ key }) => key.split(".").at(-1)));
  const fields = new Map([...fieldsOf(a), ...fieldsOf(b)].filter(({ at }) => !gone.has(at)).map((field) => [field.key, field]));
  const values = [...fields.values()].flatMap((field) => {
    const [x, y] = [valueAt(a, field.key), valueAt(b, field.key)];
    return isSameValue(x, y) ? [] : [difference(field.key, x, y, field)];
  });
  const kinds = a.kind === b.kind ? [] : [difference("kind", a.kind, b.kind)];
  const tables = DRAWN.flatMap((key) => {
    const [x, y] = [valueAt(a, key), valueAt(b, key)];
    return isSameValue(x, y) ? [] : [difference(key, x, y)];
  });
  return [...kinds, ...only, ...values, ...tables];
}

/**
 * Two changes of one sheet put together: what only theirs changed is taken, what only mine changed stays; what both changed to different values is named and
 * left as mine. Places added or taken away by one side are named as well, never merged by themselves.
 */
export function mergedSheets(args: { base: Machine; mine: Machine; theirs: Machine }): { merged: Machine; both: string[] } {
  const { base, mine, theirs } = args;
  const theirChanges = sheetDifferences(base, theirs);
  const mineByKey = new Map(sheetDifferences(base, mine).map((one) => [one.key, one]));
  const both: string[] = [];
  let merged: Machine = mine;
  for (const { key, b, field } of theirChanges) {
    const own = mineByKey.get(key);
    if (own) {
      if (!isSameValue(own.b, b)) both.push(key);
      continue;
    }
    const isPlain = field !== undefined || (DRAWN as readonly string[]).includes(key);
    if (isPlain) merged = withValue(merged, key, b);
    else both.push(key);
  }
  return { merged, both };
}
