import { type Ask, asksOf, type Move, type Order, type Step, type Way } from "./counted";

/** What a wrench is set to where the sheet does not say. Of these tests alone, N·m. */
const SOME_TORQUE = 100;

/** A step done as on a good day: everything counted, each question answered with the first that lets it go on, the wrench set as the sheet has it. */
export function usualMove(step: Step, way: Way): Move {
  const asks = asksOf(step, way);
  return {
    way,
    step: step.id,
    counts: Object.fromEntries(step.parts.map(({ id, count }) => [id, count])),
    answers: Object.fromEntries(asks.flatMap((ask) => usualAnswer(ask))),
    sizes: Object.fromEntries(asks.flatMap((ask) => (ask.kind === "torque" ? [[ask.id, ask.wanted ?? SOME_TORQUE]] : []))),
  };
}

function usualAnswer(ask: Ask): [string, string][] {
  const usual = ask.kind === "choice" ? ask.options.find(({ refuses }) => !refuses) : undefined;
  return usual ? [[ask.id, usual.id]] : [];
}

/** A whole round, off and on again, each step as on a good day. */
export const usualMoves = (order: Order): Move[] =>
  (["off", "on"] as const).flatMap((way) => order[way].map((step) => usualMove(step, way)));
