import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import { createServer, type IncomingMessage, type RequestListener, type Server, type ServerResponse } from "node:http";
import { createServer as createTlsServer } from "node:https";
import next from "next";
import { databaseFile, dataFolder, openDatabase } from "@/data/connection";
import { AppError } from "@/data/errors";
import { holdFolder } from "@/data/hold";
import { sayError } from "@/ui/words/issues";
import { log } from "./log";
import { ownOrigins } from "./origins";
import { Limiter, rateOf } from "./rates";

/** A whole request, body and all, has to have arrived by then: a slow one holds a line no longer. */
export const REQUEST_MILLISECONDS = 20_000;
const HEADERS_MILLISECONDS = 10_000;
const LOOKED_AFTER_MILLISECONDS = 1000;

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

/** The listening half, with its times; over TLS where ZYGOMETER_TLS_KEY and ZYGOMETER_TLS_CERT name files. */
export function serverFor(listener: Listener, tls?: { key: Buffer; cert: Buffer }): Server {
  const times = {
    requestTimeout: REQUEST_MILLISECONDS,
    headersTimeout: HEADERS_MILLISECONDS,
    connectionsCheckingInterval: LOOKED_AFTER_MILLISECONDS,
  };
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

function tlsFiles(): { key: Buffer; cert: Buffer } | undefined {
  const { ZYGOMETER_TLS, ZYGOMETER_TLS_KEY, ZYGOMETER_TLS_CERT } = process.env;
  if (ZYGOMETER_TLS !== "1") return undefined;
  if (!ZYGOMETER_TLS_KEY || !ZYGOMETER_TLS_CERT) throw new Error("ZYGOMETER_TLS needs ZYGOMETER_TLS_KEY and ZYGOMETER_TLS_CERT");
  return { key: readFileSync(ZYGOMETER_TLS_KEY), cert: readFileSync(ZYGOMETER_TLS_CERT) };
}

/** Where somebody would go: not every name it answers to. */
function whereTold(origins: ReadonlySet<string>, listensOn: string): string[] {
  const isOpen = listensOn === "0.0.0.0" || listensOn === "::";
  const own = [...origins].filter((origin) => !/\/\/(localhost|\[::1\])/.test(origin));
  return isOpen ? own : own.slice(0, 1);
}

async function start(): Promise<void> {
  process.umask(0o077);
  const [hostname, port] = [process.env.HOST ?? "127.0.0.1", Number(process.env.PORT ?? 3000)];
  process.env.HOST = hostname;
  process.env.PORT = String(port);
  // A wrong setting is said now, not at the first request.
  const origins = ownOrigins();
  const tls = tlsFiles();
  holdFolder(dataFolder());
  sayTrouble();
  const app = next({ dev: false, dir: process.cwd(), hostname, port });
  await app.prepare();
  const times = Number(process.env.ZYGOMETER_RATE_TIMES ?? 1);
  const server = serverFor(atTheDoor(app.getRequestHandler(), new Limiter(Number.isFinite(times) && times >= 0 ? times : 1)), tls);
  server.on("error", (error) => {
    log().fatal(error, "not started");
    process.exit(1);
  });
  server.listen(port, hostname, () => {
    console.log(`\n    Zygometer is at ${whereTold(origins, hostname).join("\n                    ")}\n`);
    log().info({ origins: [...origins] }, "listening");
  });
  for (const signal of ["SIGTERM", "SIGINT"] as const)
    process.once(signal, () => {
      server.close(() => process.exit(0));
      server.closeIdleConnections();
      setTimeout(() => process.exit(0), 5000).unref();
    });
}

/** What keeps the record from being opened, in the terminal too; the pages say it until it can be. */
function sayTrouble(): void {
  try {
    openDatabase(databaseFile()).close();
  } catch (error) {
    if (!(error instanceof AppError)) throw error;
    console.error(`\n    ${databaseFile()}: ${sayError(error.code)}\n`);
    log().error({ file: databaseFile(), code: error.code, err: error.cause ?? error }, error.code);
  }
}

if (process.env.ZYGOMETER_START === "1") start();
