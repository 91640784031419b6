import { paperSpeed } from "@/core/physics/drive/paper";
import type { Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) => {
  const { blade } = machine.sheet;
  return {
    spindles: Object.fromEntries(
      machine.spindles.map((spindle) => {
        const turns = (paperSpeed(machine, spindle, {}) ?? blade?.ratedRevolutionsPerMinute ?? 3000) * 0.985;
        return [
          spindle.id,
          { revolutionsPerMinute: Math.round(turns + noise(8)), loadedRevolutionsPerMinute: Math.round(turns * 0.945 + noise(8)) },
        ];
      }),
    ),
  };
};
