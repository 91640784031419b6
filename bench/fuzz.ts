import { spawn } from "node:child_process";
import { mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { seededRandom } from "@/core/basics/random";
import { openDatabase } from "@/data/open";
import { emptyDepot, openJob } from "../tests/data/helpers";
import { spoil } from "../tests/fuzz/mutate";
import { type Depot, statefulTargets, type Target, targetsFor } from "../tests/fuzz/targets";

/**
 * `npm run fuzz [BODIES] [SEED]`: spoilt bodies over every way the record is written and reckoned with, and every method, at the server as it
 * is served. Prints every answer that is a fault of its own (500) or takes what it must not, the server's memory by the way, and a plain line.
 * Needs a build.
 */
const [bodies = 10_000, seed = 1] = process.argv.slice(2).map(Number);
const PORT = 3195;
const BASE = `http://127.0.0.1:${PORT}`;
const METHODS = ["GET", "HEAD", "PUT", "PATCH", "DELETE", "OPTIONS", "POST"] as const;
/** Every so many a request goes by another method than its route's. */
const OTHER_METHOD_EVERY = 9;
const PAGES_EVERY = 500;

const data = mkdtempSync(path.join(tmpdir(), "zygometer-fuzz-"));

function begin(): Depot {
  const { db, clock } = emptyDepot(path.join(data, "zygometer.sqlite"));
  const jobId = openJob(db, clock);
  const depot = { machineId: "zt-1", otherId: "zt-2", jobId, secondJobId: openJob(db, clock) };
  db.close();
  return depot;
}

const megabytes = (pid: number): number => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) / 1024;

async function ask(method: string, address: string, text?: string): Promise<{ status: number; body: string }> {
  const hasBody = text !== undefined && method !== "GET" && method !== "HEAD";
  const response = await fetch(`${BASE}${address}`, {
    method,
    headers: { origin: BASE, "content-type": "application/json" },
    ...(hasBody ? { body: text } : {}),
  });
  return { status: response.status, body: await response.text() };
}

async function up(): Promise<void> {
  for (let k = 0; k < 150; k++) {
    const isUp = await fetch(`${BASE}/api/v1/checks`).then(
      ({ ok }) => ok,
      () => false,
    );
    if (isUp) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error("the server did not come up");
}

async function fuzz(pid: number, depot: Depot): Promise<number> {
  const random = seededRandom(seed);
  const file = path.join(data, "zygometer.sqlite");
  const own = openDatabase(file);
  const targets: Target[] = [...targetsFor(own, depot), ...statefulTargets(own, depot)];
  const faults: string[] = [];
  const answers = new Map<number, number>();
  const memory: number[] = [];
  const count = (status: number) => answers.set(status, (answers.get(status) ?? 0) + 1);
  for (const target of targetsFor(own, depot)) {
    const { status, body } = await ask(target.method, target.path, JSON.stringify(target.body));
    if (status >= 300) faults.push(`a sound body was refused, ${target.name}: ${status} ${body.slice(0, 200)}`);
  }
  for (let k = 0; k < bodies; k++) {
    const target = targets[Math.floor(random() * targets.length)] as Target;
    const spoilt = spoil(target, random);
    const isOther = k % OTHER_METHOD_EVERY === 0;
    const method = isOther ? (METHODS[Math.floor(random() * METHODS.length)] as string) : target.method;
    const { status, body } = await ask(method, spoilt.path, spoilt.text);
    count(status);
    const isTaken = status >= 200 && status < 300;
    const isWrong = isTaken && spoilt.mustRefuse && method === target.method;
    if (status >= 500 || isWrong) faults.push(`${status} ${method} ${target.name}, ${spoilt.how}: ${body.slice(0, 200)}`);
    if (k % PAGES_EVERY === 0) {
      memory.push(megabytes(pid));
      for (const page of ["/", "/machines", `/machines/${depot.machineId}`, `/jobs/${depot.jobId}`, "/complaint", "/reckoner"]) {
        const seen = await ask("GET", page);
        if (seen.status !== 200) faults.push(`page ${page} answers ${seen.status} after ${k} bodies`);
      }
    }
  }
  memory.push(megabytes(pid));
  own.close();
  for (const fault of faults.slice(0, 40)) console.log(fault);
  console.log(
    `answers: ${[...answers]
      .sort(([a], [b]) => a - b)
      .map(([status, n]) => `${status} × ${n}`)
      .join(", ")}`,
  );
  console.log(`memory, MB, every ${PAGES_EVERY} bodies: ${memory.map((mb) => mb.toFixed(0)).join(" ")}`);
  console.log(`${bodies} bodies, ${faults.length} faults (seed ${seed})`);
  return faults.length;
}

async function main(): Promise<void> {
  const depot = begin();
  const env: NodeJS.ProcessEnv = {
    ...process.env,
    ...{ ZYGOMETER_DATA: data, NODE_ENV: "production", ZYGOMETER_START: "1", ZYGOMETER_RATE_TIMES: "0", ZYGOMETER_LOG: "fatal" },
    ...{ PORT: String(PORT), HOST: "127.0.0.1" },
  };
  const server = spawn(process.execPath, ["--import", "tsx", "src/server/start.ts"], { env, stdio: "ignore" });
  try {
    await up();
    process.exitCode = (await fuzz(server.pid ?? 0, depot)) > 0 ? 1 : 0;
  } finally {
    server.kill();
  }
}

main();
