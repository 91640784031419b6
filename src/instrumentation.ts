import type { Instrumentation } from "next";

/** What a page or a route threw, with the id its request has in the log and on the answer. */
export const onRequestError: Instrumentation.onRequestError = async (error, request) => {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { log } = await import("./server/log");
  const { digest } = error as { digest?: string };
  const id = request.headers["x-request-id"];
  log().error({ id, digest, method: request.method, path: request.path.split("?")[0], err: error }, "page failed");
};

/** Once the server is up, what its lists show is read in the background; a start without it only has a slower first page. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs" || process.env.ZYGOMETER_START !== "1") return;
  const [{ database, toFold }, { foldWhatIsLeft, warmUp }, { log }] = await Promise.all([
    import("./data/open"),
    import("./data/fleet/warm"),
    import("./server/log"),
  ]);
  setTimeout(async () => {
    const began = Date.now();
    try {
      const folded = await foldWhatIsLeft(database());
      const read = await warmUp(database(), { now: new Date().toISOString() });
      log().info({ folded, left: toFold(database()).size, read, milliseconds: Date.now() - began }, "lists are read");
    } catch (error) {
      log().warn({ err: error }, "lists are not read beforehand");
    }
  }, AFTER_START).unref();
}

const AFTER_START = 300;
