import { expect, type Page, test } from "@playwright/test";
import { BASE, makeSafe, newJob, open, sitDown, twinOf } from "./helpers";

/** Somebody else's page, under initials of their own. */
async function another(page: Page, initials: string): Promise<Page> {
  const other = (await page.context().browser()?.newPage()) as Page;
  await other.request.post("/api/v1/people", { headers: { origin: BASE }, data: { initials } });
  await sitDown(other, initials);
  return other;
}

test("what one wrote down is taken back by another with a reason, which stays owed to the first", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-1", "ZT-1LETGO");
  await page.request.post(`/api/v1/machines/${machineId}/events`, {
    headers: { origin: BASE },
    data: { who: "AK", event: "belt-disturbed" },
  });
  const other = await another(page, "BLG");
  await open(other, `/machines/${machineId}`);
  await other.getByRole("button", { name: "Take back: Belt or idler disturbed" }).click();
  const reason = other.getByLabel("It keeps the machine from running. Why was it not so?");
  await reason.fill("ok");
  await other.getByRole("button", { name: "Take it back" }).click();
  await expect(other.getByText("Say in a few words why")).toBeVisible();
  await reason.fill("it was the other machine, both looked at");
  await other.getByRole("button", { name: "Take it back" }).click();
  await expect(other.getByText(/belt not seen in its grooves.* of AK let go by BLG/).first()).toBeVisible();
  await other.close();
});

test("while somebody else is locked on nothing is put back, and a run is told only in words", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-1", "ZT-1HANDS");
  const jobId = await newJob(page, { machineId, words: "shakes" });
  await open(page, `/jobs/${jobId}`);
  await makeSafe(page, "Locked out");
  const other = await another(page, "BLH");
  const theirs = await newJob(other, { machineId, words: "shakes too" });
  await open(other, `/jobs/${theirs}`);
  await other
    .getByRole("button", { name: /Put back/ })
    .first()
    .click();
  await expect(other.getByText("Somebody else is locked on: the lead goes back on with them")).toBeVisible();
  await other
    .getByRole("button", { name: /Make it safe/ })
    .first()
    .click();
  await other.getByRole("button", { name: "It was run since" }).click();
  const words = other.getByLabel("Who ran it all the same, and what for");
  await words.fill("ok");
  await other.getByRole("button", { name: "It was run since" }).click();
  await expect(other.getByText("It lets go of nothing", { exact: false })).toBeVisible();
  await expect(words).toHaveValue("ok");
  await words.fill("the night shift drove it across the yard");
  await other.getByRole("button", { name: "It was run since" }).click();
  await expect(other.getByRole("list", { name: "Timeline" })).toContainText("Machine was run");
  const { state } = await (await other.request.get(`/api/v1/machines/${machineId}/state`, { headers: { origin: BASE } })).json();
  expect(state.locks).toMatchObject([{ who: "AK" }]);
  await other.close();
});

test("a meter that was swapped is swapped once, whoever writes it down, and is taken back in one touch", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-1", "ZT-1METER");
  await page.request.post(`/api/v1/machines/${machineId}/hours`, { headers: { origin: BASE }, data: { who: "AK", meterHours: 951 } });
  await open(page, `/machines/${machineId}`);
  await page.getByText("Name, site, hour meter, retire").click();
  await page.getByLabel("The old meter came out at, h").fill("955");
  await page.getByRole("button", { name: "Another meter was fitted" }).click();
  await expect(page.getByText(/Swapped at 955 h, the new one went in at 0 h: AK/)).toBeVisible();
  await page.getByLabel("The old meter came out at, h").fill("955");
  await page.getByRole("button", { name: "Another meter was fitted" }).click();
  await expect(page.getByText("AK wrote a swap of this meter down", { exact: false })).toBeVisible();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByLabel("Hour meter, last 951 h")).toBeVisible();
});
