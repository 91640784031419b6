import { expect, test } from "@playwright/test";
import { BASE, DEMO_JOBS, open, sitDown } from "./helpers";

test("print this job: three touches from the front page, black on white in the dark theme too, and a PDF of either paper", async ({
  page,
}) => {
  await sitDown(page);
  await open(page, "/");
  await page
    .getByRole("link", { name: /left side low|cuts lower|RT-2/ })
    .first()
    .click();
  await page.getByRole("link", { name: "Card", exact: true }).click();
  await expect(page.getByRole("button", { name: "Print" })).toBeVisible();
  await expect(page.getByRole("img", { name: /^Back to job \d+: http/ })).toBeVisible();
  await page.emulateMedia({ media: "print", colorScheme: "dark" });
  await page.evaluate(() => {
    document.documentElement.dataset.theme = "dark";
  });
  const card = page.getByRole("article");
  const [ink, paper] = await card.evaluate((one) => [getComputedStyle(one).color, getComputedStyle(one).backgroundColor]);
  expect([ink, paper].map((colour) => colour.replace(/\s/g, ""))).toEqual([
    expect.stringMatching(/^(rgb\(0,0,0\)|#000|oklch\(0)/),
    expect.stringMatching(/^(rgb\(255,255,255\)|#fff|oklch\(1)/),
  ]);
  await expect(page.getByRole("banner")).toBeHidden();
  await expect(page.getByRole("button", { name: "Print" })).toBeHidden();
  for (const size of ["a4", "letter"]) {
    const answer = await page.request.get(`/api/v1/jobs/${DEMO_JOBS.level}/card?size=${size}`, {
      headers: { referer: `${BASE}/`, origin: BASE },
    });
    expect([answer.status(), answer.headers()["content-type"]]).toEqual([200, "application/pdf"]);
    expect((await answer.body()).subarray(0, 5).toString()).toBe("%PDF-");
  }
});

test("labels for the whole fleet, as large as they are said to be, or for those that are asked for", async ({ page }) => {
  await sitDown(page);
  await open(page, "/machines");
  await page.getByRole("link", { name: "Labels to print" }).click();
  const labels = page.getByRole("list", { name: "Labels" }).getByRole("listitem");
  await expect(labels.first()).toBeVisible();
  expect(await labels.count()).toBeGreaterThanOrEqual(14);
  const label = labels.filter({ hasText: "BD-1" }).first();
  const box = await label.boundingBox();
  // 63 × 34 mm at 96 pixels an inch.
  expect([box?.width, box?.height].map((side) => Math.round(side ?? 0))).toEqual([238, 129]);
  await open(page, "/labels?machines=rt-1");
  await expect(labels).toHaveCount(1);
  await open(page, "/labels?machines=nobody");
  await expect(page.getByText("No machine here is called that.")).toBeVisible();
});

test("when were its knives last ground: two touches from the front page, and it leads to that job", async ({ page }) => {
  await sitDown(page);
  await open(page, "/");
  await page.getByRole("link", { name: "Machines", exact: true }).click();
  await page.getByRole("link", { name: /^RT-1/ }).first().click();
  const last = page.getByRole("region", { name: "Last done" }).getByRole("link", { name: /Grind the bedknife/ });
  await expect(last).toContainText(/middle unit.*\d+ \w+ 20\d\d, \w+/s);
  await last.click();
  await expect(page.getByRole("region", { name: "The whole of it" })).toContainText("Grind the bedknife");
});

test("when were its blades last ground: two touches, also where no job sharpened them", async ({ page }) => {
  await sitDown(page);
  await open(page, "/");
  await page.getByRole("link", { name: "Machines", exact: true }).click();
  // The bay has a job of it by the same name: the fleet first.
  await expect(page.getByRole("heading", { name: "Machines", level: 1 })).toBeVisible();
  await page
    .getByRole("link", { name: /^ZT-2(?![A-Z0-9])/ })
    .first()
    .click();
  const last = page.getByRole("region", { name: "Last done" }).getByRole("link", { name: /Sharpen the blades/ });
  await expect(last).toContainText(/\d+ \w+ 20\d\d, \w+/);
});

test("what is overdue for grease stands on the front page and leads to where it is written down", async ({ page }) => {
  await sitDown(page);
  await open(page, "/");
  const due = page.getByRole("region", { name: /^Due \d/ });
  const overdue = due.getByRole("link", { name: /grease/ }).first();
  await expect(overdue).toContainText(/overdue|due|soon/);
  await overdue.click();
  await expect(page).toHaveURL(/#service$/);
  await expect(page.getByRole("region", { name: "Service" })).toContainText("Grease the spindles");
});
