import type { Sound } from "../sound-basics";
import { targetPressure } from "./index";

const USUAL_PRESSURE = 100_000;

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) => ({
  tyres: Object.fromEntries(
    machine.wheels
      .filter(({ isPneumatic }) => isPneumatic)
      .map((wheel) => [wheel.id, { pressurePascals: targetPressure(machine, wheel) ?? USUAL_PRESSURE }]),
  ),
});
