import type { FieldSpec } from "@/core/sheet";
import type { UnitSystem } from "@/core/units";
import { type Entry, readEntry, writeQuantity } from "@/ui/entry";

export type FieldTrouble = "unreadable" | "below" | "above" | "not-whole" | "too-long" | "too-many" | "needed";
export type TextRead = { entry: Entry; value?: unknown; trouble?: FieldTrouble };

/** A value as it stands in its field, in these units. */
export const writeValue = (value: unknown, field: FieldSpec, system: UnitSystem): string => {
  if (value === undefined || value === null) return "";
  if (field.kind === "quantity" && typeof value === "number")
    return String(
      Number(Number(writeQuantity({ valueSi: value, dimension: field.dimension, system })).toFixed(field.instrument === "fine" ? 4 : 3)),
    );
  if (Array.isArray(value)) return value.join("\n");
  return String(value);
};

const NO_ENTRY: Entry = { kind: "empty" };

/** What a text comes to in its field: a value, nothing, or trouble. */
export function readText(field: FieldSpec, text: string, system: UnitSystem, sure: string | undefined): TextRead {
  const trimmed = text.trim();
  if (trimmed === "") return { entry: NO_ENTRY };
  switch (field.kind) {
    case "quantity": {
      const entry = readEntry({ text, place: field, system, ...(sure === undefined ? {} : { sure }) });
      return entry.kind === "read" ? { entry, value: entry.valueSi } : { entry, trouble: "unreadable" };
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
      const lines = text
        .split("\n")
        .map((line) => line.trim())
        .filter((line) => line !== "");
      if (lines.length > field.most) return { entry: NO_ENTRY, trouble: "too-many" };
      return lines.some((line) => line.length > field.letters)
        ? { entry: NO_ENTRY, trouble: "too-long" }
        : { entry: NO_ENTRY, value: lines };
    }
  }
}
