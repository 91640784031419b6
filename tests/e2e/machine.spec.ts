import { type Browser, chromium, expect, type Page, test } from "@playwright/test";
import { again, answerYes, BASE, firstField, makeReady, makeSafe, newJob, open, openCheck, putBack, sitDown, twinOf } from "./helpers";

/** Two people at two browsers, each in a job of his own on one machine. */
async function twoAt(
  browser: Browser,
  fleetNumber: string,
  of = "zt-1",
): Promise<{ ak: Page; bl: Page; machineId: string; jobs: [number, number] }> {
  const [ak, bl] = await Promise.all([browser.newPage(), browser.newPage()]);
  await ak.request.post("/api/v1/people", { headers: { origin: BASE }, data: { initials: "BLX" } });
  await sitDown(ak, "AK");
  await sitDown(bl, "BLX");
  const machineId = await twinOf(ak, of, fleetNumber);
  const first = await newJob(ak, { machineId, words: "first of two" });
  const second = await newJob(ak, { machineId, words: "second of two", symptoms: ["stragglers"] });
  await open(ak, `/jobs/${first}`);
  await open(bl, `/jobs/${second}`);
  await expect(ak.getByRole("heading", { name: "Make it safe" })).toBeVisible();
  await expect(bl.getByRole("heading", { name: "Make it safe" })).toBeVisible();
  return { ak, bl, machineId, jobs: [first, second] };
}

/** Asks the API outright, past every screen, to cut with it. */
async function cutOutright(page: Page, jobId: number, who: string): Promise<string[]> {
  const answer = await page.request.post(`/api/v1/jobs/${jobId}/test-cuts`, {
    headers: { origin: BASE },
    data: { who, looks: "all-alike", turf: "good", dryness: "dry", place: "", operator: "" },
  });
  return answer.status() === 201 ? [] : (await answer.json()).issues.map(({ code }: { code: string }) => code);
}

test("what one calls a stop holds the machine on the other's screen at once, in his own job, until it is read right", async ({
  browser,
}) => {
  test.slow();
  const { ak, bl, jobs } = await twoAt(browser, "ZT-1TWO");
  await makeSafe(ak, "Raised");
  await openCheck(ak, "Blade edge and wear");
  await ak.getByRole("radio", { name: "Cracked", exact: true }).first().click();
  await ak.getByRole("button", { name: "Save the readings" }).click();
  await expect(ak.getByRole("button", { name: "Held: 1 reason" })).toBeVisible();

  // The other never reloads, and has done nothing yet.
  await expect(bl.getByRole("button", { name: "Held: 1 reason" })).toBeVisible();
  await expect(bl.getByRole("button", { name: /AK/ }).first()).toBeVisible();
  await bl.getByRole("button", { name: "Held: 1 reason" }).click();
  const why = bl.getByRole("region", { name: "Why it may not run" });
  await expect(why).toContainText("Left blade: cracked");
  await expect(why).toContainText("AK is locked on to it");
  expect(await cutOutright(bl, jobs[1], "BLX")).toEqual(["unsafe", "not-put-back", "locked-by", "not-ready"]);
  expect(await cutOutright(ak, jobs[0], "AK")).toContain("unsafe");

  // One undo does not lift it; it asks why, and without a reason nothing is taken back.
  await ak.getByRole("button", { name: /^Undo/ }).click();
  const reason = ak.getByRole("textbox", { name: "Why it is taken back" });
  await reason.fill("ok");
  await ak.getByRole("button", { name: /^Undo/ }).click();
  await expect(ak.getByRole("button", { name: "Held: 1 reason" })).toBeVisible();
  expect(await cutOutright(ak, jobs[0], "AK")).toContain("unsafe");

  // Looked at again it is the same blade; another fitted and read right by the other, in the other job: it falls on both screens.
  await expect(why.getByRole("button", { name: "Put another part in its place" })).toBeVisible();
  await bl.request.post(`/api/v1/jobs/${jobs[1]}/events`, { headers: { origin: BASE }, data: { who: "BLX", event: "blade-changed" } });
  await bl.request.post(`/api/v1/jobs/${jobs[1]}/takes`, {
    headers: { origin: BASE },
    data: { who: "BLX", checkId: "blade-edge", readings: soundEdges() },
  });
  await expect(ak.getByRole("button", { name: "Hold out of service" })).toBeVisible();
  await expect(bl.getByRole("button", { name: "Hold out of service" })).toBeVisible();
  await ak.close();
  await bl.close();
});

function soundEdges() {
  const end = { edge: "sharp", nickMetres: 0 };
  const blade = { crack: "none", bend: "straight", slot: "none", A: end, B: end };
  return { blades: { left: blade, middle: blade, right: blade } };
}

test("a lock-out is its owner's: another cannot make it ready, lifts it only with a reason, and the owner sees it at once", async ({
  browser,
}) => {
  test.slow();
  const { ak, bl, machineId } = await twoAt(browser, "ZT-1LOCK");
  await makeSafe(ak, "Locked out");
  await expect(bl.getByRole("button", { name: "Locked out · AK" })).toBeVisible();
  await bl.getByRole("button", { name: "Locked out · AK" }).click();
  await expect(bl.getByText(/^AK is locked on: locked out since/)).toBeVisible();
  await expect(bl.getByRole("button", { name: "AK is locked on, you are not: lock on too" })).toBeVisible();
  await expect(ak.getByRole("button", { name: /you are not/ })).toHaveCount(0);
  await bl.getByRole("radio", { name: "Ready to run", exact: true }).click();
  await expect(bl.getByRole("region", { name: "Why it may not run" })).toContainText("AK is locked on to it");
  await expect(bl.getByRole("button", { name: /confirm: ready/ })).toHaveCount(0);

  await bl.getByRole("button", { name: "Lift it with a reason", exact: true }).click();
  const reason = bl.getByRole("textbox", { name: "Why AK’s lock-out may be lifted" });
  await reason.fill("ok");
  await expect(bl.getByRole("button", { name: "Lift it", exact: true })).toBeDisabled();
  await reason.fill("AK went home, telephoned him about it");
  await bl.getByRole("button", { name: "Lift it", exact: true }).click();
  await expect(bl.getByRole("list", { name: "Timeline" })).toContainText("Lifted AK’s lock-out: AK went home");
  await expect(ak.getByRole("button", { name: "Not made safe" })).toBeVisible();

  // Both locked on: each takes off his own.
  await makeSafe(ak, "Locked out");
  await bl.getByRole("button", { name: /Locked out · AK/ }).click();
  await makeSafe(bl, "Locked out");
  await expect(ak.getByRole("button", { name: /AK locked on|BLX locked on/ })).toBeVisible();
  await ak.getByRole("button", { name: /Locked out · / }).click();
  await ak.getByRole("button", { name: "Take my lock off" }).click();
  await expect(bl.getByRole("button", { name: "Locked out · BLX" })).toBeVisible();
  const state = await (await ak.request.get(`/api/v1/machines/${machineId}/state`, { headers: { origin: BASE } })).json();
  expect(state.state.locks.map(({ who }: { who: string }) => who)).toEqual(["BLX"]);
  await ak.close();
  await bl.close();
});

test("points ticked and not confirmed stand ready under nobody else's name, nor in another job", async ({ page }) => {
  await sitDown(page, "AK");
  const machineId = await twinOf(page, "zt-1", "ZT-1TICK");
  const jobId = await newJob(page, { machineId, words: "ticked by AK" });
  await open(page, `/jobs/${jobId}`);
  await page.getByRole("radio", { name: "Locked out", exact: true }).click();
  await answerYes(page);
  await expect(page.getByRole("button", { name: "I, AK, confirm: locked out" })).toBeEnabled();
  await sitDown(page, "JM");
  await again(page);
  await expect(page.getByRole("button", { name: /^I, JM, confirm/ })).toBeDisabled();
  await expect(page.getByRole("button", { name: /^Yes: /, pressed: true })).toHaveCount(0);
  await sitDown(page, "AK");
  await again(page);
  await expect(page.getByRole("button", { name: "I, AK, confirm: locked out" })).toBeEnabled();
  const other = await newJob(page, { machineId, words: "another job" });
  await open(page, `/jobs/${other}`);
  await expect(page.getByRole("button", { name: /^I, AK, confirm/ })).toBeDisabled();
});

test("a no at a firm point says at once what stops, and writes it with the point's words", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "wp-1", "WP-1NO");
  const jobId = await newJob(page, { machineId, words: "no at a firm point", symptoms: ["vibration"] });
  await open(page, `/jobs/${jobId}`);
  await page.getByRole("radio", { name: "Raised", exact: true }).click();
  await expect(page.getByText(/Tipped as its sheet says: Left side down/)).toBeVisible();
  await expect(page.getByText(/hydraulic|brake/i)).toHaveCount(0);
  await page.getByRole("button", { name: "No: Plug lead off and tied back" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Stop." })).toContainText("plug lead off and tied back");
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("Stopped, not so: Plug lead off and tied back");
  await expect(page.getByRole("button", { name: "Stopped by AK" })).toBeVisible();
});

test("a strike told with the complaint is asked out, stands on the log, and nothing runs before each part was looked at", async ({
  page,
}) => {
  await sitDown(page);
  const machineId = await twinOf(page, "wp-1", "WP-1ROOT");
  await open(page, `/complaint?machine=${machineId}`);
  await expect(page.getByRole("button", { name: "Vibration" })).toBeVisible();
  await page.getByRole("button", { name: "Vibration" }).click();
  await page.getByLabel("Who noticed it").fill("PD");
  await page.getByRole("button", { name: "Struck something hard" }).click();
  await expect(page.getByRole("button", { name: "What did it strike?" })).toBeDisabled();
  await page.getByRole("textbox", { name: "What it hit" }).fill("a root");
  await page.getByRole("textbox", { name: "Where on the site" }).fill("under the yew");
  await page.getByRole("radio", { name: "Ran on" }).click();
  await page.getByRole("button", { name: "Hand it to the bay" }).click();
  await expect(page.getByText(/Struck a root, under the yew, drive ran on: 3 to look at/)).toBeVisible();
  await page.getByRole("radio", { name: "Ready to run", exact: true }).click();
  await expect(page.getByRole("region", { name: "Why it may not run" })).toContainText(
    "Not looked at since: blade edge and wear, blade track, spindle or shaft play",
  );
  // What it leads to first is a look that needs no run.
  await page.getByRole("button", { name: "Read it: blade edge and wear" }).click();
  await expect(page.getByRole("heading", { name: "Blade edge and wear" })).toBeVisible();
  await open(page, `/machines/${machineId}`);
  await expect(page.getByRole("region", { name: "How it stands" })).toContainText("Struck a root, under the yew");
  // Told by mistake: taken back, with a reason.
  await page.getByRole("button", { name: "Take back: Struck something hard" }).click();
  await page.getByLabel("It keeps the machine from running. Why was it not so?").fill("it was the other mower, seen");
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByText("Struck a root, under the yew")).toHaveCount(0);
});

test("a reading another has just taken is shown before mine replaces it", async ({ browser }) => {
  const [ak, bl] = await Promise.all([browser.newPage(), browser.newPage()]);
  await ak.request.post("/api/v1/people", { headers: { origin: BASE }, data: { initials: "BLX" } });
  await sitDown(ak, "AK");
  await sitDown(bl, "BLX");
  const machineId = await twinOf(ak, "zt-1", "ZT-1BOTH");
  const jobId = await newJob(ak, { machineId, words: "both read it" });
  await open(ak, `/jobs/${jobId}`);
  await makeSafe(ak, "Locked out");
  await open(bl, `/jobs/${jobId}`);
  for (const page of [ak, bl]) await openCheck(page, "Tyre pressures");
  await firstField(ak).fill("11");
  for (const [place, reading] of ["12", "18", "18", "12"].entries())
    await bl.getByRole("region", { name: "In hand" }).getByRole("textbox").nth(place).fill(reading);
  await bl.getByRole("button", { name: "Save the readings" }).click();
  // The other's job went on; what was begun here stays in hand.
  await expect(bl.getByRole("heading", { name: "Hangers, links and pins" })).toBeVisible();
  await expect(ak.getByRole("list", { name: "Timeline" })).toContainText("Tyre pressures: in tolerance");
  await expect(ak.getByRole("heading", { name: "Tyre pressures" })).toBeVisible();
  const notice = ak.getByRole("alert").filter({ hasText: "BLX has read this meanwhile" });
  await expect(notice).toContainText("12");
  await expect(ak.getByRole("button", { name: "Save the readings" })).toBeDisabled();
  await expect(firstField(ak)).toHaveValue("11");
  await ak.getByRole("button", { name: "Seen. Mine is the later reading" }).click();
  await ak.getByRole("button", { name: "Save the readings" }).click();
  await expect(bl.getByRole("list", { name: "Timeline" }).getByRole("listitem").filter({ hasText: "Tyre pressures" })).toHaveCount(2);
  await ak.close();
  await bl.close();
});

test("released by word it stays owed and unproved; a screen that lost the line says so and asks again", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-1", "ZT-1WORD");
  const jobId = await newJob(page, { machineId, words: "somebody pumped a tyre hard" });
  await open(page, `/jobs/${jobId}`);
  await makeSafe(page, "Parked");
  await page.request.post(`/api/v1/jobs/${jobId}/takes`, {
    headers: { origin: BASE },
    data: { who: "AK", checkId: "tyre-pressure", readings: { tyres: { "left-drive": { pressurePascals: 170_000 } } } },
  });
  await open(page, `/jobs/${jobId}`);
  await page.getByRole("button", { name: "Held: 1 reason" }).click();
  const reason = page.getByRole("textbox", { name: /Why may it go/ });
  await reason.fill("ok");
  await expect(page.getByRole("button", { name: "Release", exact: true })).toBeDisabled();
  await reason.fill("air let out of it, no gauge at hand");
  await page.getByRole("button", { name: "Release", exact: true }).click();
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("Released without reading: air let out of it, no gauge at hand");
  await expect(page.getByRole("button", { name: "Released unread" })).toBeVisible();
  await page.getByRole("button", { name: "Close", exact: false }).last().click();
  await expect(page.getByText("Released by word, not read right since.")).toBeVisible();
  await open(page, `/machines/${machineId}`);
  await expect(page.getByRole("region", { name: "How it stands" })).toContainText("Released without reading by AK");

  await page.route("**/live", (route) => route.abort());
  await open(page, `/jobs/${jobId}`);
  await expect(page.getByRole("alert").filter({ hasText: "Connection lost" })).toBeVisible();
  await page.unroute("**/live");
  await expect(page.getByRole("alert").filter({ hasText: "Connection lost" })).toHaveCount(0);
  await page.context().setOffline(true);
  await expect(page.getByRole("alert").filter({ hasText: "Connection lost" })).toBeVisible();
  await page.context().setOffline(false);
  await expect(page.getByRole("alert").filter({ hasText: "Connection lost" })).toHaveCount(0);
});

test("a shake is proved by its being gone, after the machine was put back, each blade turned, and made ready", async ({ page }) => {
  test.slow();
  await sitDown(page);
  const machineId = await twinOf(page, "wp-1", "WP-1SHAKE");
  const jobId = await newJob(page, { machineId, words: "shakes since the new blade", symptoms: ["vibration"] });
  await open(page, `/jobs/${jobId}`);
  await makeSafe(page, "Raised");
  await page.getByRole("button", { name: /^Fix/ }).click();
  await page.getByLabel("For which cause").selectOption("blade-bent");
  await page.getByLabel("Tightened").selectOption("wrench");
  await expect(page.getByText(/By torque wrench is said with its figure/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Write the fix down" })).toBeDisabled();
  const torque = page.getByRole("textbox", { name: /^Wrench set to/ });
  await torque.fill("400");
  await expect(page.getByText(/this is no torque for that bolt/)).toBeVisible();
  await torque.fill("38");
  await page.getByRole("button", { name: "Write the fix down" }).click();
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("Fit a new, matching set");

  await page.getByRole("button", { name: /^Test cut/ }).click();
  await expect(page.getByRole("region", { name: "Why it may not run" })).toContainText(
    "Not turned by hand since they were disturbed: blade",
  );
  await putBack(page);
  await makeReady(page);
  await page.getByRole("button", { name: /^Test cut/ }).click();
  for (const name of ["All alike", "Good turf", "Dry", "Daylight", "As complained"])
    await page.getByRole("radio", { name, exact: true }).click();
  await expect(page.getByRole("button", { name: "Write the test cut down" })).toBeDisabled();
  await page.getByRole("radiogroup", { name: "Complained of: Vibration" }).getByRole("radio", { name: "Still there" }).click();
  await page.getByRole("button", { name: "Write the test cut down" }).click();
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("Test cut");
  await page.getByRole("button", { name: "Close", exact: false }).last().click();
  await expect(page.getByText("Vibration: still there at the test cut.")).toBeVisible();
});

test("on the shop's own network, without https, a job is worked and the line to the machine stands", async ({ page: near }) => {
  await sitDown(near);
  const jobId = await newJob(near, { machineId: await twinOf(near, "zt-1", "ZT-1HTTP"), words: "read in the shop" });
  const far = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--host-resolver-rules=MAP bay.shop.test 127.0.0.1"],
  });
  const context = await far.newContext({ viewport: { width: 1280, height: 800 } });
  const address = BASE.replace("127.0.0.1", "bay.shop.test");
  await context.addCookies([{ name: "zygometer-who", value: "AK", url: address }]);
  const page = await context.newPage();
  await open(page, `${address}/jobs/${jobId}`);
  expect(await page.evaluate(() => window.isSecureContext)).toBe(false);
  await makeSafe(page, "Locked out");
  // What is written elsewhere is seen here.
  await near.request.post(`/api/v1/jobs/${jobId}/notes`, { headers: { origin: BASE }, data: { who: "AK", text: "said from the bench" } });
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("said from the bench");
  await expect(page.getByText("Connection lost")).toHaveCount(0);
  await far.close();
});
