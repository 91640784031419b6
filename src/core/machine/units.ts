import type { ContactSchool } from "@/core/catalogue";
import type { FACINGS, Machine, Unit, UnitSheet } from "./schema";
import { type End, stanceOf } from "./side-view";

/** Units from the driver's left to right, the forward one first where two stand one behind the other. */
export function unitsAcross({ units }: Pick<Machine, "units">): Unit[] {
  return [...units].sort((a, b) => a.xMetres - b.xMetres || b.yMetres - a.yMetres);
}

/** Ids of what cuts: its reel units, or its blades' spindles. */
export const cuttersOf = ({ units, spindles }: Pick<Machine, "units" | "spindles">): string[] =>
  (units.length > 0 ? units : spindles).map(({ id }) => id);

/** What a unit has to be: the machine's sheet for all of them, with what is its own in place of it. Empty for a unit the machine does not have. */
export function unitSheetOf(machine: Pick<Machine, "units" | "sheet">, unitId: string): UnitSheet {
  const own = machine.units.find(({ id }) => id === unitId)?.own ?? {};
  const told = Object.fromEntries(Object.entries(own).filter(([, value]) => value !== undefined));
  return { ...machine.sheet.unit, ...told };
}

/** What most shops set to, where the sheet does not say. Common practice. */
const USUAL_SCHOOL: ContactSchool = "light-contact";
/** Blades of a reel where the sheet does not say. Estimate. */
const USUAL_BLADES = 11;
/** What units are set to where nothing says. Estimate. */
const USUAL_BENCH_METRES = 0.012;

export const schoolOf = (machine: Pick<Machine, "units" | "sheet">, unitId: string): ContactSchool =>
  unitSheetOf(machine, unitId).school ?? USUAL_SCHOOL;

export const reelBladesOf = (machine: Pick<Machine, "units" | "sheet">, unitId: string): number =>
  unitSheetOf(machine, unitId).reel?.blades ?? USUAL_BLADES;

/** The height the first unit from the left stands at by its own side view: what all of them are set to. */
export function benchHeight(machine: Pick<Machine, "units" | "sheet">): number {
  const [first] = unitsAcross(machine);
  const view = first && unitSheetOf(machine, first.id).sideView;
  return (view && stanceOf(view)?.heightMetres) ?? USUAL_BENCH_METRES;
}

export type Bracket = { number: number; facing: (typeof FACINGS)[number] };

/** The front roller's bracket that belongs to a height; `undefined` where the unit's table has no row for it. */
export function bracketFor(
  machine: Pick<Machine, "units" | "sheet">,
  unit: string,
  heightMetres: number,
  withGroomer: boolean,
): Bracket | undefined {
  const row = unitSheetOf(machine, unit).brackets?.find(
    (one) => one.withGroomer === withGroomer && heightMetres >= one.fromHeightMetres - 1e-9 && heightMetres < one.toHeightMetres - 1e-9,
  );
  return row && { number: row.number, facing: row.facing };
}

/** The row nearest to a height that none is for: what is wrong for that one is wrong further off too. */
export function nearestBracket(
  machine: Pick<Machine, "units" | "sheet">,
  unit: string,
  heightMetres: number,
  withGroomer: boolean,
): Bracket | undefined {
  const rows = (unitSheetOf(machine, unit).brackets ?? []).filter((one) => one.withGroomer === withGroomer);
  const off = (row: (typeof rows)[number]) => Math.max(row.fromHeightMetres - heightMetres, heightMetres - row.toHeightMetres, 0);
  const [row] = [...rows].sort((a, b) => off(a) - off(b));
  return row && { number: row.number, facing: row.facing };
}

/** A machine with some of what its sheet says replaced: what it cuts with stays what it is. */
export const withSheet = <M extends Machine>(machine: M, changes: Partial<M["sheet"]>): M => ({
  ...machine,
  sheet: { ...machine.sheet, ...changes },
});

/** The end of a unit that its height screws move. */
export const heightEndOf = ({ machine, unit }: { machine: Pick<Machine, "units" | "sheet">; unit: string }): End =>
  unitSheetOf(machine, unit).adjusters?.heightEnd ?? "rear";
