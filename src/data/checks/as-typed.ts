import { type Dimension, parseQuantity, shownUnit, type UnitSystem } from "@/core/basics/units";
import { type Check, type Field, keyOf, rowsOf } from "@/core/checks";
import type { Machine } from "@/core/machine";
import { AppError, type Issue } from "@/data/store/errors";

const SYSTEMS: readonly UnitSystem[] = ["us", "metric"];
/** Two ways of reckoning a unit differ in the last bits only. */
const SAME_SHARE = 1e-6;
const SMALLEST = 1e-9;

/** Whether text, read in either system of units, is that value. */
function says(text: string, valueSi: number, dimension: Dimension): boolean {
  return SYSTEMS.some((system) => {
    const parsed = parseQuantity({ text, dimension, bareUnit: shownUnit({ dimension, system }) });
    return parsed.ok && Math.abs(parsed.valueSi - valueSi) <= Math.max(SMALLEST, SAME_SHARE * Math.abs(valueSi));
  });
}

const dimensionsOf = (fields: readonly Field[]): Map<string, Dimension> =>
  new Map(
    fields.flatMap((field) => (field.kind === "quantity" || field.kind === "list" ? [[keyOf(field.path), field.dimension] as const] : [])),
  );

/** A list's third reading is typed under `heights.2`. */
const listOf = (key: string): string => key.replace(/\.\d+$/, "");

/**
 * What was typed is kept beside what it was read as, for whoever looks at the record later: it names a reading that is there, and says that
 * reading in one of the units it can be in. Throws `invalid` with `as-typed-differs` or `as-typed-of-nothing`.
 */
export function requireAsTyped(args: {
  check: Check;
  machine: Machine;
  /** Brought into today's form by the check's own schema. */
  readings: unknown;
  asTyped: Readonly<Record<string, string>>;
}): void {
  const dimensions = dimensionsOf(args.check.form?.(args.machine, args.readings)?.fields ?? []);
  const rows = new Map(
    rowsOf(args.readings).flatMap((row) => [[row.key, row] as const, [row.place.slice(row.place.indexOf(":") + 1), row] as const]),
  );
  const issues = Object.entries(args.asTyped).flatMap(([key, text]): Issue[] => {
    const row = rows.get(key);
    if (!row) return [{ code: "as-typed-of-nothing", path: ["asTyped", key] }];
    const dimension = dimensions.get(row.key) ?? dimensions.get(listOf(row.key));
    return dimension === undefined || says(text, row.value, dimension) ? [] : [{ code: "as-typed-differs", path: ["asTyped", key], text }];
  });
  if (issues.length > 0) throw new AppError("invalid", { issues });
}
