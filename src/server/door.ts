import { randomUUID } from "node:crypto";
import { createServer, type IncomingMessage, type RequestListener, type Server, type ServerResponse } from "node:http";
import { createServer as createTlsServer } from "node:https";
import type { Socket } from "node:net";
import { HEADERS } from "./headers";
import { log } from "./log";
import { isHostAllowed, ownOrigins } from "./origins";
import { canonicalPath, type Limiter, rateOf } from "./rates";

/** A whole request, body and all, has to have arrived by then: a slow one holds a line no longer. */
export const TIMES = { requestTimeout: 20_000, headersTimeout: 10_000, connectionsCheckingInterval: 1000 };

/**
 * Lines open at once, in all and from one address (estimate): a dozen people behind one address, each with a few pages that listen, are far under it, and
 * both together far under what a process may hold open (1,024 where nobody raised it).
 */
export const LINES = { inAll: 800, fromOne: 400 };
/** An answer that says why is given so long to leave before the line is cut. */
const PARTING_MILLISECONDS = 500;

type Listener = (request: IncomingMessage, response: ServerResponse) => unknown;

const METHODS: readonly (string | undefined)[] = ["GET", "HEAD", "POST", "PUT", "PATCH", "DELETE", "OPTIONS"];

const NOT_REACHED =
  "Zygometer is not reached under this name. Open the address it printed when it was started.\n\nWhoever runs it adds a name with ZYGOMETER_PUBLIC_URL (docs/operations.md).\n";

/** Why a request goes no further, whatever it asks for: another name than this server's, a method nobody uses, a path with two readings. */
function refusal(request: IncomingMessage): { status: number; error: string; text?: string } | undefined {
  // The addresses it has are not told: whoever asks under a foreign name may be anybody's page.
  if (!isHostAllowed(request.headers.host, ownOrigins())) return { status: 421, error: "not-reached-here", text: NOT_REACHED };
  if (!METHODS.includes(request.method)) return { status: 405, error: "method-not-allowed" };
  if (canonicalPath(request.url ?? "/") === undefined) return { status: 404, error: "not-found" };
  return undefined;
}

function answerShort(response: ServerResponse, status: number, body: string, more: Record<string, string> = {}): void {
  response.writeHead(status, { ...HEADERS, "content-type": "application/json", "cache-control": "no-store", ...more });
  response.end(body);
}

/** What stands before every request: an id, its name and path, the rates, and a line in the log when it is answered. */
export function atTheDoor(inside: Listener, limiter: Limiter): Listener {
  return (request, response) => {
    const began = performance.now();
    const id = randomUUID();
    const path = canonicalPath(request.url ?? "/") ?? (request.url ?? "/").slice(0, 200);
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
    const refused = refusal(request);
    if (refused) {
      const isApi = path.startsWith("/api/");
      const { status, error, text } = refused;
      if (text && !isApi) return answerShort(response, status, text, { "content-type": "text/plain; charset=utf-8" });
      return answerShort(response, status, JSON.stringify({ error, issues: [] }), status === 405 ? { allow: METHODS.join(", ") } : {});
    }
    const rate = rateOf(request.method ?? "GET", path);
    const wait = rate ? limiter.take(rate, request.socket.remoteAddress ?? "", performance.now()) : 0;
    if (wait === 0) return inside(request, response);
    log().warn({ id, path, rate, address: request.socket.remoteAddress }, "too many requests");
    answerShort(
      response,
      429,
      JSON.stringify({ error: "too-many-requests", issues: [{ code: "too-many-requests", path: [], waitSeconds: wait }] }),
      { "retry-after": String(wait) },
    );
  };
}

/** Says why, and cuts the line: whoever does not close its own end must not keep this one. */
function part(socket: Socket, text: string): void {
  if (!socket.writable) {
    socket.destroy();
    return;
  }
  socket.end(text, () => socket.destroy());
  setTimeout(() => socket.destroy(), PARTING_MILLISECONDS).unref();
}

/** Counts the lines that are open, and cuts those beyond what one address, and all together, may hold. */
function boundLines(server: Server, lines: typeof LINES): void {
  const open = new Map<string, number>();
  server.maxConnections = lines.inAll;
  server.on("connection", (socket: Socket) => {
    const address = socket.remoteAddress ?? "";
    const own = (open.get(address) ?? 0) + 1;
    open.set(address, own);
    socket.once("close", () => {
      const left = (open.get(address) ?? 1) - 1;
      if (left > 0) open.set(address, left);
      else open.delete(address);
    });
    if (own > lines.fromOne) socket.destroy();
  });
}

/** The listening half, with its times and its lines; over TLS with a key and a certificate. */
export function serverFor(
  listener: Listener,
  tls?: { key: Buffer; cert: Buffer },
  { times = TIMES, lines = LINES }: { times?: typeof TIMES; lines?: typeof LINES } = {},
): Server {
  const server = (
    tls ? createTlsServer({ ...times, ...tls }, listener as RequestListener) : createServer(times, listener as RequestListener)
  ) as Server;
  boundLines(server, lines);
  server.on("clientError", (error: NodeJS.ErrnoException, socket) => {
    const status = error.code === "ERR_HTTP_REQUEST_TIMEOUT" ? "408 Request Timeout" : "400 Bad Request";
    part(socket as Socket, `HTTP/1.1 ${status}\r\nconnection: close\r\n\r\n`);
  });
  return server;
}
