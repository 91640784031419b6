import { namedRandom } from "@/core/basics/random";
import type { CauseId, CheckId, CheckState } from "@/core/catalogue";
import { featuresOf, kindById } from "@/core/catalogue/kinds";
import { worksheetsFor } from "@/core/checks";
import { adviceOn, diagnose, EXPLAINED_LEVEL, type Knowledge, knowledgeOf, planChecks, setUpMinutes } from "@/core/diagnosis";
import { presenceOf } from "@/core/diagnosis/case";
import { secondLookMinutes } from "@/core/diagnosis/second-looks";
import { spokenFor } from "@/core/job/jobs";
import type { Machine } from "@/core/machine";
import { drawSeverity, type Hand, MODELLED, type World } from "@/core/simulator";
import { drawHidden, type HiddenCase, type Made, machineWith, make } from "./hidden-case";

export type WorksheetOrder = "information" | "walk-round";

export type Worked = {
  isResolved: boolean;
  /** Until it ended; until it was resolved. */
  minutes: number;
  resolvedAfter?: number;
  /** When it first said that it is found: whether each it named was there. */
  foundRight?: boolean;
  found?: string[];
  said: { cause: string; probability: number; isThere: boolean }[];
  refused: CheckId[];
  /** How likely each cause stood when it ended. */
  final: ReadonlyMap<string, number>;
};

export const knowledgeFor = (machine: Machine): Knowledge =>
  knowledgeOf({ cutsWith: kindById(machine.kind).cutsWith, features: featuresOf(machine) });

/** More than every check with two more looks at each. */
const MOST_STEPS = 150;

/**
 * A whole case from complaint through the suggested checks, by worksheets, until every cause to be found stands or the list ends. What is pointed
 * to on one look is looked at a second time before it is called found, as the fix panel asks; two looks that differ are read a third time.
 */
export function work(hidden: HiddenCase, knowledge: Knowledge, args: { hand: Hand; order: WorksheetOrder }): Worked {
  const there = new Set<string>(hidden.faults.map(({ cause }) => cause));
  const made: Made[] = [];
  const again = new Set<string>();
  const worked: Worked = { isResolved: false, minutes: 0, said: [], refused: [], final: new Map() };
  let [given, state] = [hidden.given, "parked" as CheckState];
  const add = (evidence: Made["evidence"]) => {
    given = { ...given, evidence: [...given.evidence, ...evidence] };
  };
  for (let k = 0; k < MOST_STEPS; k++) {
    const diagnosis = diagnose(knowledge, given, { withReasons: false });
    const done = made.map(({ check }) => check);
    const plan = planChecks({ knowledge, given, diagnosis, state, done, order: args.order });
    const presence = presenceOf(knowledge, given);
    for (const [cause, probability] of presence)
      if (probability >= 0.9) worked.said.push({ cause, probability, isThere: there.has(cause) });
    worked.final = presence;
    const advice = adviceOn(diagnosis, plan);
    const isResolved = hidden.targets.length > 0 && hidden.targets.every((cause) => (presence.get(cause) ?? 0) >= EXPLAINED_LEVEL);
    if (isResolved && !worked.isResolved) Object.assign(worked, { isResolved, resolvedAfter: worked.minutes });
    const pointed = advice.code === "found" && made.length > 0 && worked.foundRight === undefined ? advice : undefined;
    const cause = pointed?.once.find((one) => !again.has(one));
    const first = made.find((one) => speaksFor(one, cause ?? ""));
    if (cause && first) {
      again.add(cause);
      const row = knowledge.checks.find(({ id }) => id === first.check);
      worked.minutes += setUpMinutes(state, row?.state ?? state) + secondLookMinutes(row ?? { minutes: 0 });
      state = row?.state ?? state;
      add(lookAgain({ of: hidden, first, cause, hand: args.hand, made }));
      continue;
    }
    // What is only taken for likeliest is named so, and not called found.
    const named = pointed?.causes.filter((one) => !pointed.taken.includes(one)) ?? [];
    if (pointed && named.length > 0) {
      worked.foundRight = named.every((one) => there.has(one));
      worked.found = [...named];
    }
    if (worked.isResolved) return worked;
    const [next] = plan.checks;
    if (next?.again) {
      const before = made.find((one) => one.check === next.id);
      worked.minutes += next.minutes;
      state = next.state;
      const told = new Set<string>();
      for (const one of next.again) {
        if (!before || told.has(one)) continue;
        const seconds = lookAgain({ of: hidden, first: before, cause: one, hand: args.hand, made });
        for (const second of seconds) for (const cause of "causes" in second ? second.causes : [second.cause]) told.add(cause);
        add(seconds);
      }
      continue;
    }
    const left = knowledge.checks.filter(({ id }) => !done.includes(id));
    const nextRound = [...left].sort((a, b) => a.place - b.place)[0];
    const nextId = args.order === "walk-round" ? nextRound?.id : (plan.checks[0]?.id ?? nextRound?.id);
    const check = left.find(({ id }) => id === nextId);
    if (!check) return worked;
    worked.minutes += setUpMinutes(state, check.state) + check.minutes;
    state = check.state;
    const one = make({ of: hidden, checkId: check.id, hand: args.hand, made });
    if (one.verdict === "refused") worked.refused.push(check.id);
    made.push(one);
    add(one.evidence);
  }
  throw new Error(`${hidden.key}: more than ${MOST_STEPS} steps`);
}

/** What the same thing says when it is looked at once more. */
function lookAgain(args: { of: HiddenCase; first: Made; cause: CauseId; hand: Hand; made: readonly Made[] }): Made["evidence"] {
  const { first, cause } = args;
  const take = (number: number) => make({ of: args.of, checkId: first.check, hand: args.hand, made: args.made, take: number });
  if (!speaksFor(first, cause)) return missedBefore(take, cause);
  const isAbout = (one: Made["evidence"][number]) => ("causes" in one ? one.causes.includes(cause) : one.cause === cause);
  const second = take(2);
  const [before, after] = [first.places.get(cause), second.places.get(cause)];
  // The same place, from nothing: another one that looks so now is no second word for the first.
  const isSamePlace = !before || !after || before.some((place) => after.includes(place));
  if (speaksFor(second, cause) && isSamePlace) return [...first.evidence.filter(isAbout), ...second.evidence.filter(isAbout)].slice(0, 1);
  return [{ check: first.check, cause, result: "unclear" }, ...take(3).evidence];
}

/** What was not found at first: where it is now, a third look decides. */
function missedBefore(take: (number: number) => Made, cause: CauseId): Made["evidence"] {
  const about = (made: Made) => made.evidence.filter((one) => ("causes" in one ? one.causes.includes(cause) : one.cause === cause));
  const second = take(2);
  if (speaksFor(second, cause)) return [...about(second), ...about(take(3))];
  const told = about(second);
  return told.length > 0 ? told : [{ check: second.check, cause, result: "unclear" }];
}

/** Cases in turn over the machines of a fleet, each drawn by its own key. */
export function casesOver(
  machines: readonly Machine[],
  args: { seed: number; count: number; misnames?: boolean; unlisted?: number; world?: World },
): HiddenCase[] {
  const cases: HiddenCase[] = [];
  for (let k = 0; cases.length < args.count; k++) {
    const machine = machines[k % machines.length] as Machine;
    const drawn = drawHidden({
      machine,
      knowledge: knowledgeFor(machine),
      key: `${args.seed}:${k}`,
      ...(args.misnames ? { misnames: true } : {}),
      ...(args.unlisted ? { unlisted: args.unlisted } : {}),
      ...(args.world ? { world: args.world } : {}),
    });
    if (drawn) cases.push(drawn);
  }
  return cases;
}

export type Speaks = { check: CheckId; cause: CauseId; there: number; spoke: number; absent: number; accused: number };

const speaksFor = (made: Made, cause: string): boolean => spokenFor(made.evidence).includes(cause);

/** Each worksheet by itself against each cause it is credited with: how often it speaks for one that is there, and for one that is not. */
export function worksheetsAlone(machines: readonly Machine[], args: { seed: number; each: number; hand: Hand }): Speaks[] {
  const table = new Map<string, Speaks>();
  for (const [m, machine] of machines.entries()) {
    const knowledge = knowledgeFor(machine);
    for (const { id: check } of worksheetsFor(machine)) {
      const known = knowledge.checks.find(({ id }) => id === check);
      for (const cause of [...new Set(known?.figures.flat() ?? [])] as CauseId[]) {
        if (!MODELLED.includes(cause)) continue;
        const row = table.get(`${check} ${cause}`) ?? { check, cause, there: 0, spoke: 0, absent: 0, accused: 0 };
        table.set(`${check} ${cause}`, row);
        for (let k = 0; k < args.each; k++) {
          const key = `${args.seed}:alone:${m}:${check}:${cause}:${k}`;
          const severity = drawSeverity(namedRandom(`${key}:severity`));
          for (const isThere of [true, false]) {
            const state = machineWith({ machine, key, faults: isThere ? [{ cause, severity }] : [] });
            const spoke = speaksFor(make({ of: { key, machine, state }, checkId: check, hand: args.hand, made: [] }), cause);
            if (isThere) [row.there, row.spoke] = [row.there + 1, row.spoke + Number(spoke)];
            else [row.absent, row.accused] = [row.absent + 1, row.accused + Number(spoke)];
          }
        }
      }
    }
  }
  return [...table.values()];
}
