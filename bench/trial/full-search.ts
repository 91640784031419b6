import type { CheckId, CheckState } from "@/core/catalogue";
import { type Case, diagnose, type Knowledge, planChecks, setUpMinutes } from "@/core/diagnosis";
import { Prospect } from "@/core/diagnosis/gains";
import type { KnownCheck } from "@/core/diagnosis/knowledge";

/** What could come of a case: by check that is left, the ways it may come out, each with its chance. None where all is found. */
type Node = { given: Case; ways: ReadonlyMap<CheckId, readonly { chance: number; node: Node }[]> };

const LEAST_CHANCE = 1e-4;
/** Of a check so many figures are read: the tree doubles with each. */
const MOST_FIGURES = 2;

/** A case small enough that every order can be searched: the checks that speak most to what may have shown it. */
export function smallOf(knowledge: Knowledge, given: Case, checks: number): Knowledge {
  const causes = diagnose(knowledge, given, { withReasons: false }).causes.slice(0, 12);
  const worth = ({ figures }: KnownCheck) => {
    const told = figures.flat();
    return causes.reduce((sum, { id, probability }) => sum + (told.includes(id) ? probability : 0), 0);
  };
  const isAsked = (figure: readonly string[]) => causes.some(({ id }) => figure.includes(id));
  const chosen = knowledge.checks
    .filter(({ figures }) => figures.some(isAsked))
    .sort((a, b) => worth(b) - worth(a))
    .slice(0, checks);
  return { ...knowledge, checks: chosen.map((check) => ({ ...check, figures: check.figures.filter(isAsked).slice(0, MOST_FIGURES) })) };
}

function outcomesOf(knowledge: Knowledge, given: Case, { id, figures, ...check }: KnownCheck): { chance: number; given: Case }[] {
  return figures.reduce(
    (sofar, figure) =>
      sofar.flatMap((one) => {
        const { positive } = new Prospect(knowledge, one.given).outlook(figure, { id, ...check });
        const said = (evidence: Case["evidence"], chance: number) => ({
          chance: one.chance * chance,
          given: { ...one.given, evidence: [...one.given.evidence, ...evidence] },
        });
        const [cause] = figure;
        const found =
          figure.length > 1 || !cause
            ? { check: id, causes: [...figure], result: "suspect" as const }
            : { check: id, cause, result: "suspect" as const };
        const away = figure.map((other) => ({ check: id, cause: other, result: "not-found" as const }));
        return [said([found], positive), said(away, 1 - positive)].filter(({ chance }) => chance > LEAST_CHANCE);
      }),
    [{ chance: 1, given }],
  );
}

function treeOf(knowledge: Knowledge, given: Case, known: Map<string, Node>): Node {
  const key = given.evidence
    .map((one) => JSON.stringify(one))
    .sort()
    .join("|");
  const kept = known.get(key);
  if (kept) return kept;
  const { symptoms } = diagnose(knowledge, given, { withReasons: false });
  const isNamed = symptoms.every(({ status }) => status === "found");
  const left = isNamed ? [] : leftOf(knowledge, given);
  const node: Node = {
    given,
    ways: new Map(
      left.map((check) => [
        check.id,
        outcomesOf(knowledge, given, check).map((one) => ({ chance: one.chance, node: treeOf(knowledge, one.given, known) })),
      ]),
    ),
  };
  known.set(key, node);
  return node;
}

const madeIn = ({ evidence }: Case): CheckId[] => [...new Set(evidence.flatMap((one) => ("check" in one ? [one.check as CheckId] : [])))];
const leftOf = (knowledge: Knowledge, given: Case): KnownCheck[] => knowledge.checks.filter(({ id }) => !madeIn(given).includes(id));

type Choose = (node: Node, state: CheckState) => CheckId | undefined;

/** Expected minutes until all is found or the list ends, choosing so. */
function minutesBy(knowledge: Knowledge, root: Node, choose: Choose | "best"): number {
  const known = new Map<string, number>();
  const ids = new Map<Node, number>();
  const idOf = (node: Node) => {
    const id = ids.get(node) ?? ids.size;
    ids.set(node, id);
    return id;
  };
  const from = (node: Node, state: CheckState): number => {
    if (node.ways.size === 0) return 0;
    const key = `${idOf(node)} ${state}`;
    const kept = known.get(key);
    if (kept !== undefined) return kept;
    const by = (id: CheckId) => {
      const check = knowledge.checks.find((one) => one.id === id) as KnownCheck;
      const after = (node.ways.get(id) ?? []).reduce((sum, way) => sum + way.chance * from(way.node, check.state), 0);
      return setUpMinutes(state, check.state) + check.minutes + after;
    };
    const all = [...node.ways.keys()];
    const minutes = choose === "best" ? Math.min(...all.map(by)) : by(choose(node, state) ?? (all[0] as CheckId));
    known.set(key, minutes);
    return minutes;
  };
  return from(root, "parked");
}

/** Minutes of the best order there is, every one searched, and of the product's own; a check is made once, with no second looks. */
export function searched(knowledge: Knowledge, given: Case): { best: number; suggested: number; walkRound: number } {
  const root = treeOf(knowledge, given, new Map());
  const by = (order: "information" | "walk-round"): Choose => {
    return (node, state) => {
      const diagnosis = diagnose(knowledge, node.given, { withReasons: false });
      const plan = planChecks({ knowledge, given: node.given, diagnosis, state, done: madeIn(node.given), order });
      return plan.checks.find(({ id, again }) => !again && node.ways.has(id))?.id;
    };
  };
  return {
    best: minutesBy(knowledge, root, "best"),
    suggested: minutesBy(knowledge, root, by("information")),
    walkRound: minutesBy(knowledge, root, by("walk-round")),
  };
}
