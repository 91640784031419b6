type Numbered = { number: number };

/** Without its number, each kind of a union by itself. */
export type Asked<R extends Numbered> = R extends Numbered ? Omit<R, "number"> : never;

/** Asks a worker and waits for the answer that carries the same number. The worker is started with the first question. */
export function asker<Request extends Numbered, Answer extends Numbered>(
  start: () => Worker,
): (request: Asked<Request>) => Promise<Answer> {
  const waiting = new Map<number, (answer: Answer) => void>();
  let worker: Worker | undefined;
  let last = 0;
  const started = () => {
    if (worker) return worker;
    worker = start();
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
