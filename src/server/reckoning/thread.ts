import { parentPort } from "node:worker_threads";
import { assessCheck, tryOut } from "@/core/checks";
import { answerDiagnose } from "@/core/diagnosis";
import { sheetProblems } from "@/core/machine";
import type { FromThread, Reckoned, Reckoning, ToThread } from "./protocol";

function reckon(reckoning: Reckoning): Reckoned[Reckoning["kind"]] {
  switch (reckoning.kind) {
    case "assess": {
      const { check, machine, readings } = reckoning;
      const outcome = assessCheck(check, { machine, readings });
      return { outcome, problems: outcome.kind === "assessed" ? sheetProblems(outcome.machine) : [] };
    }
    case "diagnose":
      return answerDiagnose(reckoning.request);
    case "try-out":
      return tryOut(reckoning.machine);
  }
}

const say = (message: FromThread) => parentPort?.postMessage(message);

/** A shell around the core, in a thread of the server: how long it may take is its starter's affair. */
parentPort?.on("message", ({ number, reckoning }: ToThread) => {
  try {
    say({ kind: "reckoned", number, answer: reckon(reckoning) });
  } catch (error) {
    say({ kind: "threw", number, words: error instanceof Error ? (error.stack ?? error.message) : String(error) });
  }
});
say({ kind: "ready" });
