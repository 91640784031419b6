import type { CheckId } from "@/core/catalogue";
import { featuresOf } from "@/core/catalogue/kinds";
import type { Machine } from "@/core/machine";
import { choice, type Move, part, type SequenceState, type Step, sequenceState } from "./counted";

export type DeckStep = Step;
export type DeckMove = Move;
export type DeckState = SequenceState;

/** Before anything is loosened, and where the deck stands when it is out (common practice). */
const PHOTOGRAPHS: DeckStep = {
  id: "photographs",
  words: "Photograph the belt's path, the washer stacks, the shaft flats, and the blades as they sit",
  parts: [],
};
const DOWN: DeckStep = {
  id: "deck-down",
  words: "Deck down to the floor, blocks under its rim",
  backWords: "Deck up, blocks out from under it",
  parts: [],
};
const OUT: DeckStep = {
  id: "out",
  words: "Deck out, stood on something firm, its wheels blocked",
  backWords: "Deck in under the machine",
  parts: [],
};
/** A deck that is out is held before anybody reaches under it. */
const STOOD = choice(
  "stood",
  "The deck that is out",
  { id: "propped", label: "Propped or tied, wheels blocked" },
  { id: "flat", label: "Flat on the floor, wheels blocked" },
  { id: "loose", label: "Neither", refuses: "deck-not-propped" },
);
const BELT: DeckStep = {
  id: "belt",
  words: "Belt slack at the tensioner, with its lever and not the hand, and off",
  backWords: "Belt last, in this machine's pulley order, seen in each groove before the tensioner is let go",
  parts: [],
};

function linkStep(machine: Machine, isFront: boolean): DeckStep[] {
  const hangers = machine.deck?.hangers ?? [];
  const middle = hangers.reduce((sum, { yMetres }) => sum + yMetres, 0) / Math.max(1, hangers.length);
  const own = hangers.filter(({ yMetres }) => yMetres > middle === isFront);
  if (own.length === 0) return [];
  const name = isFront ? "front" : "rear";
  const names = own.map(({ label }) => label.toLowerCase()).join(", ");
  return [
    {
      id: `${name}-links`,
      words: `Links off${isFront ? " last" : ""}: ${names}`,
      backWords: `Links on, each the right way round: ${names}`,
      parts: [
        part(`${name}-pins`, `Pins, ${name}`, own.length),
        part(`${name}-clips`, `Clips, ${name}`, own.length),
        part(`${name}-washers`, `Washers, ${name}`, own.length),
      ],
    },
  ];
}

const isBelt = ({ id }: Step) => id === "belt" || id.startsWith("belt-");

/** Pulley by pulley, as the machine's own sketch has the belt. */
function beltOrder({ sheet }: Machine): string {
  return (sheet.belt?.pulleys ?? []).map(({ label }, k) => (k === 0 ? label : label.toLowerCase())).join(", then ");
}

/** The order this machine's deck comes off in: its sheet's, or the usual one for what it has. Empty where no deck comes off. */
export function deckSteps(machine: Machine): { off: Step[]; on: Step[] } {
  if (!machine.deck || machine.deck.mount === "fixed") return { off: [], on: [] };
  const own = machine.sheet.deckOff;
  const plain: readonly Step[] = own?.steps ?? [
    PHOTOGRAPHS,
    DOWN,
    ...(featuresOf(machine).includes("belt") ? [BELT] : []),
    ...linkStep(machine, false),
    ...linkStep(machine, true),
    OUT,
  ];
  const off = plain.map((step, k) => ({
    ...step,
    ...(k === plain.length - 1 ? { asks: [...(step.asks ?? []), STOOD] } : {}),
    ...(isBelt(step) && beltOrder(machine) ? { backWords: `${step.backWords ?? step.words}: ${beltOrder(machine)}` } : {}),
  }));
  const first = own?.backFirst ?? [];
  const back = [...off].filter(({ id }) => id !== PHOTOGRAPHS.id).reverse();
  return { off, on: [...back.filter(({ id }) => first.includes(id)), ...back.filter(({ id }) => !first.includes(id))] };
}

/** The usual order for what a machine has, as a sheet of its own would begin; none where no deck comes off. The belt's path is said when it is gone through. */
export function usualDeckOff(machine: Machine): NonNullable<Machine["sheet"]["deckOff"]> | undefined {
  const { off } = deckSteps({ ...machine, sheet: { ...machine.sheet, deckOff: undefined, belt: undefined } } as Machine);
  const steps = off.map(({ id, words, backWords, parts }) => ({ id, words, ...(backWords === undefined ? {} : { backWords }), parts }));
  return steps.length === 0 ? undefined : { steps, backFirst: [] };
}

/** Where a deck is, from the moves made so far; a round that was finished is forgotten, so that the next one begins with photographs. */
export function deckState(machine: Machine, moves: readonly DeckMove[]): DeckState {
  return sequenceState(deckSteps(machine), moves);
}

/** What is cheap to look at while the deck is off (common practice). */
export const WHILE_OFF: readonly CheckId[] = [
  "spindle-play",
  "belt-inspection",
  "hanger-inspection",
  "deck-cleanliness",
  "blade-edge",
  "blade-fit",
];
