import { featuresOf } from "@/core/catalogue/kinds";
import type { Gearbox, Machine } from "./schema";

/** Boxes that can be rebuilt: the sheet's, or one to each blade of a geared deck. */
export function gearboxes(machine: Machine): Gearbox[] {
  if (!featuresOf(machine).includes("gears")) return [];
  return (
    machine.sheet.gearboxes ??
    machine.spindles.map(({ id, label, xMetres, yMetres }) => ({
      id: `${id}-box`,
      label: `Gearbox over ${label.toLowerCase()}`,
      xMetres,
      yMetres,
      isConnected: false,
    }))
  );
}
