import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { again, alive, BASE, DEMO_JOBS, firstField, makeSafe, newJob, open, openCheck, sitDown, twinOf, typeReadings } from "./helpers";

const AXE = readFileSync("node_modules/axe-core/axe.min.js", "utf8");

/** Violations of WCAG 2 level A or AA, as short lines. */
async function violations(page: Page): Promise<string[]> {
  await page.evaluate(AXE);
  return page.evaluate(async () => {
    const axe = (
      window as unknown as {
        axe: { run: (root: Document, options: object) => Promise<{ violations: { id: string; nodes: { html: string }[] }[] }> };
      }
    ).axe;
    const { violations: found } = await axe.run(document, { runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"] });
    return found.flatMap(({ id, nodes }) => nodes.map(({ html }) => `${id}: ${html.slice(0, 140)}`));
  });
}

async function like(page: Page, initials: string, preferences: Record<string, string>): Promise<void> {
  const answer = await page.request.patch(`/api/v1/people/${initials}`, {
    headers: { origin: "http://127.0.0.1:3187" },
    data: { who: initials, ...preferences },
  });
  expect(answer.ok()).toBe(true);
}

for (const theme of ["light", "dark"] as const) {
  test(`no view has an accessibility violation of level A or AA, ${theme}`, async ({ page }) => {
    test.slow();
    const initials = theme === "light" ? "AK" : "RSO";
    await like(page, initials, { theme });
    await sitDown(page, initials);
    const jobId = await newJob(page, { machineId: await twinOf(page, "zt-2", `ZT-2${theme.toUpperCase()}`), words: `axe ${theme}` });
    for (const view of [
      "/",
      "/machines",
      "/machines/zt-1",
      "/machines/rt-1",
      "/machines/gr-1",
      "/machines/zt-1/belt",
      "/machines/gr-1/dipstick",
      "/machines/rt-1/bench?unit=left",
      "/alike?machines=rt-1",
      "/labels",
      "/jobs/1/card",
      "/reckoner/blade-timing?machine=gr-1&pairs.left:middle.phaseDegrees=20",
      "/reckoner/tip-speed?machine=wc-1&spindles.blade.revolutionsPerMinute=3200&spindles.blade.lowChargeRevolutionsPerMinute=2600",
      "/reckoner/belt-inspection?machine=zt-1",
      "/complaint?machine=zt-1",
      "/complaint?machine=rw-1",
      `/jobs/${DEMO_JOBS.level}`,
      `/jobs/${DEMO_JOBS.fixed}`,
      `/jobs/${DEMO_JOBS.held}`,
      "/jobs/1",
      `/jobs/${jobId}`,
    ]) {
      await open(page, view);
      await alive(page);
      expect.soft(await violations(page), view).toEqual([]);
    }
    for (const id of [DEMO_JOBS.bearing, DEMO_JOBS.ledge]) {
      await open(page, `/jobs/${id}`);
      for (const order of [1, 2, 3, 4, 5, 6]) {
        await page.keyboard.press(`Alt+Digit${order}`);
        expect.soft(await violations(page), `job ${id}, step ${order}`).toEqual([]);
      }
    }
    await open(page, `/jobs/${jobId}`);
    await makeSafe(page, "Locked out");
    await openCheck(page, "Tyre pressures");
    await typeReadings(page, ["13", "x", "20", "400"]);
    expect(await violations(page), "tyres with bad input").toEqual([]);
    await page.getByRole("button", { name: "Keyboard shortcuts" }).click();
    expect(await violations(page), "keys").toEqual([]);
  });
}

test("nothing is asked of any other machine, and no script runs inline", async ({ page }) => {
  const foreign: string[] = [];
  page.on("request", (request) => {
    const { hostname, protocol } = new URL(request.url());
    if (hostname !== "127.0.0.1" && protocol !== "data:" && protocol !== "blob:") foreign.push(request.url());
  });
  const refused: string[] = [];
  page.on("console", (message) => message.type() === "error" && refused.push(message.text()));
  await sitDown(page);
  for (const view of ["/", "/machines/zt-1", "/machines/rt-1/bench", "/labels", "/complaint?machine=zt-1", `/jobs/${DEMO_JOBS.level}`]) {
    const response = await page.goto(view);
    const policy = response?.headers()["content-security-policy"] ?? "";
    expect(policy).toMatch(/script-src 'self' 'nonce-/);
    expect(policy.split(";").find((part) => part.includes("script-src"))).not.toContain("unsafe-inline");
    await alive(page);
  }
  expect(foreign).toEqual([]);
  expect(refused).toEqual([]);
  expect(
    await page.evaluate(() => document.fonts.check("16px 'Archivo Variable'") && document.fonts.check("16px 'Spline Sans Mono Variable'")),
  ).toBe(true);
});

test("the job fits 1280 × 800 without scrolling the page; bay and complaint fit a phone's width", async ({ page }) => {
  await sitDown(page);
  for (const id of [1, DEMO_JOBS.held, DEMO_JOBS.fixed, DEMO_JOBS.ledge]) {
    await open(page, `/jobs/${id}`);
    expect(await page.evaluate(() => document.documentElement.scrollHeight - window.innerHeight), `job ${id}`).toBeLessThanOrEqual(0);
  }
  await page.setViewportSize({ width: 390, height: 844 });
  for (const view of [
    "/",
    "/complaint?machine=zt-1",
    `/jobs/${DEMO_JOBS.level}`,
    "/machines/zt-1",
    "/machines/rt-1/bench",
    "/alike",
    "/jobs/1/card",
  ]) {
    await open(page, view);
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth), view).toBeLessThanOrEqual(0);
  }
});

test("a phone has units, theme and help under one's initials, and holds the longest there are", async ({ page }) => {
  const made = await page.request.post("/api/v1/people", { headers: { origin: BASE }, data: { initials: "MWMW" } });
  expect(made.ok()).toBe(true);
  await sitDown(page, "MWMW");
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, "/");
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByRole("button", { name: "MWMW: you. Change." }).click();
  const who = page.getByRole("dialog");
  await who.getByRole("button", { name: "Dark theme" }).click();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "dark");
  await who.getByRole("button", { name: /in · psi: units/ }).click();
  await expect(who.getByRole("button", { name: /mm · kPa: units/ })).toBeVisible();
  await who.getByRole("button", { name: "Keyboard shortcuts" }).click();
  await expect(page.getByRole("heading", { name: "Keys" })).toBeVisible();
});

test("what is typed of a new machine stays when its units are changed, in the other units", async ({ page }) => {
  await sitDown(page);
  await open(page, "/machines/new");
  await page.getByLabel("Its number").fill("ZT-77");
  const lowest = page.getByRole("textbox", { name: "Lowest height of cut" });
  if (!(await lowest.isVisible()))
    await page
      .locator("summary", { hasText: /height/i })
      .first()
      .click();
  await lowest.fill("1 1/2");
  await page.getByRole("button", { name: /in · psi: units/ }).click();
  await expect(page.getByRole("button", { name: /mm · kPa: units/ })).toBeVisible();
  await expect(page.getByLabel("Its number")).toHaveValue("ZT-77");
  await expect(lowest).toHaveValue(/^38(\.1)?$/);
  await page.getByRole("button", { name: /mm · kPa: units/ }).click();
  await expect(page.getByRole("button", { name: /in · psi: units/ })).toBeVisible();
  await expect(page.getByLabel("Its number")).toHaveValue("ZT-77");
  await expect(lowest).toHaveValue("1 1/2");
});

test("what cannot be read is answered at its field and nothing typed is lost, not even on a reload", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "zt-1", "ZT-1X1"), words: "bad input" });
  await open(page, `/jobs/${jobId}`);
  await makeSafe(page, "Locked out");
  await openCheck(page, "Tyre pressures");
  await typeReadings(page, ["twelve", "400", "83", "-3"]);
  const field = (order: number) =>
    page
      .getByRole("region", { name: "In hand" })
      .getByRole("textbox")
      .nth(order - 1);
  await expect(page.getByText("“twelve” cannot be read as a pressure.", { exact: false })).toBeVisible();
  await expect(page.getByText("More than this can be", { exact: false })).toBeVisible();
  await expect(page.getByText("Less than nothing", { exact: false })).toBeVisible();
  await expect(page.getByRole("button", { name: "Save the readings" })).toBeDisabled();
  await again(page);
  await expect(field(1)).toHaveValue("twelve");
  await page.getByRole("button", { name: "I meant 83 kPa" }).click();
  await expect(field(3)).toHaveValue("83 kPa");
  await field(1).fill("12");
  await field(2).fill("18 psi");
  await field(4).fill("23");
  await expect(page.getByTestId("answer")).toContainText("Let air out of right drive now");
  await field(4).fill("0.83 bar");
  await expect(page.getByRole("button", { name: "Save the readings" })).toBeEnabled();
});

test("a dropped connection loses nothing and a second press doubles nothing", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "bd-2", "BD-2X2"), words: "line drops" });
  await open(page, `/jobs/${jobId}`);
  await makeSafe(page, "Locked out");
  await openCheck(page, "Tyre pressures");
  await typeReadings(page, ["10", "14", "14", "10"]);
  let sent = 0;
  await page.route("**/takes", async (route) => {
    sent += 1;
    if (sent > 1) return route.continue();
    await page.request.fetch(route.request(), { maxRetries: 2 });
    return route.abort();
  });
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(page.getByText("No connection.", { exact: false })).toBeVisible();
  await expect(firstField(page)).toHaveValue("10");
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("Tyre pressures: in tolerance");
  await expect(page.getByRole("list", { name: "Timeline" }).getByText("Tyre pressures", { exact: false })).toHaveCount(1);
});

test("a stale tab writing to a closed job is told so, keeps what was typed, and undo reopens the job", async ({ page, context }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "bd-1", "BD-1X3"), words: "two tabs" });
  await open(page, `/jobs/${jobId}`);
  await makeSafe(page, "Locked out");
  await openCheck(page, "Tyre pressures");
  await typeReadings(page, ["10", "14", "14", "10"]);
  const other = await context.newPage();
  await open(other, `/jobs/${jobId}`);
  await other.getByRole("button", { name: /^Close/ }).click();
  await other.getByRole("button", { name: "Nothing found" }).click();
  await other.getByRole("button", { name: "Close the job" }).click();
  await expect(other.getByText("Not closed: it is not proved.", { exact: false })).toBeVisible();
  await other.getByLabel("Close it unproved, because").fill("could not be made to do it");
  await other.getByRole("button", { name: "Close it unproved" }).click();
  await expect(other.getByText("Closed, not proved.")).toBeVisible();
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(page.getByText("This job was closed in the meantime.", { exact: false })).toBeVisible();
  await expect(firstField(page)).toHaveValue("10");
  await other.getByRole("button", { name: "Undo: Closed, not proved" }).click();
  await expect(other.getByRole("button", { name: /Locked out · AK/ })).toBeVisible();
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("Tyre pressures: in tolerance");
});

test("a job page at rest asks nothing of its worker, with readings typed and not saved", async ({ page }) => {
  await page.addInitScript(() => {
    const counted = window as unknown as { asked: number };
    counted.asked = 0;
    const post = Worker.prototype.postMessage;
    Worker.prototype.postMessage = function (this: Worker, ...message: unknown[]) {
      counted.asked += 1;
      return (post as (...args: unknown[]) => void).apply(this, message);
    };
  });
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "zt-2", "ZT-2REST"), words: "at rest" });
  await open(page, `/jobs/${jobId}`);
  const asked = () => page.evaluate(() => (window as unknown as { asked: number }).asked);
  const within = async (milliseconds: number) => {
    const before = await asked();
    await page.waitForTimeout(milliseconds);
    return (await asked()) - before;
  };
  /** A slow machine comes to rest later; once at rest it stays so. */
  const atRest = async () => {
    await expect.poll(() => within(1500)).toBe(0);
    return within(4000);
  };
  await makeSafe(page, "Locked out");
  await openCheck(page, "Tyre pressures");
  await typeReadings(page, ["12", "18", "18", "7"]);
  await expect(page.getByRole("heading", { name: /^As typed/ })).toBeVisible();
  expect(await asked()).toBeGreaterThan(0);
  expect(await atRest(), "tyres typed").toBe(0);
  await openCheck(page, "Blade overlap");
  expect(await atRest(), "another check in hand").toBe(0);
});

test("units are one system throughout, and the drawing turns with the mechanic", async ({ page }) => {
  await like(page, "JM", { unitSystem: "metric", standsAt: "behind" });
  await sitDown(page, "JM");
  await open(page, `/jobs/${DEMO_JOBS.level}`);
  await openCheck(page, "Deck level and rake");
  await expect(page.getByTestId("answer")).toContainText(/side \d+ mm low/);
  const text = await page.getByRole("main").textContent();
  expect(text).not.toMatch(/\d in\b|\bpsi\b/);
  await page.getByRole("button", { name: "From underneath" }).click();
  await expect(page.getByRole("list", { name: "What to do" })).toContainText("up, anticlockwise");
  await page.getByRole("button", { name: "From behind" }).click();
  await expect(page.getByRole("list", { name: "What to do" })).toContainText("up, clockwise");
});

test("what is being typed keeps its field while one's own note comes in from another tab", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "zt-1", "ZT-1TABS"), words: "two tabs" });
  await open(page, `/jobs/${jobId}`);
  await page.getByRole("button", { name: /^Fix/ }).first().click();
  await page.getByLabel("For which cause").selectOption("something-else");
  const field = page.getByRole("textbox", { name: /^In words/ });
  await field.pressSequentially("Washers ");
  const sent = await page.request.post(`/api/v1/jobs/${jobId}/notes`, {
    headers: { origin: BASE },
    data: { who: "AK", text: "from the phone" },
  });
  expect(sent.status()).toBe(201);
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("from the phone");
  await page.keyboard.type("swapped");
  await expect(field).toHaveValue("Washers swapped");
});

test("readings go in on the drawing: touch a place, type, Enter walks on in measuring order", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "zt-1", "ZT-1X4"), words: "on the drawing" });
  await open(page, `/jobs/${jobId}`);
  await makeSafe(page, "Locked out");
  await openCheck(page, "Tyre pressures");
  await page.getByRole("button", { name: "Read Left drive" }).click();
  for (const reading of ["8", "18", "18", "12"]) {
    await page.keyboard.type(reading);
    await page.keyboard.press("Enter");
  }
  await expect(page.getByTestId("answer")).toHaveText("Left drive 4.0 psi low.");
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("heading", { name: "Fix", exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Write the fix down" }).click();
  await expect(page.getByRole("heading", { name: "Tyre pressures" })).toBeVisible();
  await page.keyboard.press("Alt+KeyZ");
  await expect(page.getByRole("heading", { name: "Fix", exact: true })).toBeVisible();
  await expect(page.getByRole("button", { name: "Undo: Tyre pressures: out" })).toBeVisible();
});

test("a refused isolation stops, and a walk-behind is not offered what it cannot have", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "wp-1", "WP-1X5"), words: "shakes", symptoms: ["vibration"] });
  await open(page, `/jobs/${jobId}`);
  await expect(page.getByRole("button", { name: /Deck level/ })).toHaveCount(0);
  await expect(page.getByLabel("Other checks")).not.toContainText("Belts and idlers");
  await page.getByRole("radio", { name: "Raised", exact: true }).click();
  for (const yes of await page.getByRole("button", { name: /^Yes: / }).all()) await yes.click();
  await page.getByRole("button", { name: /^No: Plug lead off/ }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Stop." })).toBeVisible();
  await expect(page.getByRole("button", { name: "Stopped by AK" })).toBeVisible();
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("Stopped, not so: Plug lead off");
});

test("hours and what happened are logged on the machine in a few touches and can be taken back", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "bd-2", "BD-2HOURS");
  await page.request.post(`/api/v1/machines/${machineId}/hours`, { headers: { origin: BASE }, data: { who: "AK", meterHours: 951 } });
  await open(page, `/machines/${machineId}`);
  await page.getByLabel(/Hour meter/).fill("1");
  await page.getByRole("button", { name: "Log hours" }).click();
  await expect(page.getByText("The meter stood at 951 h already.", { exact: false })).toBeVisible();
  await page.getByLabel(/Hour meter/).fill("955.5");
  await page.getByRole("button", { name: "Log hours" }).click();
  await expect(page.getByLabel("Hour meter, last 955.5 h")).toBeVisible();
  await page.getByLabel("What happened").selectOption({ label: "Struck something hard" });
  await page.getByLabel("In words: what, where").fill("kerb by the gate");
  await page.getByRole("button", { name: "Log it" }).click();
  await page.getByRole("button", { name: "Take back: Struck something hard" }).click();
  // It keeps the machine from running: taken back only with what shows that it was not so.
  const reason = page.getByLabel("It keeps the machine from running. Why was it not so?");
  await reason.fill("ok");
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByText("kerb by the gate").first()).toBeVisible();
  await expect(reason).toHaveValue("ok");
  await reason.fill("it was the other tractor, seen by two");
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByText("kerb by the gate")).toHaveCount(0);
});

test("a tyre pumped up after the level says so with the movement, and an uneven floor is mapped and remembered", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "zt-3", "ZT-3X6"), words: "pumped after levelling" });
  await open(page, `/jobs/${jobId}`);
  await makeSafe(page, "Locked out");
  await openCheck(page, "Tyre pressures");
  await typeReadings(page, ["8", "18", "18", "12"]);
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(page.getByRole("heading", { name: "Fix", exact: true })).toBeVisible();
  await openCheck(page, "Deck level and rake");
  await typeReadings(page, ["3 1/4", "3 1/4", "3 1/16", "3 5/16"]);
  await expect(page.getByTestId("answer")).toHaveText("Level side to side. Rake right.");
  await page.getByText("The floor here is uneven: map it").click();
  for (const wheel of ["Left drive", "Right drive", "Left caster", "Right caster"]) await page.getByLabel(`Floor: ${wheel}`).fill("0");
  await page.getByLabel("Floor: Left blade, tip to the left").fill("-1/4");
  for (const tip of ["Right blade, tip to the right", "Middle blade, tip to the front", "Middle blade, tip to the rear"])
    await page.getByLabel(`Floor: ${tip}`).fill("0");
  await expect(page.getByTestId("answer")).toContainText("Left side 1/4 in low.");
  await expect(page.getByText("Provisional:")).toBeVisible();
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(page.getByRole("heading", { name: "Fix", exact: true })).toBeVisible();
  await page.getByLabel("For which cause").selectOption({ label: "Tyres unequal side to side (readings say so)" });
  await page.getByRole("button", { name: "Write the fix down" }).click();
  await expect(page.getByRole("heading", { name: "Tyre pressures" })).toBeVisible();
  await openCheck(page, "Deck level and rake");
  await expect(page.getByText(/tyre inflated or let down at .* left blade, tip to the left reckoned .* in up \(estimate\)/)).toBeVisible();
  await page.getByText("The floor here is uneven: map it").click();
  await page.getByRole("button", { name: "As it was last time" }).click();
  await expect(page.getByLabel("Floor: Left blade, tip to the left")).toHaveValue("-0.25");
});

test("a note goes on the timeline, and a job that does not exist is said so", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "wc-1", "WC-1X7"), words: "note" });
  await open(page, `/jobs/${jobId}`);
  await page.getByRole("button", { name: "Note", exact: true }).click();
  await page.getByRole("textbox", { name: "Note" }).fill("waits for a pack");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("waits for a pack");
  const response = await page.goto("/jobs/99999");
  expect(response?.status()).toBe(404);
  await expect(page.getByRole("link", { name: "To the bay" })).toBeVisible();
  expect(await violations(page)).toEqual([]);
});

test("a slip is corrected in one's own units with every reading kept, and an unreadable height of cut is not passed over", async ({
  page,
}) => {
  await like(page, "AK", { unitSystem: "us" });
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "gr-1", "GR-1X8"), words: "a slip" });
  await open(page, `/jobs/${jobId}`);
  await makeSafe(page, "Locked out");
  await openCheck(page, "Tyre pressures");
  await typeReadings(page, ["14", "18", "18", "14"]);
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("Tyre pressures: in tolerance");
  await openCheck(page, "Deck level and rake");
  await page.getByRole("radio", { name: "Outer rakes too" }).click();
  await typeReadings(page, ["3", "3 1/4", "3 1/4", "3 1/4", "3", "3", "3 1/4", "3 1/4"]);
  await page.getByRole("textbox", { name: "Height of cut" }).fill("tall");
  await expect(page.getByRole("button", { name: "Save the readings" })).toBeDisabled();
  await page.getByRole("textbox", { name: "Height of cut" }).fill("");
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(page.getByRole("heading", { name: "Fix", exact: true })).toBeVisible();
  await openCheck(page, "Deck level and rake");
  await page.getByRole("button", { name: "Correct a slip" }).click();
  await expect(page.getByRole("region", { name: "In hand" }).getByRole("textbox").nth(7)).toHaveValue("3.25");
  await firstField(page).fill("3 1/16");
  await page.getByRole("button", { name: "Save the correction" }).click();
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("Corrected: Deck level and rake");
});
