import { expect, type Page, test } from "@playwright/test";
import { seededRandom } from "@/core/basics/random";
import { CHECKS } from "@/core/catalogue";
import { type Field, keyOf, readAt, worksheetById } from "@/core/checks";
import { soundReadings } from "@/core/checks/sound";
import { allYes, itemsFor } from "@/core/job/safety";
import { type Machine, machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { stubbleInSeason } from "@/stories/stubble";
import { writeQuantity } from "@/ui/entry";
import { alive, BASE, newJob, open, openCheck, sitDown, twinOf } from "./helpers";

const inHand = (page: Page) => page.getByRole("region", { name: "In hand" });
const machineOf = (fleetNumber: string): Machine => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);

type Asked = { field: Field; value: unknown };

/** What a worksheet asks of a sound machine, in the order it is asked, with what is read there. */
function askedOf(machine: Machine, checkId: string): Asked[] {
  const check = worksheetById(checkId as Parameters<typeof worksheetById>[0]);
  const args = { machine, random: seededRandom(8), turf: "Square" };
  const readings =
    checkId === "cutting-height"
      ? stubbleInSeason({ ...args, at: Date.UTC(2026, 0, 20) })
      : (soundReadings({ ...args, check: checkId }) ?? {});
  const form = check?.form?.(machine, readings);
  const shown = form?.groups.filter(({ isFolded }) => !isFolded).map(({ id }) => id) ?? [];
  return shown.flatMap((group) =>
    (form?.fields ?? []).filter((field) => field.group === group).map((field) => ({ field, value: readAt(readings, field.path) })),
  );
}

/** As it is typed at a US bench. */
function textOf({ field, value }: Asked): string[] {
  if (value === undefined) return [];
  if (field.kind === "choice") return [String(field.options.findIndex(({ id }) => id === value) + 1)];
  if (field.kind === "quantity" || field.kind === "list")
    return [value].flat().map((valueSi) => writeQuantity({ valueSi: Number(valueSi), dimension: field.dimension, system: "us" }));
  return [String(value)];
}

const REEL_CHECKS = CHECKS.filter(({ on }) => (on as readonly string[]).join() === "reel").map(({ id, label, state }) => ({
  id,
  label,
  state,
}));

/** Key of the field that has the keyboard. */
const keyInHand = (page: Page) =>
  page.evaluate(() => {
    const here = document.activeElement;
    const stop = here?.matches("input:not([type=radio]), textarea") ? here : here?.closest("[data-stop]")?.querySelector("[id^=field-]");
    return stop?.id.startsWith("field-") ? stop.id.slice("field-".length) : undefined;
  });

/** Fills a worksheet in with the keyboard alone, from the first field on; what was passed over. */
async function fillByKeyboard(page: Page, fields: readonly Asked[]): Promise<string[]> {
  const asked = new Map(fields.map((one) => [keyOf(one.field.path), one]));
  for (let k = 0; k < 120 && (await keyInHand(page)) === undefined; k++) await page.keyboard.press("Tab");
  const seen = new Set<string>();
  for (let k = 0; k < 120; k++) {
    const key = await keyInHand(page);
    const one = key === undefined ? undefined : asked.get(key);
    if (key === undefined || !one || seen.has(key)) break;
    seen.add(key);
    const texts = textOf(one);
    if (one.field.kind === "choice") await page.keyboard.press(texts[0] ?? "Enter");
    else {
      for (const text of texts) {
        await page.keyboard.type(text);
        if (one.field.kind === "list") await page.keyboard.press("Enter");
      }
      await page.keyboard.press(one.field.kind === "list" ? "Tab" : "Enter");
    }
  }
  return [...asked.keys()].filter((key) => !seen.has(key));
}

for (const { id, label } of [...REEL_CHECKS, { id: "cutting-height", label: "Cutting height" }]) {
  test(`${label} of a triplex by keyboard alone, in the Reckoner`, async ({ page }) => {
    await sitDown(page);
    await open(page, `/reckoner/${id}?machine=rt-1`);
    expect(await fillByKeyboard(page, askedOf(machineOf("RT-1"), id))).toEqual([]);
    await expect(inHand(page)).toContainText("In tolerance");
  });
}

for (const { id, label, state } of REEL_CHECKS) {
  test(`${label} of a triplex by keyboard alone, in a job, and saved`, async ({ page }) => {
    const machine = machineOf("RT-1");
    await sitDown(page);
    const machineId = await twinOf(page, "rt-1", `K-${id.slice(0, 14).toUpperCase()}`);
    const jobId = await newJob(page, { machineId, words: "ribs", symptoms: ["ripples"] });
    const parts = state === "bench" ? { parts: machine.units.map((unit) => unit.id) } : {};
    const data = { who: "AK", state, answers: allYes(itemsFor(machine, state)), ...parts };
    expect((await page.request.post(`/api/v1/jobs/${jobId}/confirmations`, { headers: { origin: BASE }, data })).status()).toBe(201);
    await open(page, `/jobs/${jobId}`);
    await openCheck(page, label);
    expect(await fillByKeyboard(page, askedOf(machine, id))).toEqual([]);
    await page.keyboard.press("Control+Enter");
    const lines = page.getByRole("list", { name: "Timeline" }).getByRole("listitem");
    await expect(lines.last()).toContainText(`${label}: in tolerance`);
  });
}

test.describe("by touch, on a telephone", () => {
  test.use({ hasTouch: true, viewport: { width: 390, height: 844 } });

  for (const { id, label } of REEL_CHECKS) {
    test(`${label}: every answer with a finger`, async ({ page }) => {
      const isOfSeveral = ["unit-match", "unit-layout", "groomer-depth"].includes(id);
      const [fleetNumber, machineId] = isOfSeveral ? ["RT-2", "rt-2"] : ["RW-1", "rw-1"];
      await sitDown(page);
      await open(page, `/reckoner/${id}?machine=${machineId}`);
      for (const one of askedOf(machineOf(fleetNumber), id)) {
        const place = page.locator(`[id="field-${keyOf(one.field.path)}"]`);
        const texts = textOf(one);
        if (texts.length === 0) continue;
        if (one.field.kind === "choice") {
          const answer = place.getByRole("radio").nth(Number(texts[0]) - 1);
          const box = await answer.boundingBox();
          expect(box?.height, `${one.field.label} is large enough for a finger`).toBeGreaterThanOrEqual(44);
          await answer.tap();
        } else {
          await place.tap();
          await page.keyboard.type(texts.join("\n"));
        }
      }
      await expect(inHand(page)).toContainText("In tolerance");
      expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
    });
  }

  test("a bench setting: a unit touched, a height typed, what does not suit it said, kept and taken back", async ({ page }) => {
    await sitDown(page);
    const machineId = await twinOf(page, "rt-1", "RT-1TOUCH");
    await open(page, `/machines/${machineId}/bench`);
    await page.getByRole("button", { name: "Right unit" }).tap();
    await expect(page.getByText("Right unit: 0.500 in, as it stands")).toBeVisible();
    await page.getByRole("textbox", { name: "Height to cut" }).fill("0.3");
    const panel = page.getByRole("region", { name: "Bench setting" });
    await expect(panel).toContainText("Past the travel of the height screws");
    await expect(panel).toContainText("The knife “Fairway” is made for 0.350 in to 0.800 in");
    await page.getByRole("button", { name: "Keep 0.300 in for the right unit" }).tap();
    await expect(panel.getByRole("alert")).toContainText("do not travel that far");
    await expect(page.getByRole("textbox", { name: "Height to cut" })).toHaveValue("0.3");
    await page.getByRole("textbox", { name: "Height to cut" }).fill("0.45");
    await expect(panel).toContainText(/Rear roller 0\.\d+ in up in the unit, \d\.\d\d turns of both its screws\. Front bracket in hole 3/);
    await page.getByRole("button", { name: "Keep 0.450 in for the right unit" }).tap();
    await expect(page.getByText("Kept for right unit.")).toBeVisible();
    await expect(page.getByText("Right unit: 0.450 in, as it stands")).toBeVisible();
    await page.getByRole("button", { name: "Undo" }).tap();
    await expect(page.getByText("Right unit: 0.500 in, as it stands")).toBeVisible();
  });
});

test("a bench setting by keyboard: what if stands apart, a reload loses nothing, kept it makes that unit's later steps again", async ({
  page,
}) => {
  await sitDown(page);
  const machineId = await twinOf(page, "rt-1", "RT-1BENCH");
  await open(page, `/machines/${machineId}/bench?unit=left`);
  await page.getByRole("button", { name: "Middle unit" }).focus();
  await page.keyboard.press("Enter");
  const slider = page.getByRole("slider", { name: "Front roller up, by slider" });
  await slider.focus();
  for (let k = 0; k < 20; k++) await page.keyboard.press("ArrowLeft");
  await expect(page.getByText(/^Middle unit: 0\.5(19|20) in, what if/)).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Front roller up" })).toHaveValue(/^-0\.0393/);
  // Made up at the rear: nose up, and the picture says by how much.
  await page.getByRole("textbox", { name: "Height to cut" }).fill("0.5");
  await expect(page.getByText(/^Middle unit: 0\.500 in, what if/)).toBeVisible();
  await expect(page.getByRole("region", { name: "Side view" })).toContainText(/−0\.\d\d° on the attitude/);
  expect(await page.evaluate(() => document.documentElement.scrollHeight <= window.innerHeight)).toBe(true);
  await page.reload({ waitUntil: "load" });
  await alive(page);
  await expect(page.getByRole("textbox", { name: "Front roller up" })).toHaveValue(/^-0\.0393/);
  await page.getByRole("button", { name: "Back to what stands" }).click();
  await expect(page.getByText("Middle unit: 0.500 in, as it stands")).toBeVisible();
  await page.getByRole("textbox", { name: "Height to cut" }).fill("a hair less");
  await expect(page.getByRole("alert").first()).toContainText("cannot be read as a length");
  await page.getByRole("textbox", { name: "Height to cut" }).fill("0.48");
  // A move that cannot be read is no move of nought: nothing is kept of it.
  const keepAll = page.getByRole("button", { name: "Keep it for all 3 units" });
  await page.getByRole("textbox", { name: "Packed on the rear" }).fill("some");
  await expect(keepAll).toBeDisabled();
  await page.getByRole("textbox", { name: "Packed on the rear" }).fill("");
  // A dropped line loses nothing typed, and the same press keeps it once the line is back.
  await page.context().setOffline(true);
  await keepAll.click();
  await expect(
    page
      .getByRole("alert")
      .filter({ hasText: /server|line/i })
      .first(),
  ).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Height to cut" })).toHaveValue("0.48");
  await page.context().setOffline(false);
  await keepAll.click();
  await expect(page.getByText("Kept for all units.")).toBeVisible();
  await open(page, `/machines/${machineId}`);
  await expect(page.getByRole("region", { name: "Sheet" })).toContainText(
    /Bench setting 0\.480 in, all units: (Rear|Front) roller .* (up|down) in the unit.*, AK/,
  );
});

test("a sheet another changed meanwhile: what was typed stays, is told, and is reckoned anew on what stands now", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "rt-1", "RT-1TWO");
  await open(page, `/machines/${machineId}/bench?unit=left`);
  await page.getByRole("textbox", { name: "Height to cut" }).fill("0.45");
  const headers = { origin: BASE, "sec-fetch-site": "same-origin" };
  const { machine, sheetVersion } = await (await page.request.get(`/api/v1/machines/${machineId}`, { headers })).json();
  const { front, rear } = machine.sheet.unit.sideView;
  const settings = { left: { frontZMetres: front.zMetres, rearZMetres: rear.zMetres + 0.001 } };
  const data = { who: "AK", basedOnVersion: sheetVersion, settings, reason: "set by another" };
  expect((await page.request.post(`/api/v1/machines/${machineId}/bench-setting`, { headers, data })).status()).toBe(201);
  await page.getByRole("button", { name: /^Keep 0\.450 in for the left unit/ }).click();
  const told = page.getByText("AK changed the sheet since this was typed: set by another.");
  await expect(told).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Height to cut" })).toHaveValue("0.45");
  await expect(page.getByRole("button", { name: /^Keep .* for the left unit/ })).toBeDisabled();
  await page.getByRole("button", { name: "Reckon my heights from what stands now" }).click();
  await expect(told).toBeHidden();
  await page.getByRole("button", { name: "Keep 0.450 in for the left unit" }).click();
  await expect(page.getByText("Kept for left unit.")).toBeVisible();
  await expect(page.getByText("Left unit: 0.450 in, as it stands")).toBeVisible();
});

test("units of two machines side by side: the odd one is framed, and says so", async ({ page }) => {
  await sitDown(page);
  const machineId = await twinOf(page, "rw-1", "RW-1ODD");
  const other = await twinOf(page, "rw-1", "RW-1EVEN");
  await open(page, `/machines/${machineId}/bench`);
  await page.getByRole("textbox", { name: "Height to cut" }).fill("0.2");
  await page.getByRole("button", { name: "Keep 0.200 in for the unit" }).click();
  await expect(page.getByText("Kept for unit.")).toBeVisible();
  await open(page, `/alike?machines=rw-1,${machineId},${other}`);
  await expect(page.getByText(/^Not alike\..*RW-1ODD: bench height/)).toBeVisible();
  await expect(page.getByRole("row", { name: /Bench height/ })).toContainText("0.200 in differs");
});
