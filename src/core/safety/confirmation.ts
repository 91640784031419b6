import * as z from "zod";
import type { Machine } from "@/core/machine";
import { itemsFor, type SafeState, type SafetyItem } from "./states";

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
 * What a set of answers comes to. A firm item (isolation, chock, stand, stop) that is refused or not here stops;
 * a soft one may be missing, with a reason. Unanswered ones leave it incomplete.
 */
export function judgeConfirmation(args: {
  machine: Pick<Machine, "kind" | "features">;
  state: SafeState;
  answers: Answers;
}): ConfirmationOutcome {
  const items = itemsFor(args.machine, args.state);
  const of = (item: SafetyItem) => args.answers[item.id];
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

export type Confirmed = { state: SafeState; at: string; who: string };

/** The state that holds now: the latest confirmation, unless the machine was run after it. Times are ISO 8601 in UTC. */
export function stateInForce(args: { confirmations: readonly Confirmed[]; runs: readonly string[] }): {
  inForce?: Confirmed;
  lapsed?: Confirmed & { lapsedAt: string };
} {
  const latest = [...args.confirmations].sort((a, b) => b.at.localeCompare(a.at))[0];
  if (!latest) return {};
  const lapsedAt = [...args.runs].sort().find((at) => at >= latest.at);
  if (lapsedAt === undefined || latest.state === "running") return { inForce: latest };
  return { lapsed: { ...latest, lapsedAt } };
}
