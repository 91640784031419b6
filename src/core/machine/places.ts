import type { Machine } from "./schema";

/** Every place of a machine that something can happen at, by its id: wheels, hangers, blades, units, wheels under the deck, gearboxes, pulleys. */
export function placesOf({ wheels, spindles, units, deck, sheet }: Machine): string[] {
  const all = [
    ...wheels,
    ...spindles,
    ...units,
    ...(deck?.hangers ?? []),
    ...(deck?.antiScalpWheels ?? []),
    ...(sheet.gearboxes ?? []),
    ...(sheet.belt?.pulleys ?? []),
  ];
  return [...new Set([...all.map(({ id }) => id), ...(deck ? ["deck"] : [])])];
}
