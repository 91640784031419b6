import { expect, type Page } from "@playwright/test";

const BASE = "http://127.0.0.1:3187";

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
}

/** Types one reading after another into the table, Enter after each: the order is the measuring order. */
export async function typeReadings(page: Page, readings: readonly string[]): Promise<void> {
  await page.getByRole("textbox", { name: /^1\. / }).click();
  for (const reading of readings) {
    await page.keyboard.type(reading);
    await page.keyboard.press("Enter");
  }
}
