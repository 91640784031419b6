import { spawn } from "node:child_process";
import { mkdirSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Database from "better-sqlite3";
import { seenIn } from "./figures";
import { makeLargeDepot } from "./large";
import { served } from "./served";

/**
 * `npm run bench:pages [fleets]`: every page against an empty page of the same build, on the demo and on the large depot: while nothing is written, right after
 * somebody wrote to another machine, and right after he wrote to the machine of the page. Then writes, and a crowd of writers and readers. Needs a build.
 */
const ROUNDS = 16;
/** Pages nobody has asked for yet are compiled and cached first. */
const WARM = 3;
/** A page of this build with nothing on it but its frame. */
const EMPTY = "/nothing-here";
/** The machine with most jobs behind it, whose pages are measured; and another. */
const [BUSY, OTHER] = ["rt-1", "zt-1"];
const CROWD_SECONDS = 60;
const [WRITERS, READERS] = [3, 10];

const print = (name: string, value: string) => console.log(`${name.padEnd(44)} ${value}`);

let meter = 0;
/** One reading of a machine's hour meter: the smallest thing that is written every day, and moves what is due. */
async function write(base: string, machineId: string): Promise<number> {
  const start = performance.now();
  const response = await fetch(`${base}/api/v1/machines/${machineId}/hours`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: base },
    body: JSON.stringify({ who: "AK", meterHours: 40_000 + ++meter / 100, isSure: true }),
  });
  if (!response.ok) throw new Error(`a write was answered ${response.status}: ${await response.text()}`);
  await response.arrayBuffer();
  return performance.now() - start;
}

/** A word on a job in work: it goes on the machine's log, which is then folded. */
async function note(base: string, jobId: number): Promise<number> {
  const start = performance.now();
  const response = await fetch(`${base}/api/v1/jobs/${jobId}/notes`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: base },
    body: JSON.stringify({ who: "AK", text: "looked at" }),
  });
  if (!response.ok) throw new Error(`a note was answered ${response.status}: ${await response.text()}`);
  await response.arrayBuffer();
  return performance.now() - start;
}

async function read(base: string, page: string): Promise<number> {
  const start = performance.now();
  const response = await fetch(`${base}${page}`);
  await response.arrayBuffer();
  if (response.status >= 500) throw new Error(`${page} was answered ${response.status}`);
  return performance.now() - start;
}

type Times = Map<string, number[]>;

/** Server times to the last byte; one round after another over all pages, so that noise falls on all alike. `before`: what is written before each. */
async function timePages(base: string, pages: readonly string[], before: () => Promise<unknown> = async () => {}): Promise<Times> {
  const found: Times = new Map(pages.map((page) => [page, []]));
  for (let round = 0; round < WARM + ROUNDS; round++)
    for (const [page, own] of found) {
      await before();
      const time = await read(base, page);
      if (round >= WARM) own.push(time);
    }
  return found;
}

const told = (times: readonly number[], empty: { half: number }) => {
  const [half, most] = [seenIn(times, 0.5), seenIn(times, 0.95)];
  return `${half.toFixed(0).padStart(4)} /${most.toFixed(0).padStart(4)} ms ${(half / empty.half).toFixed(1).padStart(4)} ×${(most / empty.half).toFixed(1).padStart(5)} ×`;
};

async function report(name: string, data: string, pages: readonly string[]): Promise<void> {
  console.log(`\n${name}: p50 / p95, and as so many empty pages; unchanged | after a write to ${OTHER} | after one to ${BUSY}`);
  const began = performance.now();
  await served(data, async (base) => {
    print("server up, first page", `${((performance.now() - began) / 1000).toFixed(1)} s`);
    print("the bay for the first time", `${((await read(base, "/")) / 1000).toFixed(2)} s`);
    const all = [EMPTY, ...pages];
    const tables = [
      await timePages(base, all),
      await timePages(base, all, () => write(base, OTHER)),
      await timePages(base, all, () => write(base, BUSY)),
    ];
    for (const page of all)
      print(
        page,
        tables
          .map((times) => {
            const of = times.get(EMPTY) ?? [];
            return told(times.get(page) ?? [], { half: seenIn(of, 0.5) });
          })
          .join(" | "),
      );
    await reportWrites(base);
    await reportCrowd(base, pages);
  });
}

async function reportWrites(base: string): Promise<void> {
  const complaint = await fetch(`${base}/api/v1/complaints`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: base },
    body: JSON.stringify({ who: "AK", machineId: BUSY, words: "ridges", saidBy: "TV", place: "square", looks: { symptoms: ["ripples"] } }),
  });
  const { jobId } = (await complaint.json()) as { jobId: number };
  const [hours, notes]: [number[], number[]] = [[], []];
  for (let k = 0; k < 60; k++) {
    hours.push(await write(base, BUSY));
    notes.push(await note(base, jobId));
  }
  for (const [name, times] of [
    ["an hour reading", hours],
    ["a note in a job", notes],
  ] as const)
    print(`write, ${BUSY}: ${name}`, `${seenIn(times, 0.5).toFixed(1)} / ${seenIn(times, 0.95).toFixed(1)} ms (p50 / p95)`);
}

/** Three who write once a second, ten who read all the time. */
async function reportCrowd(base: string, pages: readonly string[]): Promise<void> {
  const until = performance.now() + CROWD_SECONDS * 1000;
  const [reads, writes]: [number[], number[]] = [[], []];
  const writer = async (k: number) => {
    while (performance.now() < until) {
      const start = performance.now();
      writes.push(await write(base, [OTHER, BUSY, "bd-1"][k % 3] as string));
      await new Promise((done) => setTimeout(done, Math.max(0, 1000 - (performance.now() - start))));
    }
  };
  const reader = async (k: number) => {
    // Ten people do not press in the same instant.
    await new Promise((done) => setTimeout(done, (k * 1000) / READERS));
    // Somebody looks at a page before he asks for the next.
    for (let n = k; performance.now() < until; n++) {
      reads.push(await read(base, pages[n % pages.length] as string));
      await new Promise((done) => setTimeout(done, 1000));
    }
  };
  await Promise.all([...Array.from({ length: WRITERS }, (_, k) => writer(k)), ...Array.from({ length: READERS }, (_, k) => reader(k))]);
  print(
    `${WRITERS} writers, ${READERS} readers, ${CROWD_SECONDS} s`,
    `${reads.length} reads ${seenIn(reads, 0.5).toFixed(0)} / ${seenIn(reads, 0.95).toFixed(0)} / ${Math.max(...reads).toFixed(0)} ms (p50 / p95 / worst), ${writes.length} writes ${seenIn(writes, 0.5).toFixed(0)} / ${seenIn(writes, 0.95).toFixed(0)} ms, no error`,
  );
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
  const fleets = Number(process.argv[2]);
  const held = makeLargeDepot({
    demo: path.join(demo, "zygometer.sqlite"),
    file: path.join(large, "zygometer.sqlite"),
    ...(fleets > 0 ? { fleets } : {}),
  });
  const made = Object.entries(held).map(([table, count]) => `${count} ${table}`);
  console.log(`large depot made in ${((performance.now() - start) / 1000).toFixed(0)} s: ${made.join(", ")}`);
  const pages = [
    "/",
    "/machines",
    "/machines/rt-1",
    "/machines/rt-1?kind=fix&q=grind",
    "/machines/rt-1?place=left",
    "/machines/rt-1/sheet",
    "/machines/rt-1/history",
    "/machines/zt-1",
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
    "/complaint?machine=rt-1",
    "/reckoner",
    "/reckoner/reel-speed?machine=rt-1",
  ];
  await report("The demo depot", demo, [...pages, ...jobPages(path.join(demo, "zygometer.sqlite"))]);
  await report("The large depot", large, [...pages, ...jobPages(path.join(large, "zygometer.sqlite"))]);
}

run().catch((error) => {
  console.error(error);
  process.exitCode = 1;
});
