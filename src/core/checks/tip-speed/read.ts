import type { Machine, Spindle } from "@/core/machine";
import { tipCircleOf } from "@/core/physics/blades/tip-circle";
import { paperSpeed } from "@/core/physics/drive/paper";
import { droopOf, liftLeft, slipOf, tipSpeed } from "@/core/physics/drive/tip-speed";
import type { SpeedReadings } from "./schema";

export const RADIANS = (2 * Math.PI) / 60;

export type Speed = { revolutionsPerMinute: number; metresPerSecond: number };

/** All that is known of one spindle's speed. */
export type ReadSpindle = {
  spindleId: string;
  /** Worked out from pulleys, gears or engine. */
  paper?: Speed;
  noLoad?: Speed;
  loaded?: Speed;
  lowCharge?: Speed;
  /** Share lost between paper and no load; negative where it runs faster than worked out. */
  slip?: number;
  /** Share lost from no load to load. */
  droop?: number;
  /** Share of the pressure under the sail that is left, under load or at low charge, whichever is worse. */
  lift?: number;
};

export function readSpindle(machine: Machine, spindle: Spindle, { spindles, paper }: SpeedReadings): ReadSpindle {
  const read = spindles[spindle.id];
  const { metres: lengthMetres } = tipCircleOf(machine, spindle);
  const speedOf = (revolutionsPerMinute: number | undefined): Speed | undefined =>
    revolutionsPerMinute === undefined
      ? undefined
      : {
          revolutionsPerMinute,
          metresPerSecond: tipSpeed({ lengthMetres, radiansPerSecond: revolutionsPerMinute * RADIANS }),
        };
  const drivenPitchMetres = Object.fromEntries(Object.entries(spindles).map(([id, one]) => [id, one.drivenPitchMetres]));
  const worked = speedOf(paperSpeed(machine, spindle, { ...paper, drivenPitchMetres }));
  const noLoad = speedOf(read?.revolutionsPerMinute);
  const loaded = speedOf(read?.loadedRevolutionsPerMinute);
  const lowCharge = speedOf(read?.lowChargeRevolutionsPerMinute);
  const rated = noLoad?.revolutionsPerMinute ?? 0;
  const slowest = [loaded, lowCharge].flatMap((speed) => speed?.revolutionsPerMinute ?? []);
  return {
    spindleId: spindle.id,
    ...(worked ? { paper: worked } : {}),
    ...(noLoad ? { noLoad } : {}),
    ...(loaded ? { loaded } : {}),
    ...(lowCharge ? { lowCharge } : {}),
    // A blade that stands has not slipped: something is off.
    ...(worked && noLoad && rated > 0 ? { slip: slipOf({ measured: rated, ideal: worked.revolutionsPerMinute }) } : {}),
    ...(loaded && rated > 0 ? { droop: droopOf({ noLoad: rated, loaded: loaded.revolutionsPerMinute }) } : {}),
    ...(slowest.length > 0 && rated > 0 ? { lift: liftLeft({ now: Math.min(...slowest), rated }).pressure } : {}),
  };
}
