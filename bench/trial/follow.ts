import type { CheckId, CheckState } from "@/core/catalogue";
import { type Case, type CaseEvidence, diagnose, EXPLAINED_LEVEL, type Knowledge, planChecks, setUpMinutes } from "@/core/diagnosis";
import { presenceOf } from "@/core/diagnosis/case";
import { causesOf } from "@/core/diagnosis/evidence";
import { secondLookMinutes } from "@/core/diagnosis/second-looks";
import { shuffled, type TrialCase } from "./cases";

export const ORDERS = ["information", "walk-round", "random", "posterior-per-minute"] as const;
export type Order = (typeof ORDERS)[number];

/** A cause said to be this likely, and whether it was there. */
export type Said = { probability: number; isThere: boolean };

export type Followed = { minutes?: number; checks: number; said: Said[] };

/** Makes the checks of one order until every cause to be found stands above the level; `minutes` is missing when none are left first. */
export function follow(args: { knowledge: Knowledge; trial: TrialCase; order: Order; random: () => number }): Followed {
  const { knowledge, trial, order } = args;
  const line = shuffled(knowledge.checks, args.random).map(({ id }) => id);
  const done: CheckId[] = [];
  const said: Said[] = [];
  let given = trial.given;
  let state: CheckState = "parked";
  let minutes = 0;
  for (;;) {
    const presence = presenceOf(knowledge, given);
    for (const [cause, probability] of presence) said.push({ probability, isThere: trial.present.has(cause) });
    if (trial.targets.every((cause) => (presence.get(cause) ?? 0) >= EXPLAINED_LEVEL)) return { minutes, checks: done.length, said };
    const next = choose({ knowledge, given, state, done, order, line });
    const check = knowledge.checks.find(({ id }) => id === next?.id);
    if (!next || !check) return { checks: done.length, said };
    minutes += setUpMinutes(state, check.state) + (next.again ? secondLookMinutes(check) : check.minutes);
    state = check.state;
    done.push(check.id);
    const looks = trial.findings.get(check.id) ?? [];
    given = { ...given, evidence: [...given.evidence, ...(next.again ? lookedAgain(looks, next.again) : (looks[0] ?? []))] };
  }
}

/** A second look at these causes alone, and a third at those of which the first two differ. */
function lookedAgain([first = [], second = [], third = []]: CaseEvidence[][], again: readonly string[]): CaseEvidence[] {
  return second
    .filter((one) => causesOf(one).some((cause) => again.includes(cause)))
    .flatMap((one) => {
      const agrees = first.some((other) => JSON.stringify(other) === JSON.stringify(one));
      return agrees ? [one] : [one, ...third.filter((other) => causesOf(other).some((cause) => causesOf(one).includes(cause)))];
    });
}

type Chosen = { id: CheckId; again?: readonly string[] };

function choose(args: {
  knowledge: Knowledge;
  given: Case;
  state: CheckState;
  done: readonly CheckId[];
  order: Order;
  line: readonly CheckId[];
}): Chosen | undefined {
  const { knowledge, given, state, done, order } = args;
  const left = knowledge.checks.filter(({ id }) => !done.includes(id));
  const nextRound = [...left].sort((a, b) => a.place - b.place)[0];
  if (order === "walk-round") return nextRound;
  if (order === "random") return left.find(({ id }) => id === args.line.find((one) => !done.includes(one)));
  const diagnosis = diagnose(knowledge, given, { withReasons: false });
  if (order === "information") return planChecks({ knowledge, given, diagnosis, state, done, order }).checks[0] ?? nextRound;
  const presence = new Map(diagnosis.causes.map(({ id, presence: there }) => [id, there]));
  const score = (check: Knowledge["checks"][number]) =>
    check.figures.flat().reduce((sum, cause) => sum + (presence.get(cause) ?? 0), 0) / (setUpMinutes(state, check.state) + check.minutes);
  return [...left].sort((a, b) => score(b) - score(a))[0];
}
