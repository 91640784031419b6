export type Part = { id: string; label: string; count: number };
export type Step = { id: string; words: string; backWords?: string | undefined; parts: Part[] };
export type Way = "off" | "on";

/** Taking something apart and putting it together again, each in its own order. */
export type Order = { off: readonly Step[]; on: readonly Step[] };

/** One step done, in the order it was: how many of each part were counted, into the tray or out of it. */
export type Move = { way: Way; step: string; counts: Readonly<Record<string, number>> };

export type Place = "on" | "coming-off" | "off" | "going-on";

export type SequenceState = {
  where: Place;
  /** The step to do next, and which way it goes. */
  next?: { way: Way; step: Step };
  done: { way: Way; step: Step }[];
  /** What lies in the tray, and what is short of the count. */
  tray: (Part & { inTray: number; missing: number })[];
};

export const part = (id: string, label: string, count: number): Part => ({ id, label, count });

/** The moves of the round in hand: one that was finished is forgotten, so that the next begins at its first step. */
function current<M extends Move>({ off, on }: Order, moves: readonly M[]): M[] {
  const round = off.length + on.length;
  return round === 0 ? [] : moves.slice(Math.floor(moves.length / round) * round);
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
  | { code: "more-than-there-are" | "fewer-back-than-came-off"; part: string; wanted: number };

/** Why a move cannot stand: another step comes first, more parts than there are, or fewer put back than lie in the tray. */
export function moveProblems(order: Order, moves: readonly Move[], move: Move): MoveProblem[] {
  const { next, tray } = sequenceState(order, moves);
  if (!next || next.way !== move.way || next.step.id !== move.step) return [{ code: "not-the-next-step" }];
  return next.step.parts.flatMap(({ id, count }): MoveProblem[] => {
    const counted = move.counts[id] ?? 0;
    if (counted > count) return [{ code: "more-than-there-are", part: id, wanted: count }];
    const lies = tray.find((one) => one.id === id)?.inTray ?? 0;
    return move.way === "on" && counted < lies ? [{ code: "fewer-back-than-came-off", part: id, wanted: lies }] : [];
  });
}
