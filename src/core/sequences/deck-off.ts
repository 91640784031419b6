import type { CheckId } from "@/core/diagnosis";
import { featuresOf } from "@/core/kinds";
import type { Machine } from "@/core/machine";

export type Part = { id: string; label: string; count: number };
export type DeckStep = { id: string; words: string; backWords?: string | undefined; parts: Part[] };
export type Way = "off" | "on";

/** One step done, in the order it was: how many of each part were counted, into the tray or out of it. */
export type DeckMove = { way: Way; step: string; counts: Readonly<Record<string, number>> };

const part = (id: string, label: string, count: number): Part => ({ id, label, count });

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
      parts: [part(`${name}-pins`, `Pins, ${name}`, own.length), part(`${name}-clips`, `Clips, ${name}`, own.length)],
    },
  ];
}

/** The order this machine's deck comes off in: its sheet's, or the usual one for what it has. Empty where no deck comes off. */
export function deckSteps(machine: Machine): { off: DeckStep[]; on: DeckStep[] } {
  if (!machine.deck || machine.deck.mount === "fixed") return { off: [], on: [] };
  const own = machine.sheet.deckOff;
  const off = own?.steps ?? [
    PHOTOGRAPHS,
    DOWN,
    ...(featuresOf(machine).includes("belt") ? [BELT] : []),
    ...linkStep(machine, false),
    ...linkStep(machine, true),
    OUT,
  ];
  const first = own?.backFirst ?? [];
  const back = [...off].filter(({ id }) => id !== PHOTOGRAPHS.id).reverse();
  return { off, on: [...back.filter(({ id }) => first.includes(id)), ...back.filter(({ id }) => !first.includes(id))] };
}

export type DeckState = {
  where: "on" | "coming-off" | "off" | "going-on";
  /** The step to do next, and which way it goes. */
  next?: { way: Way; step: DeckStep };
  done: { way: Way; step: DeckStep }[];
  /** What lies in the tray, and what is short of the count. */
  tray: (Part & { inTray: number; missing: number })[];
};

/** Where a deck is, from the moves made so far; a round that was finished is forgotten, so that the next one begins with photographs. */
export function deckState(machine: Machine, moves: readonly DeckMove[]): DeckState {
  const { off, on } = deckSteps(machine);
  const round = off.length + on.length;
  const current = round === 0 ? [] : moves.slice(Math.floor(moves.length / round) * round);
  const order = [...off.map((step) => ({ way: "off" as const, step })), ...on.map((step) => ({ way: "on" as const, step }))];
  const done = order.slice(0, current.length);
  const next = order[current.length];
  const isFresh = current.length === 0;
  const where = isFresh ? "on" : current.length < off.length ? "coming-off" : current.length === off.length ? "off" : "going-on";
  return { where, done, tray: trayOf(off, current), ...(next ? { next } : {}) };
}

function trayOf(off: readonly DeckStep[], moves: readonly DeckMove[]): DeckState["tray"] {
  return off.flatMap(({ parts }) =>
    parts.flatMap((one) => {
      const counted = (way: Way) => moves.filter((move) => move.way === way).reduce((sum, { counts }) => sum + (counts[one.id] ?? 0), 0);
      const [into, out] = [counted("off"), counted("on")];
      const wasTouched = moves.some(({ counts }) => one.id in counts);
      return wasTouched ? [{ ...one, inTray: into - out, missing: Math.max(0, one.count - into) }] : [];
    }),
  );
}

export type MoveProblem =
  | { code: "not-the-next-step" }
  | { code: "more-than-there-are" | "fewer-back-than-came-off"; part: string; wanted: number };

/** Why a move cannot stand: another step comes first, more parts than there are, or fewer put back than lie in the tray. */
export function moveProblems(machine: Machine, moves: readonly DeckMove[], move: DeckMove): MoveProblem[] {
  const { next, tray } = deckState(machine, moves);
  if (!next || next.way !== move.way || next.step.id !== move.step) return [{ code: "not-the-next-step" }];
  return next.step.parts.flatMap(({ id, count }): MoveProblem[] => {
    const counted = move.counts[id] ?? 0;
    if (counted > count) return [{ code: "more-than-there-are", part: id, wanted: count }];
    const lies = tray.find((one) => one.id === id)?.inTray ?? 0;
    return move.way === "on" && counted < lies ? [{ code: "fewer-back-than-came-off", part: id, wanted: lies }] : [];
  });
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
