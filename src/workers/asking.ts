type Numbered = { number: number };

/** Without its number, each kind of a union by itself. */
export type Asked<R extends Numbered> = R extends Numbered ? Omit<R, "number"> : never;

/** What is answered where the worker could not: it died, or did not understand. */
export type Failed = { kind: "failed"; number: number };

/**
 * Asks a worker and waits for the answer that carries the same number. The worker is started with the first question. One that dies answers
 * everything it was asked with `failed`, and the next question starts another: nobody waits for ever.
 */
export function asker<Request extends Numbered, Answer extends Numbered>(
  start: () => Worker,
): (request: Asked<Request>) => Promise<Answer | Failed> {
  const waiting = new Map<number, (answer: Answer | Failed) => void>();
  let worker: Worker | undefined;
  let last = 0;
  const started = () => {
    if (worker) return worker;
    worker = start();
    const dead = () => {
      worker?.terminate();
      worker = undefined;
      const unanswered = [...waiting];
      waiting.clear();
      for (const [number, answer] of unanswered) answer({ kind: "failed", number });
    };
    worker.addEventListener("error", dead);
    worker.addEventListener("messageerror", dead);
    worker.addEventListener("message", ({ data }: MessageEvent<Answer>) => {
      waiting.get(data.number)?.(data);
      waiting.delete(data.number);
    });
    return worker;
  };
  return (request) => {
    last += 1;
    const number = last;
    return new Promise((resolve) => {
      waiting.set(number, resolve);
      started().postMessage({ ...request, number });
    });
  };
}

/** The worker's side: parses what it is asked, answers under the same number, and says so where it cannot. */
export function answering<Request extends Numbered>(
  parse: (data: unknown) => { success: true; data: Request } | { success: false },
  answer: (request: Request) => Numbered,
): void {
  self.addEventListener("message", ({ data }: MessageEvent<unknown>) => {
    const parsed = parse(data);
    const number = Number((data as { number?: unknown } | null)?.number ?? -1);
    try {
      self.postMessage(parsed.success ? answer(parsed.data) : { kind: "failed", number });
    } catch {
      self.postMessage({ kind: "failed", number });
    }
  });
}
