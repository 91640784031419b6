import type { Dimension, Instrument, QuantityRange } from "@/core/basics/units";

/**
 * One value of a machine's sheet as somebody types it. `path` is within its place, or within the machine; `scale`: what stands on the sheet for one of what is
 * typed, where the shop weighs what the core pushes with.
 */
export type FieldSpec = { path: readonly string[]; label: string } & (
  | { kind: "quantity"; dimension: Dimension; instrument: Instrument; range: QuantityRange; scale?: number }
  | { kind: "number"; least: number; most: number; unit?: string; isWhole?: boolean }
  /** `names`: what an option is called where it is a place of this machine. */
  | { kind: "choice"; options: readonly string[]; names?: Readonly<Record<string, string>> }
  | { kind: "flag" }
  | { kind: "text"; most: number }
  /** One a line. */
  | { kind: "lines"; most: number; letters: number }
  /** Some of a few, one upon the other; the same one may come twice. */
  | { kind: "order"; options: readonly string[]; most: number }
  /** Rows of like things, each with its own few values; `table` says how rows and what stands on the sheet become each other. */
  | { kind: "table"; table: TableId; columns: readonly Column[]; most: number; row: string }
);
/** `isNeeded`: a row without it is none yet. */
export type Column = FieldSpec & { isNeeded?: boolean };
export type TableId = "deck-off" | "brackets" | "pivots";

export const length = (path: string, label: string, range: QuantityRange, instrument: Instrument = "gauge"): FieldSpec => ({
  kind: "quantity",
  path: path.split("."),
  label,
  dimension: "length",
  instrument,
  range,
});
export const pressure = (path: string, label: string): FieldSpec => ({
  kind: "quantity",
  path: [path],
  label,
  dimension: "pressure",
  instrument: "gauge",
  range: { least: 20_000, most: 600_000, usualLeast: 40_000, usualMost: 300_000 },
});
export const number = (
  path: string,
  label: string,
  limits: { least: number; most: number; unit?: string; isWhole?: boolean },
): FieldSpec => ({
  kind: "number",
  path: path.split("."),
  label,
  ...limits,
});
export const choice = (path: string, label: string, options: readonly string[], names?: Readonly<Record<string, string>>): FieldSpec => ({
  kind: "choice",
  path: path.split("."),
  label,
  options,
  ...(names ? { names } : {}),
});
export const flag = (path: string, label: string): FieldSpec => ({ kind: "flag", path: path.split("."), label });
export const text = (path: string, label: string, most: number): FieldSpec => ({ kind: "text", path: path.split("."), label, most });
export const lines = (path: string, label: string): FieldSpec => ({ kind: "lines", path: path.split("."), label, most: 8, letters: 80 });
export const turns = (path: string, label: string): FieldSpec => ({
  kind: "quantity",
  path: path.split("."),
  label,
  dimension: "rotation",
  instrument: "gauge",
  range: { least: 50, most: 20_000, usualLeast: 300, usualMost: 8000 },
});

export const fine = (path: string, label: string, least: number, most: number) => length(path, label, { least, most }, "fine");
export const angle = (path: string, label: string): FieldSpec => ({
  kind: "quantity",
  path: path.split("."),
  label,
  dimension: "angle",
  instrument: "fine",
  range: { least: -0.6, most: 0.6, usualLeast: -0.3, usualMost: 0.3 },
});
export const quantity = (path: string, label: string, dimension: Dimension, range: QuantityRange): FieldSpec & { kind: "quantity" } => ({
  kind: "quantity",
  path: path.split("."),
  label,
  dimension,
  instrument: "gauge",
  range,
});
/** Where something stands on the plan, in words and not as a place of its own. */
export const placeAt = (path: string, label: string): FieldSpec[] => [
  length(`${path}.xMetres`, `${label}, across, right is plus`, { least: -4, most: 4 }),
  length(`${path}.yMetres`, `${label}, along, forward is plus`, { least: -6, most: 6 }),
];
