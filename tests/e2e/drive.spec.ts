import { expect, type Page, test } from "@playwright/test";
import { again, answerUsual, makeReady, makeSafe, newJob, open, openCheck, putBack, sitDown, twinOf, typeSpeeds } from "./helpers";

const answer = (page: Page) => page.getByTestId("answer");
const timeline = (page: Page) => page.getByRole("list", { name: "Timeline" });
const saveReadings = (page: Page) => page.getByRole("button", { name: "Save the readings" }).click();

async function jobOn(page: Page, machineId: string, words: string, symptoms: string[]): Promise<void> {
  const jobId = await newJob(page, { machineId, words, symptoms });
  await open(page, `/jobs/${jobId}`);
}

test("a pulley that would take a blade over the limit is stopped on paper, and the machine held until it is cleared", async ({ page }) => {
  await sitDown(page);
  const jobId = await newJob(page, {
    machineId: await twinOf(page, "zt-1", "ZT-1S"),
    words: "screams since the new pulley, speed test",
    symptoms: ["vibration"],
  });
  await open(page, `/jobs/${jobId}`);
  await openCheck(page, "Blade tip speed");
  // Nobody made it ready to run: what is worked out on paper can be typed all the same.
  await expect(page.getByText("Must be ready to be run first.")).toBeVisible();
  const middle = page.getByRole("textbox", { name: "Middle blade: its pulley, pitch diameter" });
  await middle.fill("4.5");
  await expect(answer(page)).toHaveText("Do not run it: middle blade is over the limit of 19,000 ft/min. Hold it out.");
  await expect(page.getByText("4269 r/min at most with this blade")).toBeVisible();
  await saveReadings(page);
  await page.getByRole("button", { name: "Held: 1 reason" }).click();
  await expect(page.getByRole("region", { name: "No word releases it" })).toContainText(
    /Middle blade: over the limit, worked out on paper.*mend it, then read it right/,
  );
  await expect(page.getByRole("button", { name: "Release", exact: true })).toHaveCount(0);
  // With the pulley of the sheet it works out right: what paper stopped, paper lets go of.
  await page.request.post(`/api/v1/jobs/${jobId}/takes`, {
    headers: { origin: "http://127.0.0.1:3187" },
    data: { who: "AK", checkId: "tip-speed", readings: { paper: { slip: 0.01 } } },
  });
  await expect(page.getByRole("button", { name: "Hold out of service" })).toBeVisible();
  await makeReady(page);
  await openCheck(page, "Blade tip speed");
  const again = page.getByRole("button", { name: "Read again" });
  if (await again.isVisible()) await again.click();
  await typeSpeeds(page, ["3950", "3945", "3955"]);
  await expect(answer(page)).toHaveText("Tip speed right.");
  await saveReadings(page);
  await expect(timeline(page)).toContainText("Blade tip speed: in tolerance");
});

test("a geared deck refitted out of time is caught before it is run, retimed and proved", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "gr-1", "GR-1T");
  await jobOn(page, machineId, "deck was off, timing test", ["grinding-noise"]);
  await page.request.post(`/api/v1/machines/${machineId}/events`, {
    headers: { origin: "http://127.0.0.1:3187" },
    data: { who: "AK", event: "deck-off" },
  });
  await again(page);
  await page.getByRole("button", { name: "Not made safe" }).click();
  await page.getByRole("radio", { name: "Ready to run", exact: true }).click();
  const why = page.getByRole("region", { name: "Why it may not run" });
  await expect(why).toContainText(/geared blades were disturbed/);

  await makeSafe(page, "Raised");
  await openCheck(page, "Timing of geared blades");
  const phases = page.getByRole("textbox", { name: /angle of the other/ });
  await page.getByRole("radio", { name: "Nothing touches" }).first().click();
  await phases.first().fill("90");
  await page.getByRole("radio", { name: "Touches", exact: true }).last().click();
  await phases.last().fill("15");
  await expect(answer(page)).toHaveText("Middle blade and right blade: strike each other. Do not run it.");
  await expect(page.getByText(/Middle blade and right blade: refit in time, 45 to 135° apart/).first()).toBeVisible();
  await saveReadings(page);
  await expect(page.getByRole("heading", { name: "Fix", exact: true })).toBeVisible();

  await page.getByRole("button", { name: /^Raised.* · AK/ }).click();
  await page.getByRole("radio", { name: "Ready to run", exact: true }).click();
  await expect(why).toContainText(/strike each other/);

  await makeSafe(page, "Locked out");
  await page.getByRole("button", { name: /^Fix/ }).click();
  await page.getByLabel("For which cause").selectOption("gearbox-mistimed");
  await page.getByRole("button", { name: "Write the fix down" }).click();
  await expect(timeline(page)).toContainText("Refit");
  await page.getByRole("button", { name: /Locked out · AK/ }).click();
  await makeSafe(page, "Raised");
  await openCheck(page, "Timing of geared blades");
  for (const clear of await page.getByRole("radio", { name: "Nothing touches" }).all()) await clear.click();
  await phases.first().fill("90");
  await phases.last().fill("90");
  await expect(answer(page)).toHaveText("In time: 4.785 in at their closest.");
  await saveReadings(page);
  await expect(timeline(page)).toContainText("Timing of geared blades: in tolerance");
  await putBack(page);
  await makeReady(page);
});

test("geared blades turn under the crank: the closest is found, a tooth out is told, and they turn by themselves", async ({ page }) => {
  await sitDown(page);
  await open(page, "/reckoner/blade-timing?machine=gr-1");
  await expect(page.getByText(/4\.785 in at their closest/)).toBeVisible();
  await expect(page.getByText(/One tooth is 30\.0°: refitted one out, 1\.382 in is left/)).toBeVisible();
  await page.getByRole("button", { name: "To the closest" }).click();
  await expect(page.getByText(/^Crank at \d+°: 4\.78\d in between the nearest two/)).toBeVisible();
  await page
    .getByRole("textbox", { name: /angle of the other/ })
    .first()
    .fill("20");
  await expect(page.getByText(/As measured, 20°/)).toBeVisible();
  await expect(page.getByText("they strike", { exact: true }).first()).toBeVisible();
  const said = page.getByText(/^Crank at \d+°/);
  const before = await said.textContent();
  await page.getByRole("button", { name: "Turn slowly" }).click();
  await expect(said).not.toHaveText(before ?? "");
  await page.getByRole("button", { name: "Stop turning" }).click();
});

test("a gearbox is taken apart and put together, counted back, what was left loose owed", async ({ page }) => {
  test.slow();
  await sitDown(page);
  const machineId = await twinOf(page, "gr-1", "GR-1R");
  await jobOn(page, machineId, "knocks, rebuild test", ["grinding-noise"]);
  await page.getByRole("button", { name: "Gearbox rebuild" }).click();
  await expect(page.getByText("The box is together.")).toBeVisible();
  await page.getByRole("button", { name: "Make it safe", exact: true }).last().click();
  await makeSafe(page, "Locked out");
  await page.getByRole("button", { name: "Gearbox rebuild" }).click();
  const step = page.getByRole("region", { name: "Next step" });
  const done = async (words: string) => {
    await expect(step).toContainText(words);
    for (const more of await step.getByRole("button", { name: /: one more$/ }).all())
      for (let count = 0; count < 8 && (await more.isEnabled()); count++) await more.click();
    await answerUsual(step);
    await step.getByRole("button", { name: /^Done/ }).click();
  };
  await expect(step.getByRole("button", { name: "Done without a photograph" })).toBeVisible();
  for (const words of [
    "One line across",
    "Oil into a pan",
    "Blade off",
    "Box unbolted",
    "Cover off",
    "Snap rings out",
    "Shaft tapped",
    "Bearings and seals out",
  ])
    await done(words);
  await expect(page.getByText("The box is apart.")).toBeVisible();
  const tray = page.getByRole("table", { name: "In the tray" });
  await expect(tray.getByRole("row", { name: /Snap rings 2/ })).toBeVisible();
  // A bearing less than came off: it does not go on.
  await expect(step.getByRole("button", { name: "Done" })).toBeDisabled();
  await expect(step).toContainText("Burrs dressed first");
  for (const more of await step.getByRole("button", { name: /: one more$/ }).all()) while (await more.isEnabled()) await more.click();
  await answerUsual(step);
  await step.getByRole("radio", { name: "Beside its usual place, on clean shaft" }).click();
  // Said to be flush and measured proud: it is not home.
  await step.getByRole("textbox", { name: /Bearing proud of its seat/ }).fill("1/8");
  await expect(step.getByRole("alert")).toContainText("from flush: it is not home");
  await expect(step.getByRole("button", { name: /^Done/ })).toBeDisabled();
  await step.getByRole("textbox", { name: /Bearing proud of its seat/ }).fill("0.005");
  await step.getByRole("textbox", { name: /Seal in from the face/ }).fill("30 in");
  await expect(step.getByRole("alert")).toContainText("it cannot be");
  await step.getByRole("textbox", { name: /Seal in from the face/ }).fill("1/8");
  await step.getByRole("button", { name: /^Done/ }).click();
  await done("Gears in as a mated pair");
  await done("Snap rings in");
  await done("Cover on a clean face");
  await step.getByRole("checkbox", { name: /Box bolts left loose on purpose/ }).check();
  await done("Box to the deck");
  await done("Blade and collar on");
  await done("Fill to the dipstick");
  await done("Turn every blade by hand");
  await expect(page.getByText("The box is together.")).toBeVisible();
  await expect(page.getByText("Box bolts: left loose on purpose")).toBeVisible();
  await page.getByRole("button", { name: "Tightened" }).click();
  await expect(page.getByText("Box bolts: left loose on purpose")).toHaveCount(0);
  await expect(timeline(page)).toContainText("Tightened: box bolts");

  // A seal was set beside its place on the way: the machine says so until somebody says it is as built again.
  await expect(page.getByText("Not as built. The seal sits beside its usual place, on clean shaft, by AK")).toBeVisible();
  await page.getByRole("link", { name: "Dipstick for this box" }).click();
  await page.getByRole("textbox", { name: /floor beneath the hole/ }).fill("3 3/4");
  await page.getByRole("textbox", { name: /Rod wet/ }).fill("1");
  await expect(page.getByText("Oil 0.38 in low. Rod 3.63 in, full mark 1.38 in up from its tip.")).toBeVisible();
  await page.getByRole("textbox", { name: /floor beneath the hole/ }).fill("2");
  await expect(page.getByText(/The floor lies under the shaft's top/)).toBeVisible();

  await open(page, `/machines/${machineId}`);
  const stands = page.getByRole("region", { name: "How it stands" });
  await expect(stands).toContainText("Not as built: Left gearbox. The seal sits beside its usual place, on clean shaft. AK");
  await stands.getByRole("button", { name: "Set as built again" }).click();
  await expect(stands).not.toContainText("Not as built");
});

test("a blade comes off and goes on step by step: by wrench with its figure, which a reload does not lose and a slip does not pass", async ({
  page,
}) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-1", "ZT-1OFF");
  await jobOn(page, machineId, "bolt by wrench test", ["vibration"]);
  await page.getByRole("button", { name: "Blade off and on" }).click();
  await page.getByRole("button", { name: "Make it safe", exact: true }).last().click();
  await makeSafe(page, "Raised");
  await page.getByRole("button", { name: "Blade off and on" }).click();
  const step = page.getByRole("region", { name: "Next step" });
  const done = async (words: string) => {
    await expect(step).toContainText(words);
    const all = step.getByRole("button", { name: /^All there/ });
    if (await all.isVisible()) await all.click();
    await answerUsual(step);
    await step.getByRole("button", { name: /^Done/ }).click();
  };
  for (const words of ["Photograph it from below", "Block of wood", "Break it loose", "Bolt and washers out", "Blade off, marked"])
    await done(words);
  await done("Blade on: labels off");
  await done("Washers in this machine");
  await expect(step).toContainText("drawn up by torque wrench");
  await answerUsual(step);
  const torque = step.getByRole("textbox", { name: /Wrench set to, ft·lb \(sheet 90 ft·lb\)/ });
  await expect(step.getByRole("button", { name: /^Done/ })).toBeDisabled();
  await torque.fill("900");
  await expect(step.getByRole("alert")).toBeVisible();
  await expect(step.getByRole("button", { name: /^Done/ })).toBeDisabled();
  await torque.fill("92");
  await again(page);
  await page.getByRole("button", { name: "Blade is off" }).click();
  await expect(torque).toHaveValue("92");
  await step.getByRole("button", { name: /^Done/ }).click();
  await done("Block out; turned a whole turn");
  await expect(page.getByText("On, and turned by hand.")).toBeVisible();
  await expect(step).toHaveCount(0);
  await expect(timeline(page)).toContainText("Blade");
  await open(page, `/machines/${machineId}`);
  await expect(page.getByText("May not run:")).toBeVisible();
});

test("a step written down over a slow line is asked no second time, and the page is read anew once", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-1", "ZT-1SLOW");
  await jobOn(page, machineId, "slow line test", ["vibration"]);
  await page.getByRole("button", { name: "Blade off and on" }).click();
  await page.getByRole("button", { name: "Make it safe", exact: true }).last().click();
  await makeSafe(page, "Raised");
  await page.getByRole("button", { name: "Blade off and on" }).click();
  const step = page.getByRole("region", { name: "Next step" });
  await expect(step).toContainText("Photograph it from below");
  await page.waitForLoadState("load");
  let readings = 0;
  let goOn = (): void => {};
  const slowed = () =>
    new Promise<void>((resolve) => {
      goOn = resolve;
    });
  let line = slowed();
  await page.route("**/jobs/*", async (route) => {
    if (route.request().headers().rsc && !route.request().headers()["next-router-prefetch"]) {
      readings += 1;
      await line;
    }
    await route.continue();
  });
  await answerUsual(step);
  await step.getByRole("button", { name: /^Done/ }).click();
  await expect(step).toContainText("Written down.");
  await expect(step).toContainText("Photograph it from below");
  await expect(step.getByRole("button")).toHaveCount(0);
  goOn();
  await expect(step).toContainText("Block of wood");
  await page.waitForTimeout(1000);
  expect(readings).toBe(1);
  // A line that hangs is not waited for longer than a while, and the record takes no step twice.
  line = slowed();
  await answerUsual(step);
  await step.getByRole("button", { name: /^Done/ }).click();
  await expect(step).toContainText("Written down.");
  await expect(step.getByRole("button", { name: /^Done/ })).toBeVisible();
  await answerUsual(step);
  await step.getByRole("button", { name: /^Done/ }).click();
  await expect(page.getByRole("alert").filter({ hasText: "This changed since the page was drawn." })).toBeVisible();
  goOn();
  await expect(step).toContainText("Break it loose");
  await expect(timeline(page).getByText("Blade left, off: block")).toHaveCount(1);
});

test("a belt's path is sketched on the deck: an idler put down, moved, and the path kept on the sheet", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-2", "ZT-2P");
  await open(page, `/machines/${machineId}/belt`);
  const said = page.getByRole("region", { name: "Belt path" });
  await expect(said).toContainText(/77\.8\d in round/);
  await page.getByRole("button", { name: "Left idler: take away" }).click();
  await expect(said).not.toContainText("77.8");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(said).toContainText(/77\.8\d in round/);

  // By keyboard: a pulley of no diameter, then one that lies out of the belt's way.
  await page.getByRole("button", { name: /^Left idler belt's back/ }).click();
  const row = page.getByRole("listitem", { name: "Left idler" });
  await row.getByRole("textbox", { name: "Pitch diameter" }).fill("0");
  await expect(row.getByRole("alert")).toContainText("Less than this can be");
  await expect(page.getByRole("button", { name: "Put it on the sheet" })).toBeDisabled();
  await row.getByRole("textbox", { name: "Pitch diameter" }).fill("3");
  await row.getByRole("textbox", { name: "Across, right is plus" }).fill("-30");
  await expect(said).toContainText("A tight belt would not touch");
  await row.getByRole("textbox", { name: "Across, right is plus" }).fill("-4");

  // By finger: the right idler is pulled a little inward.
  const idler = page.getByRole("listitem", { name: "Right idler" });
  await page.getByRole("button", { name: /^Right idler belt's back/ }).click();
  const x = idler.getByRole("textbox", { name: "Across, right is plus" });
  const before = await x.inputValue();
  const drawing = page.getByRole("img", { name: /^Deck and belt from above/ });
  const spot = await drawing.locator("text", { hasText: "Right idler" }).boundingBox();
  if (!spot) throw new Error("no idler on the drawing");
  await page.mouse.move(spot.x - 20, spot.y + spot.height / 2);
  await page.mouse.down();
  await page.mouse.move(spot.x - 30, spot.y + spot.height / 2, { steps: 4 });
  await page.mouse.up();
  await expect(x).not.toHaveValue(before);
  await again(page);
  await page.getByRole("button", { name: "Put it on the sheet" }).click();
  await expect(page.getByText("Belt path sketched").first()).toBeVisible();
  await expect(page.getByRole("heading", { name: "Sheet, version 2" })).toBeVisible();

  // Or photographed: what is no picture is answered in words, a picture is kept with the machine.
  const belt = page.getByRole("region", { name: "Belt" });
  const upload = belt.locator("input[type=file]");
  await upload.setInputFiles({ name: "notes.txt", mimeType: "text/plain", buffer: Buffer.from("no picture") });
  await expect(belt.getByText("That is no picture this browser can read.")).toBeVisible();
  await upload.setInputFiles("docs/screenshots/machine.png");
  await expect(belt.getByRole("list", { name: "Kept with the machine" }).getByRole("img")).toHaveCount(1);
});

test("spindles are greased, moved to other places, and taken back in a touch", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-1", "ZT-1G");
  for (const meterHours of [100, 100])
    await page.request.post(`/api/v1/machines/${machineId}/hours`, {
      headers: { origin: "http://127.0.0.1:3187" },
      data: { who: "AK", meterHours },
    });
  await open(page, `/machines/${machineId}`);
  const spindles = page.getByRole("region", { name: "Spindles" });
  await expect(spindles.getByRole("listitem").first()).toContainText("Left blade: never logged");
  await spindles.getByRole("button", { name: "Left blade: greased" }).click();
  await expect(spindles).toContainText("Left blade: Top up in 50 h");
  await spindles.getByRole("button", { name: "Moved to other places" }).click();
  await spindles.getByLabel("Left blade went to").selectOption("left");
  await expect(spindles.getByText(/Every spindle has to end up at one place/)).toBeVisible();
  await spindles.getByLabel("Left blade went to").selectOption("middle");
  await spindles.getByRole("button", { name: "Log the move" }).click();
  await expect(spindles).toContainText("Middle blade: Top up in 50 h");
  await expect(spindles).toContainText("this spindle came from the left blade");
  await spindles.getByText(/^Spindle log/).click();
  await spindles.getByRole("button", { name: /^Take back: Moved/ }).click();
  await expect(spindles).toContainText("Left blade: Top up in 50 h");

  // The other school, per machine: first an interval that is none, then one of its own, then left alone.
  await spindles.getByText("Change the rule").click();
  await spindles.getByRole("textbox", { name: "Top up every, h" }).fill("0");
  await expect(spindles.getByText(/Hours like 50 and 200/)).toBeVisible();
  await spindles.getByRole("textbox", { name: "Top up every, h" }).fill("40");
  await spindles.getByRole("button", { name: "Put it on the sheet" }).click();
  await expect(spindles).toContainText("Left blade: Top up in 40 h");
  await spindles.getByText("Change the rule").click();
  await spindles.getByRole("radio", { name: "Sealed, left alone" }).click();
  await spindles.getByRole("radio", { name: "Moved round" }).click();
  await spindles.getByRole("button", { name: "Put it on the sheet" }).click();
  await expect(spindles).toContainText("Left blade: sealed: left alone");
  await expect(spindles).toContainText("Spindles are moved round to even their wear.");
});

test("what cannot be is answered in words at its field, and nothing typed is lost", async ({ page }) => {
  await sitDown(page);
  await open(page, "/reckoner/tip-speed?machine=zt-1");
  const first = page.getByRole("textbox", { name: "Full throttle, no load" }).first();
  await first.fill("60000");
  await expect(page.getByText("More than this can be: 20000 r/min at most. Read it again.")).toBeVisible();
  await expect(first).toHaveValue("60000");
  await first.fill("0");
  await expect(page.getByText(/Left blade: belt off, key or pin sheared, or a gear broken/)).toBeVisible();
  await page.getByText("On paper first, before it is run up").click();
  await page.getByRole("textbox", { name: "Drive pulley, pitch diameter" }).fill("0");
  await expect(page.getByText(/Less than this can be: .* at least/)).toBeVisible();

  await open(page, "/reckoner/tip-speed?machine=wc-1");
  await page.getByRole("textbox", { name: "Charge then" }).fill("140");
  await expect(page.getByText("More than this can be: 100 % at most. Read it again.")).toBeVisible();
  await page.getByRole("textbox", { name: "Full charge, no load" }).fill("3250");
  await page.getByRole("textbox", { name: "Blade, no load" }).fill("2600");
  await expect(answer(page)).toHaveText("Sags at low charge. 64 % of the lift is left.");

  await open(page, "/reckoner/spindle-play?machine=zt-1");
  const hubs = page.getByRole("textbox", { name: "Hub after a run" });
  for (const [k, heat] of ["115", "46", "118"].entries()) await hubs.nth(k).fill(heat);
  await expect(page.getByText(/Middle blade: its heat fits the others only in the other scale/)).toBeVisible();
  await hubs.nth(1).fill("46 C");
  await expect(page.getByText(/only in the other scale/)).toHaveCount(0);
});

test("a walk-behind after a strike: a sheared key goes out of service", async ({ page }) => {
  await sitDown(page);
  await jobOn(page, await twinOf(page, "wp-1", "WP-1K"), "hit a root and shakes, key test", ["vibration"]);
  await openCheck(page, "Spindle or shaft play");
  await page.getByRole("button", { name: "Make it safe", exact: true }).last().click();
  await makeSafe(page, "Raised");
  await page.getByRole("radio", { name: "Sheared or marked" }).click();
  await expect(answer(page)).toHaveText("Blade: key sheared or marked.");
  await saveReadings(page);
  await expect(page.getByRole("button", { name: "Held: 1 reason" })).toBeVisible();
});
