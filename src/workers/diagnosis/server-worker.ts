import { parentPort } from "node:worker_threads";
import { answerDiagnose, type DiagnoseRequest } from "@/core/diagnosis";

/** A shell around the core, in a thread of the server: what it is asked was parsed at the API's border. */
parentPort?.on("message", ({ number, request }: { number: number; request: DiagnoseRequest }) => {
  parentPort?.postMessage({ number, outcome: answerDiagnose(request) });
});
