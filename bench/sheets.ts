import { chromium } from "@playwright/test";
import { assessCheck, worksheetsFor } from "@/core/checks";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/demo/fleet";
import { seededRandom } from "@/demo/random";
import { soundReadings } from "@/demo/sheets";
import { seenIn } from "./figures";

const RUNS = 400;

/** Median milliseconds of every worksheet's assess, parsing counted, for a machine that has all of them, with the readings of a sound machine. */
export function timeSheets(): { check: string; milliseconds: number }[] {
  const machine = machineSchema.parse(FLEET[0]?.machine);
  const random = seededRandom(7);
  return worksheetsFor(machine).flatMap(({ id }) => {
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
