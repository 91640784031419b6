import { chromium } from "@playwright/test";
import { build } from "esbuild";
import { seededRandom } from "@/core/basics/random";
import { assessCheck, worksheetsFor } from "@/core/checks";
import { soundReadings } from "@/core/checks/sound";
import { type Machine, machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { seenIn } from "./figures";

const RUNS = 400;

/** Median milliseconds of every worksheet's assess, parsing counted, with the readings of a sound machine; the geared rider's own beside the zero-turn's. */
export function timeSheets(): { check: string; milliseconds: number }[] {
  const [zeroTurn, geared] = ["ZT-1", "GR-1"].map((name) =>
    machineSchema.parse(FLEET.find(({ fleetNumber }) => fleetNumber === name)?.machine),
  ) as [Machine, Machine];
  const random = seededRandom(7);
  const sheets = worksheetsFor(zeroTurn).map(({ id }) => ({ id, machine: zeroTurn }));
  const more = worksheetsFor(geared)
    .filter(({ id }) => !sheets.some((one) => one.id === id))
    .map(({ id }) => ({ id, machine: geared }));
  return [...sheets, ...more].flatMap(({ id, machine }) => {
    const readings = soundReadings({ machine, check: id, random, turf: "Verge" });
    if (!readings) return [];
    const times = Array.from({ length: RUNS }, () => {
      const start = performance.now();
      assessCheck(id, { machine, readings });
      return performance.now() - start;
    });
    return [{ check: id, milliseconds: seenIn(times.slice(RUNS / 2), 0.5) }];
  });
}

/** Three unequal blades as the timing worker studies them, bundled as a browser gets it and run in a worker of Chromium: milliseconds, the first time and after. */
export async function timeTimingWorker(): Promise<{ first: number; later: number[] }> {
  const { outputFiles } = await build({
    stdin: {
      contents: `import { studyPair } from "./src/core/physics/blades/timing-study";
        self.onmessage = ({ data }) => { const start = performance.now(); const found = data.map(studyPair); self.postMessage({ took: performance.now() - start, found: found.length }); };`,
      resolveDir: ".",
    },
    bundle: true,
    write: false,
    format: "iife",
    minify: true,
    alias: { "@": "./src" },
  });
  const blade = (lengthMetres: number, widthMetres: number) => ({ lengthMetres, widthMetres });
  const pair = (id: string, one: object, other: object) => ({
    id,
    pair: { one, other, centresMetres: 0.5, sense: "same" },
    phaseDegrees: 88,
    lashDegrees: 3,
    teeth: 12,
    wantedMetres: 0.006,
  });
  const [a, b, c] = [blade(0.63, 0.064), blade(0.58, 0.07), blade(0.61, 0.06)];
  const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
  const page = await browser.newPage();
  const times = await page.evaluate(
    async ({ code, pairs }) => {
      const worker = new Worker(URL.createObjectURL(new Blob([code], { type: "text/javascript" })));
      const taken: number[] = [];
      for (let run = 0; run < 30; run++) {
        const took = new Promise<number>((resolve) => {
          worker.onmessage = ({ data }) => resolve(data.took);
        });
        worker.postMessage(pairs);
        taken.push(await took);
      }
      return taken;
    },
    { code: outputFiles[0]?.text ?? "", pairs: [pair("left:middle", a, b), pair("middle:right", b, c)] },
  );
  await browser.close();
  return { first: times[0] ?? Number.NaN, later: times.slice(1) };
}

/** Milliseconds between frames while the geared blades turn by themselves. */
export async function timeCrank(base: string): Promise<number[]> {
  const browser = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--disable-sync"],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${base}/reckoner/blade-timing?machine=gr-1`, { waitUntil: "networkidle" });
  await page.getByRole("button", { name: "Turn slowly" }).click();
  const between = await page.evaluate(async () => {
    const taken: number[] = [];
    const drawn = () => document.querySelector('section[aria-label="Drawing"] rect[transform]')?.getAttribute("transform");
    let [last, before] = [await new Promise<number>(requestAnimationFrame), drawn()];
    while (taken.length < 240) {
      const now = await new Promise<number>(requestAnimationFrame);
      // Only frames in which the blades stand elsewhere count.
      if (drawn() !== before) {
        taken.push(now - last);
        [last, before] = [now, drawn()];
      }
    }
    return taken;
  });
  await browser.close();
  return between.slice(20);
}

/** Frames while the overlap's slider is dragged from one end to the other and back: milliseconds between them, and what each change takes in the page. */
export async function timeOverlapSlider(base: string): Promise<{ between: number[]; change: number[] }> {
  const browser = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--disable-sync"],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${base}/reckoner/blade-overlap?machine=zt-1`, { waitUntil: "networkidle" });
  const slider = page.getByRole("slider", { name: "Turn" });
  await slider.waitFor();
  const taken = await slider.evaluate(async (element) => {
    const input = element as HTMLInputElement;
    const setter = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
    const drawing = () => document.querySelector('section[aria-label="Drawing"] svg')?.innerHTML.length;
    const between: number[] = [];
    const change: number[] = [];
    let last = await new Promise<number>(requestAnimationFrame);
    for (let k = 0; k < 240; k++) {
      const start = performance.now();
      setter?.call(input, String(Math.round(390 * Math.sin((k / 240) * 2 * Math.PI))));
      input.dispatchEvent(new Event("input", { bubbles: true }));
      drawing();
      change.push(performance.now() - start);
      const now = await new Promise<number>(requestAnimationFrame);
      between.push(now - last);
      last = now;
    }
    return { between, change };
  });
  await browser.close();
  return { between: taken.between.slice(20), change: taken.change.slice(20) };
}
