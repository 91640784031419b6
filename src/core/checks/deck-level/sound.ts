import { INCH_METRES } from "@/core/basics/units";
import { type Machine, referenceSpindle } from "@/core/machine";
import type { Readings, Sound } from "../sound-basics";
import { quickForm } from "./stations";

/** Lower in front by a quarter of an inch. Common practice. */
const USUAL_RAKE = -0.25 * INCH_METRES;

/** The quick form of a deck at its own rake. */
function levelTips(machine: Machine): Readings {
  const reference = referenceSpindle(machine);
  const rake = machine.sheet.rakeTargetMetres ?? USUAL_RAKE;
  const slopeForward = rake / (reference?.tipCircleDiameterMetres ?? 1);
  const heightMetres = (y: number) => 0.08 + slopeForward * (y - (reference?.yMetres ?? 0));
  return Object.fromEntries(quickForm(machine).map(({ key, y }) => [key, { heightMetres: heightMetres(y) }]));
}

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) => ({ tips: levelTips(machine), ends: "one-carried-round" });
