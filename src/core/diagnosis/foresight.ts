import type { CauseId, CheckState } from "@/core/trade";
import type { KnownCheck } from "./knowledge";
import { EXPLAINED_LEVEL } from "./levels";
import { setUpMinutes } from "./set-up";

/** What may have shown the complaint, one of them in each world looked ahead into: how likely, in proportion. */
export type Suspect = { id: CauseId; weight: number; isBacked: boolean };

/** What a plain look is worth in a world looked ahead into: less than one seen for certain, more than a suspicion. Estimate. */
const LOOK_RATIO = 30;
/** Worlds whose share is less are not looked into: together they are a tenth at most. */
const MOST_WORLDS = 12;
const MOST_STEPS = 20;

/**
 * Minutes until the cause is named, should this check be made first and what tells most after it: over the worlds in which each suspect alone
 * is what shows, weighed by how likely each is. In each the looks come out as they would there, every suspect's weight moves by them, and it ends
 * once that suspect stands above the level with a check that speaks for it, or no check is left. Rollout of a base policy (published: Bertsekas
 * and Castañon 1999, from memory).
 */
export function minutesToName(args: {
  first: KnownCheck;
  offered: readonly KnownCheck[];
  suspects: readonly Suspect[];
  state: CheckState;
}): number {
  const { first, suspects } = args;
  const index = new Map(suspects.map(({ id }, k) => [id, k]));
  const figuresOf = new Map(
    args.offered.map((check) => [
      check,
      check.figures.map((figure) => figure.flatMap((id) => index.get(id) ?? [])).filter((f) => f.length > 0),
    ]),
  );
  const useful = args.offered.filter((check) => check === first || (figuresOf.get(check)?.length ?? 0) > 0);
  const worlds = suspects
    .map(({ weight }, k) => ({ k, weight }))
    .sort((a, b) => b.weight - a.weight)
    .slice(0, MOST_WORLDS);
  const whole = worlds.reduce((sum, { weight }) => sum + weight, 0);
  return worlds.reduce((sum, { k, weight }) => sum + (weight / whole) * minutesIn({ ...args, world: k, useful, figuresOf }), 0);
}

type Figures = ReadonlyMap<KnownCheck, readonly (readonly number[])[]>;

function minutesIn(args: {
  first: KnownCheck;
  suspects: readonly Suspect[];
  state: CheckState;
  world: number;
  useful: readonly KnownCheck[];
  figuresOf: Figures;
}): number {
  const { suspects, world, figuresOf } = args;
  const weights = suspects.map(({ weight }) => weight);
  let isBacked = suspects[world]?.isBacked ?? false;
  let [left, state, minutes] = [args.useful, args.state, 0];
  for (let k = 0; k < MOST_STEPS; k++) {
    const total = weights.reduce((sum, one) => sum + one, 0);
    if (isBacked && (weights[world] as number) >= EXPLAINED_LEVEL * total) return minutes;
    const next = k === 0 ? args.first : telling(left, figuresOf, weights, state);
    if (!next) return minutes;
    minutes += setUpMinutes(state, next.state) + next.minutes;
    state = next.state;
    left = left.filter((check) => check !== next);
    const { sensitivity, specificity } = next;
    for (const figure of figuresOf.get(next) ?? []) {
      const isPositive = figure.includes(world);
      isBacked ||= isPositive;
      const ratio = isPositive ? Math.max(LOOK_RATIO, sensitivity / (1 - specificity)) : (1 - sensitivity) / specificity;
      for (const one of figure) weights[one] = (weights[one] as number) * ratio;
    }
  }
  return minutes;
}

/** The check that finds most of what is still hidden for its minutes. */
function telling(left: readonly KnownCheck[], figuresOf: Figures, weights: readonly number[], state: CheckState): KnownCheck | undefined {
  let [best, most] = [undefined as KnownCheck | undefined, 0];
  for (const check of left) {
    let found = 0;
    for (const figure of figuresOf.get(check) ?? []) for (const one of figure) found += weights[one] as number;
    const rate = (found * check.sensitivity) / (setUpMinutes(state, check.state) + check.minutes);
    if (rate > most) [best, most] = [check, rate];
  }
  return best;
}
