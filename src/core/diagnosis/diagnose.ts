import type { CauseId, SymptomId } from "@/core/catalogue";
import { assemble, type Case } from "./case";
import { causesOf, checkOf, looksBehind, ratioOf, standing } from "./evidence";
import type { Knowledge, KnownCause } from "./knowledge";
import { EXPLAINED_LEVEL, NOTHING_EXPLAINS_LEVEL, WORTH_A_LOOK_LEVEL } from "./levels";
import { posteriors, shownOnlyBy } from "./network";
import { type Reason, reasonsFor } from "./reasons";

export type RankedCause = {
  id: CauseId;
  label: string;
  group: KnownCause["group"];
  /** That it is there and has itself shown one of the present symptoms; without a symptom, that it is there. */
  probability: number;
  /** That it is there, whether or not it shows. */
  presence: number;
  /** What moved its presence, the strongest first. */
  reasons: Reason[];
  /** Whether the checks made so far speak for it. */
  isBackedByCheck: boolean;
  /** How many looks speak for it: different checks, or one made again with the same result. */
  looks: number;
  /** In no table: stands for whatever else would move the figure of this one. */
  rivalOf?: CauseId;
};

export type SymptomExplained = {
  id: SymptomId;
  /** That each cause has itself shown it, the likeliest first; they need not add up to 1, since several may have. */
  shownBy: { cause: CauseId; probability: number }[];
  /** That nothing on the list has. */
  nothing: number;
  /** `found`: by a cause above the level that a check speaks for; `open`: not yet; `nothing-explains`: nothing on the list is likely to. */
  status: "found" | "open" | "nothing-explains";
};

export type Diagnosis = {
  causes: RankedCause[];
  /** Likely from context or readings, but able to show none of the present symptoms. */
  alsoWorthALook: RankedCause[];
  symptoms: SymptomExplained[];
  /** That every present symptom was shown by operation or turf, and none by the machine. */
  operationProbability: number;
};

/** What it might be, given one complaint. Throws `RangeError` past `MOST_FINDINGS` present symptoms and shared figures. */
export function diagnose(knowledge: Knowledge, given: Case, { withReasons } = { withReasons: true }): Diagnosis {
  const assembled = assemble(knowledge, given);
  const found = posteriors(assembled.network);
  const presence = new Map(assembled.apart);
  const shown = new Map<CauseId, number>();
  assembled.linked.forEach(({ id }, index) => {
    presence.set(id, found.causes[index]?.probability ?? 0);
    shown.set(id, found.causes[index]?.shown ?? 0);
  });
  const isSilent = assembled.present.length === 0;
  const canShow = (cause: KnownCause) => isSilent || cause.links.some(({ symptom }) => assembled.present.includes(symptom));
  const reasons = withReasons ? reasonsFor({ knowledge, given, presence }) : new Map<CauseId, Reason[]>();
  const backed = backedCauses(knowledge, given);
  const ranked = (cause: KnownCause): RankedCause => {
    const there = presence.get(cause.id) ?? 0;
    return {
      id: cause.id,
      label: cause.label,
      group: cause.group,
      probability: canShow(cause) && !isSilent ? (shown.get(cause.id) ?? 0) : there,
      presence: there,
      reasons: reasons.get(cause.id) ?? [],
      isBackedByCheck: (backed.get(cause.id) ?? 0) > 0,
      looks: backed.get(cause.id) ?? 0,
      ...(cause.rivalOf ? { rivalOf: cause.rivalOf } : {}),
    };
  };
  const causes = knowledge.causes.filter(canShow).map(ranked).sort(likeliestFirst);
  const apart = knowledge.causes.filter((cause) => !canShow(cause)).map(ranked);
  const symptoms = assembled.present.map((id, finding) =>
    explain({
      id,
      nothing: found.unexplained[finding] ?? 0,
      causes,
      knowledge,
      shows: assembled.linked.map((cause, index) => ({ cause: cause.id, probability: found.causes[index]?.shows[finding] ?? 0 })),
    }),
  );
  return {
    causes,
    alsoWorthALook: apart.filter(({ presence: there }) => there >= WORTH_A_LOOK_LEVEL).sort(likeliestFirst),
    symptoms,
    operationProbability: shownOnlyBy(assembled.network, (index) => assembled.linked[index]?.group !== "machine"),
  };
}

function likeliestFirst(a: RankedCause, b: RankedCause): number {
  return b.probability - a.probability || b.presence - a.presence;
}

/** Causes that evidence of checks makes likelier, and how many looks that is. */
function backedCauses(knowledge: Knowledge, given: Case): Map<string, number> {
  const speaking = standing(given.evidence, given.stale).filter((one) => "causes" in one || ratioOf(knowledge, one) > 1);
  const looks = new Map<string, Map<string, number>>();
  for (const one of speaking) {
    const behind = looksBehind(given.evidence, one, given.stale);
    for (const cause of causesOf(one)) {
      const byCheck = looks.get(cause) ?? new Map<string, number>();
      const check = checkOf(one) ?? "measured";
      looks.set(cause, byCheck.set(check, Math.max(behind, byCheck.get(check) ?? 0)));
    }
  }
  return new Map([...looks].map(([cause, byCheck]) => [cause, [...byCheck.values()].reduce((sum, count) => sum + count, 0)]));
}

function explain(args: {
  id: SymptomId;
  nothing: number;
  causes: readonly RankedCause[];
  knowledge: Knowledge;
  shows: SymptomExplained["shownBy"];
}): SymptomExplained {
  const { id, nothing, causes, knowledge } = args;
  const able = knowledge.causes.filter(({ links }) => links.some(({ symptom }) => symptom === id)).map((cause) => cause.id);
  const isFound = causes.some((cause) => able.includes(cause.id) && cause.isBackedByCheck && cause.presence >= EXPLAINED_LEVEL);
  const shownBy = args.shows.filter(({ probability }) => probability > 0).sort((a, b) => b.probability - a.probability);
  if (isFound) return { id, shownBy, nothing, status: "found" };
  return { id, shownBy, nothing, status: nothing >= NOTHING_EXPLAINS_LEVEL ? "nothing-explains" : "open" };
}
