import { expect, test } from "@playwright/test";
import { newJob, open, sitDown, twinOf } from "./helpers";

const LOOKS = [
  ...["step-between-passes", "bands-between-units", "uncut-strip-inside", "uncut-strip-between-passes", "blade-width-uncut", "torn-tips"],
  ...["browning", "stragglers", "scalped-crests", "scalped-band", "ripples", "irregular-hop", "clumps", "poor-collection"],
];
const present = (many: number) => Object.fromEntries(LOOKS.slice(0, many).map((id) => [id, "present"]));

test("a diagnosis of fourteen looks is answered off the server's thread, the same as any other, and fifteen are refused", async ({
  page,
}) => {
  const ask = (symptoms: object) => page.request.post("/api/v1/diagnose", { data: { kind: "rotary", symptoms } });
  const answer = await ask(present(14));
  expect(answer.status()).toBe(200);
  const { causes } = (await answer.json()) as { causes: { id: string; probability: number }[] };
  expect(causes.length).toBeGreaterThan(20);
  expect(causes.map(({ probability }) => probability)).toEqual(causes.map(({ probability }) => probability).sort((a, b) => b - a));
  const tooMany = await ask({ ...present(14), vibration: "present" });
  expect([tooMany.status(), (await tooMany.json()).issues[0].code]).toEqual([422, "too-many-present"]);
});

test("a job of twelve looks opens at once, and its work-up comes from the browser's own worker", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "zt-3", "ZT-3MANY");
  const jobId = await newJob(page, { machineId, words: "everything at once", symptoms: LOOKS.slice(0, 12) });
  const drawn = await (await page.request.get(`/jobs/${jobId}`)).text();
  expect(drawn).toContain("Reckoning what it might be");
  await open(page, `/jobs/${jobId}`);
  await expect(page.getByRole("region", { name: "What it might be" }).getByRole("listitem").first()).toContainText(/\d+ %/);
  await page.getByRole("button", { name: "Ask over the telephone" }).click();
  await expect(page.getByRole("region", { name: "In hand" }).getByRole("listitem").first()).toBeVisible();
});
