import { isIncredibleTorque } from "@/core/physics/blades/bolts";

export type Part = { id: string; label: string; count: number };
/** Asked at a step: one of several answers, of which some do not let it go on; or a size, at the most so large, and good within so much of nought. */
export type Ask =
  | { kind: "choice"; id: string; label: string; options: readonly AskOption[] }
  | { kind: "length"; id: string; label: string; most: number; within?: number }
  /** By wrench is said with its figure, unless what is asked beside it says that it was by feel. */
  | { kind: "torque"; id: string; label: string; wanted?: number; unless: { ask: string; is: string } };
/** `refuses`: why it does not go on like this; `owes`: what it leaves owed; `isOdd`: not as built. */
export type AskOption = { id: string; label: string; refuses?: string; owes?: string; isOdd?: boolean };
export type Step = {
  id: string;
  words: string;
  backWords?: string | undefined;
  parts: Part[];
  asks?: readonly Ask[];
  backAsks?: readonly Ask[];
};
export type Way = "off" | "on";

/** Taking something apart and putting it together again, each in its own order. */
export type Order = { off: readonly Step[]; on: readonly Step[] };

/** One step done, in the order it was: how many of each part were counted, into the tray or out of it. */
export type Move = {
  way: Way;
  step: string;
  counts: Readonly<Record<string, number>>;
  answers?: Readonly<Record<string, string>>;
  /** SI. */
  sizes?: Readonly<Record<string, number>>;
  /** Steps that were left of its round after it, by the order as it then stood. */
  left?: number | undefined;
};

export type Place = "on" | "coming-off" | "off" | "going-on";

export type SequenceState = {
  where: Place;
  /** The step to do next, and which way it goes. */
  next?: { way: Way; step: Step };
  done: { way: Way; step: Step }[];
  /** What lies in the tray, and what is short of the count. */
  tray: (Part & { inTray: number; missing: number })[];
};

export const choice = (id: string, label: string, ...options: AskOption[]): Ask => ({ kind: "choice", id, label, options });
export const part = (id: string, label: string, count: number): Part => ({ id, label, count });

/**
 * The moves of the round in hand: one that was finished is forgotten, so that the next begins at its first step. Rounds are told apart by what was done and
 * not by counting: the order may have another length by now. A move that does not say what was left after it was the last where it is the order's own last.
 */
function current<M extends Move>({ off, on }: Order, moves: readonly M[]): M[] {
  const start = moves.findLastIndex(({ way }, k) => way === "off" && (k === 0 || moves[k - 1]?.way === "on"));
  const round = moves.slice(Math.max(0, start));
  const last = round.at(-1);
  const isDone = last?.left === undefined ? last?.way === "on" && last.step === on.at(-1)?.id : last.left === 0;
  return isDone || off.length + on.length === 0 ? [] : round;
}

export function sequenceState(order: Order, moves: readonly Move[]): SequenceState {
  const made = current(order, moves);
  const all = [...order.off.map((step) => ({ way: "off" as const, step })), ...order.on.map((step) => ({ way: "on" as const, step }))];
  const next = all[made.length];
  return {
    where: placeOf(order, made.length),
    done: all.slice(0, made.length),
    tray: trayOf(order, made),
    ...(next ? { next } : {}),
  };
}

function placeOf({ off }: Order, made: number): Place {
  if (made === 0) return "on";
  if (made === off.length) return "off";
  return made < off.length ? "coming-off" : "going-on";
}

function trayOf({ off }: Order, moves: readonly Move[]): SequenceState["tray"] {
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
  | { code: "more-than-there-are" | "fewer-back-than-came-off"; part: string; wanted: number }
  | { code: "nothing-counted" }
  | { code: "unanswered"; ask: string }
  | { code: "refused-answer"; ask: string; why: string }
  | { code: "size-not-credible"; ask: string; most: number }
  | { code: "size-not-home"; ask: string; within: number }
  | { code: "wrench-without-figure"; ask: string }
  | { code: "torque-not-credible"; ask: string; wantedNewtonMetres?: number };

export const asksOf = (step: Step, way: Way): readonly Ask[] => (way === "off" ? step.asks : step.backAsks) ?? [];

/** What was chosen at these moves, with what it was asked as. */
export function chosenAt(order: Order, moves: readonly Move[]): { asked: string; option: AskOption }[] {
  return moves.flatMap(({ way, step: id, answers = {} }) => {
    const step = order[way].find((one) => one.id === id);
    return (step ? asksOf(step, way) : []).flatMap((ask) => {
      const option = ask.kind === "choice" ? ask.options.find((one) => one.id === answers[ask.id]) : undefined;
      return option ? [{ asked: ask.label, option }] : [];
    });
  });
}

/** Why a move cannot stand: another step comes first, or what is wrong with how it was done. */
export function moveProblems(order: Order, moves: readonly Move[], move: Move): MoveProblem[] {
  const { next, tray } = sequenceState(order, moves);
  if (!next || next.way !== move.way || next.step.id !== move.step) return [{ code: "not-the-next-step" }];
  return stepProblems(next.step, tray, move);
}

/** What is wrong with how a step was done: nothing counted, a question unanswered or answered badly, a size nobody measures, parts astray. */
export function stepProblems(step: Step, tray: SequenceState["tray"], move: Omit<Move, "step">): MoveProblem[] {
  const hasNothing = move.way === "off" && step.parts.length > 0 && step.parts.every(({ id }) => (move.counts[id] ?? 0) === 0);
  return [
    ...(hasNothing ? [{ code: "nothing-counted" as const }] : []),
    ...asksOf(step, move.way).flatMap((ask) => askProblem(ask, move)),
    ...countProblems(step, tray, move),
  ];
}

/** A choice wants its answer; a length may stay unmeasured, is no longer than anything here, and measured stands against what the eye said. */
function askProblem(ask: Ask, { answers = {}, sizes = {} }: Omit<Move, "step">): MoveProblem[] {
  if (ask.kind === "choice") {
    const option = ask.options.find(({ id }) => id === answers[ask.id]);
    if (!option) return [{ code: "unanswered", ask: ask.id }];
    return option.refuses ? [{ code: "refused-answer", ask: ask.id, why: option.refuses }] : [];
  }
  const size = sizes[ask.id];
  if (ask.kind === "length") return lengthProblem(ask, size);
  if (answers[ask.unless.ask] === ask.unless.is) return [];
  if (size === undefined) return [{ code: "wrench-without-figure", ask: ask.id }];
  const { wanted } = ask;
  return size <= 0 || isIncredibleTorque(size, wanted)
    ? [{ code: "torque-not-credible", ask: ask.id, ...(wanted === undefined ? {} : { wantedNewtonMetres: wanted }) }]
    : [];
}

function lengthProblem({ id: ask, most, within }: Extract<Ask, { kind: "length" }>, size = 0): MoveProblem[] {
  if (Math.abs(size) > most) return [{ code: "size-not-credible", ask, most }];
  return within !== undefined && Math.abs(size) > within ? [{ code: "size-not-home", ask, within }] : [];
}

/** What lies in the tray goes back, though a list told since counts fewer. */
function countProblems(step: Step, tray: SequenceState["tray"], move: Omit<Move, "step">): MoveProblem[] {
  return step.parts.flatMap(({ id, count }): MoveProblem[] => {
    const counted = move.counts[id] ?? 0;
    const lies = tray.find((one) => one.id === id)?.inTray ?? 0;
    const most = move.way === "on" ? Math.max(count, lies) : count;
    if (counted > most) return [{ code: "more-than-there-are", part: id, wanted: most }];
    return move.way === "on" && counted < lies ? [{ code: "fewer-back-than-came-off", part: id, wanted: lies }] : [];
  });
}
