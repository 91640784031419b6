import { seededRandom } from "@/core/basics/random";
import type { UnitSystem } from "@/core/basics/units";
import { assessed, machineOf } from "@/core/checks/sheets.fixtures";
import { soundReadings, spoiled } from "@/core/checks/sound";
import { figureName, figureValue, sayAction, sayAnswer, sayProvisional, sayWarning } from "./words";

/** Throws where the depot has no sound readings for a check: then there is nothing to say. */
export function sound(check: string, fleetNumber = "ZT-1") {
  const readings = soundReadings({ machine: machineOf(fleetNumber), check, random: seededRandom(3), turf: "Verge" });
  if (!readings) throw new Error(`no sound readings for ${check}`);
  return readings;
}

/** What a worksheet of a sound machine says once some of its readings are spoiled, by path. */
export function said(check: string, spoils: Record<string, unknown>, system: UnitSystem = "us", fleetNumber = "ZT-1") {
  const machine = machineOf(fleetNumber);
  const assessment = assessed(check, machine, spoiled(sound(check, fleetNumber), spoils));
  const told = { machine, system, standpoint: "behind" as const };
  return {
    answer: sayAnswer(assessment, told),
    actions: assessment.actions.map((action) => sayAction(check, action, told)),
    warnings: assessment.warnings.map((warning) => sayWarning(check, warning, told)),
    provisional: assessment.provisional.map((reason) => sayProvisional(check, reason, told)),
    figures: assessment.figures.map((figure) => `${figureName(check, figure, machine)}: ${figureValue(figure, system)}`),
  };
}
