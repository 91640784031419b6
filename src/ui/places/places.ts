import { type DeckReadings, fullForm, quickForm, type TipStation, type TyreReadings, twistForm } from "@/core/checks";
import type { Point } from "@/core/geometry";
import { type Machine, pointOf } from "@/core/machine";
import { type Dimension, INCH_METRES, type Instrument, PSI_PASCALS, type QuantityRange } from "@/core/units";
import { placeName } from "@/ui/words/checks";

/** Somewhere a reading is taken: on the drawing, in the table, and in the readings sent off. */
export type Place = { key: string; label: string; at: Point; dimension: Dimension; instrument: Instrument; range: QuantityRange };

export type DeckForm = "quick" | "twist" | "full";

const PRESSURE_RANGE: QuantityRange = { least: 0, most: 100 * PSI_PASCALS, usualLeast: 3 * PSI_PASCALS, usualMost: 50 * PSI_PASCALS };

/** Wheels in the order one walks round a machine: up the left side, down the right. */
function wheelPlaces(machine: Machine): Place[] {
  const tyres = machine.wheels.filter(({ isPneumatic }) => isPneumatic);
  const left = tyres.filter(({ xMetres }) => xMetres < 0).sort((a, b) => a.yMetres - b.yMetres);
  const right = tyres.filter(({ xMetres }) => xMetres >= 0).sort((a, b) => b.yMetres - a.yMetres);
  return [...left, ...right].map((wheel) => ({
    key: wheel.id,
    label: wheel.label,
    at: pointOf(wheel),
    dimension: "pressure",
    instrument: "gauge",
    range: PRESSURE_RANGE,
  }));
}

const FORMS: Record<DeckForm, (machine: Machine) => TipStation[]> = { quick: quickForm, twist: twistForm, full: fullForm };

function tipPlaces(machine: Machine, form: DeckForm): Place[] {
  const { heightLeastMetres: least = INCH_METRES, heightMostMetres: most = 5 * INCH_METRES } = machine.sheet;
  const range = { least: 0.003, most: Math.min(0.4, most + 0.075), usualLeast: Math.max(0.003, least - 0.02), usualMost: most + 0.02 };
  return FORMS[form](machine).map((station) => ({
    key: station.key,
    label: placeName(machine, station.key),
    at: drawnAt(machine, station),
    dimension: "length",
    instrument: "tape",
    range,
  }));
}

/** Both ends of a blade are read at the same point: end B is drawn a little inward so that each can be touched. */
const END_B_INWARD = 0.3;

function drawnAt(machine: Machine, station: TipStation): Point {
  const spindle = machine.spindles.find(({ id }) => id === station.spindleId);
  if (station.end !== "B" || !spindle) return station;
  return { x: station.x + (spindle.xMetres - station.x) * END_B_INWARD, y: station.y + (spindle.yMetres - station.y) * END_B_INWARD };
}

export function placesFor(args: { checkId: string; machine: Machine; form: DeckForm }): Place[] {
  if (args.checkId === "tyre-pressure") return wheelPlaces(args.machine);
  return args.checkId === "deck-level" ? tipPlaces(args.machine, args.form) : [];
}

export type ReadValue = { key: string; valueSi: number };

/** The readings of a check in its own form, from what was read at each place. */
export function readingsOf(args: {
  checkId: string;
  read: readonly ReadValue[];
  extra: {
    floor?: DeckReadings["floor"];
    wantedCutHeightMetres?: number;
    looseHangerIds?: string[];
    gaugeStepPascals?: number;
    isCarriedRound?: boolean;
  };
}): TyreReadings | Partial<DeckReadings> {
  if (args.checkId === "tyre-pressure") {
    const tyres = args.read.map(({ key, valueSi }) => ({ wheelId: key, pressurePascals: valueSi }));
    return { tyres, ...(args.extra.gaugeStepPascals ? { gaugeStepPascals: args.extra.gaugeStepPascals } : {}) };
  }
  const { wantedCutHeightMetres, looseHangerIds = [], floor, isCarriedRound = false } = args.extra;
  const tips = args.read.map(({ key, valueSi }) => {
    const [spindleId = "", direction, end] = key.split(":");
    return {
      spindleId,
      direction: direction as DeckReadings["tips"][number]["direction"],
      heightMetres: valueSi,
      ...(end ? { end: end as "A" | "B" } : {}),
    };
  });
  return {
    datum: "floor",
    tips,
    looseHangerIds,
    ...(isCarriedRound ? { isCarriedRound } : {}),
    ...(floor ? { floor } : {}),
    ...(wantedCutHeightMetres ? { wantedCutHeightMetres } : {}),
  };
}

/** Floor heights by key as the check takes them: a key with a direction is a tip's place, one without a wheel. */
export function floorOf(read: readonly ReadValue[]): NonNullable<DeckReadings["floor"]> {
  const wheels = read.filter(({ key }) => !key.includes(":")).map(({ key, valueSi }) => ({ wheelId: key, heightMetres: valueSi }));
  const places = read
    .filter(({ key }) => key.includes(":"))
    .map(({ key, valueSi }) => {
      const [spindleId = "", direction] = key.split(":");
      return { spindleId, direction: direction as DeckReadings["tips"][number]["direction"], heightMetres: valueSi };
    });
  return { wheels, places };
}

/** Where the floor is read: under every wheel, then under every tip of the form, ends not told apart. */
export function floorPlaces(machine: Machine, places: readonly Place[]): { key: string; label: string }[] {
  const tips = new Map(places.map(({ key }) => [key.split(":").slice(0, 2).join(":"), key]));
  return [
    ...machine.wheels.map(({ id, label }) => ({ key: id, label })),
    ...[...tips.keys()].map((key) => ({ key, label: placeName(machine, key) })),
  ];
}
