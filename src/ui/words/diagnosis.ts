import type { Advice, Likelihood, Reason } from "@/core/diagnosis";
import { CAUSES, CHECKS, CONTEXTS, SYMPTOMS } from "@/core/trade";

export const LIKELIHOOD_WORDS: Record<Likelihood, string> = {
  "very-likely": "very likely",
  likely: "likely",
  possible: "possible",
  unlikely: "unlikely",
};

const RESULT_WORDS: Record<string, string> = {
  seen: "seen",
  suspect: "suspected",
  "not-found": "not found",
  unclear: "could not tell",
};

export const labelOfCause = (id: string) => CAUSES.find((row) => row.id === id)?.label ?? id;
export const labelOfCheck = (id: string) => CHECKS.find((row) => row.id === id)?.label ?? id;
export const labelOfSymptom = (id: string) => SYMPTOMS.find((row) => row.id === id)?.label ?? id;
export const labelOfContext = (id: string) => CONTEXTS.find((row) => row.id === id)?.label ?? id;

export const percent = (probability: number) => {
  if (probability > 0 && probability < 0.005) return "under 1 %";
  if (probability < 1 && probability > 0.995) return "over 99 %";
  return `${Math.round(100 * probability)} %`;
};

/** A change of odds as it is said: ×8, ÷3; two figures. */
export function sayFactor(factor: number): string {
  const size = factor >= 1 ? factor : 1 / factor;
  const figure = size >= 10 ? Math.round(size) : Math.round(size * 10) / 10;
  return `${factor >= 1 ? "×" : "÷"}${figure}`;
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
      const check = reason.check ? labelOfCheck(reason.check) : "A measured figure";
      return reason.result ? `${check}: ${RESULT_WORDS[reason.result] ?? reason.result}` : `${check}, as read`;
    }
  }
}

export const SKIP_WORDS: Record<string, string> = {
  "no-tool": "no tool for it",
  "no-access": "cannot get at it",
  "sure-already": "sure already",
  "no-time": "no time",
};

const listed = (labels: readonly string[]) =>
  labels.length < 2 ? (labels[0] ?? "") : `${labels.slice(0, -1).join(", ")} and ${labels.at(-1)}`;

/** What to do about the checking itself; nothing while it should simply go on. */
export function sayAdvice(advice: Advice): string | undefined {
  switch (advice.code) {
    case "go-on":
      return undefined;
    case "no-symptom":
      return undefined;
    case "found":
      return `Found: ${listed(advice.causes.map(labelOfCause))}.`;
    case "nothing-explains":
      return advice.isListDone
        ? `Nothing on the list explains: ${listed(advice.symptoms.map(labelOfSymptom))}. Look for something new.`
        : `So far nothing on the list explains: ${listed(advice.symptoms.map(labelOfSymptom))}.`;
    case "nothing-left":
      return `Not settled, and no check is left that would tell: ${listed(advice.symptoms.map(labelOfSymptom))}.`;
  }
}
