import type { Instrument, UnitSystem } from "@/core/basics/units";
import type { Assessment, Mark } from "@/core/checks";
import type { Machine } from "@/core/machine";
import { gearboxes } from "@/core/machine";
import { placeName, show } from "../words/quantities";
import type { AnyFace, Told } from "./face";

export { placeName, show, showSize, showTipSpeed } from "../words/quantities";

type Named = Pick<AnyFace, "parts" | "states">;

export const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);
export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
export const length = (metres: number | undefined, system: UnitSystem, instrument: Instrument = "fine") =>
  metres === undefined ? "" : show(metres, "length", system, instrument);
/** How a drawing writes its lengths, as the instrument reads. */
export const sayLength =
  (system: UnitSystem, instrument: Instrument = "gauge") =>
  (metres: number) =>
    show(metres, "length", system, instrument);

/** A code that has no words of its own stands in brackets: no test takes it for a word. */
export const unnamed = (code: string): string => `⟨${code}⟩`;

/** A place of a worksheet: a blade, a hanger, two neighbours, or a part that the sheet does not name. */
export function placeIn({ parts = {} }: Named, machine: Machine, place: string): string {
  const named = parts[place];
  if (named) return named;
  const box = gearboxes(machine).find(({ id }) => id === place);
  if (box) return box.label;
  const wheel = machine.deck?.antiScalpWheels.find(({ id }) => id === place);
  if (wheel) return wheel.label;
  const [first, second] = place.split(":");
  const isPair = [...machine.spindles, ...machine.units].some(({ id }) => id === second);
  return isPair ? `${placeName(machine, first ?? "")} and ${lower(placeName(machine, second ?? ""))}` : placeName(machine, place);
}

export const stateIn = ({ states = {} }: Named, code: string | undefined): string =>
  code === undefined ? "" : (states[code] ?? unnamed(code));

export const worst = (marks: readonly Mark[] | undefined): Mark[] => {
  const of = (verdict: Mark["verdict"]) => (marks ?? []).filter((mark) => mark.verdict === verdict);
  const bad = [...of("stop"), ...of("out")];
  return bad.length > 0 ? bad : (marks ?? []).filter(({ verdict }) => verdict === "watch");
};

/** The places that are off, each with what it is; the first few, then how many more. */
export function sayMarks(face: Named, { marks }: Pick<Assessment, "marks">, { machine }: Told, allRight: string): string {
  const bad = worst(marks);
  if (bad.length === 0) return allRight;
  const said = bad.slice(0, 2).map(({ place, code }) => `${placeIn(face, machine, place)}: ${stateIn(face, code)}.`);
  return [...said, ...(bad.length > 2 ? [`${bad.length - 2} more.`] : [])].join(" ");
}

type AtPlace = { place: string };

export const unread =
  (face: () => Named) =>
  ({ place }: AtPlace, { machine }: Told): string =>
    `${lower(placeIn(face(), machine, place))} not read`;

export const noSuchBlade = ({ place }: AtPlace): string => `This machine has no blade called “${place}”.`;

export const sayScrap =
  (face: () => Named) =>
  ({ place, reason }: AtPlace & { reason: string }, { machine }: Told): string =>
    `${placeIn(face(), machine, place)}: scrap it (${stateIn(face(), reason)}). Never straighten, never weld`;

export const NEVER_STRAIGHTEN = "A bent or cracked blade is never straightened and never welded.";
export const REPAIR_SHELL = "Shell: hold it for a qualified welder, or another shell";
export const FULL_THROTTLE = "Throttle stays at full; speed is set with the travel control";
export const OPERATION_APART = "A matter of operation, kept apart from faults: a word with the operator, nothing to mend.";
export const CRANKSHAFT_OUT = "Hold it out: an engine's own shaft goes to a qualified shop";

export const sayDegrees = (radians: number): string => `${((radians * 180) / Math.PI).toFixed(2).replace("-", "−")}°`;

/** Radii are said in feet or metres. */
export function sayRadius(value: number, system: UnitSystem): string {
  return system === "us" ? `${(value / 0.3048).toFixed(value < 3 ? 1 : 0)} ft` : `${value.toFixed(1)} m`;
}
