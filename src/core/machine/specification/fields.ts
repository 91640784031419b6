import { featuresOf } from "@/core/catalogue/kinds";
import type { Machine } from "@/core/machine";
import * as ofParts from "./part-specs";
import * as ofPlaces from "./place-specs";
import type { FieldSpec } from "./spec";
import { BRACKETS, EVERY_UNIT, OWN_OF_UNIT, SIDE_VIEW, type UnitPart } from "./unit-specs";

/**
 * `key`: the path with members named by their id, as whose word it is and differences are kept; `at`: the place it belongs to, or the sheet's part;
 * `own`: the part of a unit's sheet it is told in, where it sets that unit apart.
 */
export type SheetField = FieldSpec & { key: string; at: string; own?: UnitPart };

/** Parts of a sheet that belong to no one place. */
export type SheetPart =
  | "cut"
  | "tyres"
  | "weight"
  | "blade"
  | "drive"
  | "deck-off"
  | "safety"
  | "service"
  | "unit"
  | "side-view"
  | "brackets"
  | "note";

const partFields = (part: SheetPart, specs: readonly FieldSpec[]): SheetField[] =>
  specs.map((spec) => ({ ...spec, at: part, key: spec.path.join(".") }));

/** Lists of places and what each of them says. */
export type PlaceSort = "wheels" | "spindles" | "units" | "hangers" | "antiScalpWheels" | "gearboxes";
const LISTS: Readonly<Record<PlaceSort, readonly string[]>> = {
  wheels: ["wheels"],
  spindles: ["spindles"],
  units: ["units"],
  hangers: ["deck", "hangers"],
  antiScalpWheels: ["deck", "antiScalpWheels"],
  gearboxes: ["sheet", "gearboxes"],
};
const OF_PLACE: Readonly<Record<PlaceSort, readonly FieldSpec[]>> = {
  wheels: ofPlaces.WHEEL,
  spindles: ofPlaces.SPINDLE,
  units: ofPlaces.UNIT,
  hangers: ofPlaces.HANGER,
  antiScalpWheels: ofPlaces.RIM,
  gearboxes: ofPlaces.BOX,
};

export type SheetPlace = { sort: PlaceSort; id: string; label: string; xMetres: number; yMetres: number };

/** Every place of a machine that can be dragged about on its plan. */
export function sheetPlaces(machine: Machine): SheetPlace[] {
  const named = (sort: PlaceSort, all: readonly { id: string; label: string; xMetres: number; yMetres: number }[]) =>
    all.map(({ id, label, xMetres, yMetres }) => ({ sort, id, label, xMetres, yMetres }));
  return [
    ...named("spindles", machine.spindles),
    ...named("units", machine.units),
    ...named("hangers", machine.deck?.hangers ?? []),
    ...named("antiScalpWheels", machine.deck?.antiScalpWheels ?? []),
    ...named("wheels", machine.wheels),
    ...named("gearboxes", machine.sheet.gearboxes ?? []),
  ];
}

export const placeKey = ({ sort, id }: Pick<SheetPlace, "sort" | "id">, ...path: readonly string[]): string =>
  [...LISTS[sort], id, ...path].join(".");

/** What a place says that hangs on what else the machine has. */
function moreOf(machine: Machine, { sort, id }: SheetPlace): readonly FieldSpec[] {
  if (sort === "antiScalpWheels") return [ofPlaces.twinOf((machine.deck?.antiScalpWheels ?? []).filter((one) => one.id !== id))];
  if (sort !== "wheels") return [];
  const isAir = machine.wheels.find((wheel) => wheel.id === id)?.isPneumatic === true;
  return [ofPlaces.axleOf(machine.wheels.map(({ axle }) => axle)), ...(isAir ? ofPlaces.AIR : [])];
}

/** Every value of a machine's sheet that can be typed, place by place, then part by part. */
export function fieldsOf(machine: Machine): SheetField[] {
  const ofEach = sheetPlaces(machine).flatMap((place): SheetField[] => {
    const field = (spec: FieldSpec) => ({ ...spec, at: place.id, key: placeKey(place, ...spec.path) });
    const own = place.sort === "units" ? OWN_OF_UNIT.map(({ part, spec }) => ({ ...field(spec), own: part })) : [];
    return [...[...OF_PLACE[place.sort], ...moreOf(machine, place)].map(field), ...own];
  });
  const features = featuresOf(machine);
  const isRotary = machine.spindles.length > 0;
  const { deck, sheet } = machine;
  const comesOff = deck !== undefined && deck.mount !== "fixed";
  return [
    ...ofEach,
    ...partFields("cut", [...ofParts.CUT, ...(isRotary && deck ? ofParts.DECK : [])]),
    ...(features.includes("air-tyres") ? partFields("tyres", ofParts.TYRES) : []),
    ...partFields("weight", [
      ...ofParts.WEIGHT,
      ...(deck ? ofParts.DECK_WEIGHT : []),
      ...(machine.wheels.length > 0 ? [ofPlaces.pivotsOf(machine.wheels.map(({ axle }) => axle))] : []),
    ]),
    ...(isRotary
      ? partFields("blade", ofParts.BLADE)
      : [...partFields("unit", EVERY_UNIT), ...partFields("side-view", SIDE_VIEW), ...partFields("brackets", BRACKETS)]),
    ...(isRotary ? partFields("drive", [...ofParts.DRIVE, ...(features.includes("gears") ? [ofParts.RATIO] : [])]) : []),
    ...(comesOff || sheet.deckOff ? partFields("deck-off", [ofParts.DECK_OFF]) : []),
    ...partFields("safety", [...ofParts.SAFETY, ...(features.includes("battery") ? [ofParts.PACK] : [])]),
    ...(isRotary && !features.includes("direct-drive") ? partFields("service", [...ofParts.GREASE, ...ofParts.SPINDLES]) : []),
    ...partFields("note", [ofParts.NOTE]),
  ];
}

type Loose = Record<string, unknown>;
const isLoose = (value: unknown): value is Loose => typeof value === "object" && value !== null && !Array.isArray(value);
const named = (list: readonly unknown[], id: string) => list.findIndex((one) => isLoose(one) && one.id === id);

/** What stands at a key; `undefined` where nothing does. */
export function valueAt(machine: unknown, key: string): unknown {
  return key.split(".").reduce<unknown>((at, part) => {
    if (Array.isArray(at)) return at[named(at, part)];
    return isLoose(at) && Object.hasOwn(at, part) ? at[part] : undefined;
  }, machine);
}

/**
 * The machine with another value at a key; `undefined` takes it away, and with it what then holds nothing. A member of a list that is not there is not made
 * up: the machine comes back as it was.
 */
export function withValue<M>(machine: M, key: string, value: unknown): M {
  const next = put(machine, key.split("."), value);
  // The sheet itself stays, however little is on it.
  return (isLoose(next) && isLoose(machine) && isLoose(machine.sheet) && next.sheet === undefined ? { ...next, sheet: {} } : next) as M;
}

function put(at: unknown, [part, ...rest]: readonly string[], value: unknown): unknown {
  if (part === undefined) return value;
  if (Array.isArray(at)) {
    const k = named(at, part);
    return k < 0 ? at : at.map((one, i) => (i === k ? put(one, rest, value) : one));
  }
  const before = isLoose(at) ? at : {};
  const next = put(Object.hasOwn(before, part) ? before[part] : undefined, rest, value);
  if (next !== undefined) return { ...before, [part]: next };
  const { [part]: _, ...left } = before;
  return Object.keys(left).length === 0 ? undefined : left;
}
