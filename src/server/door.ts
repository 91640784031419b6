import { randomUUID } from "node:crypto";
import { createServer, type IncomingMessage, type RequestListener, type Server, type ServerResponse } from "node:http";
import { createServer as createTlsServer } from "node:https";
import { log } from "./log";
import { type Limiter, rateOf } from "./rates";

/** A whole request, body and all, has to have arrived by then: a slow one holds a line no longer. */
export const TIMES = { requestTimeout: 20_000, headersTimeout: 10_000, connectionsCheckingInterval: 1000 };

type Listener = (request: IncomingMessage, response: ServerResponse) => unknown;

/** What stands before every request: an id, the rates, and a line in the log when it is answered. */
export function atTheDoor(inside: Listener, limiter: Limiter): Listener {
  return (request, response) => {
    const began = performance.now();
    const id = randomUUID();
    const path = (request.url ?? "/").split("?")[0] ?? "/";
    // Whatever a caller says of itself here is not believed: only this server writes these.
    for (const name of ["x-forwarded-for", "x-forwarded-host", "x-forwarded-proto", "x-forwarded-port", "x-middleware-subrequest"])
      delete request.headers[name];
    request.headers["x-request-id"] = id;
    response.setHeader("x-request-id", id);
    response.on("close", () => {
      const line = { id, method: request.method, path, status: response.statusCode, milliseconds: Math.round(performance.now() - began) };
      if (response.statusCode >= 500) log().error(line, "request");
      else log().info(line, "request");
    });
    const rate = rateOf(request.method ?? "GET", path);
    const wait = rate ? limiter.take(rate, request.socket.remoteAddress ?? "", performance.now()) : 0;
    if (wait === 0) return inside(request, response);
    log().warn({ id, path, rate, address: request.socket.remoteAddress }, "too many requests");
    response.writeHead(429, { "content-type": "application/json", "retry-after": String(wait), "cache-control": "no-store" });
    response.end(JSON.stringify({ error: "too-many-requests", issues: [{ code: "too-many-requests", path: [], waitSeconds: wait }] }));
  };
}

/** The listening half, with its times; over TLS with a key and a certificate. */
export function serverFor(listener: Listener, tls?: { key: Buffer; cert: Buffer }, times: typeof TIMES = TIMES): Server {
  const server = tls
    ? createTlsServer({ ...times, ...tls }, listener as RequestListener)
    : createServer(times, listener as RequestListener);
  server.on("clientError", (error: NodeJS.ErrnoException, socket) => {
    const status = error.code === "ERR_HTTP_REQUEST_TIMEOUT" ? "408 Request Timeout" : "400 Bad Request";
    if (socket.writable) socket.end(`HTTP/1.1 ${status}\r\nconnection: close\r\n\r\n`);
    else socket.destroy();
  });
  return server as Server;
}
