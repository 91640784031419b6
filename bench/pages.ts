import { spawn } from "node:child_process";
import { mkdirSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { seenIn } from "./figures";
import { makeLargeDepot } from "./large";

/** `npm run bench:pages`: every page against an empty page of the same build, on the demo and on the large depot. Needs a build. */
/** As it is served, without the limits that a benchmark would meet. */
const SERVED = { NODE_ENV: "production", ZYGOMETER_START: "1", HOST: "127.0.0.1", ZYGOMETER_RATE_TIMES: "0" } as const;
const PORT = 3193;
const ROUNDS = 24;
/** Pages nobody has asked for yet are compiled and cached first. */
const WARM = 4;
/** A page of this build with nothing on it but its frame. */
const EMPTY = "/nothing-here";

const print = (name: string, value: string) => console.log(`${name.padEnd(44)} ${value}`);

async function served(data: string, work: (base: string) => Promise<void>): Promise<void> {
  const env = { ...process.env, ZYGOMETER_DATA: data, NEXT_TELEMETRY_DISABLED: "1" };
  const server = spawn(process.execPath, ["--import", "tsx", "src/server/start.ts"], {
    env: { ...env, ...SERVED, PORT: String(PORT) },
    stdio: "ignore",
  });
  const base = `http://127.0.0.1:${PORT}`;
  try {
    for (let k = 0; k < 150; k++) {
      const isUp = await fetch(`${base}/api/v1/checks`).then(
        ({ ok }) => ok,
        () => false,
      );
      if (isUp) break;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
    await work(base);
  } finally {
    server.kill();
    await new Promise((resolve) => server.once("exit", resolve));
  }
}

/** Server times to the last byte, and how much came; one round after another over all pages, so that noise falls on all alike. */
async function timePages(base: string, pages: readonly string[]): Promise<Map<string, { times: number[]; kilobytes: number }>> {
  const found = new Map(pages.map((page) => [page, { times: [] as number[], kilobytes: 0 }]));
  for (let round = 0; round < WARM + ROUNDS; round++) {
    for (const [page, own] of found) {
      const start = performance.now();
      const text = await (await fetch(`${base}${page}`)).text();
      if (round >= WARM) own.times.push(performance.now() - start);
      own.kilobytes = text.length / 1000;
    }
  }
  return found;
}

async function report(name: string, data: string, pages: readonly string[]): Promise<void> {
  console.log(`\n${name}`);
  await served(data, async (base) => {
    const found = await timePages(base, [EMPTY, ...pages]);
    const empty = seenIn(found.get(EMPTY)?.times ?? [], 0.5);
    for (const [page, { times, kilobytes }] of found) {
      const [half, most] = [seenIn(times, 0.5), seenIn(times, 0.95)];
      print(
        page,
        `${half.toFixed(1)} / ${most.toFixed(1)} ms (p50 / p95), ${(half / empty).toFixed(1)} × empty, ${kilobytes.toFixed(0)} kB`,
      );
    }
  });
}

async function run(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "zygometer-pages-"));
  const [demo, large] = [path.join(folder, "demo"), path.join(folder, "large")];
  mkdirSync(demo);
  mkdirSync(large);
  await new Promise((resolve) =>
    spawn("npx", ["--no-install", "tsx", "src/demo/load.ts", "--fresh"], {
      env: { ...process.env, ZYGOMETER_DATA: demo },
      stdio: "ignore",
    }).once("exit", resolve),
  );
  const start = performance.now();
  const held = makeLargeDepot({ demo: path.join(demo, "zygometer.sqlite"), file: path.join(large, "zygometer.sqlite") });
  const made = Object.entries(held).map(([table, count]) => `${count} ${table}`);
  console.log(`large depot made in ${((performance.now() - start) / 1000).toFixed(0)} s: ${made.join(", ")}`);
  const pages = [
    "/",
    "/machines",
    "/machines/zt-1",
    "/complaint",
    "/complaint?machine=zt-1",
    "/reckoner",
    "/reckoner/deck-level?machine=zt-1",
  ];
  await report("The demo depot", demo, [...pages, "/jobs/29", "/jobs/1"]);
  await report("The large depot", large, [...pages, "/jobs/34029", "/jobs/34001"]);
}

run().catch((error) => {
  console.error(error);
  process.exitCode = 1;
});
