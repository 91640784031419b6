import { table } from "@/core/basics/tables";
import type { UnitSystem } from "@/core/basics/units";
import type { UnitProperty } from "@/core/checks";
import { length } from "../shared";

const VALUE_WORDS: Partial<Record<string, string>> = table({ "as-sheet": "as on sheet", another: "another" });

function sayValue(value: string | number | undefined, property: UnitProperty, system: UnitSystem): string {
  if (value === undefined) return "–";
  if (typeof value === "string") return VALUE_WORDS[value] ?? value;
  return property.endsWith("Metres") ? length(value, system) : String(value);
}

/** One unit's value; one that differs from most is framed in the ink given, and says so. */
export function PropertyValue(args: {
  cell: { value?: string | number; isOdd: boolean } | undefined;
  property: UnitProperty;
  system: UnitSystem;
  oddInk: string;
}) {
  const { cell, property, system, oddInk } = args;
  return (
    <span className={cell?.isOdd ? `border-2 px-1 font-bold not-italic ${oddInk}` : ""}>
      {sayValue(cell?.value, property, system)}
      {cell?.isOdd && <span className="sr-only"> differs</span>}
    </span>
  );
}
