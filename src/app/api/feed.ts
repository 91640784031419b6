import { listen } from "@/data/store/announce";
import type { Subject } from "@/data/store/reads";

/** So that proxies keep the connection, and a screen that hears nothing knows that it lost it. */
const BEAT_MILLISECONDS = 20_000;

/** What the shop has once, and the pages of a machine show. */
const ON_EVERY_MACHINE: readonly Subject[] = ["rules", "sites"];

/** Feeds open now, for the whole process: all are closed when it is told to stop, or it would wait for them. */
const held = globalThis as typeof globalThis & { zygometerFeeds?: Set<() => void> };

function feeds(): Set<() => void> {
  if (!held.zygometerFeeds) {
    const open = new Set<() => void>();
    held.zygometerFeeds = open;
    const closeAll = () => {
      for (const close of [...open]) close();
    };
    process.once("SIGTERM", closeAll);
    process.once("SIGINT", closeAll);
  }
  return held.zygometerFeeds;
}

/** A stream of server-sent events about one machine, until the browser goes away. */
export function openFeed({ machineId, signal }: { machineId: string; signal: AbortSignal }): Response {
  const encoder = new TextEncoder();
  let close = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const write = (text: string) => controller.enqueue(encoder.encode(text));
      const stop = listen((moved) => {
        const own = moved.filter((subject) => subject.endsWith(`:${machineId}`) || ON_EVERY_MACHINE.includes(subject));
        const what = own.map((subject) => subject.split(":")[0]);
        if (what.length > 0) write(`event: moved\ndata: ${JSON.stringify({ what })}\n\n`);
      });
      const beat = setInterval(() => write("event: beat\ndata: {}\n\n"), BEAT_MILLISECONDS);
      close = () => {
        stop();
        clearInterval(beat);
        feeds().delete(close);
        try {
          controller.close();
        } catch {
          // The browser closed it first.
        }
      };
      feeds().add(close);
      signal.addEventListener("abort", close);
      write("retry: 2000\n\n");
    },
    cancel: () => close(),
  });
  return new Response(body, {
    headers: { "content-type": "text/event-stream; charset=utf-8", "cache-control": "no-store, no-transform", "x-accel-buffering": "no" },
  });
}
