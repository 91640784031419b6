import { expect, type Page, test } from "@playwright/test";
import { BASE, numberFor, open, sitDown, twinOf } from "./helpers";

/** Fields of the sheet, by their labels. */
const field = (page: Page, name: string) => page.getByLabel(name).first();
const whole = (page: Page) => page.locator("[aria-label=Sheet] p").first();

test.beforeEach(async ({ page }) => sitDown(page));

test("a lead sets up a machine of his own from the front page and takes a first complaint on it", async ({ page }) => {
  await open(page, "/");
  await page.getByRole("link", { name: "Machines" }).click();
  await page.getByRole("link", { name: "A new machine" }).click();
  await expect(page.getByRole("heading", { name: "A machine of our own" })).toBeVisible();
  await page.getByRole("radio", { name: "Belly-deck tractor" }).click();
  await expect(whole(page)).toContainText("Belly-deck tractor, 2 blades");
  await field(page, "Width of cut").fill("42");
  await expect(whole(page)).toContainText("cuts 42 in");
  const number = numberFor("BD-9");
  await field(page, "Its number").fill(number);
  await field(page, "Hour meter").fill("412.5");
  await field(page, "What it is called").fill("Tractor from the sale");
  await field(page, "Where it mows").fill("South cemetery");

  // What it would still miss is told with its cost, and leads to the field.
  const missing = page.getByRole("region", { name: "Still missing" });
  await expect(missing).toContainText("no turns, only lengths by the ruler");
  await missing.getByRole("listitem").filter({ hasText: "torque of the blade bolt" }).getByRole("button").click();
  await expect(field(page, "Torque of the blade bolt")).toBeFocused();
  await page.keyboard.type("55 ft-lb");
  await expect(missing).not.toContainText("torque of the blade bolt");

  // Drawn right: a blade in hand is moved by the arrows, and undo and redo go back and forth.
  await page.getByRole("button", { name: "Right blade", exact: true }).click();
  const across = field(page, "Across, right is plus");
  const stood = await across.inputValue();
  await page.getByRole("img", { name: /from above, to scale/ }).focus();
  await page.keyboard.press("Shift+ArrowRight");
  await expect(across).toHaveValue(String(Number(stood) + 1));
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(across).toHaveValue(stood);
  await page.getByRole("button", { name: "Redo" }).click();
  await expect(across).toHaveValue(String(Number(stood) + 1));

  await page.getByRole("button", { name: "Put it in the fleet" }).click();
  await expect(page).toHaveURL(new RegExp(`machines/${number.toLowerCase()}$`));
  await expect(page.getByRole("heading", { level: 1 })).toContainText(number);
  await expect(page.getByText("412.5 h").first()).toBeVisible();
  await page.getByRole("link", { name: "Take a complaint" }).first().click();
  await field(page, "In their own words").fill("It leaves a ledge on the left");
  await page.getByLabel(/Who noticed/).fill("TV");
  await page.getByRole("button", { name: "Hand it to the bay" }).click();
  await expect(page.getByText("It leaves a ledge on the left").first()).toBeVisible();
});

test("a blade dragged on the plan snaps across from its twin, and its shell goes along", async ({ page }) => {
  await open(page, "/machines/new");
  await page.getByRole("radio", { name: "Geared rider" }).click();
  await page.getByRole("button", { name: "Right blade", exact: true }).click();
  const across = field(page, "Across, right is plus");
  const stood = Number(await across.inputValue());
  const plan = page.getByRole("img", { name: /from above, to scale/ });
  const handle = plan.locator("g", { hasText: "Right blade" }).last();
  const from = await handle.boundingBox();
  if (!from) throw new Error("no handle");
  const [x, y] = [from.x + from.width / 2, from.y + from.height / 2 + 8];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 60, y + 40, { steps: 6 });
  await page.mouse.up();
  expect(Number(await across.inputValue())).toBeGreaterThan(stood + 1);
  await expect(page.getByRole("button", { name: "Draw the shell" })).toHaveCount(0);
});

test("blades whose circles meet are refused by which, until they are told to be timed", async ({ page }) => {
  await open(page, "/machines/new");
  await page.getByRole("button", { name: "Middle blade", exact: true }).click();
  await field(page, "Tip circle").fill("22");
  await expect(page.getByRole("alert").filter({ hasText: "would strike each other" }).first()).toBeVisible();
  await page.getByText("What it has", { exact: true }).click();
  await page.getByRole("checkbox", { name: "Blades timed by gearboxes" }).check();
  await expect(page.getByRole("alert").filter({ hasText: "would strike" })).toHaveCount(0);
});

test("a washer stack and the deck's own order are put together by touch, undone, and stand on the sheet", async ({ page }) => {
  expect(await twinOf(page, "zt-2", "K-STACK")).toBe("k-stack");
  await open(page, "/machines/k-stack/sheet");
  await page.locator("#part-blade summary").click();
  const stack = page.getByRole("group", { name: /Washer stack/ });
  while ((await stack.getByRole("listitem").count()) > 0)
    await stack
      .getByRole("button", { name: /: away$/ })
      .first()
      .click();
  for (const part of ["Bolt", "Blade", "Flat washer"])
    await stack.getByRole("button", { name: `Next in the order: ${part}`, exact: true }).click();
  await stack.getByRole("button", { name: "3, Flat washer: earlier" }).click();
  await expect(stack.getByRole("img")).toHaveAccessibleName("Stack from the bolt's head up: bolt, flat washer, blade, sail up");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(stack.getByRole("listitem").last()).toContainText("Flat washer");
  await page.getByRole("button", { name: "Redo" }).click();
  await stack.getByRole("button", { name: "Next in the order: Bolt", exact: true }).click();
  await expect(page.getByRole("alert").filter({ hasText: "holds one bolt" }).first()).toBeVisible();
  await stack.getByRole("button", { name: "4, Bolt: away" }).click();

  await page.locator("#part-deck-off summary").click();
  const order = page.getByRole("group", { name: /Taking the deck off/ });
  await order.getByRole("button", { name: "Begin from the usual" }).click();
  const steps = await order.getByRole("listitem").count();
  await order.getByRole("button", { name: "Another step" }).click();
  const last = order.getByRole("listitem").last();
  await last.getByLabel("Into the tray").fill("99 pins");
  await expect(last.getByRole("alert")).toHaveText(["This one is needed with what stands beside it.", "One to forty of each."]);
  await last.getByLabel("Coming off").fill("Chute off");
  await last.getByLabel("Into the tray").fill("2 chute pins, spring");
  await expect(last.getByRole("alert")).toHaveCount(0);
  await last.getByRole("button", { name: /: earlier$/ }).click();
  await field(page, "Why the sheet changes").fill("as it comes off here");
  await page.getByRole("button", { name: "Keep it as a new version" }).click();
  await expect(page).toHaveURL(/machines\/k-stack$/);
  const { machine } = await (await page.request.get("/api/v1/machines/k-stack", { headers: { origin: BASE } })).json();
  expect(machine.sheet.blade.stack).toEqual(["bolt", "flat-washer", "blade"]);
  expect(machine.sheet.deckOff.steps).toHaveLength(steps + 1);
  // A name with a comma in it stays one part.
  expect(machine.sheet.deckOff.steps.find(({ id }: { id: string }) => id === "rear-links").parts).toContainEqual({
    ...{ id: "rear-pins", label: "Pins, rear", count: 2 },
  });
  expect(machine.sheet.deckOff.steps.at(-2)).toEqual({
    ...{ id: "chute-off", words: "Chute off" },
    parts: [
      { id: "chute-pins", label: "chute pins", count: 2 },
      { id: "spring", label: "spring", count: 1 },
    ],
  });
});

test("a unit of its own is begun from what is said of all, and goes back to being like the others", async ({ page }) => {
  await open(page, "/machines/rf-1/sheet");
  await page
    .getByRole("button", { name: /^Right/ })
    .first()
    .click();
  await page.getByText("Like every other unit").click();
  const reel = page.getByRole("region", { name: "Reel of this unit" });
  await reel.getByRole("button", { name: "Its own" }).click();
  await reel.getByLabel("Blades of a reel").fill("8");
  await expect(page.getByText("Its own: reel")).toBeVisible();
  await reel.getByLabel("Reel's diameter, new").fill("");
  await expect(reel.getByRole("alert").first()).toContainText("needed");
  await page.getByRole("button", { name: "Undo" }).click();
  await reel.getByRole("button", { name: "As the others" }).click();
  await expect(page.getByText("Like every other unit")).toBeVisible();
});

test("what cannot be read is told at its field, kept through a reload, and keeps the sheet from being saved", async ({ page }) => {
  await open(page, "/machines/zt-2/sheet");
  await page.getByText("Height and cut").click();
  await field(page, "Highest height of cut").fill("four and a bit");
  await expect(page.getByRole("alert").filter({ hasText: "cannot be read" }).first()).toBeVisible();
  await field(page, "Why the sheet changes").fill("new height lever");
  await expect(page.getByRole("button", { name: "Keep it as a new version" })).toBeDisabled();
  await page.reload();
  await expect(field(page, "Highest height of cut")).toHaveValue("four and a bit");
  await field(page, "Highest height of cut").fill("4 1/2");
  await page.getByRole("button", { name: "Keep it as a new version" }).click();
  await expect(page).toHaveURL(/machines\/zt-2$/);
  await expect(page.getByRole("heading", { name: "Sheet, version 2" })).toBeVisible();
  await expect(page.getByText("new height lever").first()).toBeVisible();
});

test("two people on one sheet: both versions are shown, and both can be kept", async ({ page }) => {
  await open(page, "/machines/zt-3/sheet");
  await page.getByText("Height and cut").click();
  await field(page, "Highest height of cut").fill("5");
  await field(page, "Why the sheet changes").fill("other lever");
  // JM keeps another change of it meanwhile.
  const { machine, sheetVersion } = await (await page.request.get("/api/v1/machines/zt-3", { headers: { origin: BASE } })).json();
  const theirs = { ...machine, sheet: { ...machine.sheet, passOverlapMetres: 0.1 } };
  const put = await page.request.put("/api/v1/machines/zt-3/sheet", {
    headers: { origin: BASE },
    data: { who: "JM", basedOnVersion: sheetVersion, machine: theirs, reason: "wider overlap" },
  });
  expect(put.status()).toBe(201);
  await page.getByRole("button", { name: "Keep it as a new version" }).click();
  const both = page.getByRole("alert", { name: "Changed meanwhile" }).or(page.locator("[aria-label='Changed meanwhile']"));
  await expect(both.first()).toContainText("JM changed this sheet meanwhile: wider overlap");
  await page.getByRole("button", { name: "Put both together" }).click();
  await page.getByRole("button", { name: "Keep it as a new version" }).click();
  await expect(page).toHaveURL(/machines\/zt-3$/);
  const after = await (await page.request.get("/api/v1/machines/zt-3", { headers: { origin: BASE } })).json();
  expect(after.machine.sheet.passOverlapMetres).toBe(0.1);
  expect(after.machine.sheet.heightMostMetres).toBeCloseTo(0.127, 6);
});

test("a sister's sheet is copied, on a telephone nothing is cut off", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, "/machines/new");
  await page.getByLabel("Or a copy of").selectOption({ label: "GR-1 Geared rider, 1.8 m" });
  await expect(whole(page)).toContainText("Geared rider, 3 blades");
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test("what fits this deck is answered in two touches from the front page, with what does not and why", async ({ page }) => {
  await open(page, "/");
  await page.getByRole("link", { name: "Machines" }).click();
  const fleet = page.getByRole("table", { name: "Machines" });
  await fleet.getByRole("link", { name: /^ZT-1/ }).first().click();
  const fits = page.getByRole("region", { name: "What fits" });
  await expect(fits.getByText(/In stock: Blade 17 in, high lift \(\d+\)/)).toBeVisible();
  await expect(fits.getByRole("listitem").filter({ hasText: "pattern part" })).toContainText("would strike its neighbour");
  await expect(fits.getByRole("listitem").filter({ hasText: "pattern part" })).toContainText("Does not fit");
});

test("the fleet is found as it is typed, filtered and sorted in the address, and saved as it is shown", async ({ page }) => {
  await open(page, "/machines");
  const rows = page.getByRole("table", { name: "Machines" }).getByRole("row");
  await page.getByLabel("Find by number, name, site or kind").fill("reel cricket");
  await expect(rows.filter({ hasText: "RF-1" })).toBeVisible();
  await expect(rows.filter({ hasText: "ZT-1" })).toHaveCount(0);
  await expect(page).toHaveURL(/q=reel\+cricket/);
  await page.getByRole("columnheader", { name: "Hours" }).getByRole("button").click();
  await page.getByRole("columnheader", { name: "Hours" }).getByRole("button").click();
  await expect(page).toHaveURL(/by=hours&down=1/);
  await expect(rows.nth(1)).toContainText("RF-1");
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save as CSV" }).click()]);
  const stream = await file.createReadStream();
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part as Buffer);
  const lines = Buffer.concat(parts).toString("utf8").split("\r\n");
  expect(lines[0]).toBe("number,name,kind,site,stands,open_jobs,due,owed,not_as_built,hours,width_metres");
  // Others of these tests make twins of the triplex: no hours, so after these two.
  const numbers = lines.slice(1).map((line) => line.split(",")[0] ?? "");
  expect(numbers.slice(0, 2)).toEqual(["RF-1", "RT-1"]);
  expect(numbers.filter((number) => !/^(RF-1|RT-1|K-)/.test(number))).toEqual([]);
  await page.reload();
  await expect(rows.filter({ hasText: "RF-1" })).toBeVisible();
  await expect(page.getByLabel("Find by number, name, site or kind")).toHaveValue("reel cricket");
  await page.getByRole("button", { name: "Held" }).click();
  await expect(rows.filter({ hasText: "RF-1" })).toHaveCount(0);
  await page.getByLabel("Find by number, name, site or kind").fill("reel nowhere");
  await expect(page.getByText("No machine is like that.")).toBeVisible();
});

test("a round is begun, gone through by the keyboard alone, and taken back", async ({ page }) => {
  await open(page, "/rounds/new");
  await page.getByRole("radio", { name: "Read the tyres" }).click();
  await expect(page.getByRole("button", { name: "Pick the machines first" })).toBeDisabled();
  await page.getByLabel("To be through by").fill("2099-06-12");
  await page.getByLabel("Called").fill("Tyres before the season");
  for (const number of ["FD-1", "GR-1"]) await page.getByRole("checkbox", { name: new RegExp(number) }).check();
  await page.getByRole("button", { name: "Begin the round of 2" }).click();
  await expect(page).toHaveURL(/rounds\/\d+$/);
  await expect(page.getByText("2 of 2 to do.")).toBeVisible();
  await page.getByRole("button", { name: "FD-1: done" }).focus();
  await page.keyboard.press("ArrowDown");
  await expect(page.getByRole("button", { name: "GR-1: done" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByText("1 of 2 to do.")).toBeVisible();
  await page.getByRole("button", { name: "GR-1: undo" }).click();
  await expect(page.getByText("2 of 2 to do.")).toBeVisible();
});

test("hour meters of many machines are pasted: all or none, each line that cannot be is named, and nothing typed is lost", async ({
  page,
}) => {
  await open(page, "/service");
  await page.getByText("Hour meters of many machines").click();
  const typed = page.getByLabel(/A line each: number and hours/);
  await typed.fill("number;hours\nFD-1; 1511\nXX-9; 12\nGR-1; 5");
  await page.getByRole("button", { name: "Write down 3 meters" }).click();
  const wrong = page.getByRole("alert").filter({ hasText: "XX-9" });
  await expect(wrong).toContainText("No machine here has the number");
  await expect(wrong).toContainText("GR-1: The meter stood at 2030 h already");
  await expect(typed).toHaveValue(/XX-9/);
  await typed.fill("FD-1 1511,5,3");
  await expect(page.getByRole("alert").filter({ hasText: "Line 1" })).toBeVisible();
  await typed.fill("FD-1 1511.5\nGR-1 2031");
  await page.getByRole("button", { name: "Write down 2 meters" }).click();
  await expect(typed).toHaveValue("");
  await open(page, "/machines/fd-1");
  await expect(page.getByText("1511.5 h").first()).toBeVisible();
});

test("service is done at a touch, put off with a reason, and both are taken back", async ({ page }) => {
  await open(page, "/machines/wc-1");
  const line = page.getByRole("region", { name: "Service" }).getByRole("listitem").filter({ hasText: "Clean the underside" });
  await line.getByRole("button", { name: "Done" }).click();
  await expect(line).toContainText("Good");
  await line.getByRole("button", { name: "Undo" }).click();
  await open(page, "/service?what=tyre-check");
  const tyres = page.getByRole("list", { name: "Due" }).getByRole("listitem").filter({ hasText: "BD-2" });
  await expect(tyres).toContainText("Overdue");
  await tyres.getByRole("button", { name: "Put off" }).click();
  await expect(tyres.getByRole("button", { name: "Put it off" })).toBeDisabled();
  await tyres.getByLabel("Because").fill("gauge is out to be tested");
  await tyres.getByRole("button", { name: "Put it off" }).click();
  await expect(tyres).toContainText("gauge is out to be tested");
  await expect(tyres).toContainText("Put off");
  // Done, it is in no list of what is due: what was written down today stands beneath, and is taken back there.
  await tyres.getByRole("button", { name: "Done" }).click();
  await expect(tyres).toHaveCount(0);
  const today = page.getByRole("region", { name: "Written down today" });
  await today.getByRole("button", { name: "Undo: BD-2 read the tyres" }).first().click();
  await expect(tyres).toContainText("Put off");
  await today.getByRole("button", { name: "Undo: BD-2 read the tyres" }).first().click();
  await expect(tyres).toContainText("Overdue");
});

test("grease is put off at one spindle with a reason, and what is owed is done and taken back, in the one list", async ({ page }) => {
  await open(page, "/service?what=top-up");
  const list = page.getByRole("list", { name: "Due" });
  const grease = list.getByRole("listitem").filter({ hasText: "Grease the spindles" }).first();
  await expect(grease).toContainText(/Overdue|Due|Soon/);
  await grease.getByRole("button", { name: "Put off" }).click();
  await grease.getByLabel("Because").fill("the gun is empty");
  await grease.getByRole("button", { name: "Put it off" }).click();
  await expect(list).toContainText("the gun is empty");
  const today = page.getByRole("region", { name: "Written down today" });
  await today.getByRole("button", { name: /Undo: .* grease the spindles/ }).click();
  await expect(list).not.toContainText("the gun is empty");
  await open(page, "/service?what=owed");
  const owed = list.getByRole("listitem").filter({ has: page.getByRole("button", { name: "Done" }) });
  const count = await owed.count();
  expect(count).toBeGreaterThan(0);
  await owed.first().getByRole("button", { name: "Done" }).click();
  await expect(owed).toHaveCount(count - 1);
  await today.getByRole("button", { name: /Undo: .* owed/ }).click();
  await expect(owed).toHaveCount(count);
});

test("a rule of one spindle is set from the list of its machine's places", async ({ page }) => {
  await open(page, "/service");
  await page.getByText("Rules", { exact: true }).click();
  await page.getByRole("radio", { name: "Grease the spindles" }).click();
  await page.getByRole("radio", { name: "One place of a machine" }).click();
  await page.getByLabel("Machine").selectOption({ label: "ZT-2" });
  await page.getByLabel("Place").selectOption({ index: 1 });
  await page.getByLabel("Every, h").fill("30");
  await page.getByLabel("Why").fill("runs hot");
  await page.getByRole("button", { name: "Set the rule" }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "runs hot" })).toContainText("ZT-2");
});

test("stock: a part is put on the shelf, bought by lot, and no more leave than lie there", async ({ page }) => {
  await open(page, "/parts/new");
  await page.getByRole("radio", { name: "Bolt" }).click();
  await page.getByLabel("Called").fill("Blade bolt 1/2 in");
  await page.getByLabel("Diameter").fill("1/2");
  await page.getByRole("radio", { name: "Grade 5" }).click();
  await page.getByRole("radio", { name: "Right-hand" }).click();
  await page.getByRole("button", { name: "Put it on the shelf" }).click();
  await expect(page).toHaveURL(/parts\/\d+$/);
  const fits = page.getByRole("region", { name: "Fits" });
  await expect(fits.getByRole("listitem").filter({ hasText: "ZT-2" })).toContainText("a weaker grade: it can fail");
  const stock = page.getByRole("region", { name: "Stock" }).first();
  await stock.getByLabel("How many").fill("4");
  await stock.getByLabel("Lot").fill("Q1");
  await stock.getByRole("button", { name: "Write it down" }).click();
  await expect(stock.getByText("4 in stock")).toBeVisible();
  await stock.getByRole("radio", { name: "Fitted" }).click();
  await stock.getByLabel("How many").fill("9");
  await stock.getByLabel("Lot").fill("Q1");
  await stock.getByRole("button", { name: "Write it down" }).click();
  await expect(stock.getByRole("alert")).toContainText("Only 4 are in stock");
  await expect(stock.getByLabel("How many")).toHaveValue("9");
});

test("a place that is touched on the plan shows what was read there; two visits are laid side by side", async ({ page }) => {
  await open(page, "/machines/rt-1");
  await page.getByRole("link", { name: "Left unit: its book" }).click();
  await expect(page).toHaveURL(/place=left/);
  await expect(page.getByRole("region", { name: "Left unit" })).toContainText(/in/);
  await open(page, "/machines/rt-1?kind=complaint");
  const history = page.getByRole("region", { name: "History" });
  await history.getByRole("link", { name: "lay beside another visit" }).first().click();
  await history
    .getByRole("link", { name: /^beside job/ })
    .first()
    .click();
  await expect(page).toHaveURL(/visits\?a=\d+&b=\d+/);
  await expect(page.getByRole("columnheader", { name: /Job/ })).toHaveCount(2);
});

test("the history is found by kind and words, and printed", async ({ page }) => {
  await open(page, "/machines/zt-1?kind=fix");
  const history = page.getByRole("region", { name: "History" });
  await expect(history.getByRole("listitem").first()).toContainText("too early to say whether it holds");
  await expect(history.getByRole("listitem").last()).toContainText("held");
  await history.getByLabel("Words").fill("hangers");
  await history.getByRole("button", { name: "Find" }).click();
  await expect(page).toHaveURL(/q=hangers/);
  await expect(history.getByRole("listitem").first()).toContainText("Turn the hangers");
  const pdf = await page.request.get("/api/v1/machines/zt-1/history?size=letter", { headers: { origin: BASE } });
  expect(pdf.headers()["content-type"]).toBe("application/pdf");
  expect((await pdf.body()).subarray(0, 5).toString()).toBe("%PDF-");
});

test("a machine is retired with its reason, is in no list, and comes back", async ({ page }) => {
  await open(page, "/machines/wp-1");
  await page.getByText("Name, site, hour meter, retire").click();
  await page.getByLabel("Why it leaves the fleet").fill("sold on");
  await page.getByRole("button", { name: "Retire it" }).click();
  await expect(page.getByText(/Retired .* by AK: sold on/)).toBeVisible();
  await expect(page.getByRole("link", { name: "Take a complaint" })).toHaveCount(0);
  await page.getByLabel("Why it comes back").fill("bought back");
  await page.getByRole("button", { name: "Back into the fleet" }).click();
  await expect(page.getByRole("link", { name: "Take a complaint" })).toBeVisible();
});

test("whoever complains is told what lies in wait on the site", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, "/complaint?machine=zt-3");
  await expect(page.getByRole("complementary", { name: /Look out at Festival meadow/ })).toContainText("Weir gate");
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test("a procedure is written, and withdrawn with the jobs that went by it listed", async ({ page }) => {
  await open(page, "/procedures");
  await page.getByText("Write one down").click();
  await page.getByLabel("Called").last().fill("Spindles by the finger");
  await page.getByLabel("How it is done here, and to which limits").last().fill("Rock the tip. Over a sixteenth: out.");
  await page.getByRole("checkbox", { name: "Spindle or shaft play" }).last().check();
  await page.getByRole("button", { name: "Put it in force" }).click();
  const own = page.getByRole("listitem").filter({ hasText: "Spindles by the finger" });
  await expect(own.first()).toContainText("version 1 in force");
  await own.getByText("It turned out wrong: withdraw version 1").click();
  await own.getByLabel("What was wrong with it").fill("a dial says more");
  await own.getByRole("button", { name: "Withdraw it" }).click();
  await expect(own.first()).toContainText("version 1 withdrawn: a dial says more");
  // The one the demo withdrew lists the jobs that went by it.
  await expect(page.getByText(/Version 1 was withdrawn by AK/).first()).toContainText(/Went by it:/);
});

for (const path of [
  "/machines",
  "/machines/zt-1",
  "/service",
  "/parts",
  "/parts/1",
  "/holds",
  "/shop",
  "/handover",
  "/sites",
  "/procedures",
  "/machines/sisters",
  "/rounds/new",
  "/machines/new",
])
  test(`${path} lies on a telephone with nothing cut off`, async ({ page }) => {
    await page.setViewportSize({ width: 390, height: 844 });
    await open(page, path);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });

test("a marked set goes on a machine, comes off with why, is put away; only its last entry is taken back", async ({ page }) => {
  await open(page, "/parts/3");
  const sets = page.getByRole("region", { name: "Sets" });
  await sets.getByLabel("Mark of a new set").fill("S-77");
  await sets.getByRole("button", { name: "Add it" }).click();
  const own = sets.getByRole("listitem").filter({ hasText: "S-77" }).first();
  await own.getByRole("button", { name: /S-77/ }).click();
  await own.getByLabel("Fit it on").selectOption({ label: "ZT-2" });
  await own.getByRole("radio", { name: "leaves" }).click();
  await own.getByRole("button", { name: "Fitted", exact: true }).click();
  await expect(own).toContainText("on ZT-2, leaves");
  // It stands on the machine's page, and in its book.
  await open(page, "/machines/zt-2?kind=set");
  await expect(page.getByRole("region", { name: "What fits" })).toContainText("S-77");
  await expect(page.getByRole("region", { name: "History" }).getByRole("listitem").first()).toContainText("Set S-77 fitted for leaves");
  await open(page, "/parts/3");
  await own.getByRole("button", { name: /S-77/ }).click();
  await expect(own.getByRole("button", { name: "Came off" })).toBeDisabled();
  await own.getByLabel("Came off because").fill("to be sharpened");
  await own.getByRole("button", { name: "Came off" }).click();
  await expect(own).toContainText("lies ready");
  await own.getByLabel("Lies at, or is kept for").fill("rack 2");
  await own.getByRole("button", { name: "Put there" }).click();
  await expect(own).toContainText("lies at rack 2");
  await expect(own.getByRole("button", { name: "Undo" })).toHaveCount(1);
  await own.getByRole("button", { name: "Undo" }).click();
  await expect(own).toContainText("lies ready");
});

test("the site in hand stays in hand when its last danger is gone", async ({ page }) => {
  await open(page, "/sites");
  await expect(page).toHaveURL(/sites\?site=/);
  const current = page.getByRole("navigation", { name: "Which site" }).locator("[aria-current=page]");
  const site = await current.innerText();
  await open(page, "/sites?site=Cricket%20square");
  await page.getByLabel("A place where something lies in wait").fill("Peg at the north end");
  await page.getByRole("button", { name: "Write it down" }).click();
  await page.getByRole("button", { name: "No danger any more" }).click();
  await page.getByLabel("Because").fill("drawn out");
  await page.getByRole("button", { name: "It is gone" }).click();
  await expect(page.getByText("No danger is known here.")).toBeVisible();
  await expect(current).toHaveText("Cricket square");
  expect(site).not.toBe("Cricket square");
});

test("a place of a site is written down, told to whoever goes there, and said to be gone with a reason", async ({ page }) => {
  await open(page, "/sites?site=Bowls%20green");
  await expect(page.getByText("No danger is known here.")).toBeVisible();
  await page.getByLabel("A place where something lies in wait").fill("Sprinkler by the bank");
  await page.getByLabel("What it is, and what to do about it").fill("stands proud until it is set");
  await page.getByRole("button", { name: "Write it down" }).click();
  await expect(page.getByText("1 place to look out for.")).toBeVisible();
  await open(page, "/machines/rw-1");
  await expect(page.getByRole("complementary", { name: "Look out at Bowls green" })).toContainText(
    "Sprinkler by the bank (stands proud until it is set)",
  );
  await open(page, "/sites?site=Bowls%20green");
  await page.getByRole("button", { name: "No danger any more" }).click();
  await expect(page.getByRole("button", { name: "It is gone" })).toBeDisabled();
  await page.getByLabel("Because").fill("set flush on Monday");
  await page.getByRole("button", { name: "It is gone" }).click();
  await expect(page.getByText("No danger is known here.")).toBeVisible();
  // It was a slip: nothing is typed again.
  await page.getByText("No danger any more: 1").click();
  await expect(page.getByText(/AK: set flush on Monday/)).toBeVisible();
  await page.getByRole("button", { name: "A danger still: Sprinkler by the bank" }).click();
  await expect(page.getByText("1 place to look out for.")).toBeVisible();
  await expect(page.getByText("stands proud until it is set")).toBeVisible();
  await expect(page.getByText(/^No danger any more: /)).toHaveCount(0);
  // Another was first: what stands now is shown.
  const headers = { origin: BASE };
  const { sites } = await (await page.request.get("/api/v1/sites", { headers })).json();
  const [place] = sites.find(({ site }: { site: string }) => site === "Bowls green").places;
  await page.request.post(`/api/v1/sites/places/${place.id}/gone`, { headers, data: { who: "AK", reason: "dug out" } });
  await page.getByRole("button", { name: "No danger any more" }).click();
  await page.getByLabel("Because").fill("seen too");
  await page.getByRole("button", { name: "It is gone" }).click();
  await expect(page.getByText("No danger is known here.")).toBeVisible();
  await page.getByText("No danger any more: 1").click();
  await expect(page.getByText(/AK: dug out/)).toBeVisible();
});

test("a school set for the depot goes on the sheets that said nothing, and who says something else keeps it", async ({ page }) => {
  await open(page, "/procedures");
  const school = page.getByRole("region", { name: "Schools" }).getByRole("listitem").filter({ hasText: "Spindles taken off one deck" });
  await school.getByText("Set it for the depot").click();
  await school.getByRole("radio", { name: "Each back to its own place" }).click();
  await school.getByLabel("Why").fill("as the manual has it");
  await school.getByRole("button", { name: "Set it" }).click();
  await expect(school).toContainText("the depot: each back to its own place");
  await expect(school.getByText(/Otherwise:/)).toContainText("BD-1 moved round");
  await open(page, "/machines/gr-1?kind=sheet");
  await expect(page.getByRole("region", { name: "History" })).toContainText(
    "The depot's school, spindles taken off one deck: as the manual has it",
  );
});

test("another hour meter goes on where the old one stopped; one that runs backwards is told at its field", async ({ page }) => {
  await open(page, "/machines/fd-1");
  await page.getByText("Name, site, hour meter, retire").click();
  await page.getByLabel("The old meter came out at, h").fill("3");
  await page.getByRole("button", { name: "Another meter was fitted" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "The meter stood at" })).toBeVisible();
  await expect(page.getByLabel("The old meter came out at, h")).toHaveValue("3");
  await page.getByLabel("The old meter came out at, h").fill("1520");
  await page.getByLabel("The new one went in at, h").fill("0");
  await page.getByRole("button", { name: "Another meter was fitted" }).click();
  await expect(page.getByText("1520 h, meter 0 h")).toBeVisible();
});
