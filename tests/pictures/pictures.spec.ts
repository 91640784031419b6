import { expect, type Page, test } from "@playwright/test";
import { answerUsual, BASE, DEMO_JOBS, makeSafe, newJob, open, sitDown } from "../e2e/helpers";

const inHand = (page: Page) => page.getByRole("region", { name: "In hand" });

/** What the window shows, into docs/screenshots, once nothing on it moves. */
async function keep(page: Page, name: string): Promise<void> {
  await page.mouse.move(0, 0);
  await page.screenshot({ path: `docs/screenshots/${name}.png`, animations: "disabled", caret: "hide" });
}

test.beforeEach(async ({ page }) => sitDown(page));

for (const { name, path, shows } of [
  { name: "bay", path: "/", shows: "Held out of service" },
  { name: "fleet", path: "/machines", shows: "Machines" },
  { name: "machine", path: "/machines/zt-1", shows: "History" },
  { name: "complaint", path: "/complaint?machine=zt-1", shows: "What is wrong with the cut?" },
  { name: "part", path: "/parts/1", shows: "Blade 17 in, high lift" },
] as const)
  test(name, async ({ page }) => {
    await open(page, path);
    await expect(page.getByRole("heading", { name: shows }).first()).toBeVisible();
    await keep(page, name);
  });

test("belt", async ({ page }) => {
  await open(page, "/machines/zt-1/belt");
  await expect(page.getByRole("button", { name: "Put it on the sheet" })).toBeVisible();
  await keep(page, "belt");
});

test("bench", async ({ page }) => {
  await open(page, "/machines/rt-1");
  await page.getByRole("heading", { name: "The bench, unit by unit" }).evaluate((heading) => heading.scrollIntoView());
  await keep(page, "bench");
});

test("unit-side", async ({ page }) => {
  await open(page, "/machines/rt-1/bench?unit=left");
  await page.getByRole("textbox", { name: "Height to cut" }).fill("0.45");
  await expect(page.getByRole("button", { name: "Keep 0.450 in for the left unit" })).toBeVisible();
  await keep(page, "unit-side");
});

test("new-machine", async ({ page }) => {
  await open(page, "/machines/new");
  await page.locator("#part-blade summary").click();
  await page.getByRole("group", { name: /Washer stack/ }).evaluate((stack) => stack.scrollIntoView({ block: "center" }));
  await keep(page, "new-machine");
});

test("blade-fit", async ({ page }) => {
  await open(page, "/reckoner/blade-fit?machine=zt-1");
  for (const answer of ["Down, to the ground", "Blunt back", "As the stack shows", "Flush"])
    await page.getByRole("radio", { name: answer }).first().click();
  await expect(page.getByTestId("answer")).toContainText("upside down");
  await keep(page, "blade-fit");
});

test("reel-contact", async ({ page }) => {
  const trials = Array.from({ length: 11 }, (_, k) => [
    `${k + 1}.left=cut`,
    `${k + 1}.middle=${k === 5 ? "pinched" : "cut"}`,
    `${k + 1}.right=passes`,
  ]);
  const told = ["bearing=sound", "turns=light-drag", "closer=cuts", ...trials.flat().map((one) => `trials.${one}`)];
  await open(page, `/reckoner/reel-contact?machine=rt-1&${told.map((one) => `units.left.${one}`).join("&")}`);
  await expect(inHand(page)).toContainText("Left unit: loose at one end.");
  await keep(page, "reel-contact");
});

test("cause", async ({ page }) => {
  await open(page, `/jobs/${DEMO_JOBS.ledge}`);
  await page
    .getByRole("region", { name: "What it might be" })
    .getByRole("button", { name: /^Deck out of level/ })
    .click();
  await expect(inHand(page).getByRole("region", { name: "Why" })).toBeVisible();
  await keep(page, "cause");
});

test("telephone", async ({ page }) => {
  await open(page, `/jobs/${DEMO_JOBS.ledge}`);
  await page.getByRole("button", { name: "Ask over the telephone" }).click();
  await expect(inHand(page).getByRole("heading", { name: "Over the telephone" })).toBeVisible();
  await expect(inHand(page).getByRole("listitem")).toHaveCount(8);
  await keep(page, "telephone");
});

test("make-safe", async ({ page }) => {
  await open(page, `/jobs/${DEMO_JOBS.ledge}`);
  await page
    .getByRole("button", { name: /^Make it safe/ })
    .first()
    .click();
  await page.getByRole("radio", { name: "Locked out", exact: true }).click();
  await expect(page.getByRole("button", { name: /^Yes: / }).first()).toBeVisible();
  await keep(page, "make-safe");
});

test("job-before", async ({ page }) => {
  await open(page, `/jobs/${DEMO_JOBS.level}`);
  await expect(inHand(page)).toBeVisible();
  await keep(page, "job-before");
});

/** The last closed and proved job of a machine whose deck was levelled in it. */
async function levelledJob(page: Page, machineId: string): Promise<number> {
  for (let id: number = DEMO_JOBS.held - 1; id > 0; id--) {
    const job = await (await page.request.get(`/api/v1/jobs/${id}`, { headers: { origin: BASE, "sec-fetch-site": "same-origin" } })).json();
    const isLevelled = job.takes.some(({ checkId }: { checkId: string }) => checkId === "deck-level");
    const isProved = job.steps.some(({ kind, data }: { kind: string; data: { isProved?: boolean } }) => kind === "close" && data.isProved);
    if (job.machine.id === machineId && job.state === "closed" && isLevelled && isProved) return id;
  }
  throw new Error(`no closed job of ${machineId} with a level`);
}

test("close", async ({ page }) => {
  await open(page, `/jobs/${await levelledJob(page, "zt-1")}`);
  await expect(inHand(page)).toContainText("Closed, proved");
  await keep(page, "close");
});

async function openHeld(page: Page): Promise<void> {
  await open(page, `/jobs/${DEMO_JOBS.held}`);
  await page.getByRole("button", { name: /^Held: / }).click();
  await expect(page.getByRole("heading", { name: "What keeps it from running" })).toBeVisible();
}

test("held-dark", async ({ page }) => {
  await page.request.patch("/api/v1/people/AK", { headers: { origin: BASE }, data: { who: "AK", theme: "dark" } });
  await openHeld(page);
  await keep(page, "held-dark");
  await page.request.patch("/api/v1/people/AK", { headers: { origin: BASE }, data: { who: "AK", theme: "light" } });
});

test("phone", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const shots: string[] = [];
  const shot = async () => shots.push((await page.screenshot({ animations: "disabled", caret: "hide" })).toString("base64"));
  await open(page, "/");
  await shot();
  await open(page, "/complaint?machine=zt-1");
  await page.getByRole("button", { name: "Struck something hard" }).click();
  await page.getByRole("textbox", { name: "What it hit" }).evaluate((box) => box.scrollIntoView({ block: "center" }));
  await shot();
  await openHeld(page);
  await page.getByRole("heading", { name: "What keeps it from running" }).evaluate((heading) => heading.scrollIntoView());
  await shot();
  await page.setViewportSize({ width: 1170, height: 844 });
  await page.goto("about:blank");
  await page.setContent(
    `<body style="margin:0;display:flex">${shots.map((one) => `<img width="390" height="844" src="data:image/png;base64,${one}">`).join("")}`,
  );
  await keep(page, "phone");
});

test("rebuild", async ({ page }) => {
  const jobId = await newJob(page, { machineId: "gr-1", words: "knocks", symptoms: ["grinding-noise"] });
  await open(page, `/jobs/${jobId}`);
  await page.getByRole("button", { name: "Gearbox rebuild" }).click();
  await page.getByRole("button", { name: "Make it safe", exact: true }).last().click();
  await makeSafe(page, "Locked out");
  await page.getByRole("button", { name: "Gearbox rebuild" }).click();
  const step = page.getByRole("region", { name: "Next step" });
  for (const words of ["One line across", "Oil into a pan", "Blade off", "Box unbolted", "Cover off"]) {
    await expect(step).toContainText(words);
    for (const more of await step.getByRole("button", { name: /: one more$/ }).all())
      for (let count = 0; count < 8 && (await more.isEnabled()); count++) await more.click();
    await answerUsual(step);
    await step.getByRole("button", { name: /^Done/ }).click();
  }
  await expect(step).toContainText("Snap rings out");
  await keep(page, "rebuild");
});
