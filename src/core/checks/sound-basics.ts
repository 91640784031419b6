import { gaussian } from "@/core/basics/random";
import { INCH_METRES } from "@/core/basics/units";
import { type Machine, type Spindle, type Unit, unitsAcross } from "@/core/machine";

export type Readings = Record<string, unknown>;

/** Of a machine on which a check finds nothing. `noise` is that of a shop's gauges: normal, by its spread. */
export type SoundArgs = { machine: Machine; random: () => number; noise: (spread: number) => number; turf: string };
export type Sound = (args: SoundArgs) => Readings;

export const MILLIMETRE = 0.001;
export const USUAL_REEL_METRES = 0.125;

/** Read to a thirty-second, as a tape would be. */
export const taped = (metres: number): number => Math.round(metres / (INCH_METRES / 32)) * (INCH_METRES / 32);
export const hundredth = (metres: number): number => Math.round(metres / 0.00001) * 0.00001;
/** Never under nought. */
export const above = (noise: SoundArgs["noise"], mean: number, spread: number): number => hundredth(Math.max(0, mean + noise(spread)));

export const eachBlade = (machine: Machine, read: (spindle: Spindle) => object): Readings => ({
  blades: Object.fromEntries(machine.spindles.map((spindle) => [spindle.id, read(spindle)])),
});
export const eachUnit = (machine: Machine, read: (unit: Unit) => object): Readings => ({
  units: Object.fromEntries(unitsAcross(machine).map((unit) => [unit.id, read(unit)])),
});

/** Ten pricks of stubble about a setting and its offset. */
export function pricks(args: {
  settingMetres: number;
  offsetMetres: number;
  spreadMetres: number;
  random: () => number;
  turf: string;
  /** What it is read to. */
  stepMetres?: number;
}): Readings {
  const { settingMetres, offsetMetres, spreadMetres, random, turf, stepMetres = MILLIMETRE } = args;
  return {
    settingMetres,
    turf,
    ground: "firm",
    heightsMetres: Array.from(
      { length: 10 },
      () => Math.round((settingMetres + offsetMetres + gaussian(random) * spreadMetres) / stepMetres) * stepMetres,
    ),
  };
}
