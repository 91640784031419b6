import { readFileSync } from "node:fs";
import next from "next";
import { openDatabase } from "@/data/open";
import { databaseFile, dataFolder } from "@/data/store/connection";
import { AppError, ofDriver } from "@/data/store/errors";
import { holdFolder } from "@/data/store/hold";
import { sayError } from "@/ui/words/issues";
import { atTheDoor, serverFor } from "./door";
import { log } from "./log";
import { ownOrigins } from "./origins";
import { Limiter } from "./rates";

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
  saying(dataFolder(), () => holdFolder(dataFolder()));
  saying(databaseFile(), () => openDatabase(databaseFile(), undefined, { isFoldedLater: true }).close());
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

/**
 * Says in the terminal what keeps a file from being worked on; the pages say it until it can be. While another program has the folder to itself there is
 * nothing to serve.
 */
function saying(file: string, work: () => unknown): void {
  try {
    work();
  } catch (thrown) {
    const error = ofDriver(thrown);
    if (!(error instanceof AppError)) throw thrown;
    console.error(`\n    ${file}: ${sayError(error.code)}\n`);
    log().error({ file, code: error.code, err: error.cause ?? error }, error.code);
    if (error.code === "folder-in-use") process.exit(1);
  }
}

if (process.env.ZYGOMETER_START === "1") start();
