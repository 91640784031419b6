import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium, type Page } from "@playwright/test";
import { KIND_IDS } from "@/core/catalogue/kinds";
import { TEMPLATES, templateMachine } from "@/core/machine/specification";
import { addMachine } from "@/data/machine/machines";
import { openDatabase } from "@/data/open";
import { seedDepot } from "@/demo/depot";
import { served } from "./served";

/**
 * `npm run bench:frames`: how many frames of the screen a slider and a key cost in the browser, beside a page that draws nothing. Needs a build, and
 * Debian's Chromium. A machine without a graphics card draws slower than one that has one: compare with the empty page of the same run.
 */
const STEPS = 120;
/** Bought in besides the demo's own, so that the fleet is as large as one gets. */
const MACHINES = 294;
const CHROMIUM = "/usr/bin/chromium";

type Frames = { intervals: number[]; works: number[] };

/** Moves a slider once a frame, and tells how far frames lay apart and how long the page worked for each. */
const slid = (page: Page, name: string): Promise<Frames> =>
  page.evaluate(
    async ({ name, steps }) => {
      const slider = document.querySelector<HTMLInputElement>(`input[type=range][aria-label="${name}"]`);
      const put = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
      const frame = () => new Promise<number>((done) => requestAnimationFrame(done));
      const found: Frames = { intervals: [], works: [] };
      let last = await frame();
      for (let k = 0; k < steps; k++) {
        const from = performance.now();
        if (slider) {
          put?.call(slider, String(0.002 * Math.sin(k / 8)));
          slider.dispatchEvent(new Event("input", { bubbles: true }));
        }
        found.works.push(performance.now() - from);
        const now = await frame();
        found.intervals.push(now - last);
        last = now;
      }
      return found;
    },
    { name, steps: STEPS },
  );

type Keys = { works: number[]; painted: number[] };

/** Of each key: how long the page worked before it could draw, and from the key to the picture on the screen as the browser itself times events. */
async function keyed(page: Page, keys: readonly string[]): Promise<Keys> {
  await page.evaluate(() => {
    const own = window as unknown as { found: { works: number[]; painted: number[] } };
    own.found = { works: [], painted: [] };
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as PerformanceEventTiming[]) {
        if (entry.name !== "keydown") continue;
        own.found.works.push(entry.processingEnd - entry.processingStart);
        own.found.painted.push(entry.duration);
      }
    }).observe({ type: "event", durationThreshold: 16, buffered: false } as PerformanceObserverInit);
  });
  for (const key of keys) {
    await page.keyboard.press(key);
    await page.waitForTimeout(120);
  }
  return page.evaluate(() => (window as unknown as { found: Keys }).found);
}

function said(name: string, times: readonly number[]): string {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) => (sorted[Math.floor(share * (sorted.length - 1))] ?? Number.NaN).toFixed(1);
  return `${name.padEnd(44)} median ${at(0.5)}, 95 % ${at(0.95)}, worst ${at(1)} ms (${times.length})`;
}

const data = mkdtempSync(path.join(tmpdir(), "zygometer-frames-"));
const db = openDatabase(path.join(data, "zygometer.sqlite"));
const now = new Date().toISOString();
seedDepot(db, now);
for (let k = 0; k < MACHINES; k++) {
  const kind = KIND_IDS[k % KIND_IDS.length] ?? "zero-turn";
  const site = `Site ${k % 30}`;
  const machine = templateMachine(TEMPLATES[kind].usual);
  addMachine(db, { who: "AK", now }, { fleetNumber: `X-${k + 1}`, name: "Bought in", site, machine });
}
db.close();

await served(data, async (base) => {
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: ["--no-sandbox"] });
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addCookies([{ name: "zygometer-who", value: "AK", url: base }]);
  const page = await context.newPage();
  const open = async (at: string) => {
    await page.goto(`${base}${at}`, { waitUntil: "load" });
    await page.waitForTimeout(1500);
  };
  await open("/nothing-here");
  console.log(said("an empty page, a frame", (await slid(page, "none")).intervals));
  await open("/machines/rt-1/bench?unit=left");
  const bench = await slid(page, "Front roller up, by slider");
  console.log(said("side view on the bench, a frame", bench.intervals));
  console.log(said("side view on the bench, work of a step", bench.works));
  await open("/reckoner/bedknife-attitude?machine=rt-1&units.left.heightMetres=0.5");
  console.log(said("side view in a worksheet, a frame", (await slid(page, "Front roller down, what if")).intervals));
  await open("/reckoner/reel-contact?machine=rw-1");
  await page.locator("summary").first().click();
  const keys = await keyed(page, ["1", "2", ...Array.from({ length: 40 }, (_, k) => String((k % 3) + 1))]);
  console.log(said("contact grid of 14 blades, work of a key", keys.works));
  console.log(said("contact grid of 14 blades, key to picture", keys.painted));
  await open("/machines");
  await page.getByLabel("Find by number, name, site or kind").focus();
  const search = await keyed(page, [..."site 12", ...Array.from({ length: 7 }, () => "Backspace"), ..."reel triplex"]);
  console.log(said(`search over ${MACHINES + 14} machines, work of a key`, search.works));
  console.log(said(`search over ${MACHINES + 14} machines, key to picture`, search.painted));
  await browser.close();
});
