import type { SymptomId } from "@/core/catalogue";
import { allFeatures, type Case, diagnose, knowledgeOf, planChecks } from "@/core/diagnosis";

const at = (values: readonly number[], share: number) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? Number.NaN;

/** As many complaints at once as asked for, the ones most causes can show first: the hardest case there is. */
function hardest(cutsWith: "rotary" | "reel", count: number): { given: Case; knowledge: ReturnType<typeof knowledgeOf> } {
  const knowledge = knowledgeOf({ cutsWith, features: allFeatures(cutsWith) });
  const able = (id: SymptomId) => knowledge.causes.filter(({ links }) => links.some(({ symptom }) => symptom === id)).length;
  const symptoms = [...knowledge.symptoms].sort((a, b) => able(b) - able(a)).slice(0, count);
  return {
    knowledge,
    given: { symptoms: Object.fromEntries(symptoms.map((id) => [id, "present"])), context: ["struck-object", "wet-or-tall"], evidence: [] },
  };
}

/** Milliseconds, the median and the slowest of twenty, of posteriors, of the reasons with them, and of the next checks, with this many symptoms complained of. */
export function timeDiagnosis(cutsWith: "rotary" | "reel", count: number, runs: number) {
  const { knowledge, given } = hardest(cutsWith, count);
  const timed = (work: () => unknown) => {
    const start = performance.now();
    work();
    return performance.now() - start;
  };
  const diagnosis = diagnose(knowledge, given, { withReasons: false });
  const repeat = (work: () => unknown) => {
    const times = Array.from({ length: runs }, () => timed(work));
    return { half: at(times, 0.5), slowest: at(times, 0.95) };
  };
  return {
    posteriors: repeat(() => diagnose(knowledge, given, { withReasons: false })),
    withReasons: repeat(() => diagnose(knowledge, given)),
    nextChecks: repeat(() => planChecks({ knowledge, given, diagnosis, state: "parked", done: [], order: "information" })),
  };
}
