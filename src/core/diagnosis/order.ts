import type { CauseId, CheckId, CheckState } from "@/core/catalogue";
import { minutesToName, type Outline } from "./foresight";
import type { Gain } from "./gains";
import type { KnownCheck } from "./knowledge";
import { setUpMinutes } from "./set-up";

/** A check that can be made, or of one that was made what is looked at once more: these causes. */
export type Offered = KnownCheck & { again?: CauseId[] };

/** A check that tells less than this is not worth walking to the machine for. */
export const LEAST_BITS = 1e-3;

export type Information = {
  offered: readonly Offered[];
  gains: readonly Gain[];
  /** Gains that go before all others: one check is taken by them first. */
  first: readonly Gain[];
  state: CheckState;
  minutesLeft?: number | undefined;
};

export function walkRound(args: { offered: readonly Offered[]; state: CheckState; minutesLeft?: number }): Offered[] {
  const all = [...args.offered].sort((a, b) => a.place - b.place);
  let left = args.minutesLeft ?? Number.POSITIVE_INFINITY;
  let state = args.state;
  const within: Offered[] = [];
  for (const check of all) {
    const cost = setUpMinutes(state, check.state) + check.minutes;
    if (cost > left) break;
    left -= cost;
    state = check.state;
    within.push(check);
  }
  return within;
}

/** So many of the likeliest first checks are tried, each with the order that would follow it. Estimate. */
const TRIED = 4;
/** Another is taken first only where it saves more than looking ahead errs by. Estimate. */
const WORTH_CHANGING = 0.95;
/** Where a check looks at what is likelier than not, nobody goes elsewhere first for less than this saves. Estimate. */
const WORTH_LEAVING = 0.92;

const speaksTo = ({ figures }: Offered, cause: CauseId | undefined): boolean =>
  cause !== undefined && figures.some((figure) => figure.includes(cause));

/** Of the checks that might come first, each followed by what tells most after it, the one after which the cause is named soonest. */
export function foreseen(
  args: Information & {
    outline: () => Outline;
    /** A cause that is likelier than not. */
    likeliest?: CauseId | undefined;
  },
): Offered[] {
  const suggested = byInformation(args);
  if (suggested.length < 2 || args.first.length > 0 || args.minutesLeft !== undefined) return suggested;
  const bitsOf = new Map(args.gains.map(({ check, bits }) => [check, bits]));
  const perMinute = (check: Offered) => (bitsOf.get(check.id) ?? 0) / (check.minutes + setUpMinutes(args.state, check.state));
  const [first, ...rest] = suggested as [Offered, ...Offered[]];
  const minutesAfter = minutesToName({ ...args, outline: args.outline() });
  const others = rest.sort((a, b) => perMinute(b) - perMinute(a)).slice(0, TRIED);
  const { check: soonest } = [first, ...others]
    .map((check) => ({ check, minutes: minutesAfter(check) * (speaksTo(check, args.likeliest) ? WORTH_LEAVING : 1) }))
    .reduce((best, one) => (one.minutes < best.minutes * WORTH_CHANGING ? one : best));
  if (soonest === first) return suggested;
  return [soonest, ...byInformation({ ...args, offered: args.offered.filter((one) => one !== soonest), state: soonest.state })];
}

type Visit = { checks: Offered[]; bits: number; minutes: number };

/** Goes to the state whose best run of checks tells most per minute, and on from there. */
export function byInformation(args: Information): Offered[] {
  const bitsOf = new Map(args.gains.map(({ check, bits }) => [check, bits]));
  let left = args.minutesLeft ?? Number.POSITIVE_INFINITY;
  const leader = firstOf(args, left);
  const sequence: Offered[] = leader ? [leader] : [];
  left -= leader ? setUpMinutes(args.state, leader.state) + leader.minutes : 0;
  let rest = args.offered.filter((check) => check !== leader && (bitsOf.get(check.id) ?? 0) >= LEAST_BITS);
  let state = leader?.state ?? args.state;
  // Each visit makes at least one of them.
  for (let k = args.offered.length; k > 0 && rest.length > 0; k--) {
    const visit = bestVisit({ rest, bitsOf, state, left });
    if (!visit) break;
    sequence.push(...visit.checks);
    left -= visit.minutes;
    state = visit.checks[0]?.state ?? state;
    rest = rest.filter((check) => !visit.checks.includes(check));
  }
  return sequence;
}

function firstOf(
  { first, offered, state }: { first: readonly Gain[]; offered: readonly Offered[]; state: CheckState },
  left: number,
): KnownCheck | undefined {
  const bitsOf = new Map(first.map(({ check, bits }) => [check, bits]));
  return bestVisit({ rest: offered.filter(({ id }) => bitsOf.has(id)), bitsOf, state, left })?.checks[0];
}

function bestVisit(args: {
  rest: readonly Offered[];
  bitsOf: ReadonlyMap<CheckId, number>;
  state: CheckState;
  left: number;
}): Visit | undefined {
  const states = [...new Set(args.rest.map(({ state }) => state))];
  return states.flatMap((state) => bestRun({ ...args, to: state })).sort((a, b) => b.bits / b.minutes - a.bits / a.minutes)[0];
}

function bestRun(args: {
  rest: readonly Offered[];
  bitsOf: ReadonlyMap<CheckId, number>;
  state: CheckState;
  to: CheckState;
  left: number;
}): Visit[] {
  const bits = (check: KnownCheck) => args.bitsOf.get(check.id) ?? 0;
  const there = args.rest.filter(({ state }) => state === args.to).sort((a, b) => bits(b) / b.minutes - bits(a) / a.minutes);
  let run: Visit = { checks: [], bits: 0, minutes: setUpMinutes(args.state, args.to) };
  let best: Visit | undefined;
  for (const check of there) {
    if (run.minutes + check.minutes > args.left) continue;
    run = { checks: [...run.checks, check], bits: run.bits + bits(check), minutes: run.minutes + check.minutes };
    if (!best || run.bits / run.minutes > best.bits / best.minutes) best = run;
  }
  return best ? [best] : [];
}
