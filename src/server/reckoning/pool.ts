import type { Worker } from "node:worker_threads";
import { AppError } from "@/data/store/errors";
import { startThread } from "@/server/reckoning/start-thread";
import type { FromThread, Reckoned, Reckoning, ToThread } from "./protocol";

/** Nothing that is reckoned here takes a second: what takes this long never ends. Counted from when its turn comes. */
const DEADLINE_MILLISECONDS = 5000;
/** So many wait at most; whoever comes then is told to come again. */
const MOST_WAITING = 40;

type Asked = { number: number; reckoning: Reckoning; settle: (answer: unknown) => void; fail: (error: Error) => void };

/** One thread: while it reckons, the server answers everybody else. More would starve a shop's small machine. */
let thread: { worker: Worker; isReady: boolean } | undefined;
let inHand: { asked: Asked; deadline: NodeJS.Timeout } | undefined;
const waiting: Asked[] = [];
let last = 0;

function started(): NonNullable<typeof thread> {
  if (thread) return thread;
  const worker = startThread();
  const own = { worker, isReady: false };
  thread = own;
  worker.unref();
  worker.on("message", (message: FromThread) => {
    if (thread !== own) return;
    if (message.kind === "ready") own.isReady = true;
    else settle(message);
    next();
  });
  const dead = (cause: unknown) => {
    if (thread !== own) return;
    thread = undefined;
    const ended = new Error("the reckoning thread ended", { cause });
    endInHand()?.fail(ended);
    // One that cannot even begin would be begun for ever.
    if (!own.isReady) for (const asked of waiting.splice(0)) asked.fail(ended);
    next();
  };
  worker.on("error", dead);
  worker.on("exit", dead);
  return own;
}

function endInHand(): Asked | undefined {
  const asked = inHand?.asked;
  clearTimeout(inHand?.deadline);
  inHand = undefined;
  return asked;
}

function settle(message: Exclude<FromThread, { kind: "ready" }>): void {
  if (inHand?.asked.number !== message.number) return;
  const asked = endInHand();
  if (message.kind === "reckoned") asked?.settle(message.answer);
  else asked?.fail(new Error(message.words));
}

/** The thread is let go with what it cannot end; the next one asked starts another. */
function giveUp(): void {
  const asked = endInHand();
  const { worker } = thread ?? {};
  thread = undefined;
  worker?.terminate();
  asked?.fail(new AppError("reckoning-too-long"));
  next();
}

function next(): void {
  if (inHand || waiting.length === 0) return;
  const { worker, isReady } = started();
  if (!isReady) return;
  const asked = waiting.shift();
  if (!asked) return;
  inHand = { asked, deadline: setTimeout(giveUp, DEADLINE_MILLISECONDS) };
  worker.postMessage({ number: asked.number, reckoning: asked.reckoning } satisfies ToThread);
}

/**
 * Reckons off the request's thread, one after the other: nothing that is asked here keeps a page from being answered. Throws `reckoning-too-long` past its
 * deadline and where too many wait; fails when the thread dies.
 */
export function reckonOffThread<K extends Reckoning["kind"]>(reckoning: Extract<Reckoning, { kind: K }>): Promise<Reckoned[K]> {
  if (waiting.length >= MOST_WAITING) return Promise.reject(new AppError("reckoning-too-long"));
  last += 1;
  return new Promise((settled, fail) => {
    waiting.push({ number: last, reckoning, settle: (answer) => settled(answer as Reckoned[K]), fail });
    next();
  });
}
