import { type Machine, machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { assessCheck } from "./registry";
import type { Assessment } from "./types";

export const IN = 0.0254;

/** A machine of the demo depot, whose sheet these tests lean on for places only. */
export function machineOf(fleetNumber: string): Machine {
  return machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);
}

/** Through the one way to a verdict; throws with the issues where readings are refused. */
export function assessed<Detail>(check: string, machine: Machine, readings: unknown): Assessment<Detail> {
  const outcome = assessCheck(check, { machine, readings });
  if (outcome.kind !== "assessed") throw new Error(JSON.stringify(outcome));
  return outcome.assessment as Assessment<Detail>;
}

export function refused(check: string, machine: Machine, readings: unknown): string[] {
  const outcome = assessCheck(check, { machine, readings });
  return outcome.kind === "invalid" ? outcome.issues.map(({ code, path }) => `${code} at ${path.join(".")}`) : [];
}

/** What is said of a cause: a result, a ratio, or nothing. */
export function saysOf({ evidence }: Assessment, cause: string): string | number | undefined {
  const found = evidence.find((one) => ("causes" in one ? one.causes.includes(cause) : one.cause === cause));
  if (!found) return undefined;
  return "likelihoodRatio" in found ? found.likelihoodRatio : "causes" in found ? `one of ${found.causes.length}` : found.result;
}

export const figure = ({ figures }: Assessment, id: string, place?: string) =>
  figures.find((one) => one.id === id && (place === undefined || one.place === place));
