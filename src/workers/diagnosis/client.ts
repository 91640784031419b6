import type { ContextId } from "@/core/catalogue";
import type { Question, WorkUp, WorkUpInput } from "@/core/diagnosis";
import { asker } from "../asking";
import type { Answer, Request } from "./protocol";

const ask = asker<Request, Answer>(() => new Worker(new URL("./worker.ts", import.meta.url)));

/** The work-up off the main thread; `undefined` when the case cannot be reckoned (more symptoms than can be carried). */
export async function workUpInWorker(input: WorkUpInput, { withReasons } = { withReasons: true }): Promise<WorkUp | undefined> {
  const answer = await ask({ kind: "work-up", input, withReasons });
  return answer.kind === "work-up" ? answer.result : undefined;
}

export async function questionsInWorker(args: { input: WorkUpInput; answered: readonly ContextId[]; most: number }): Promise<Question[]> {
  const answer = await ask({ kind: "questions", input: args.input, answered: [...args.answered], most: args.most });
  return answer.kind === "questions" ? answer.result : [];
}
