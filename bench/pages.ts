import { spawn } from "node:child_process";
import { mkdirSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Database from "better-sqlite3";
import { seenIn } from "./figures";
import { makeLargeDepot } from "./large";
import { served } from "./served";

/** `npm run bench:pages`: every page against an empty page of the same build, on the demo and on the large depot. Needs a build. */
const ROUNDS = 24;
/** Pages nobody has asked for yet are compiled and cached first. */
const WARM = 4;
/** A page of this build with nothing on it but its frame. */
const EMPTY = "/nothing-here";

const print = (name: string, value: string) => console.log(`${name.padEnd(44)} ${value}`);

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

/** The pages of a job in work and of one closed long ago: whatever ids they have there. */
function jobPages(file: string): string[] {
  const db = new Database(file, { readonly: true });
  const ids = db
    .prepare(
      "SELECT (SELECT max(id) FROM jobs WHERE state = 'in-work') AS open, (SELECT min(id) FROM jobs WHERE state = 'closed') AS closed",
    )
    .get() as { open: number; closed: number };
  db.close();
  return [`/jobs/${ids.open}`, `/jobs/${ids.closed}`];
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
    "/machines/zt-1?kind=fix&q=hangers",
    "/machines/zt-1?place=left",
    "/machines/zt-1/sheet",
    "/machines/zt-1/history",
    "/machines/sisters",
    "/machines/new",
    "/service",
    "/parts",
    "/parts/1",
    "/holds",
    "/handover",
    "/sites",
    "/procedures",
    "/shop",
    "/complaint",
    "/complaint?machine=zt-1",
    "/reckoner",
    "/reckoner/deck-level?machine=zt-1",
  ];
  await report("The demo depot", demo, [...pages, ...jobPages(path.join(demo, "zygometer.sqlite"))]);
  await report("The large depot", large, [...pages, ...jobPages(path.join(large, "zygometer.sqlite"))]);
}

run().catch((error) => {
  console.error(error);
  process.exitCode = 1;
});
