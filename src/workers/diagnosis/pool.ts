import { Worker } from "node:worker_threads";
import type { answerDiagnose, DiagnoseRequest } from "@/core/diagnosis";

type Outcome = ReturnType<typeof answerDiagnose>;
type Waiting = { settle: (outcome: Outcome) => void; fail: (error: Error) => void };

/** One thread: while it reckons, the server answers everybody else. More would starve a shop's small machine. */
let thread: { worker: Worker; waiting: Map<number, Waiting> } | undefined;
let last = 0;

function started(): NonNullable<typeof thread> {
  if (thread) return thread;
  const own = { worker: new Worker(new URL("./server-worker.ts", import.meta.url)), waiting: new Map<number, Waiting>() };
  thread = own;
  own.worker.unref();
  own.worker.on("message", ({ number, outcome }: { number: number; outcome: Outcome }) => {
    own.waiting.get(number)?.settle(outcome);
    own.waiting.delete(number);
  });
  const dead = (error: Error) => {
    if (thread === own) thread = undefined;
    for (const { fail } of own.waiting.values()) fail(error);
    own.waiting.clear();
  };
  own.worker.on("error", dead);
  own.worker.on("exit", () => dead(new Error("the diagnosis thread ended")));
  return own;
}

/** A diagnosis off the request's thread. Fails when the thread dies; the next one asked starts another. */
export function diagnoseOffThread(request: DiagnoseRequest): Promise<Outcome> {
  const { worker, waiting } = started();
  last += 1;
  const number = last;
  return new Promise((settle, fail) => {
    waiting.set(number, { settle, fail });
    worker.postMessage({ number, request });
  });
}
