import type { CauseId, ContextId, SymptomId } from "@/core/catalogue";
import { type Case, presenceOf, type SymptomState } from "./case";
import { type CaseEvidence, causesOf, checkOf, standing } from "./evidence";
import type { Knowledge } from "./knowledge";

/** What moved a cause: its odds are `factor` times what they would be had this one thing not been known. */
export type Reason = { factor: number } & (
  | { kind: "symptom"; id: SymptomId; state: SymptomState }
  | { kind: "context"; id: ContextId }
  | { kind: "place" }
  | { kind: "evidence"; check?: string; result?: string }
);

type Left = { reason: Omit<Reason, "factor">; without: Case };

/** Smaller changes of the odds are not worth a line. */
export const LEAST_FACTOR = 1.1;

/** For each cause, everything that moved it, by leaving out one thing at a time; the strongest first. */
export function reasonsFor(args: { knowledge: Knowledge; given: Case; presence: ReadonlyMap<CauseId, number> }): Map<CauseId, Reason[]> {
  const { knowledge, given, presence } = args;
  const reasons = new Map<CauseId, Reason[]>(knowledge.causes.map(({ id }) => [id, []]));
  for (const { reason, without } of leftOut(given)) {
    const other = presenceOf(knowledge, without);
    for (const [cause, there] of presence) {
      const factor = odds(there) / odds(other.get(cause) ?? 0);
      if (Number.isFinite(factor) && factor > 0 && Math.max(factor, 1 / factor) >= LEAST_FACTOR) {
        reasons.get(cause)?.push({ ...reason, factor } as Reason);
      }
    }
  }
  for (const list of reasons.values()) list.sort((a, b) => Math.abs(Math.log(b.factor)) - Math.abs(Math.log(a.factor)));
  return reasons;
}

function odds(probability: number): number {
  return probability / (1 - probability);
}

function leftOut(given: Case): Left[] {
  const evidence = standing(given.evidence, given.stale);
  return [
    ...(Object.entries(given.symptoms) as [SymptomId, SymptomState][]).map(([id, state]) => ({
      reason: { kind: "symptom" as const, id, state },
      without: { ...given, symptoms: Object.fromEntries(Object.entries(given.symptoms).filter(([other]) => other !== id)) },
    })),
    ...given.context.map((id) => ({
      reason: { kind: "context" as const, id },
      without: { ...given, context: given.context.filter((other) => other !== id) },
    })),
    ...(given.place && Object.keys(given.place).length > 0 ? [{ reason: { kind: "place" as const }, without: withoutPlace(given) }] : []),
    ...evidenceGroups(evidence).map((group) => ({
      reason: { kind: "evidence" as const, ...told(group) },
      without: { ...given, evidence: evidence.filter((one) => !group.includes(one)) },
    })),
  ];
}

function withoutPlace({ place: _, ...rest }: Case): Case {
  return rest;
}

/** What one check found about one cause or figure counts as one reason. */
function evidenceGroups(evidence: readonly CaseEvidence[]): CaseEvidence[][] {
  const groups = new Map<string, CaseEvidence[]>();
  evidence.forEach((one, index) => {
    const key = `${checkOf(one) ?? `measured-${index}`}:${causesOf(one).join(",")}`;
    groups.set(key, [...(groups.get(key) ?? []), one]);
  });
  return [...groups.values()];
}

function told(group: readonly CaseEvidence[]): { check?: string; result?: string } {
  const [first] = group;
  if (!first) return {};
  const check = checkOf(first);
  return { ...(check ? { check } : {}), ...("result" in first ? { result: first.result } : {}) };
}
