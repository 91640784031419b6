import { type Machine, sheetProblems } from "@/core/machine";
import { assessCheck, worksheetsFor } from "./registry";

/** What reckons on a specification alone, before anything is read: heights to set for, and nothing else told. */
const TOLD: readonly object[] = [{}, { heightMetres: 0.012, groomer: "none" }, { benchMetres: 0.012 }];

/**
 * Everything that is reckoned from a specification by itself, reckoned once: its contradictions, every worksheet's form and its answer to next to nothing.
 * What comes of it is not asked; that it comes to an end is.
 */
export function tryOut(machine: Machine): { isTried: true } {
  sheetProblems(machine);
  for (const check of worksheetsFor(machine)) {
    check.form?.(machine, {} as never);
    for (const readings of TOLD) assessCheck(check.id, { machine, readings });
  }
  return { isTried: true };
}
