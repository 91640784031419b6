import type { Instrumentation } from "next";

/** What a page or a route threw, with the id its request has in the log and on the answer. */
export const onRequestError: Instrumentation.onRequestError = async (error, request) => {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { log } = await import("./server/log");
  const { digest } = error as { digest?: string };
  const id = request.headers["x-request-id"];
  log().error({ id, digest, method: request.method, path: request.path.split("?")[0], err: error }, "page failed");
};
