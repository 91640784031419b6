import { type CauseId, type CheckId, CONTEXTS, type SymptomId } from "@/core/catalogue";
import type { Case, CaseEvidence, Knowledge } from "@/core/diagnosis";
import { contextFactor } from "@/core/diagnosis/context";

/** How often each context is there (estimate). */
export const CONTEXT_RATE = 0.08;
const MOST_REPORTED = 5;
const DENIED_SHARE = 0.3;
/** A look, one made again, and a third where these two differ. */
const LOOKS = 3;

export type TrialCase = {
  given: Case;
  /** The causes that made a reported symptom: what is to be found. */
  targets: CauseId[];
  present: ReadonlySet<CauseId>;
  /** What each check would find, look by look: drawn once, so that every order meets the same luck, and each look by itself. */
  findings: ReadonlyMap<CheckId, CaseEvidence[][]>;
};

/** Draws cases from `truth` until one has a reported symptom that a cause made; check results come out as often right as the tables say. */
export function drawCase(truth: Knowledge, random: () => number): TrialCase {
  for (;;) {
    const drawn = draw(truth, random);
    if (drawn) return drawn;
  }
}

function draw(truth: Knowledge, random: () => number): TrialCase | undefined {
  const context = CONTEXTS.map(({ id }) => id).filter(() => random() < CONTEXT_RATE);
  if (context.includes("all-machines") && context.includes("one-machine-only")) return undefined;
  const present = truth.causes.filter((cause) => {
    const odds = (cause.prior / (1 - cause.prior)) * contextFactor(cause, context);
    return random() < odds / (1 + odds);
  });
  const made = new Map<SymptomId, CauseId[]>();
  for (const { id, links } of present) {
    for (const { symptom, probability } of links) if (random() < probability) made.set(symptom, [...(made.get(symptom) ?? []), id]);
  }
  const seen = truth.symptoms.filter((symptom) => random() < truth.leak || made.has(symptom));
  const reported = shuffled(seen, random).slice(0, MOST_REPORTED);
  const targets = [...new Set(reported.flatMap((symptom) => made.get(symptom) ?? []))];
  const denied = truth.symptoms.filter((symptom) => !seen.includes(symptom) && random() < DENIED_SHARE);
  const there = new Set(present.map(({ id }) => id));
  const findings = new Map(
    truth.checks.map((check): [CheckId, CaseEvidence[][]] => [
      check.id,
      Array.from({ length: LOOKS }, () => findingsOf(check, there, random)),
    ]),
  );
  if (targets.length === 0) return undefined;
  const symptoms = Object.fromEntries([...reported.map((id) => [id, "present"]), ...denied.map((id) => [id, "denied"])]);
  return { given: { symptoms, context, evidence: [] }, targets, present: there, findings };
}

function findingsOf(check: Knowledge["checks"][number], there: ReadonlySet<CauseId>, random: () => number): CaseEvidence[] {
  return check.figures.flatMap((figure): CaseEvidence[] => {
    const count = figure.filter((cause) => there.has(cause)).length;
    const miss =
      count === 0 ? check.specificity : figure.length === 1 ? 1 - check.sensitivity : check.specificity * (1 - check.sensitivity) ** count;
    if (random() < miss) return figure.map((cause) => ({ check: check.id, cause, result: "not-found" }));
    return figure.length === 1
      ? [{ check: check.id, cause: figure[0] as string, result: "suspect" }]
      : [{ check: check.id, causes: [...figure], result: "suspect" }];
  });
}

export function shuffled<T>(items: readonly T[], random: () => number): T[] {
  return items
    .map((item) => ({ item, key: random() }))
    .sort((a, b) => a.key - b.key)
    .map(({ item }) => item);
}

const LINK_SHIFT = 0.2;

/** The tables as they might really be: every link off by up to 0.2 either way, every prior halved or doubled, and one cause they do not have. */
export function disturbed(knowledge: Knowledge, random: () => number): Knowledge {
  const shift = (probability: number) => Math.min(0.98, Math.max(0.02, probability + (2 * random() - 1) * LINK_SHIFT));
  const causes = knowledge.causes.map((cause) => ({
    ...cause,
    prior: cause.prior * (random() < 0.5 ? 0.5 : 2),
    links: cause.links.map(({ symptom, probability }) => ({ symptom, probability: shift(probability) })),
  }));
  const shown = shuffled(knowledge.symptoms, random).slice(0, 3);
  const unlisted = {
    id: "unlisted" as CauseId,
    label: "A cause the tables do not have",
    group: "machine" as const,
    prior: 0.04,
    links: shown.map((symptom) => ({ symptom, probability: 0.45 })),
    oneOf: [],
    oddsWhen: {},
  };
  return { ...knowledge, causes: [...causes, unlisted] };
}
