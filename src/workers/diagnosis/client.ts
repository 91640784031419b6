import type { ContextId, Question, WorkUp, WorkUpInput } from "@/core/diagnosis";
import type { Answer, Request } from "./protocol";

type Waiting = (answer: Answer) => void;

let worker: Worker | undefined;
let last = 0;
const waiting = new Map<number, Waiting>();

function theWorker(): Worker {
  if (worker) return worker;
  worker = new Worker(new URL("./worker.ts", import.meta.url));
  worker.addEventListener("message", ({ data }: MessageEvent<Answer>) => {
    waiting.get(data.number)?.(data);
    waiting.delete(data.number);
  });
  return worker;
}

type Asked<R> = R extends Request ? Omit<R, "number"> : never;

function ask(request: Asked<Request>): Promise<Answer> {
  last += 1;
  const number = last;
  return new Promise((resolve) => {
    waiting.set(number, resolve);
    theWorker().postMessage({ ...request, number });
  });
}

/** The work-up off the main thread; `undefined` when the case cannot be reckoned (more symptoms than can be carried). */
export async function workUpInWorker(input: WorkUpInput): Promise<WorkUp | undefined> {
  const answer = await ask({ kind: "work-up", input });
  return answer.kind === "work-up" ? answer.result : undefined;
}

export async function questionsInWorker(args: { input: WorkUpInput; answered: readonly ContextId[]; most: number }): Promise<Question[]> {
  const answer = await ask({ kind: "questions", input: args.input, answered: [...args.answered], most: args.most });
  return answer.kind === "questions" ? answer.result : [];
}
