import type { UnitSystem } from "@/core/basics/units";
import { type FieldSpec, type Row, TABLE_ROWS, UNSEEN } from "@/core/machine/specification";
import { type Entry, readEntry, writeQuantity } from "@/ui/entry";

export type FieldTrouble =
  | "unreadable"
  | "below"
  | "above"
  | "not-whole"
  | "too-long"
  | "too-many"
  | "needed"
  /** One of the rows says which. */
  | "in-a-row";
export type TextRead = { entry: Entry; value?: unknown; trouble?: FieldTrouble };
type TableSpec = FieldSpec & { kind: "table" };

/** Texts of a row, by the first name of the column's path, with what it carries unseen. */
export type RowText = Readonly<Record<string, string>>;
export const columnId = (column: FieldSpec): string => column.path.join(".");

/** A value as it stands in its field, in these units. */
export const writeValue = (value: unknown, field: FieldSpec, system: UnitSystem): string => {
  if (value === undefined || value === null) return "";
  if (field.kind === "quantity" && typeof value === "number")
    return String(
      Number(
        Number(writeQuantity({ valueSi: value / (field.scale ?? 1), dimension: field.dimension, system })).toFixed(
          field.instrument === "fine" ? 4 : 3,
        ),
      ),
    );
  if (field.kind === "table") return writeRows(TABLE_ROWS[field.table].toRows(value), field, system);
  if (Array.isArray(value)) return value.join("\n");
  return String(value);
};

const writeRows = (rows: readonly Row[], field: TableSpec, system: UnitSystem): string =>
  rows.length === 0
    ? ""
    : JSON.stringify(
        rows.map((row) =>
          Object.fromEntries([
            ...field.columns.map((column) => [columnId(column), writeValue(row[columnId(column)], column, system)]),
            ...UNSEEN.flatMap((id) => (typeof row[id] === "string" ? [[id, row[id]]] : [])),
          ]),
        ),
      );

/** What a table's text holds: rows of texts. What a browser kept and nobody can read is no row. */
export function rowsIn(text: string): RowText[] {
  try {
    const rows: unknown = JSON.parse(text);
    return Array.isArray(rows)
      ? rows.map((row) =>
          Object.fromEntries(
            Object.entries((typeof row === "object" && row) || {}).filter((one): one is [string, string] => typeof one[1] === "string"),
          ),
        )
      : [];
  } catch {
    return [];
  }
}

/** A row in which nothing was typed yet is none. */
const isBlank = (field: TableSpec, row: RowText): boolean =>
  field.columns.every((column) => {
    const text = (row[columnId(column)] ?? "").trim();
    return text === "" || (column.kind === "flag" && text === "false");
  });

/** What is wrong in a row, column by column. */
export function rowTroubles(field: TableSpec, row: RowText, system: UnitSystem): Readonly<Record<string, FieldTrouble>> {
  if (isBlank(field, row)) return {};
  const ofColumns = Object.fromEntries(
    field.columns.flatMap((column): [string, FieldTrouble][] => {
      const text = row[columnId(column)] ?? "";
      const trouble = text.trim() === "" && column.isNeeded ? "needed" : readText(column, text, system, text).trouble;
      return trouble ? [[columnId(column), trouble]] : [];
    }),
  );
  return { ...TABLE_ROWS[field.table].troubles?.(row), ...ofColumns };
}

const NO_ENTRY: Entry = { kind: "empty" };

function readRows(field: TableSpec, text: string, system: UnitSystem): TextRead {
  const rows = rowsIn(text).filter((row) => !isBlank(field, row));
  if (rows.length === 0) return { entry: NO_ENTRY };
  if (rows.length > field.most) return { entry: NO_ENTRY, trouble: "too-many" };
  if (rows.some((row) => Object.keys(rowTroubles(field, row, system)).length > 0)) return { entry: NO_ENTRY, trouble: "in-a-row" };
  const read = rows.map(
    (row): Row =>
      Object.fromEntries([
        ...field.columns.map((column) => {
          const typed = row[columnId(column)] ?? "";
          return [columnId(column), readText(column, typed, system, typed).value];
        }),
        ...UNSEEN.flatMap((id) => (row[id] === undefined ? [] : [[id, row[id]]])),
      ]),
  );
  return { entry: NO_ENTRY, value: TABLE_ROWS[field.table].fromRows(read) };
}

/** What a text comes to in its field: a value, nothing, or trouble. */
export function readText(field: FieldSpec, text: string, system: UnitSystem, sure: string | undefined): TextRead {
  const trimmed = text.trim();
  if (trimmed === "") return { entry: NO_ENTRY };
  switch (field.kind) {
    case "quantity": {
      const entry = readEntry({ text, place: field, system, ...(sure === undefined ? {} : { sure }) });
      return entry.kind === "read" ? { entry, value: entry.valueSi * (field.scale ?? 1) } : { entry, trouble: "unreadable" };
    }
    case "number": {
      const value = Number(trimmed.replace(",", "."));
      if (!Number.isFinite(value)) return { entry: NO_ENTRY, trouble: "unreadable" };
      if (value < field.least) return { entry: NO_ENTRY, trouble: "below" };
      if (value > field.most) return { entry: NO_ENTRY, trouble: "above" };
      if (field.isWhole && !Number.isInteger(value)) return { entry: NO_ENTRY, trouble: "not-whole" };
      return { entry: NO_ENTRY, value };
    }
    case "choice":
      return field.options.includes(trimmed) ? { entry: NO_ENTRY, value: trimmed } : { entry: NO_ENTRY, trouble: "unreadable" };
    case "flag":
      return { entry: NO_ENTRY, value: trimmed === "true" };
    case "text":
      return trimmed.length > field.most ? { entry: NO_ENTRY, trouble: "too-long" } : { entry: NO_ENTRY, value: trimmed };
    case "lines": {
      const lines = linesOf(text);
      if (lines.length > field.most) return { entry: NO_ENTRY, trouble: "too-many" };
      return lines.some((line) => line.length > field.letters)
        ? { entry: NO_ENTRY, trouble: "too-long" }
        : { entry: NO_ENTRY, value: lines };
    }
    case "order": {
      const lines = linesOf(text);
      if (lines.length > field.most) return { entry: NO_ENTRY, trouble: "too-many" };
      return lines.every((line) => field.options.includes(line))
        ? { entry: NO_ENTRY, value: lines }
        : { entry: NO_ENTRY, trouble: "unreadable" };
    }
    case "table":
      return readRows(field, text, system);
  }
}

export const linesOf = (text: string): string[] =>
  text
    .split("\n")
    .map((line) => line.trim())
    .filter((line) => line !== "");
