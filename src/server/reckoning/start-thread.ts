import { Worker } from "node:worker_threads";

/** The thread that reckons, as the build has it. */
export const startThread = (): Worker => new Worker(new URL("./thread.ts", import.meta.url));
