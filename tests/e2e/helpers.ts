import { expect, type Page } from "@playwright/test";

const BASE = "http://127.0.0.1:3187";

/** The demo's open jobs: it tells its closed stories first, in the order they happened. */
export const DEMO_JOBS = { held: 27, fixed: 28, level: 29, ripples: 30, bearing: 31, ledge: 32 } as const;

/** Sits somebody down at this browser. */
export async function sitDown(page: Page, initials = "AK"): Promise<void> {
  await page.context().addCookies([{ name: "zygometer-who", value: initials, url: BASE }]);
}

/** Takes a complaint through the API and answers its job. */
export async function newJob(
  page: Page,
  { machineId, words, symptoms = ["step-between-passes"] }: { machineId: string; words: string; symptoms?: string[] },
): Promise<number> {
  const answer = await page.request.post("/api/v1/complaints", {
    headers: { origin: BASE },
    data: { who: "AK", machineId, words, saidBy: "TV", place: "Apron verge", looks: { symptoms } },
  });
  expect(answer.status()).toBe(201);
  return (await answer.json()).jobId;
}

/** Answers every safety question of the state with yes. */
export async function makeSafe(page: Page, state: string): Promise<void> {
  await page.getByRole("radio", { name: state, exact: true }).click();
  for (const yes of await page.getByRole("button", { name: /^Yes: / }).all()) await yes.click();
  await page.getByRole("button", { name: /confirm:/ }).click();
  await expect(page.getByRole("list", { name: "Timeline" }).getByRole("listitem").last()).toContainText("Made safe");
}

/** Types one reading after another into the table, Enter after each: the order is the measuring order. */
export async function typeReadings(page: Page, readings: readonly string[]): Promise<void> {
  await page.getByRole("textbox", { name: /^1\. / }).click();
  for (const reading of readings) {
    await page.keyboard.type(reading);
    await page.keyboard.press("Enter");
  }
}

/** Types the speed of every spindle from the driver's left, without load. */
export async function typeSpeeds(page: Page, speeds: readonly string[]): Promise<void> {
  const fields = page.getByRole("textbox", { name: "Full throttle, no load" });
  await expect(fields).toHaveCount(speeds.length);
  for (const [k, speed] of speeds.entries()) await fields.nth(k).fill(speed);
}

/** Opens a check, whether the list suggests it or it stands among the others. */
export async function openCheck(page: Page, label: string): Promise<void> {
  const heading = page.getByRole("heading", { name: label, exact: true });
  const listed = page.getByRole("navigation", { name: "Steps of the job" }).getByRole("button", { name: new RegExp(`${label}`) });
  await expect(page.getByRole("navigation", { name: "Steps of the job" })).toBeVisible();
  await page.waitForLoadState("networkidle");
  // The list moves while the diagnosis settles: what was listed may have gone among the others by the time it is pressed.
  await expect(async () => {
    if (await heading.isVisible()) return;
    if ((await listed.count()) > 0) await listed.first().click({ timeout: 2000 });
    else {
      const others = page.getByLabel("Other checks");
      const option = await others.locator("option", { hasText: label }).first().getAttribute("value", { timeout: 2000 });
      await others.selectOption(option ?? "");
    }
    await expect(heading).toBeVisible({ timeout: 3000 });
  }).toPass();
}

/** Another machine with the same sheet, so that no test running beside this one touches it; answers its id. */
export async function twinOf(page: Page, machineId: string, fleetNumber: string): Promise<string> {
  const headers = { origin: BASE, "sec-fetch-site": "same-origin" };
  const { machine, name, site } = await (await page.request.get(`/api/v1/machines/${machineId}`, { headers })).json();
  const answer = await page.request.post("/api/v1/machines", { headers, data: { who: "AK", fleetNumber, name, site, machine } });
  expect(answer.status()).toBe(201);
  return (await answer.json()).machineId;
}
