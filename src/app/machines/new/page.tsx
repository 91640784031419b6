import type { Metadata } from "next";
import { TEMPLATES, templateMachine } from "@/core/machine/specification";
import { listMachineNames } from "@/data/machine/machines";
import { database } from "@/data/open";
import { asEstimated } from "../sheet-desk/draft";
import { SheetDesk } from "../sheet-desk/sheet-desk";

export const metadata: Metadata = { title: "A machine of our own" };

/** A new machine: begun from a template of its kind or a sister, drawn right, put in the fleet. */
export default function NewMachine() {
  const names = listMachineNames(database());
  return (
    <SheetDesk
      start={asEstimated(templateMachine(TEMPLATES["zero-turn"].usual))}
      sites={[...new Set(names.map(({ site }) => site))].sort()}
      sisters={names.map(({ id, fleetNumber, name }) => ({ id, fleetNumber, name }))}
    />
  );
}
