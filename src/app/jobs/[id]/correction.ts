import { type DeckReadings, deckReadingsSchema } from "@/core/checks";
import type { Dimension, UnitSystem } from "@/core/units";
import type { Take } from "@/data/takes";
import { writeQuantity } from "@/ui/entry";
import type { DeckForm } from "@/ui/places/places";
import type { Draft } from "@/ui/places/use-worksheet";

const QUICK_READINGS = 4;

/** What each worksheet's fields hold. */
const READ: Record<string, { dimension: Dimension; quantity: string }> &
  Record<"tyre-pressure", { dimension: Dimension; quantity: string }> = {
  "tyre-pressure": { dimension: "pressure", quantity: "pressure_pascals" },
  "deck-level": { dimension: "length", quantity: "height_metres" },
};

/** A take laid out again for correction: every reading, in the units of whoever corrects, and all that went with them. */
export function correctionOf(take: Pick<Take, "stepId" | "checkId" | "input" | "readings">, system: UnitSystem): Partial<Draft> {
  const isLevel = take.checkId === "deck-level";
  const { dimension, quantity } = READ[take.checkId] ?? READ["tyre-pressure"];
  const written = (valueSi: number) => writeQuantity({ valueSi, dimension, system });
  const text = Object.fromEntries(
    take.readings.filter((one) => one.quantity === quantity).map(({ place, value }) => [place, written(value)]),
  );
  const base = { isOpen: true, correctsStepId: take.stepId, text, sure: text };
  if (!isLevel) return base;
  const input = deckReadingsSchema.parse(take.input);
  return {
    ...base,
    form: formOf(input),
    loose: input.looseHangerIds,
    isCarriedRound: input.isCarriedRound,
    floor: Object.fromEntries(floorHeights(input).map(([key, metres]) => [key, written(metres)])),
    wantedHeight: input.wantedCutHeightMetres === undefined ? "" : written(input.wantedCutHeightMetres),
  };
}

/** The form that holds a place for each of these readings. */
function formOf({ tips }: DeckReadings): DeckForm {
  if (tips.some(({ end }) => end)) return "full";
  return tips.length > QUICK_READINGS ? "twist" : "quick";
}

function floorHeights({ floor }: DeckReadings): [string, number][] {
  const wheels = (floor?.wheels ?? []).map(({ wheelId, heightMetres }): [string, number] => [wheelId, heightMetres]);
  const places = (floor?.places ?? []).map(({ spindleId, direction, heightMetres }): [string, number] => [
    `${spindleId}:${direction}`,
    heightMetres,
  ]);
  return [...wheels, ...places];
}
