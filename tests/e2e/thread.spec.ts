import { expect, test } from "@playwright/test";
import { cutAlike, makeReady, makeSafe, open, putBack, sitDown, typeReadings } from "./helpers";

/** The worked deck of docs/worked-examples.md (three blades, four tips), walked from the complaint to the machine's history. */
test("a ledge between passes is taken from complaint to proved fix and read back", async ({ page }) => {
  await sitDown(page);
  await open(page, "/complaint");
  await page.getByLabel("Machine").selectOption({ label: "ZT-3 · Zero-turn, three blades · Festival meadow" });
  await page.getByRole("button", { name: "Ledge between passes" }).click();
  await page.getByLabel("In their own words").fill("each pass leaves a ledge against the last, thread test");
  await page.getByLabel("Who noticed it").fill("TV");
  await page.getByRole("button", { name: "Hand it to the bay" }).click();

  await expect(page.getByRole("heading", { name: "Make it safe" })).toBeVisible();
  await makeSafe(page, "Locked out");

  await expect(page.getByRole("heading", { name: "Hangers, links and pins" })).toBeVisible();
  await expect(page.getByText(/^Tells most for its \d+ minutes/)).toBeVisible();
  await page.getByRole("radio", { name: "Sound" }).first().click();
  await page.getByRole("button", { name: "Same on the others" }).click();
  await expect(page.getByTestId("answer")).toHaveText("Every hanger sound.");
  await page.getByRole("button", { name: "Save the readings" }).click();

  // The tyres come before the level that rests on them.
  await expect(page.getByRole("heading", { name: "Tyre pressures" })).toBeVisible();
  await typeReadings(page, ["12", "18", "18", "12"]);
  await expect(page.getByTestId("answer")).toHaveText("Tyres right.");
  await page.getByRole("button", { name: "Save the readings" }).click();

  await expect(page.getByRole("heading", { name: "Deck level and rake" })).toBeVisible();
  await page.getByRole("radio", { name: "The same one everywhere" }).click();
  await typeReadings(page, ["3", "3.31", "3 1/4", "3.19"]);
  await expect(page.getByTestId("answer")).toContainText("Left side 5/16 in low.");
  const todo = page.getByRole("list", { name: "What to do" });
  await expect(todo).toContainText("Left rear: 6¼ turns up");
  await page.getByRole("button", { name: "Save the readings" }).click();

  await expect(page.getByRole("heading", { name: "Fix", exact: true })).toBeVisible();
  await expect(page.getByLabel("For which cause")).toHaveValue("deck-out-of-level");
  await page.getByRole("button", { name: "Write the fix down" }).click();

  await expect(page.getByRole("heading", { name: "Deck level and rake" })).toBeVisible();
  await page.getByRole("radio", { name: "The same one everywhere" }).click();
  await typeReadings(page, ["3 1/4", "3 1/4", "3 1/16", "3 5/16"]);
  await expect(page.getByTestId("answer")).toHaveText("Level side to side. Rake right.");
  await page.getByRole("button", { name: "Save the readings" }).click();

  await expect(page.getByRole("heading", { name: "Put back" })).toBeVisible();
  await putBack(page);
  await makeReady(page);
  await cutAlike(page);

  await expect(page.getByText("Proved.", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Close the job" }).click();
  await expect(page.getByText("Closed, proved.")).toBeVisible();

  await page.getByRole("link", { name: "ZT-3" }).click();
  const entry = page.getByRole("listitem").filter({ hasText: "thread test" });
  await expect(entry).toContainText("proved");
  await expect(entry).toContainText("Deck out of level side to side");
});
