import path from "node:path";
import { Worker } from "node:worker_threads";
import { buildSync } from "esbuild";

let code: string | undefined;

/** The thread that reckons, from its sources as they are: what the tests have in the place of the build's. */
export function startThread(): Worker {
  code ??= buildSync({
    entryPoints: [path.join(process.cwd(), "src/server/reckoning/thread.ts")],
    bundle: true,
    write: false,
    platform: "node",
    format: "cjs",
    alias: { "@": path.join(process.cwd(), "src") },
    logLevel: "error",
  }).outputFiles[0]?.text;
  return new Worker(code ?? "", { eval: true });
}
