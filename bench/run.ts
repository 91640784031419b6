import { spawn } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { gzipSync } from "node:zlib";
import { chromium } from "@playwright/test";
import { build } from "esbuild";
import { planeHeight } from "@/core/basics/geometry";
import { assessCheck, fullForm } from "@/core/checks";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { DEMO_JOBS } from "../tests/e2e/helpers";
import { timeDiagnosis } from "./diagnosis";
import { seenIn } from "./figures";
import { timeCrank, timeOverlapSlider, timeSheets, timeTimingWorker } from "./sheets";

/** `npm run bench`: prints what the README and the notes quote. Needs a build (bin/demo or bin/test makes one). Machines are noisy: medians. */
/** As it is served, without the limits that a benchmark would meet. */
const SERVED = { NODE_ENV: "production", ZYGOMETER_START: "1", HOST: "127.0.0.1", ZYGOMETER_RATE_TIMES: "0" } as const;
const PORT = 3191;
const quantile = seenIn;
const median = (values: readonly number[]) => seenIn(values, 0.5);
const print = (name: string, value: string) => console.log(`${name.padEnd(82)} ${value}`);

function benchAssess(): void {
  const machine = FLEET[0]?.machine;
  const parsed = machineSchema.parse(machine);
  const plane = { height: 0.08, slopeRight: 0.004, slopeForward: -0.01 };
  const tips = fullForm(parsed).map((station, k) => ({
    spindleId: station.spindleId,
    direction: station.direction,
    end: station.end,
    heightMetres: planeHeight(plane, station) + 0.0004 * Math.sin(k * 3.7),
  }));
  const once = () => {
    const start = performance.now();
    assessCheck("deck-level", { machine, readings: { tips, tyres: "right" } });
    return performance.now() - start;
  };
  const times = Array.from({ length: 3000 }, once);
  print("the very first assess of a process, cold", `${(times[0] ?? Number.NaN).toFixed(1)} ms`);
  for (const { check, milliseconds } of timeSheets()) print(`assess, ${check} (parsing counted), median`, `${milliseconds.toFixed(3)} ms`);
  print(`assess, deck-level, ${tips.length} readings (parsing counted), median`, `${median(times.slice(1500)).toFixed(3)} ms`);
}

async function withServer(work: (base: string) => Promise<void>): Promise<void> {
  const env = { ...process.env, ZYGOMETER_DATA: mkdtempSync(path.join(tmpdir(), "zygometer-bench-")), NEXT_TELEMETRY_DISABLED: "1" };
  await new Promise((resolve) =>
    spawn("npx", ["--no-install", "tsx", "src/demo/load.ts", "--fresh"], { env, stdio: "ignore" }).once("exit", resolve),
  );
  const server = spawn(process.execPath, ["--import", "tsx", "src/server/start.ts"], {
    env: { ...env, ...SERVED, PORT: String(PORT) },
    stdio: "ignore",
  });
  const base = `http://127.0.0.1:${PORT}`;
  try {
    for (let k = 0; k < 100; k++) {
      if (
        await fetch(`${base}/api/v1/checks`).then(
          (r) => r.ok,
          () => false,
        )
      )
        break;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
    await work(base);
  } finally {
    server.kill();
  }
}

async function benchServer(base: string): Promise<void> {
  const times: number[] = [];
  for (let k = 0; k < 60; k++) {
    const start = performance.now();
    await (await fetch(`${base}/jobs/${DEMO_JOBS.level}`)).text();
    times.push(performance.now() - start);
  }
  print("job page, server time to last byte, median of 50", `${median(times.slice(10)).toFixed(1)} ms`);
  const html = await (await fetch(`${base}/jobs/${DEMO_JOBS.level}`)).text();
  // What old browsers alone load (noModule) does not count.
  const tags = [...html.matchAll(/<script[^>]*src="(\/_next\/static\/[^"]+?\.js)[^>]*>/g)].filter(([tag]) => !/nomodule/i.test(tag));
  const scripts = [...new Set(tags.map(([, file = ""]) => file))];
  const sizes = scripts.map((file) => gzipSync(readFileSync(path.join(".next", file.replace("/_next/", "")))).length);
  print(
    `job page, first-load script, ${scripts.length} files, gzip`,
    `${(sizes.reduce((sum, size) => sum + size, 0) / 1000).toFixed(0)} kB`,
  );
  const all = readdirSync(".next/static/chunks").map((file) => statSync(path.join(".next/static/chunks", file)).size);
  print("all client chunks, as they lie", `${(all.reduce((sum, size) => sum + size, 0) / 1000).toFixed(0)} kB`);
}

/** From a key's event to the frame that shows the drawing changed, in the browser's own clock. */
async function benchKeystroke(base: string): Promise<void> {
  const flags = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
  ];
  const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: flags });
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addCookies([{ name: "zygometer-who", value: "AK", url: base }]);
  const page = await context.newPage();
  page.setDefaultTimeout(15_000);
  await page.goto(`${base}/jobs/${DEMO_JOBS.level}`, { waitUntil: "load" });
  await page.waitForTimeout(1500);
  await page.getByRole("button", { name: /^\d Deck level/ }).click();
  await page.getByRole("button", { name: "Read again" }).click();
  for (const [order, reading] of ["3", "3.31", "3 1/4", "3.1"].entries())
    await page.getByRole("region", { name: "In hand" }).getByRole("textbox").nth(order).fill(reading);
  const times = await page.evaluate(async () => {
    const input = document.querySelector<HTMLInputElement>('input[id^="field-tips"]');
    const drawing = document.querySelector('section[aria-label="Drawing"] svg');
    if (!input || !drawing) throw new Error("no worksheet open");
    const setter = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
    const taken: { toDom: number; toFrame: number }[] = [];
    for (let k = 0; k < 60; k++) {
      await new Promise((resolve) => requestAnimationFrame(resolve));
      const before = drawing.innerHTML;
      const start = performance.now();
      setter?.call(input, k % 2 === 0 ? "3.2" : "3.05");
      input.dispatchEvent(new Event("input", { bubbles: true }));
      await Promise.resolve();
      const toDom = drawing.innerHTML === before ? Number.NaN : performance.now() - start;
      await new Promise((resolve) => requestAnimationFrame(() => resolve(0)));
      taken.push({
        toDom: Number.isNaN(toDom) && drawing.innerHTML !== before ? performance.now() - start : toDom,
        toFrame: performance.now() - start,
      });
    }
    return taken;
  });
  const toDom = times.map((one) => one.toDom);
  print(
    "keystroke to changed drawing in the page, median / 95 %",
    `${median(toDom).toFixed(1)} / ${quantile(toDom, 0.95).toFixed(1)} ms (a frame at 60 Hz: 16.7)`,
  );
  print(
    "keystroke to the next frame, median / 95 %",
    `${median(times.map((one) => one.toFrame)).toFixed(1)} / ${quantile(
      times.map((one) => one.toFrame),
      0.95,
    ).toFixed(1)} ms`,
  );
  await browser.close();
}

type Timing = ReturnType<typeof timeDiagnosis>;
const SIZES = [5, 12, 14] as const;
const RUNS = { 5: 60, 12: 20, 14: 20 } as const;

function printDiagnosis(where: string, cutsWith: string, count: number, { posteriors, withReasons, nextChecks }: Timing): void {
  const figures = [posteriors, withReasons, nextChecks].map(({ half, slowest }) => `${half.toFixed(1)} (${slowest.toFixed(1)})`);
  print(`diagnosis ${where}, ${cutsWith}, ${count} symptoms: posteriors / with reasons / next checks (95 %)`, `${figures.join(" / ")} ms`);
}

function benchDiagnosis(): void {
  for (const cutsWith of ["rotary", "reel"] as const)
    for (const count of SIZES) printDiagnosis("server", cutsWith, count, timeDiagnosis(cutsWith, count, RUNS[count]));
}

/** The same code in Chromium, bundled as a browser gets it. */
async function benchDiagnosisInBrowser(): Promise<void> {
  const { outputFiles } = await build({
    stdin: { contents: 'import { timeDiagnosis } from "./diagnosis"; globalThis.timeDiagnosis = timeDiagnosis;', resolveDir: "bench" },
    bundle: true,
    write: false,
    format: "iife",
    minify: true,
    alias: { "@": "./src" },
  });
  const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
  const page = await browser.newPage();
  await page.addScriptTag({ content: outputFiles[0]?.text ?? "" });
  for (const cutsWith of ["rotary", "reel"] as const) {
    for (const count of SIZES) {
      const timing = await page.evaluate(
        ([kind, n, runs]) => (globalThis as unknown as { timeDiagnosis: typeof timeDiagnosis }).timeDiagnosis(kind, n, runs),
        [cutsWith, count, RUNS[count]] as const,
      );
      printDiagnosis("browser", cutsWith, count, timing);
    }
  }
  await browser.close();
}

async function benchSlider(base: string): Promise<void> {
  const { between, change } = await timeOverlapSlider(base);
  print(
    "overlap slider dragged: from frame to frame, median / 95 %; frames a second",
    `${median(between).toFixed(1)} / ${quantile(between, 0.95).toFixed(1)} ms; ${(1000 / (between.reduce((sum, one) => sum + one, 0) / between.length)).toFixed(0)}`,
  );
  print(
    "overlap slider: change of the drawing in the page, median / 95 %",
    `${median(change).toFixed(1)} / ${quantile(change, 0.95).toFixed(1)} ms`,
  );
}

async function benchTiming(base: string): Promise<void> {
  const { first, later } = await timeTimingWorker();
  print(
    "timing of three unequal blades in a worker, the first / median / 95 %",
    `${first.toFixed(1)} / ${median(later).toFixed(1)} / ${quantile(later, 0.95).toFixed(1)} ms`,
  );
  const between = await timeCrank(base);
  print(
    "geared blades turning: from drawn frame to drawn frame, median / 95 %; frames a second",
    `${median(between).toFixed(1)} / ${quantile(between, 0.95).toFixed(1)} ms; ${(1000 / (between.reduce((sum, one) => sum + one, 0) / between.length)).toFixed(0)}`,
  );
}

async function run(): Promise<void> {
  benchAssess();
  benchDiagnosis();
  await benchDiagnosisInBrowser();
  await withServer(async (base) => {
    await benchServer(base);
    await benchKeystroke(base);
    await benchSlider(base);
    await benchTiming(base);
  });
}

run().catch((error) => {
  console.error(error);
  process.exitCode = 1;
});
