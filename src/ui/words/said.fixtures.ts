import { assessed, machineOf } from "@/core/checks/sheets.fixtures";
import type { UnitSystem } from "@/core/units";
import { seededRandom } from "@/demo/random";
import { soundReadings, spoiled } from "@/demo/sheets";
import { FORM_WORDS } from "./sheets";

export const sound = (check: string, fleetNumber = "ZT-1") =>
  soundReadings({ machine: machineOf(fleetNumber), check, random: seededRandom(3), turf: "Verge" }) ?? {};

/** What a worksheet of a sound machine says once some of its readings are spoiled, by path. */
export function said(check: string, spoils: Record<string, unknown>, system: UnitSystem = "us", fleetNumber = "ZT-1") {
  const machine = machineOf(fleetNumber);
  const assessment = assessed(check, machine, spoiled(sound(check, fleetNumber), spoils));
  const told = { machine, system, standpoint: "behind" as const };
  return {
    answer: FORM_WORDS.answer(assessment, told),
    actions: assessment.actions.map((action) => FORM_WORDS.action(action, told)),
    warnings: assessment.warnings.map((warning) => FORM_WORDS.warning(warning, told)),
    provisional: assessment.provisional.map((reason) => FORM_WORDS.provisional(reason, told)),
    figures: assessment.figures.map((figure) => `${FORM_WORDS.figureName(figure, machine)}: ${FORM_WORDS.figureValue(figure, system)}`),
  };
}
