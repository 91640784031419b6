import { expect, type Page, test } from "@playwright/test";
import {
  again,
  cutAlike,
  DEMO_JOBS,
  makeReady,
  makeSafe,
  newJob,
  open,
  openCheck,
  putBack,
  sitDown,
  twinOf,
  typeReadings,
  typeSpeeds,
} from "./helpers";

const suspects = (page: Page) => page.getByRole("region", { name: "What it might be" });
const inHand = (page: Page) => page.getByRole("region", { name: "In hand" });
const steps = (page: Page) => page.getByRole("navigation", { name: "Steps of the job" });
const timeline = (page: Page) => page.getByRole("list", { name: "Timeline" });

/** The likeliest cause as the screen has it: its label and its percentage. */
async function leader(page: Page): Promise<{ label: string; percent: number }> {
  const text = (await suspects(page).getByRole("listitem").first().textContent()) ?? "";
  // What a check has seen is found, and has no figure.
  return { label: text, percent: /found|on one look/.test(text) ? 100 : Number(/(\d+) %/.exec(text)?.[1]) };
}

/** Makes the state the next check wants, taking over what the panel proposes. */
async function makeAsProposed(page: Page): Promise<void> {
  for (const yes of await inHand(page)
    .getByRole("button", { name: /^Yes: / })
    .all())
    await yes.click();
  const before = await timeline(page).getByRole("listitem").count();
  await page.getByRole("button", { name: /confirm:/ }).click();
  await expect.poll(() => timeline(page).getByRole("listitem").count()).toBeGreaterThan(before);
}

/** Follows what is suggested, finding what is really there and nothing else; answers how many checks it took. */
async function followTo(page: Page, jobId: number, truth: string, tyres: readonly string[] = []): Promise<number> {
  let checks = 0;
  await open(page, `/jobs/${jobId}`);
  while (checks < 6) {
    if (
      await suspects(page)
        .getByRole("status")
        .filter({ hasText: new RegExp(`(Found|points to).*${truth}`, "i") })
        .isVisible()
    )
      return checks;
    const title = ((await inHand(page).getByRole("heading", { level: 2 }).textContent()) ?? "").trim();
    if (title === "Make it safe") {
      await makeAsProposed(page);
      continue;
    }
    const before = await timeline(page).getByRole("listitem").count();
    if (title === "Tyre pressures") {
      await typeReadings(page, tyres);
      await page.getByRole("button", { name: "Save the readings" }).click();
    } else {
      const look = inHand(page).getByText("Only looked at, not measured");
      if (await look.isVisible()) await look.click();
      const own = inHand(page).getByRole("button", { name: `${truth}: Seen`, exact: true });
      if (await own.isVisible()) await own.click();
      const others = inHand(page).getByRole("button", { name: /^None of/ });
      if (await others.isVisible()) await others.click();
      else if (!(await own.isVisible()))
        await inHand(page)
          .getByRole("button", { name: /: Not there$/ })
          .first()
          .click();
      await page.getByRole("button", { name: "Save what was found" }).click();
    }
    checks += 1;
    await expect.poll(() => timeline(page).getByRole("listitem").count()).toBeGreaterThan(before);
    await page.waitForTimeout(300);
  }
  return checks;
}

const MOST_CHECKS = 4;

test("three machines of the depot are taken from complaint to cause in four checks or fewer", async ({ page }) => {
  test.slow();
  await sitDown(page, "JM");
  expect(await followTo(page, DEMO_JOBS.bearing, "Spindle bearing worn or dry", ["14", "18", "18", "14"])).toBeLessThanOrEqual(MOST_CHECKS);
  expect(await followTo(page, DEMO_JOBS.ripples, "Clip too long")).toBeLessThanOrEqual(MOST_CHECKS);
  const dull = await newJob(page, {
    machineId: await twinOf(page, "wp-1", "WP-1DULL"),
    words: "looks chewed",
    symptoms: ["torn-tips", "browning"],
  });
  expect(await followTo(page, dull, "Blades dull")).toBeLessThanOrEqual(MOST_CHECKS);
});

test("what is typed moves the diagnosis before it is saved, says what moved it after, and undo moves it back", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "zt-2", "ZT-2TYPED"), words: "a ledge, typed" });
  await open(page, `/jobs/${jobId}`);
  const before = await leader(page);
  await makeSafe(page, "Locked out");
  await openCheck(page, "Tyre pressures");
  await typeReadings(page, ["12", "18", "18", "7"]);
  await expect(page.getByRole("heading", { name: /^As typed/ })).toBeVisible();
  await expect(suspects(page).getByRole("listitem").first()).toContainText("Tyres unequal side to side");
  expect((await leader(page)).percent).toBeGreaterThan(40);
  await page.getByRole("button", { name: "Clear" }).click();
  await expect.poll(async () => (await leader(page)).label).toBe(before.label);
  await typeReadings(page, ["12", "18", "18", "7"]);
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(suspects(page)).toContainText("Moved by tyre pressures");
  await expect(suspects(page).getByRole("status")).toContainText("It points to tyres unequal side to side.");
  await page.getByRole("button", { name: /^Undo: Tyre pressures/ }).click();
  await expect.poll(async () => (await leader(page)).label).toBe(before.label);
});

test("a cause opens with its reasons, the links are drawn, and the first guess is kept and compared", async ({ page }) => {
  await sitDown(page);
  await open(page, `/jobs/${DEMO_JOBS.ledge}`);
  await suspects(page)
    .getByRole("button", { name: /^Deck out of level/ })
    .click();
  await expect(inHand(page).getByRole("region", { name: "Why" })).toContainText("Ledge between passes");
  await expect(inHand(page).getByRole("region", { name: "Why" })).toContainText("for it");
  await expect(inHand(page).getByRole("region", { name: "How it is mended" })).toContainText("Proved by: deck level and rake");
  await page.getByRole("button", { name: "This is my guess" }).click();
  await expect(timeline(page)).toContainText("First guess: Deck out of level side to side");
  await suspects(page)
    .getByRole("button", { name: /^all \d+/ })
    .click();
  await expect(page.getByRole("img", { name: /What shows what/ })).toBeVisible();
  await expect(inHand(page).getByRole("region", { name: "Every cause" }).getByRole("listitem")).not.toHaveCount(0);
});

test("the other school is one switch away and remembered, and the minutes there are shorten the list", async ({ page }) => {
  await sitDown(page, "RSO");
  const jobId = await newJob(page, { machineId: "bd-2", words: "clumps", symptoms: ["clumps", "stragglers"] });
  await open(page, `/jobs/${jobId}`);
  await page.getByRole("button", { name: /^Walk-round/ }).click();
  await expect(steps(page).getByRole("button", { name: /min/ }).first()).toContainText("The turf itself");
  await again(page);
  await expect(page.getByRole("button", { name: /^Walk-round/ })).toHaveAttribute("aria-pressed", "true");
  await page.getByRole("button", { name: /^Tells most/ }).click();
  await page.getByLabel("Minutes I have").fill("6");
  await expect(page.getByText(/^1 check fits, \d min\./)).toBeVisible();
  await expect(page.getByText("If it leaves now it goes out unproved.")).toBeVisible();
  await page.getByLabel("Minutes I have").fill("1");
  await expect(page.getByText(/^No check fits\./)).toBeVisible();
});

test("a check is left out with a reason, remembered, and taken in again", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "rt-2", "RT-2OUT"), words: "ripples", symptoms: ["ripples"] });
  await open(page, `/jobs/${jobId}`);
  await openCheck(page, "Reel speed and clip");
  await page.getByRole("button", { name: "Leave it out" }).click();
  await page.getByRole("button", { name: "no tool for it" }).click();
  await expect(timeline(page)).toContainText("Reel speed and clip left out: no tool for it");
  await expect(page.getByLabel("Other checks")).toContainText("Reel speed and clip, 6 min (left out)");
  await openCheck(page, "Reel speed and clip");
  await page.getByRole("button", { name: "Take it in again" }).click();
  await expect(steps(page)).toContainText("Reel speed and clip");
});

test("a telephone round moves the odds towards operation before anybody drives out", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: "fd-1", words: "rows of clippings", symptoms: ["clumps"] });
  await open(page, `/jobs/${jobId}`);
  await page.getByRole("button", { name: "Ask over the telephone" }).click();
  const share = async () => Number(/turf: (\d+) %/.exec((await inHand(page).textContent()) ?? "")?.[1]);
  await expect(inHand(page).getByRole("listitem")).toHaveCount(8);
  const before = await share();
  const answer = await page.request.post(`/api/v1/jobs/${jobId}/answers`, {
    headers: { origin: "http://127.0.0.1:3187" },
    data: { who: "AK", contexts: { "all-machines": true, "wet-or-tall": true } },
  });
  expect(answer.status()).toBe(201);
  await again(page);
  await page.getByRole("button", { name: "Ask over the telephone" }).click();
  await expect(inHand(page)).toContainText("More likely a word with the operator");
  expect(await share()).toBeGreaterThan(before);
  await inHand(page).getByRole("button", { name: / No$/ }).first().click();
  await expect(timeline(page)).toContainText(/Asked: .* no/);
  await expect(inHand(page).getByRole("heading", { name: "Over the telephone" })).toBeVisible();
});

test("a strike is logged in a few touches and holds what it may have bent until each was looked at", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "wp-1", "WP-1STRIKE");
  await open(page, `/machines/${machineId}`);
  await page.getByRole("button", { name: "Struck something" }).click();
  await page.getByLabel("In words: what, where").fill("a gravestone edge");
  await page.getByRole("radio", { name: "Ran on" }).click();
  await page.getByRole("button", { name: "Log it" }).click();
  await expect(page.getByText(/Struck a gravestone edge.* Not looked at since/)).toBeVisible();
  const jobId = await newJob(page, { machineId, words: "shakes since", symptoms: ["vibration"] });
  await open(page, `/jobs/${jobId}`);
  await page.getByText("Struck a gravestone edge, drive ran on: 3 to look at").click();
  await makeSafe(page, "Raised");
  await openCheck(page, "Blade edge and wear");
  await page.getByText("Only looked at, not measured").click();
  await page.getByRole("button", { name: "None of these" }).click();
  await page.getByRole("button", { name: "Save what was found" }).click();
  await expect(page.getByText("drive ran on: 2 to look at")).toBeVisible();
});

test("two complaints on one machine are one job or two, as the mechanic says", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: "gr-1", words: "a ledge on the strip" });
  const second = await page.request.post("/api/v1/complaints", {
    headers: { origin: "http://127.0.0.1:3187" },
    data: { who: "AK", machineId: "gr-1", words: "and clumps", saidBy: "KB", looks: { symptoms: ["clumps"] }, joinJobId: jobId },
  });
  expect(second.status()).toBe(201);
  await open(page, `/jobs/${jobId}`);
  const complaints = page.getByRole("region", { name: "Complaint" });
  await expect(complaints).toContainText("and clumps");
  await complaints.getByRole("button").first().click();
  await page.getByRole("button", { name: "Make it a job of its own" }).last().click();
  await expect(complaints).not.toContainText("and clumps");
  await expect(timeline(page)).toContainText("A complaint went to job");
  const own = Number(/went to job (\d+)/.exec((await timeline(page).textContent()) ?? "")?.[1]);
  await open(page, `/jobs/${own}`);
  await expect(page.getByRole("region", { name: "Complaint" })).toContainText("and clumps");
  await page.getByRole("region", { name: "Complaint" }).getByRole("button").first().click();
  await page.getByRole("button", { name: `Join it to job ${jobId}` }).click();
  await expect(page).toHaveURL(`/jobs/${jobId}`);
  await expect(page.getByRole("region", { name: "Complaint" })).toContainText("and clumps");
});

test("a dead middle blade after a refit is found by its speed, mended, read again and proved", async ({ page }) => {
  await sitDown(page, "JM");
  const opened = await page.request.post("/api/v1/complaints", {
    headers: { origin: "http://127.0.0.1:3187" },
    data: {
      who: "JM",
      machineId: await twinOf(page, "fd-1", "FD-1DEAD"),
      words: "the middle leaves a band standing since the deck was off",
      saidBy: "KB",
      looks: { symptoms: ["blade-width-uncut"], contexts: ["deck-refitted", "belt-disturbed"] },
    },
  });
  const { jobId } = await opened.json();
  await open(page, `/jobs/${jobId}`);
  await expect(suspects(page).getByRole("listitem").first()).toContainText("Belt off a pulley");
  await page
    .getByRole("button", { name: /^Make it safe/ })
    .first()
    .click();
  await makeSafe(page, "Ready to run");
  await openCheck(page, "Blade tip speed");
  await typeSpeeds(page, ["3310", "0", "3305"]);
  await expect(page.getByTestId("answer")).toContainText("stands still.");
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(page.getByRole("heading", { name: "Fix", exact: true })).toBeVisible();
  await expect(page.getByLabel("For which cause")).toHaveValue("belt-off");
  await page.getByRole("button", { name: "Make it safe" }).first().click();
  await makeSafe(page, "Locked out");
  await page.getByRole("button", { name: /^Fix/ }).click();
  await page.getByRole("button", { name: "Write the fix down" }).click();
  await expect(timeline(page)).toContainText("Seat the belt");
  await openCheck(page, "Belts and idlers");
  await page.getByRole("radio", { name: "In every groove" }).click();
  await page.keyboard.press("Enter");
  for (let answer = 0; answer < 12; answer++) await page.keyboard.press("1");
  await expect(page.getByTestId("answer")).toHaveText("Belt right, every blade turns.");
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(timeline(page)).toContainText("Belts and idlers: in tolerance");
  await putBack(page);
  await makeReady(page);
  await openCheck(page, "Blade tip speed");
  await typeSpeeds(page, ["3310", "3305", "3300"]);
  await expect(page.getByTestId("answer")).toHaveText("Tip speed right.");
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(page.getByRole("heading", { name: "Test cut" })).toBeVisible();
  await cutAlike(page);
  await expect(page.getByText("Proved.", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Close the job" }).click();
  await expect(page.getByText("Closed, proved.")).toBeVisible();
});

test("what shakes is asked again between the mend and the cut, and if it still does another fault is looked for", async ({ page }) => {
  await sitDown(page, "JM");
  const machineId = await twinOf(page, "zt-3", "ZT-3TWO");
  const job = await newJob(page, { machineId, words: "shakes and leaves a ledge", symptoms: ["vibration", "step-between-passes"] });
  await open(page, `/jobs/${job}`);
  await page
    .getByRole("button", { name: /^Make it safe/ })
    .first()
    .click();
  await makeSafe(page, "Parked");
  const fixed = await page.request.post(`/api/v1/jobs/${job}/fixes`, {
    headers: { origin: "http://127.0.0.1:3187" },
    data: { who: "JM", cause: "tyres-unequal", fix: "set-pressures", words: "" },
  });
  expect(fixed.status()).toBe(201);
  await again(page);
  await putBack(page);
  await makeReady(page);
  const mended = page.getByRole("region", { name: "After the mend" });
  await expect(mended).toContainText("only the test cut tells");
  await expect(suspects(page)).toHaveCount(0);
  const headers = { origin: "http://127.0.0.1:3187" };
  const state = async () => (await (await page.request.get(`/api/v1/jobs/${job}`, { headers })).json()).case;
  await mended.getByRole("radio", { name: "Gone" }).click();
  await expect.poll(state).toMatchObject({ standing: "unknown-until-cut", input: { given: { symptoms: { vibration: "denied" } } } });
  await mended.getByRole("radio", { name: "Still there" }).click();
  await expect(mended).toContainText("Mended, and still there.");
  await expect(suspects(page).getByRole("listitem").first()).toBeVisible();
  // What was mended is not sent after again.
  await expect(suspects(page)).not.toContainText("Tyres unequal");
  expect(await state()).toMatchObject({ standing: "still-so", input: { given: { symptoms: { vibration: "present" } } } });
});
