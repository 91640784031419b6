import * as z from "zod";
import type { SafetyItem } from "./states";

export const answerSchema = z.discriminatedUnion("answer", [
  z.object({ answer: z.literal("yes") }),
  z.object({ answer: z.literal("not-here"), reason: z.string().trim().max(200) }),
  z.object({ answer: z.literal("refused"), reason: z.string().trim().max(200).optional() }),
]);

export type Answer = z.output<typeof answerSchema>;
export type Answers = Readonly<Record<string, Answer>>;

export type ConfirmationOutcome =
  | { kind: "safe"; exceptions: { item: SafetyItem; reason: string }[] }
  | { kind: "stopped"; items: SafetyItem[] }
  | { kind: "incomplete"; items: SafetyItem[]; needReason: SafetyItem[] };

/**
 * What a set of answers to these points comes to. A firm one (isolation, chock, stand, stop) that is refused or not here stops, whatever else
 * is still open; a soft one may be missing, with a reason. Unanswered ones leave it incomplete.
 */
export function judgeAnswers(items: readonly SafetyItem[], answers: Answers): ConfirmationOutcome {
  const of = (item: SafetyItem) => answers[item.id];
  const stopped = items.filter((item) => {
    const answer = of(item)?.answer;
    return answer === "refused" ? true : item.isFirm && answer === "not-here";
  });
  if (stopped.length > 0) return { kind: "stopped", items: stopped };
  const open = items.filter((item) => !of(item));
  const excused = items.flatMap((item) => {
    const answer = of(item);
    return answer?.answer === "not-here" ? [{ item, reason: answer.reason }] : [];
  });
  const needReason = excused.filter(({ reason }) => reason === "").map(({ item }) => item);
  if (open.length > 0 || needReason.length > 0) return { kind: "incomplete", items: open, needReason };
  return { kind: "safe", exceptions: excused };
}

/** Every one of these points answered with yes. */
export function allYes(items: readonly SafetyItem[]): Answers {
  return Object.fromEntries(items.map(({ id }) => [id, { answer: "yes" as const }]));
}

const LEAST_LETTERS = 12;
const LEAST_WORDS = 3;
const WORD = /[\p{L}\p{N}]{2,}/gu;

/** Whether words say why: three different ones and a dozen letters between them. "ok", "ok ok ok" and "............" do not. */
export function isSubstantial(reason: string): boolean {
  const words = reason.toLowerCase().match(WORD) ?? [];
  return new Set(words).size >= LEAST_WORDS && words.join("").length >= LEAST_LETTERS;
}
