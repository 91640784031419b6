import { table } from "@/core/basics/tables";
import { CAUSES, CHECKS, CONTEXTS, causesNow, RIVALS, SYMPTOMS } from "@/core/catalogue";
import type { Advice, Likelihood, Reason } from "@/core/diagnosis";
import { MENDED } from "@/core/diagnosis/levels";

export const LIKELIHOOD_WORDS: Record<Likelihood, string> = {
  "very-likely": "very likely",
  likely: "likely",
  possible: "possible",
  unlikely: "unlikely",
};

const RESULT_WORDS: Record<string, string> = table({
  seen: "seen",
  suspect: "suspected",
  "not-found": "not found",
  unclear: "could not tell",
});

export const labelOfCause = (id: string): string =>
  causesNow(id)
    .map((now) => CAUSES.find((row) => row.id === now)?.label ?? RIVALS.find((row) => row.id === now)?.label ?? now)
    .join(" or ");
export const labelOfCheck = (id: string) => CHECKS.find((row) => row.id === id)?.label ?? id;
export const labelOfSymptom = (id: string) => SYMPTOMS.find((row) => row.id === id)?.label ?? id;
export const labelOfContext = (id: string) => CONTEXTS.find((row) => row.id === id)?.label ?? id;

export const percent = (probability: number) => {
  if (probability > 0 && probability < 0.005) return "under 1 %";
  if (probability < 1 && probability > 0.995) return "over 99 %";
  return `${Math.round(100 * probability)} %`;
};

/** Past this a cause that moved up is as good as certain by it. */
const NOW_CERTAIN = 20;

/** Which way the last check moved a cause, in words. */
export function sayMoved(factor: number, looks = 1): string {
  if (factor >= NOW_CERTAIN) return looks > 1 ? "now certain" : "far likelier";
  if (factor > 1) return "likelier";
  return factor <= 1 / NOW_CERTAIN ? "as good as out" : "less likely";
}

/** What moved a cause, without the figure. */
export function sayReason(reason: Reason): string {
  switch (reason.kind) {
    case "symptom":
      return reason.state === "present" ? labelOfSymptom(reason.id) : `${labelOfSymptom(reason.id)}: not there`;
    case "context":
      return labelOfContext(reason.id);
    case "place":
      return "Where it shows in the swath";
    case "evidence": {
      if (reason.check === MENDED) return "Something was done about it";
      const check = reason.check ? labelOfCheck(reason.check) : "A measured figure";
      return reason.result ? `${check}: ${RESULT_WORDS[reason.result] ?? reason.result}` : `${check}, as read`;
    }
  }
}

export const SKIP_WORDS: Record<string, string> = table({
  "no-tool": "no tool for it",
  "no-access": "cannot get at it",
  "sure-already": "sure already",
  "no-time": "no time",
});

const listed = (labels: readonly string[]) =>
  labels.length < 2 ? (labels[0] ?? "") : `${labels.slice(0, -1).join(", ")} and ${labels.at(-1)}`;

/** A reading is sure before its cause is. */
export const CAUSE_TAKEN =
  "Something in no table would move the reading alike. The cause is certain once mending it puts the reading right and it stays so.";

/** What is found, and beside it what a sure reading is only likeliest to come of: two sentences. */
function sayFound({ causes, taken }: Extract<Advice, { code: "found" }>): string {
  const found = causes.filter((id) => !taken.includes(id));
  const likeliest = listed(causes.filter((id) => taken.includes(id)).map(labelOfCause));
  return [
    ...(found.length > 0 ? [`Found: ${listed(found.map(labelOfCause))}.`] : []),
    ...(likeliest ? [`The reading is off for certain. Likeliest cause: ${likeliest}.`] : []),
  ].join(" ");
}

/** What to do about the checking itself; nothing while it should simply go on. */
export function sayAdvice(advice: Advice): string | undefined {
  switch (advice.code) {
    case "go-on":
      return undefined;
    case "no-symptom":
      return undefined;
    case "found":
      return advice.once.length === 0
        ? sayFound(advice)
        : `It points to ${listed(advice.causes.map((id) => labelOfCause(id).toLowerCase()))}. Look once more before anything is mended.`;
    case "nothing-explains":
      return advice.isListDone
        ? `Nothing on the list explains: ${listed(advice.symptoms.map(labelOfSymptom))}. Look for something new.`
        : `So far nothing on the list explains: ${listed(advice.symptoms.map(labelOfSymptom))}.`;
    case "nothing-left":
      return `Not settled, and no check is left that would tell: ${listed(advice.symptoms.map(labelOfSymptom))}.`;
  }
}
