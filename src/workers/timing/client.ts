import type { PairStudied, PairStudy } from "@/core/physics/blades/timing-study";
import { asker } from "../asking";
import type { Answer, Request } from "./protocol";

const ask = asker<Request, Answer>(() => new Worker(new URL("./worker.ts", import.meta.url)));

/** Every pair studied off the main thread; empty where a size is none that a blade can have. */
export async function studyInWorker(pairs: readonly PairStudied[]): Promise<PairStudy[]> {
  const answer = await ask({ pairs: [...pairs] });
  return answer.kind === "studied" ? answer.studies : [];
}
