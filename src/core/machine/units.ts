import type { Machine, Unit, UnitSheet } from "./schema";

/** Units from the driver's left to right, the forward one first where two stand one behind the other. */
export function unitsAcross({ units }: Pick<Machine, "units">): Unit[] {
  return [...units].sort((a, b) => a.xMetres - b.xMetres || b.yMetres - a.yMetres);
}

/** What a unit has to be: the machine's sheet for all of them, with what is its own in place of it. Empty for a unit the machine does not have. */
export function unitSheetOf(machine: Pick<Machine, "units" | "sheet">, unitId: string): UnitSheet {
  const own = machine.units.find(({ id }) => id === unitId)?.own ?? {};
  const told = Object.fromEntries(Object.entries(own).filter(([, value]) => value !== undefined));
  return { ...machine.sheet.unit, ...told };
}
