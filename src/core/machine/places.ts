import type { Machine } from "./schema";

/** Sorts of places: two of different sorts may go by one name, as a blade and the hanger over it do. */
export type PlaceSort = "wheel" | "cutter" | "hanger" | "caster" | "gearbox" | "pulley" | "deck";

/** Every place of a machine that something can happen at, by its sort: blades and units are what cuts. */
export function placesBySort({ wheels, spindles, units, deck, sheet }: Machine): Record<PlaceSort, string[]> {
  const ids = (all: readonly { id: string }[] = []) => all.map(({ id }) => id);
  return {
    wheel: ids(wheels),
    cutter: [...ids(spindles), ...ids(units)],
    hanger: ids(deck?.hangers),
    caster: ids(deck?.antiScalpWheels),
    gearbox: ids(sheet.gearboxes),
    pulley: ids(sheet.belt?.pulleys),
    deck: deck ? ["deck"] : [],
  };
}

/** Every place of a machine that something can happen at, by its id: wheels, hangers, blades, units, wheels under the deck, gearboxes, pulleys. */
export function placesOf(machine: Machine): string[] {
  const { wheel, cutter, hanger, caster, gearbox, pulley, deck } = placesBySort(machine);
  return [...new Set([...wheel, ...cutter, ...hanger, ...caster, ...gearbox, ...pulley, ...deck])];
}
