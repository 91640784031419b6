import { type Figure, plusMinus95, type Standing, type Tolerance, type Verdict } from "@/core/basics/findings";
import { type Dimension, formatQuantity, fromSi, type Instrument, type UnitSystem } from "@/core/basics/units";
import type { Movement, StaleReason } from "@/core/job/staleness";
import type { Machine } from "@/core/machine";

type Told = { machine: Machine; system: UnitSystem };

export const VERDICT_WORDS: Record<Verdict, string> = {
  "in-tolerance": "In tolerance",
  watch: "Watch",
  out: "Out",
  stop: "Stop",
  "not-enough-readings": "Not enough readings",
};

export const STANDING_WORDS: Record<Standing, string> = {
  sheet: "machine's sheet",
  measured: "measured here",
  "common-practice": "common practice",
  "published-from-memory": "a published standard, from memory",
  physics: "physics",
  estimate: "estimate",
  "say-so": "say-so",
};

/** A sixteenth as it was written is one to this, inches. */
const AS_WRITTEN_INCHES = 0.0005;

/** A size of a specification as it was written: in sixteenths where it is one, else in thousandths, since nobody read it off a tape. */
export function asWritten(metres: number, system: UnitSystem): string {
  const sixteenths = fromSi(metres, "in") * 16;
  const isSixteenth = Math.abs(sixteenths - Math.round(sixteenths)) <= AS_WRITTEN_INCHES * 16;
  return show(metres, "length", system, system === "metric" ? "gauge" : isSixteenth ? "tape" : "fine");
}

export function show(valueSi: number, dimension: Dimension, system: UnitSystem, instrument: Instrument = "tape"): string {
  return formatQuantity({ valueSi, dimension, system, instrument }).text;
}

/** Tip speeds are said in feet a minute or metres a second, whatever travel is said in. */
export function showTipSpeed(metresPerSecond: number, system: UnitSystem): string {
  return system === "us"
    ? `${Math.round(fromSi(metresPerSecond, "ft/min")).toLocaleString("en-US")} ft/min`
    : `${metresPerSecond.toFixed(1)} m/s`;
}

/** A size without its sign. A difference under half a sixteenth shows in decimals, not as 0. */
export function showSize(metres: number, system: UnitSystem): string {
  const size = Math.abs(metres);
  const tape = formatQuantity({ valueSi: size, dimension: "length", system, instrument: "tape" });
  return tape.number === "0" ? show(size, "length", system, "fine") : tape.text;
}

const partAt = (machine: Machine, place: string) =>
  [...machine.wheels, ...machine.spindles, ...(machine.deck?.hangers ?? []), ...machine.units].find(({ id }) => id === place.split(":")[0]);

/** Whether a place is one of the machine's own parts, and not a name a check gives to what it reads of the whole. */
export const hasPlace = (machine: Machine, place: string): boolean => partAt(machine, place) !== undefined;

/** The name of a wheel, blade, hanger or tip as it stands on the machine's sheet. */
export function placeName(machine: Machine, place: string): string {
  const [first, direction, end] = place.split(":");
  const named = partAt(machine, place);
  const base = named?.label ?? first ?? place;
  const tip = direction ? `${base}, tip to the ${direction}` : base;
  return end ? `${tip}, end ${end}` : tip;
}

/** Why a reading no longer holds, with the movement reckoned where it can be. */
export function sayStale(reason: StaleReason, told: Told & { label: string; time: string }): string {
  const moved = reason.movement ? `; ${sayMovement(reason.movement, told)}` : "";
  return `${told.label.toLowerCase()} at ${told.time} (${reason.who})${moved}`;
}

export function sayMovement(movement: Movement, { machine, system }: Told): string {
  const place = placeName(machine, `${movement.spindleId}:${movement.direction}`).toLowerCase();
  const [least, most] = [
    Math.min(Math.abs(movement.least), Math.abs(movement.most)),
    Math.max(Math.abs(movement.least), Math.abs(movement.most)),
  ];
  return `${place} reckoned ${show(least, "length", system, "fine")} to ${show(most, "length", system, "fine")} ${movement.change > 0 ? "up" : "down"} (estimate)`;
}

const isTipSpeed = ({ id }: Figure) => id.endsWith("tip-speed");

/** A figure as it is shown; ± is always what it lies within with 95 in 100. */
export function figureValue(figure: Figure, system: UnitSystem): string {
  if (isTipSpeed(figure)) return showTipSpeed(figure.value, system);
  const dimension = figure.dimension as Dimension;
  const value = show(figure.value, dimension, system, figure.instrument);
  if (figure.standardError === undefined) return value;
  const plusMinus = plusMinus95(figure.standardError, figure.degrees);
  // As finely as the value itself; of a fraction of an inch as a decimal.
  if (dimension === "length" && figure.instrument !== "tape") return `${value} ± ${show(plusMinus, dimension, system, figure.instrument)}`;
  return `${value} ± ${formatQuantity({ valueSi: plusMinus, dimension, system, instrument: "gauge" }).number}`;
}

export function toleranceWords(tolerance: Tolerance, figure: Figure, system: UnitSystem): string {
  const dimension = figure.dimension as Dimension;
  const said = (value: number) => (isTipSpeed(figure) ? showTipSpeed(value, system) : show(value, dimension, system, figure.instrument));
  const word = tolerance.source ? `${tolerance.source}, from memory` : STANDING_WORDS[tolerance.standing];
  if (tolerance.kind === "about") return `${said(tolerance.target)} ± ${said(tolerance.plusMinus)} · ${word}`;
  const least = tolerance.least === undefined ? "" : `from ${said(tolerance.least)} `;
  const most = tolerance.most === undefined ? "" : `up to ${said(tolerance.most)}`;
  return `${least}${most} · ${word}`.trim();
}
