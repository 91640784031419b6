import { expect, type Page, test } from "@playwright/test";
import {
  again,
  alive,
  answerUsual,
  cutAlike,
  makeReady,
  makeSafe,
  newJob,
  numberFor,
  open,
  openCheck,
  putBack,
  sitDown,
  twinOf,
} from "./helpers";

/** Moves the keyboard to the first field of the worksheet in hand. */
async function firstField(page: Page): Promise<void> {
  await alive(page);
  await page.getByRole("region", { name: "In hand" }).focus();
  for (let tabs = 0; tabs < 20; tabs++) {
    await page.keyboard.press("Tab");
    const isIn = await page.evaluate(
      () => document.activeElement?.closest("form") !== null && document.activeElement?.tagName !== "SUMMARY",
    );
    if (isIn) return;
  }
  throw new Error("no field within reach of the keyboard");
}

/** Answers typed one after another: a digit picks an answer and goes on by itself, everything else is ended with Enter; `⇥` tabs on. */
async function typeAnswers(page: Page, answers: readonly string[]): Promise<void> {
  for (const answer of answers) {
    if (answer === "⇥") await page.keyboard.press("Tab");
    else if (answer.startsWith("#")) await page.keyboard.press(answer.slice(1));
    else {
      await page.keyboard.type(answer);
      await page.keyboard.press("Enter");
    }
  }
}

const times = (count: number, answers: readonly string[]) => Array.from({ length: count }, () => answers).flat();
const TEN = ["2.5", "2.45", "2.55", "2.5", "2.4", "2.6", "2.5", "2.5", "2.45", "2.55"];

/** Every worksheet with a form, for the demo's three-blade zero-turn or the machine named: its fields in measuring order, and what is said at the end. */
const SHEETS: readonly [check: string, answers: readonly string[], said: string, machineId?: string][] = [
  ["turf-condition", ["3", "3 1/4", "3", "⇥", "2 1/2", "", "#1", "#2", "#1", "#1", ""], "Good ground to judge on."],
  ["cutting-height", ["2 1/2", ...TEN], "Cuts as set: 2.50 in ± 0.04 in."],
  ["hanger-inspection", [...times(4, ["#1", ""]), "#1"], "Every hanger sound."],
  ["anti-scalp-wheels", times(4, ["1/2", "#1", "3"]), "Anti-scalp wheels right."],
  ["deck-cleanliness", ["1/8", "#1", "#1", "#1", "#1", "#1"], "Clean, and the air has its way."],
  ["blade-edge", times(3, ["#1", "#1", "#1", "#1", "0", ".2", "#1", "0", ".2", "2 1/2", "17"]), "Sharp and whole: leave them."],
  ["blade-fit", times(3, ["#1", "#1", "#1", "#1", "#1", "#3", "#1", "90", "", "", ""]), "Fitted right."],
  ["blade-track", times(3, ["3", "3"]), "All run true."],
  ["blade-balance", [...times(3, ["0", "8", ""]), "#1"], "Balanced."],
  ["spindle-play", times(3, [".01", "#1", "#1", "#1", ""]), "Every spindle sound."],
  ["belt-inspection", times(13, ["#1"]), "Belt right, every blade turns."],
  ["tip-speed", ["3950", "3945", "3955"], "Tip speed right."],
  [
    "vibration-reading",
    ["#3", "#2", "#3", "#1", "3900", "#1", "#3", "#1"],
    "Strong shaking, with the blades, most at the middle blade. Once a turn is 65 times a second.",
  ],
  ["gearbox-inspection", times(3, [...times(7, ["#1"]), "2 1/4", "#1"]), "Every gearbox sound.", "gr-1"],
  // Closed form at 89°, the play of 2° counted: 24 − 24.8·cos((89° − 2δ)/2), δ = atan(w/L).
  ["blade-timing", times(2, ["#1", "90", "2", "#1"]), "In time: 4.649 in at their closest.", "gr-1"],
  ["tip-speed", ["2990", "", "#Tab"], "Tip speed right.", "wp-1"],
  ["ground-speed", ["100", "17", "17.4", "⇥", "#1", "4000"], "4.0 mph: right. Each edge bites 0.523 in."],
  ["pass-overlap", ["38.7", "10", "#1", "", "4"], "Passes share 2 15/16 in. 1.5 acres an hour."],
  ["blade-overlap", times(3, ["17"]), "Blades share 0.800 in. 0.282 in of wear left at each tip."],
];

for (const [check, answers, said, machineId = "zt-1"] of SHEETS) {
  test(`${check} of ${machineId} is filled in by keyboard alone, in measuring order`, async ({ page }) => {
    await sitDown(page);
    await open(page, `/reckoner/${check}?machine=${machineId}`);
    await firstField(page);
    await typeAnswers(page, answers);
    await expect(page.getByTestId("answer")).toHaveText(said);
  });
}

test("a strip inside the swath is taken to a worn-short set, replaced and proved", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, {
    machineId: await twinOf(page, "zt-2", "ZT-2B"),
    words: "a line stays in the middle, sheet test",
    symptoms: ["uncut-strip-inside"],
  });
  await open(page, `/jobs/${jobId}`);
  await openCheck(page, "Blade overlap");
  await page.getByRole("button", { name: "Make it safe", exact: true }).click();
  await makeSafe(page, "Raised");

  await expect(page.getByRole("heading", { name: "Blade overlap" })).toBeVisible();
  await firstField(page);
  await typeAnswers(page, ["20 3/8", "20 5/16"]);
  await expect(page.getByTestId("answer")).toContainText("A strip 0.056 in wide stays between left blade and right blade.");
  await expect(page.getByText("strip 0.056 in", { exact: true })).toBeVisible();
  const causes = page.getByRole("complementary", { name: "The job" });
  await expect(causes.getByText("Blades worn short").first()).toBeVisible();
  await page.keyboard.press("Control+Enter");

  await expect(page.getByRole("heading", { name: "Fix", exact: true })).toBeVisible();
  await page.getByLabel("For which cause").selectOption("blade-worn-short");
  await page.getByRole("button", { name: "Write the fix down" }).click();

  await openCheck(page, "Blade fit and fastening");
  await firstField(page);
  await typeAnswers(page, times(2, ["#1", "#1", "#1", "#1", "#1", "#3", "#1", "70", "", "", ""]));
  await expect(page.getByTestId("answer")).toHaveText("Fitted right.");
  await page.getByRole("button", { name: "Save the readings" }).click();

  await expect(page.getByRole("heading", { name: "Blade overlap" })).toBeVisible();
  await firstField(page);
  await typeAnswers(page, ["21", "21"]);
  await expect(page.getByTestId("answer")).toContainText("Blades share 0.600 in.");
  await page.getByRole("button", { name: "Save the readings" }).click();

  await putBack(page);
  await makeReady(page);
  await page.getByRole("button", { name: /^Test cut/ }).click();
  await cutAlike(page);
  await expect(page.getByText("Proved.", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Close the job" }).click();
  await expect(page.getByText("Closed, proved.")).toBeVisible();
  await page.getByRole("link", { name: numberFor("ZT-2B"), exact: true }).click();
  const entry = page.getByRole("listitem").filter({ hasText: "sheet test" });
  await expect(entry).toContainText("proved");
  await expect(entry).toContainText("Blades worn short");
});

test("blades upside down are found, refitted and proved", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, {
    machineId: await twinOf(page, "wp-1", "WP-1B"),
    words: "tears and leaves clumps, fit test",
    symptoms: ["torn-tips", "clumps"],
  });
  await open(page, `/jobs/${jobId}`);
  await openCheck(page, "Blade fit and fastening");
  await page.getByRole("button", { name: "Make it safe", exact: true }).click();
  await makeSafe(page, "Raised");

  await expect(page.getByRole("heading", { name: "Blade fit and fastening" })).toBeVisible();
  await page.getByRole("radio", { name: "Down, to the ground" }).click();
  await page.getByRole("radio", { name: "Blunt back" }).click();
  await page.getByRole("radio", { name: "As the stack shows" }).click();
  await page.getByRole("radio", { name: "Flush" }).click();
  await page.getByRole("radio", { name: "By feel" }).click();
  await expect(page.getByTestId("answer")).toContainText("Blade: upside down.");
  await expect(page.getByRole("list", { name: "What to do" })).toContainText("refit it, sail to the deck, sharp edge leading");
  await expect(page.getByRole("img", { name: /blunt back leads, sail to the ground/ })).toBeVisible();
  await page.getByRole("button", { name: "Save the readings" }).click();

  await expect(page.getByRole("heading", { name: "Fix", exact: true })).toBeVisible();
  await expect(page.getByLabel("For which cause")).toHaveValue("blade-upside-down");
  await page.getByRole("button", { name: "Write the fix down" }).click();

  await expect(page.getByRole("heading", { name: "Blade fit and fastening" })).toBeVisible();
  await firstField(page);
  await typeAnswers(page, ["#1", "#1", "#1", "#1", "#1", "#3", "#1", "38"]);
  await expect(page.getByTestId("answer")).toHaveText("Fitted right.");
  await page.keyboard.press("Control+Enter");

  await putBack(page);
  await makeReady(page);
  await page.getByRole("button", { name: /^Test cut/ }).click();
  await cutAlike(page);
  await expect(page.getByText("Proved.", { exact: true })).toBeVisible();
});

test("two hundred pasted heights with two words among them: 198 are read, the words named, nothing lost", async ({ page }) => {
  await sitDown(page);
  await open(page, "/reckoner/cutting-height?machine=bd-2");
  const cells = Array.from({ length: 200 }, (_, k) => (k === 7 ? "about 2" : k === 90 ? "n/a" : `${(2.4 + (k % 5) / 20).toFixed(2)}`));
  const box = page.getByRole("textbox", { name: /Stubble, reading by reading/ });
  await box.fill(cells.join("\n"));
  await expect(page.getByText("198 of 10")).toBeVisible();
  await expect(page.getByText("198 read; 2 are not: “about 2” cannot be read, “n/a” cannot be read.")).toBeVisible();
  await expect(box).toHaveValue(cells.join("\n"));
  await page.getByRole("button", { name: "Leave the 2 out" }).click();
  await expect(page.getByText("198 of 10")).toBeVisible();
  await expect(page.getByText(/cannot be read/)).toHaveCount(0);
});

test("a quick sum stands in the address, opens as it was sent, and is taken to a job", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, {
    machineId: await twinOf(page, "fd-1", "FD-1B"),
    words: "reckoner test",
    symptoms: ["uncut-strip-inside"],
  });
  await open(page, "/reckoner");
  await page.getByRole("link", { name: /FD-1B/ }).click();
  await expect(page.getByRole("heading", { name: "What to work out for FD-1B" })).toBeVisible();
  await page.getByRole("link", { name: "Blade overlap" }).click();
  await page.getByRole("textbox", { name: "Tip to tip, corner to corner" }).first().fill("20 3/8");
  await expect(page).toHaveURL(/blades\.left\.lengthMetres=20\+3%2F8/);
  await again(page);
  await expect(page.getByRole("textbox", { name: "Tip to tip, corner to corner" }).first()).toHaveValue("20 3/8");
  await page.getByRole("button", { name: new RegExp(`Take it to job ${jobId}`) }).click();
  await expect(page.getByRole("heading", { name: "Blade overlap" })).toBeVisible();
  await page.getByRole("button", { name: "Make it safe", exact: true }).click();
  await makeSafe(page, "Raised");
  await expect(page.getByRole("textbox", { name: "Tip to tip, corner to corner" }).first()).toHaveValue("20 3/8");
});

test("a deck comes off and goes on in its own order, every part counted into the tray and back", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "bd-2", "BD-2B"), words: "deck off test", symptoms: ["vibration"] });
  await open(page, `/jobs/${jobId}`);
  await page.getByRole("button", { name: "Deck off and on" }).click();
  await page.getByRole("button", { name: "Make it safe", exact: true }).click();
  await makeSafe(page, "Locked out");
  await page.getByRole("button", { name: "Deck off and on" }).click();
  const next = page.getByRole("region", { name: "Next step" });
  await expect(next).toContainText("Photograph the belt's path");
  const done = async () => {
    const sentence = next.getByRole("paragraph").nth(1);
    const before = await sentence.textContent();
    for (const more of await next.getByRole("button", { name: /one more/ }).all()) while (await more.isEnabled()) await more.click();
    await answerUsual(next);
    await next.getByRole("button", { name: /^Done/ }).click();
    await expect(sentence).not.toHaveText(before ?? "");
  };
  for (let step = 0; step < 7; step++) await done();
  await expect(page.getByText("The deck is off.")).toBeVisible();
  await expect(page.getByRole("table", { name: "In the tray" })).toContainText("Hairpin clips");
  await expect(page.getByRole("region", { name: "While it is off" })).toContainText("Spindle or shaft play");
  await done();
  await expect(next).toContainText("Front link on first");
  await expect(next.getByRole("button", { name: "Done" })).toBeDisabled();
});

test("a link in millimetres is taken to a job read in inches as the same length, over what was typed there before", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-1", "ZT-1B");
  const jobId = await newJob(page, { machineId, words: "sent from abroad", symptoms: ["uncut-strip-inside"] });
  await open(
    page,
    `/reckoner/blade-overlap?machine=${machineId}&units=metric&blades.left.lengthMetres=431.8&blades.middle.lengthMetres=420`,
  );
  await expect(page.getByText("Read in millimetres, as it was sent.")).toBeVisible();
  await expect(page.getByTestId("answer")).toContainText("mm");
  await page.evaluate((job) => {
    // As the job's own page keeps it.
    const value = { text: { "blades.right.lengthMetres": "16 3/4" }, sure: {}, isOpen: true };
    const kept = { value, id: "00000000-0000-4000-8000-000000000000", system: "us", at: new Date().toISOString() };
    const record = document.documentElement.dataset.record;
    localStorage.setItem(`zygometer/${record}/AK/job:${job}:form:blade-overlap`, JSON.stringify(kept));
  }, jobId);
  await page.getByRole("button", { name: new RegExp(`Take it to job ${jobId}`) }).click();
  await page.getByRole("button", { name: "Make it safe", exact: true }).click();
  await makeSafe(page, "Raised");
  const lengths = page.getByRole("textbox", { name: "Tip to tip, corner to corner" });
  await expect(lengths.nth(0)).toHaveValue("17");
  await expect(lengths.nth(1)).toHaveValue(/^16\.535/);
  await expect(lengths.nth(2)).toHaveValue("16 3/4");
});

test("tyres of a link in kilopascals come to the job in psi", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-1", "ZT-1C");
  const jobId = await newJob(page, { machineId, words: "soft, sent from abroad" });
  await open(page, `/reckoner/tyre-pressure?machine=${machineId}&units=metric&tyres.left-drive.pressurePascals=82.7371`);
  await page.getByRole("button", { name: new RegExp(`Take it to job ${jobId}`) }).click();
  await page.getByRole("button", { name: "Make it safe", exact: true }).click();
  await makeSafe(page, "Parked");
  await expect(page.getByRole("region", { name: "In hand" }).getByRole("textbox").first()).toHaveValue(/^(12$|12\.0000|11\.9999)/);
});

test("what was read stands marked as provisional in a closed job once something was changed since", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-1", "ZT-1D");
  const jobId = await newJob(page, { machineId, words: "closed, then struck", symptoms: ["torn-tips"] });
  await open(page, `/jobs/${jobId}`);
  await openCheck(page, "Hangers, links and pins");
  await page.getByRole("button", { name: "Make it safe", exact: true }).click();
  await makeSafe(page, "Locked out");
  await page.getByRole("radio", { name: "Sound" }).first().click();
  await page.getByRole("button", { name: "Same on the others" }).click();
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(page.getByRole("list", { name: "Timeline" })).toContainText("Hangers, links and pins: in tolerance");
  const headers = { origin: "http://127.0.0.1:3187" };
  const closed = await page.request.post(`/api/v1/jobs/${jobId}/close`, {
    headers,
    data: { who: "AK", causes: ["nothing-found"], unprovedReason: "nothing found" },
  });
  expect(closed.status()).toBe(201);
  expect(
    (
      await page.request.post(`/api/v1/machines/${machineId}/events`, { headers, data: { who: "AK", event: "struck", words: "a stone" } })
    ).status(),
  ).toBe(201);
  await again(page);
  await openCheck(page, "Hangers, links and pins");
  await expect(page.getByText(", provisional")).toBeVisible();
  await expect(page.getByText(/struck something hard at/)).toHaveCount(1);
});
