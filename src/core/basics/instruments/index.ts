import { INCH_METRES, PSI_PASCALS } from "@/core/basics/units";

/** What a measuring tool reads, how finely, and how far a careful hand's reading strays (one standard deviation). SI. */
export type InstrumentRow = {
  id: string;
  label: string;
  reads: "length" | "pressure" | "mass" | "torque" | "rotation" | "temperature";
  /** Step of its scale. */
  resolution: number;
  /** Of one reading by a careful hand: repeatability and scale together. */
  uncertainty: number;
};

/** A reading between two steps of a scale lies anywhere between them (physics: uniform). */
export const scaleUncertainty = (resolution: number): number => resolution / Math.sqrt(12);

const THIRTY_SECOND = INCH_METRES / 32;

/** The tools of the worksheets, each with what is taken where nobody says which was used. Estimates, but for the scale's own share. */
// biome-ignore format: a table is read by rows
export const INSTRUMENTS = [
  { id: "tape", label: "Tape or ruler", reads: "length", resolution: THIRTY_SECOND, uncertainty: 0.0008 },
  { id: "height-gauge", label: "Height gauge at a blade's tip", reads: "length", resolution: 0.0001, uncertainty: 0.0008 },
  { id: "stubble-ruler", label: "Ruler pricked into stubble", reads: "length", resolution: 0.001, uncertainty: scaleUncertainty(0.001) },
  { id: "prism", label: "Prism", reads: "length", resolution: 0.0001, uncertainty: scaleUncertainty(0.0001) },
  { id: "low-pressure-gauge", label: "Tyre gauge, 0 to 30 psi", reads: "pressure", resolution: PSI_PASCALS / 2, uncertainty: scaleUncertainty(PSI_PASCALS / 2) },
  { id: "balancer", label: "Blade balancer, as a mass at the tip", reads: "mass", resolution: 0.003, uncertainty: scaleUncertainty(0.003) },
] as const satisfies readonly InstrumentRow[];

export type InstrumentId = (typeof INSTRUMENTS)[number]["id"];

export function instrument(id: InstrumentId): InstrumentRow {
  const row = INSTRUMENTS.find((one) => one.id === id);
  if (!row) throw new Error(`no instrument ${id}`);
  return row;
}
