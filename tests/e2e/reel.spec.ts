import { expect, type Page, test } from "@playwright/test";
import { again, answerYes, BASE, makeSafe, newJob, open, openCheck, sitDown, twinOf } from "./helpers";

const inHand = (page: Page) => page.getByRole("region", { name: "In hand" });
const drawing = (page: Page) => page.getByRole("region", { name: "Drawing" });
const lines = (page: Page) => page.getByRole("list", { name: "Timeline" }).getByRole("listitem");

/** Safe for a check, by the gate that stands in its place. */
async function gate(page: Page, state: string): Promise<void> {
  await page
    .getByRole("button", { name: /^Make it safe/ })
    .first()
    .click();
  await makeSafe(page, state);
}

test("contact by paper, by keyboard alone: a digit an answer, the grid and three ways of setting answer as it is typed", async ({
  page,
}) => {
  await sitDown(page);
  const jobId = await newJob(page, { machineId: await twinOf(page, "rt-1", "RT-1KEYS"), words: "stragglers", symptoms: ["stragglers"] });
  await open(page, `/jobs/${jobId}`);
  await gate(page, "Locked out");
  await openCheck(page, "Reel-to-bedknife contact");
  // Left unit: bearings sound, drags a little; left cut, middle passes, right cut; brought closer it cuts.
  await page.keyboard.press("1");
  for (const key of ["2", "1", "3", "1", "1"]) await page.keyboard.press(key);
  await expect(inHand(page)).toContainText("Left unit: loose in the middle.");
  await expect(inHand(page)).toContainText("grind the knife: it is not straight along its edge");
  await expect(drawing(page).getByRole("img", { name: /Left unit: left right, middle loose, right right/ })).toBeVisible();
  await expect(drawing(page).getByRole("row", { name: /Light contact \(this unit\) loose in the middle/ })).toBeVisible();
  // Nothing below the fold but the fields: the page itself does not scroll.
  expect(await page.evaluate(() => document.documentElement.scrollHeight <= window.innerHeight)).toBe(true);
  await again(page);
  await expect(inHand(page)).toContainText("Left unit: loose in the middle.");
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(lines(page).last()).toContainText("Reel-to-bedknife contact");
});

test("the side view follows a slider, and what stands stays apart from what if", async ({ page }) => {
  await sitDown(page);
  await open(page, "/reckoner/bedknife-attitude?machine=rt-1&units.left.heightMetres=0.5");
  const view = drawing(page).getByRole("img", { name: /^Left unit from its left side: 0\.500 in high, attitude 4\.00°/ });
  await expect(view).toBeVisible();
  const slider = drawing(page).getByRole("slider", { name: "Front roller down, what if" });
  await slider.focus();
  for (let k = 0; k < 20; k++) await page.keyboard.press("ArrowRight");
  // A millimetre down at the front: the share of it that reaches the edge, nose up.
  await expect(drawing(page)).toContainText(/What if: 0\.0(19|20) in on the height/);
  await drawing(page).getByRole("button", { name: "Back to what stands" }).click();
  await expect(view).toBeVisible();
  await drawing(page).getByRole("button", { name: "Middle unit" }).click();
  await expect(drawing(page).getByRole("img", { name: /^Middle unit from its left side/ })).toBeVisible();
});

test("a clip past the height is ripples, with the speeds that mend it; a typing slip is answered at its field and loses nothing", async ({
  page,
}) => {
  await sitDown(page);
  await open(page, "/reckoner/reel-speed?machine=rf-1");
  await page.getByRole("textbox", { name: "Distance" }).fill("100 ft");
  await page.getByRole("textbox", { name: /^Time for it/ }).fill("9.6 9.5");
  await page.getByRole("textbox", { name: "Height of cut" }).fill("nought");
  await expect(inHand(page).getByRole("alert").first()).toBeVisible();
  await page.getByRole("textbox", { name: "Height of cut" }).fill("0.625");
  const turns = page.getByRole("textbox", { name: "Reel turns at" });
  for (let k = 0; k < 5; k++) await turns.nth(k).fill("1180");
  for (const mowing of await page.getByRole("radio", { name: "Mowing", exact: true }).all()) await mowing.click();
  await expect(inHand(page)).toContainText("clip too long: ripples");
  await expect(inHand(page)).toContainText(/Drive \d\.\d mph to \d\.\d mph, throttle full/);
  await expect(page.getByRole("textbox", { name: "Distance" })).toHaveValue("100 ft");
});

test("units side by side: the odd one out stands out, and the machine's page shows it by unit", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "rt-2", "RT-2ODD");
  const jobId = await newJob(page, { machineId, words: "a band", symptoms: ["bands-between-units"] });
  await open(page, `/jobs/${jobId}`);
  await gate(page, "Locked out");
  await openCheck(page, "Units alike");
  const fields = (name: string) => page.getByRole("textbox", { name, exact: true });
  for (const [name, values] of [
    ["Blades on the reel", ["11", "11", "11"]],
    ["Reel diameter", ["4.84", "4.84", "4.85"]],
    ["Bedknife, how thick", ["0.128", "0.128", "0.128"]],
    ["Front bracket in hole", ["3", "3", "3"]],
    ["Bench height", ["0.500", "0.500", "0.488"]],
  ] as const)
    for (const [k, value] of values.entries()) await fields(name).nth(k).fill(value);
  for (const answer of ["Fairway", "Grooved", "Smooth", "Fitted"])
    for (const group of await page.getByRole("radio", { name: answer, exact: true }).all())
      if ((await group.getAttribute("aria-checked")) !== "true" && !(await isAnswered(group))) await group.click();
  await expect(inHand(page)).toContainText("Right unit: another bench height.");
  await expect(drawing(page).getByRole("row", { name: /Bench height/ })).toContainText("0.488 in differs");
  await page.getByRole("button", { name: "Save the readings" }).click();
  await expect(lines(page).last()).toContainText("Units alike");
  await open(page, `/machines/${machineId}`);
  const bench = page.getByRole("region", { name: "Bench" });
  await expect(bench.getByRole("row", { name: /Units alike/ })).toContainText("another bench height");
  await expect(bench.getByRole("columnheader", { name: /Left unit/ })).toContainText("next: arms, yokes and bushings");
});

/** Another answer of its group is picked already. */
async function isAnswered(radio: ReturnType<Page["getByRole"]>): Promise<boolean> {
  return radio.evaluate((one) => one.closest("[role=radiogroup]")?.querySelector("[data-state=checked]") !== null);
}

test("a nick is ground out: nothing is counted before the traverse is locked, the tally is booked against that unit's knife", async ({
  page,
}) => {
  await sitDown(page);
  const machineId = await twinOf(page, "rt-1", "RT-1NICK");
  const jobId = await newJob(page, { machineId, words: "a pencil line", symptoms: ["fine-streak"] });
  await open(page, `/jobs/${jobId}`);
  await gate(page, "Locked out");
  const headers = { origin: BASE, "sec-fetch-site": "same-origin" };
  const { machine } = await (await page.request.get(`/api/v1/machines/${machineId}`, { headers })).json();
  const sharp = { reel: "sharp", knife: "sharp", nick: "none", relief: "there" };
  const units = Object.fromEntries(
    machine.units.map(({ id }: { id: string }) => [id, id === "left" ? { ...sharp, nick: "knife" } : sharp]),
  );
  const sent = await page.request.post(`/api/v1/jobs/${jobId}/takes`, {
    headers: { origin: BASE },
    data: { who: "AK", checkId: "reel-edge", readings: { units }, asTyped: {} },
  });
  expect(sent.status()).toBe(201);
  await again(page);
  await page
    .getByRole("button", { name: /^Make it safe/ })
    .first()
    .click();
  await page.getByRole("radio", { name: "Bench", exact: true }).click();
  for (const part of await inHand(page)
    .getByRole("group", { name: /on the bench/i })
    .getByRole("button")
    .all())
    if ((await part.getAttribute("aria-pressed")) === "false") await part.click();
  await answerYes(page);
  await page.getByRole("button", { name: /confirm:/ }).click();
  await page.getByRole("button", { name: /^Fix/ }).first().click();
  await page.getByLabel("For which cause").selectOption("edge-nicked");
  await inHand(page).getByLabel("What was done").selectOption("grind-bedknife");
  await expect(inHand(page).getByRole("checkbox", { name: "Left unit" })).toBeChecked();
  await expect(inHand(page).getByRole("checkbox", { name: "Right unit" })).not.toBeChecked();
  const top = inHand(page).getByRole("region", { name: "Top face" });
  await expect(top.getByRole("button", { name: "In-feed and pass" })).toBeDisabled();
  await inHand(page).getByRole("checkbox", { name: "Clamped, traverse locked, guards on" }).check();
  await top.getByRole("textbox").fill("8");
  await expect(top.getByRole("alert")).toContainText("More than is ground at a time");
  await top.getByRole("textbox").fill("0.008");
  await expect(top).toContainText("0 of 5 in-feeds, 0 of 10 passes");
  for (let k = 0; k < 6; k++) {
    await top.getByRole("button", { name: "In-feed and pass" }).click();
    await top.getByRole("button", { name: "Second pass" }).click();
  }
  await expect(top).toContainText("6 of 5 in-feeds, 12 of 10 passes: 0.012 in off");
  await again(page);
  await page.getByRole("button", { name: /^Fix/ }).first().click();
  await expect(top).toContainText("6 of 5 in-feeds");
  await page.getByRole("button", { name: "Write the fix down" }).click();
  await expect(lines(page).last()).toContainText(/[Gg]rind|ground/);
  await open(page, `/machines/${machineId}`);
  const knives = page.getByRole("region", { name: "Knives and reels" });
  await expect(knives.getByRole("row", { name: /Left unit/ })).toContainText("0.128 in");
  await expect(knives.getByRole("row", { name: /Right unit/ })).toContainText("not yet");
  const bench = page.getByRole("region", { name: "Bench" });
  await expect(bench.getByRole("row", { name: /Reel and bedknife edges/ })).toContainText("again");
});
