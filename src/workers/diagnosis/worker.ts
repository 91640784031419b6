import { questionsFor, workUp } from "@/core/diagnosis";
import { type Answer, type Request, requestSchema } from "./protocol";

/** A shell around the core: parses what it is asked, answers under the same number. */
function answer(request: Request): Answer {
  if (request.kind === "questions") {
    return { kind: "questions", number: request.number, result: questionsFor(request.input, request.answered, request.most) };
  }
  return { kind: "work-up", number: request.number, result: workUp(request.input) };
}

self.addEventListener("message", ({ data }: MessageEvent<unknown>) => {
  const parsed = requestSchema.safeParse(data);
  const number = Number((data as { number?: unknown } | null)?.number ?? -1);
  try {
    self.postMessage(parsed.success ? answer(parsed.data) : ({ kind: "failed", number } satisfies Answer));
  } catch {
    self.postMessage({ kind: "failed", number } satisfies Answer);
  }
});
