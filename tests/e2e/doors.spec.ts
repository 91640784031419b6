import { chromium, expect, type Page, type Route, test } from "@playwright/test";
import { again, alive, BASE, newJob, open, openCheck, sitDown, twinOf } from "./helpers";

const PORT = new URL(BASE).port;
const FAR = `http://bay.shop.test:${PORT}`;

/** Scripts of the page come only when they are let through: so it stands before it is ready. */
async function holdScripts(page: Page): Promise<() => Promise<void>> {
  const held: Route[] = [];
  let isOpen = false;
  await page.route("**/_next/static/**/*.js", (route) => {
    if (isOpen) return route.continue();
    held.push(route);
  });
  return async () => {
    isOpen = true;
    await Promise.all(held.map((route) => route.continue()));
  };
}

test("what is typed, picked and pressed before the page is ready stays and is done", async ({ page }) => {
  await sitDown(page);
  const release = await holdScripts(page);
  await page.goto("/complaint", { waitUntil: "commit" });
  const option = page.locator("select option", { hasText: "ZT-2" }).first();
  await page
    .locator("select")
    .first()
    .selectOption((await option.getAttribute("value")) ?? "");
  const words = page.getByRole("textbox").first();
  await words.fill("typed before it was ready");
  await release();
  await alive(page);
  await expect(words).toHaveValue("typed before it was ready");
  await expect(page.locator("select").first()).toHaveValue("zt-2");
  // The page knows it, not only the field: the looks of that machine are asked.
  await expect(page.getByRole("button", { name: "Ledge between passes" })).toBeVisible();
});

for (const rate of [1, 4]) {
  test(`no press is lost before the page is ready, with a processor ${rate} times slower`, async ({ page }) => {
    test.slow();
    await sitDown(page);
    const jobId = await newJob(page, { machineId: await twinOf(page, "zt-1", `ZT-EARLY${rate}`), words: "pressed early" });
    const session = await page.context().newCDPSession(page);
    await session.send("Emulation.setCPUThrottlingRate", { rate });
    let lost = 0;
    const ROUNDS = 5;
    for (let round = 0; round < ROUNDS; round++) {
      await page.goto(`/jobs/${jobId}`, { waitUntil: "commit" });
      // Pressed as soon as it is drawn, whatever the scripts have got to.
      const note = page.locator("button", { hasText: /^Note$/ });
      await note.waitFor({ state: "visible" });
      await note.evaluate((button: HTMLButtonElement) => button.click());
      const field = page.getByRole("textbox", { name: "Note" });
      await field.waitFor({ timeout: 30_000 }).catch(() => {
        lost += 1;
      });
      await page.evaluate(() => localStorage.clear());
    }
    expect(lost).toBe(0);
  });
}

test("on the shop's own network, without https, a photograph is kept and seen, and a note is written once", async ({ page: near }) => {
  await sitDown(near);
  const machineId = await twinOf(near, "zt-1", "ZT-PLAIN");
  const jobId = await newJob(near, { machineId, words: "over plain http" });
  const far = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--host-resolver-rules=MAP bay.shop.test 127.0.0.1"],
  });
  const context = await far.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addCookies([{ name: "zygometer-who", value: "AK", url: FAR }]);
  const page = await context.newPage();
  await open(page, `${FAR}/jobs/${jobId}`);
  expect(await page.evaluate(() => window.isSecureContext)).toBe(false);
  await page.getByRole("button", { name: "Note", exact: true }).click();
  await page.getByRole("textbox", { name: "Note" }).fill("said over plain http");
  await page.getByRole("button", { name: "Write", exact: true }).click();
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("said over plain http");
  await open(page, `${FAR}/machines/${machineId}`);
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByText("Photograph the belt's path").first().click()]);
  await chooser.setFiles({ name: "belt.png", mimeType: "image/png", buffer: await picture(page) });
  const kept = page.getByRole("list", { name: "Kept with the machine" }).getByRole("img").first();
  await expect(kept).toBeVisible();
  await expect.poll(() => kept.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0);
  // Taken back it is gone, there and at its address.
  const address = (await kept.getAttribute("src")) ?? "";
  await page.getByRole("button", { name: "Take back: belt path" }).first().click();
  await expect(page.getByRole("list", { name: "Kept with the machine" })).toHaveCount(0);
  expect((await near.request.get(address, { headers: { origin: BASE } })).status()).toBe(404);
  await far.close();
});

/** A small picture, drawn by the browser. */
async function picture(page: Page): Promise<Buffer> {
  const url = await page.evaluate(() => {
    const canvas = document.createElement("canvas");
    canvas.width = 80;
    canvas.height = 60;
    const pen = canvas.getContext("2d");
    if (pen) {
      pen.fillStyle = "teal";
      pen.fillRect(0, 0, 80, 60);
    }
    return canvas.toDataURL("image/png");
  });
  return Buffer.from(url.split(",")[1] ?? "", "base64");
}

test("under a name that is not its own, nothing of the record is read or written", async ({ page }) => {
  for (const path of ["/", "/jobs/1", "/api/v1/machines"])
    expect((await page.request.get(`${BASE}${path}`, { headers: { host: `elsewhere.test:${PORT}` } })).status(), path).toBe(421);
  const write = await page.request.post(`${BASE}/api/v1/people`, {
    headers: { host: `elsewhere.test:${PORT}`, origin: `http://elsewhere.test:${PORT}` },
    data: { initials: "XY" },
  });
  expect(write.status()).toBe(421);
  // The same name over another scheme is another place.
  const scheme = await page.request.post(`${BASE}/api/v1/people`, {
    headers: { origin: BASE.replace("http:", "https:") },
    data: { initials: "XY" },
  });
  expect(scheme.status()).toBe(403);
  // A foreign page does not get a picture of the record into its own either.
  const headers = (await page.request.get(`${BASE}/api/v1/machines`, { headers: { origin: BASE } })).headers();
  expect(headers).toMatchObject({
    "cache-control": "no-store",
    "cross-origin-resource-policy": "same-origin",
    "x-content-type-options": "nosniff",
  });
});

test("a note whose answer was lost is found again after a reload, and stands once", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "zt-1", "ZT-LOST"), words: "a lost answer" });
  await open(page, `/jobs/${jobId}`);
  const line = page.getByRole("list", { name: "Timeline" });
  await page.route("**/notes", async (route) => {
    await route.fetch();
    await route.abort();
  });
  await page.getByRole("button", { name: "Note", exact: true }).click();
  await page.getByRole("textbox", { name: "Note" }).fill("arrived, and nobody heard");
  await page.getByRole("button", { name: "Write", exact: true }).click();
  await expect(page.getByText("No connection")).toBeVisible();
  await page.unroute("**/notes");
  await again(page);
  await expect(page.getByText("What was sent before the line was lost was written down.")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Note" })).toHaveCount(0);
  await expect(line.getByText("arrived, and nobody heard")).toHaveCount(1);
});

test("what was typed stays through a reload and a dropped connection: note, hold reason, hours, photograph", async ({ page, context }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-1", "ZT-STAY");
  const jobId = await newJob(page, { machineId, words: "it stays" });
  await open(page, `/jobs/${jobId}`);
  await page.getByRole("button", { name: "Note", exact: true }).click();
  await page.getByRole("textbox", { name: "Note" }).fill("half a thought");
  await again(page);
  await expect(page.getByRole("textbox", { name: "Note" })).toHaveValue("half a thought");
  await page.getByRole("button", { name: "Hold out of service" }).click();
  await page.getByRole("textbox", { name: "Hold it out of service" }).fill("waits for a hanger");
  await again(page);
  await expect(page.getByRole("textbox", { name: "Hold it out of service" })).toHaveValue("waits for a hanger");
  await open(page, `/machines/${machineId}`);
  await page.getByLabel(/^Hour meter/).fill("1250.5");
  await page.getByRole("button", { name: "Struck something" }).click();
  await page.getByRole("textbox", { name: "In words: what, where" }).fill("kerb by the gate");
  await context.setOffline(true);
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByText("Photograph the belt's path").first().click()]);
  await chooser.setFiles({ name: "belt.png", mimeType: "image/png", buffer: await picture(page) });
  await expect(page.getByText("Not written down yet.")).toBeVisible();
  await context.setOffline(false);
  await again(page);
  await expect(page.getByLabel(/^Hour meter/)).toHaveValue("1250.5");
  await expect(page.getByRole("textbox", { name: "In words: what, where" })).toHaveValue("kerb by the gate");
  await page.getByRole("button", { name: "Send the photograph" }).click();
  await expect(page.getByRole("list", { name: "Kept with the machine" }).getByRole("img")).toHaveCount(1);
});

test("two tabs on one worksheet show the same, and saving in both writes it once", async ({ page, context }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "zt-1", "ZT-TABS"), words: "two tabs" });
  const safe = { who: "AK", state: "parked", answers: await parkedAnswers(page, jobId) };
  expect((await page.request.post(`/api/v1/jobs/${jobId}/confirmations`, { headers: { origin: BASE }, data: safe })).status()).toBe(201);
  const other = await context.newPage();
  for (const tab of [page, other]) {
    await open(tab, `/jobs/${jobId}`);
    await openCheck(tab, "Tyre pressures");
  }
  const field = (tab: Page, k: number) => tab.getByRole("region", { name: "In hand" }).getByRole("textbox").nth(k);
  await field(page, 0).fill("12");
  await expect(field(other, 0)).toHaveValue("12");
  await field(other, 1).fill("12.5");
  await expect(field(page, 1)).toHaveValue("12.5");
  await expect(field(page, 0)).toHaveValue("12");
  // Pressed in both before either hears of the other: what they send arrives together.
  const sent: Route[] = [];
  await context.route("**/takes", async (route) => {
    sent.push(route);
    if (sent.length === 2) await Promise.all(sent.map((one) => one.continue()));
  });
  for (const tab of [page, other]) await tab.getByRole("button", { name: "Save the readings" }).click();
  for (const tab of [page, other]) await expect(tab.getByRole("list", { name: "Timeline" })).toContainText("Tyre pressures");
  const view = await (await page.request.get(`/api/v1/jobs/${jobId}`, { headers: { origin: BASE } })).json();
  expect(sent).toHaveLength(2);
  expect(view.takes.length).toBe(1);
  // Nothing of it is left to be saved again.
  for (const tab of [page, other])
    expect(await tab.evaluate(() => Object.keys(localStorage).filter((key) => key.includes(":form:tyre-pressure")))).toEqual([]);
});

test("two tabs in two units show the same length each in its own, and do not write each other's for ever", async ({ page, context }) => {
  await sitDown(page, "RSO");
  const jobId = await newJob(page, {
    machineId: await twinOf(page, "zt-1", "ZT-UNITS"),
    words: "two units",
    symptoms: ["uncut-strip-inside"],
  });
  const like = (unitSystem: string) =>
    page.request.patch("/api/v1/people/RSO", { headers: { origin: BASE }, data: { who: "RSO", unitSystem } });
  await like("us");
  await open(page, `/jobs/${jobId}`);
  const metric = await context.newPage();
  await like("metric");
  await open(metric, `/jobs/${jobId}`);
  for (const tab of [page, metric]) {
    await openCheck(tab, "Blade overlap");
    await tab.getByRole("button", { name: "Make it safe", exact: true }).first().waitFor();
  }
  const stored = () =>
    page.evaluate(() =>
      Object.entries(localStorage)
        .filter(([key]) => key.includes(":form:blade-overlap"))
        .map(([, text]) => text),
    );
  await page.evaluate((job) => {
    const value = { text: { "blades.left.lengthMetres": "17" }, sure: {}, isOpen: true };
    const kept = { value, id: "00000000-0000-4000-8000-000000000001", system: "us", at: new Date().toISOString() };
    const address = `zygometer/${document.documentElement.dataset.record}/RSO/job:${job}:form:blade-overlap`;
    localStorage.setItem(address, JSON.stringify(kept));
    window.dispatchEvent(new StorageEvent("storage", { key: address, newValue: localStorage.getItem(address) }));
  }, jobId);
  const [first] = await stored();
  await page.waitForTimeout(1500);
  expect(await stored()).toEqual([first]);
  await like("us");
});

async function parkedAnswers(page: Page, jobId: number): Promise<Record<string, { answer: string }>> {
  const view = await (await page.request.get(`/api/v1/jobs/${jobId}`, { headers: { origin: BASE } })).json();
  expect(view.machine.machine.kind).toBe("zero-turn");
  return Object.fromEntries(["level-hard-ground", "blades-stopped", "brake-and-key", "cool-to-touch"].map((id) => [id, { answer: "yes" }]));
}

test("drafts are their record's, their person's and their units'; one that cannot be read is set aside", async ({ page }) => {
  await sitDown(page, "JM");
  const jobId = await newJob(page, { machineId: await twinOf(page, "zt-1", "ZT-DRAFT"), words: "whose words" });
  await open(page, `/jobs/${jobId}`);
  await page.getByRole("button", { name: "Note", exact: true }).click();
  await page.getByRole("textbox", { name: "Note" }).fill("JM was here");
  await sitDown(page, "RSO");
  await again(page);
  await expect(page.getByRole("textbox", { name: "Note" })).toHaveCount(0);
  await page.getByRole("button", { name: "Take over what JM typed here" }).click();
  await expect(page.getByRole("textbox", { name: "Note" })).toHaveValue("JM was here");
  // Of another record with the same numbers, or spoilt: not taken up, and nothing falls over.
  await page.evaluate(() => {
    const [address = ""] = Object.keys(localStorage).filter((key) => key.endsWith(":note"));
    localStorage.setItem(address.replace(/^zygometer\/[0-9a-f]+/, "zygometer/0123456789abcdef"), localStorage.getItem(address) ?? "");
    localStorage.setItem(address, '{"value":{"isOpen":"yes","text":7}');
  });
  await again(page);
  await expect(page.getByRole("button", { name: "Note", exact: true })).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Note" })).toHaveCount(0);
  expect(await page.evaluate(() => Object.keys(localStorage).filter((key) => key.startsWith("zygometer-aside/")).length)).toBe(1);
});
