import { questionsFor, workUp } from "@/core/diagnosis";
import { answering } from "../asking";
import { type Answer, type Request, requestSchema } from "./protocol";

/** A shell around the core. */
function answer(request: Request): Answer {
  if (request.kind === "questions") {
    return { kind: "questions", number: request.number, result: questionsFor(request.input, request.answered, request.most) };
  }
  return { kind: "work-up", number: request.number, result: workUp(request.input, request) };
}

answering((data) => requestSchema.safeParse(data), answer);
