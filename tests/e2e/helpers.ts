import { expect, type Locator, type Page, test } from "@playwright/test";

export const BASE = "http://127.0.0.1:3187";

/** The demo's open jobs: it tells its closed stories first, in the order they happened. */
export const DEMO_JOBS = { held: 46, fixed: 47, bands: 48, level: 49, ripples: 50, bearing: 51, ledge: 52 } as const;

/** Sits somebody down at this browser. */
export async function sitDown(page: Page, initials = "AK"): Promise<void> {
  await page.context().addCookies([{ name: "zygometer-who", value: initials, url: BASE }]);
}

/** Opens a page and waits until it answers: an open job keeps a line to the depot, so its network is never idle. */
export async function open(page: Page, path: string): Promise<void> {
  await page.goto(path, { waitUntil: "load" });
  await alive(page);
}

/** Reloads, and waits until the page answers. */
export async function again(page: Page): Promise<void> {
  await page.reload({ waitUntil: "load" });
  await alive(page);
}

/** Waits until what the server drew has been taken over by the browser. */
export async function alive(page: Page): Promise<void> {
  await page.waitForFunction(() => {
    const main = document.querySelector("main");
    const isTaken = (element: Element) => Object.keys(element).some((key) => key.startsWith("__reactFiber"));
    // A form that comes by itself is taken over after the page around it: what is pressed before goes nowhere.
    return main !== null && isTaken(main) && [...main.querySelectorAll("input, button, select, textarea")].every(isTaken);
  });
  // What belongs to it is busy while the browser takes the page over; idle twice, and it is done.
  await page.evaluate(
    () => new Promise<void>((done) => requestIdleCallback(() => requestIdleCallback(() => done(), { timeout: 1000 }), { timeout: 1000 })),
  );
  await page.waitForTimeout(200);
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
  await answerYes(page);
  await page.getByRole("button", { name: /confirm:/ }).click();
  await expect(page.getByRole("list", { name: "Timeline" }).getByRole("listitem").last()).toContainText("Made safe");
}

/** Yes at every point that is asked. */
export async function answerYes(page: Page): Promise<void> {
  for (const yes of await page.getByRole("button", { name: /^Yes: / }).all()) await yes.click();
}

/** Looks at everything the work could have broken, turns everything by hand, lead or battery last. */
export async function putBack(page: Page): Promise<void> {
  await page
    .getByRole("button", { name: /^Put back/ })
    .first()
    .click();
  await expect(page.getByRole("heading", { name: "Put back" })).toBeVisible();
  await answerYes(page);
  await page.getByRole("button", { name: /put back, turned by hand/ }).click();
  await expect(page.getByRole("list", { name: "Timeline" }).getByRole("listitem").last()).toContainText("Put back");
}

/** Made ready to run, from wherever the screen stands. */
export async function makeReady(page: Page): Promise<void> {
  await page
    .getByRole("button", { name: /^Make it safe/ })
    .first()
    .click();
  await makeSafe(page, "Ready to run");
}

/** A test cut that is proof, with what the job asks for itself gone. */
export async function cutAlike(page: Page): Promise<void> {
  for (const name of ["All alike", "Good turf", "The same patch", "Dry", "Daylight", "As complained", "Same operator"]) {
    const choice = page.getByRole("radio", { name, exact: true });
    if ((await choice.count()) > 0) await choice.click();
  }
  const inHand = page.getByRole("region", { name: "In hand" });
  for (const gone of await inHand.getByRole("radio", { name: "Gone", exact: true }).all()) await gone.click();
  const blades = page.getByRole("group", { name: "Seen to cut, each of them" });
  if ((await blades.count()) > 0) for (const blade of await blades.getByRole("button").all()) await blade.click();
  await page.getByRole("button", { name: "Write the test cut down" }).click();
}

/** The first place to read of the worksheet in hand. */
export const firstField = (page: Page) => page.getByRole("region", { name: "In hand" }).getByRole("textbox").first();

/** Types one reading after another into the table, Enter after each: the order is the measuring order. */
export async function typeReadings(page: Page, readings: readonly string[]): Promise<void> {
  await firstField(page).click();
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
  await alive(page);
  // The list moves while the diagnosis settles: what was listed may have gone among the others by the time it is pressed.
  await expect(async () => {
    if (await heading.isVisible()) return;
    if ((await listed.count()) > 0) await listed.first().click({ timeout: 2000 });
    else {
      const others = page.getByLabel("Other checks");
      const option = await others.locator("option", { hasText: label }).first().getAttribute("value", { timeout: 2000 });
      await others.selectOption(option ?? "", { timeout: 2000 });
    }
    await expect(heading).toBeVisible({ timeout: 3000 });
  }).toPass();
}

/** A fleet number of its own for every try of a test: the last try's machine stands in the fleet already. */
export const numberFor = (fleetNumber: string): string => (test.info().retry > 0 ? `${fleetNumber}-${test.info().retry}` : fleetNumber);

/** Another machine with the same sheet, so that no test running beside this one touches it; answers its id. */
export async function twinOf(page: Page, machineId: string, wanted: string): Promise<string> {
  const fleetNumber = numberFor(wanted);
  const headers = { origin: BASE, "sec-fetch-site": "same-origin" };
  const { machine, name, site } = await (await page.request.get(`/api/v1/machines/${machineId}`, { headers })).json();
  const answer = await page.request.post("/api/v1/machines", { headers, data: { who: "AK", fleetNumber, name, site, machine } });
  expect(answer.status()).toBe(201);
  return (await answer.json()).machineId;
}

/** Gives the first answer to everything a guided step asks: the one that lets it go on. */
export async function answerUsual(step: Locator): Promise<void> {
  for (const asked of await step.getByRole("radiogroup").all()) await asked.getByRole("radio").first().click();
}
