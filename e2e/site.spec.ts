import { expect, test } from "@playwright/test";
import { begin, saved, signIn } from "./scan";

test("a boundary is typed leg by leg, seen open, and closed with its area", async ({ page }) => {
  await signIn(page);
  await begin(page, "Lot of five legs");
  await page.keyboard.press("Alt+3");
  await page.keyboard.press("b");
  const panel = page.getByRole("region", { name: "Boundary" });
  await expect(panel).toContainText("Click where the boundary begins");
  const board = page.getByTestId("board");
  await board.click({ position: { x: 360, y: 300 } });
  await expect(panel).toContainText("Type each leg as it is written");
  // The textbook traverse (Wolf & Ghilani, from memory), in feet.
  const legs = [
    ["126°55'17\"", "647.25 ft"],
    ["178°18'58\"", "203.03 ft"],
    ["15°31'54\"", "720.35 ft"],
    ["284°35'20\"", "610.24 ft"],
    ["S 26°09'41\" W", "285.13 ft"],
  ] as const;
  for (const [bearing, length] of legs.slice(0, 4)) {
    await panel.getByLabel("bearing").fill(bearing);
    await panel.getByLabel("length").fill(length);
    await page.keyboard.press("Enter");
    await expect(panel.getByRole("listitem").filter({ hasText: length })).toBeVisible();
  }
  await expect(panel).toContainText("misses its beginning");
  await panel.getByLabel("bearing").fill("south");
  await panel.getByLabel("length").fill("285.13 ft");
  await page.keyboard.press("Enter");
  await expect(panel.getByRole("alert")).toContainText("is no bearing");
  await panel.getByLabel("bearing").fill(legs[4][0]);
  await page.keyboard.press("Enter");
  await expect(panel).toContainText(/Closes within 2\d\.\d mm in 751\.64 m, 1 : 3\d.\d{3}/);
  await expect(panel).toContainText(/It encloses 25.32\d\.\d\d m²/);
  await saved(page);
  await panel.getByRole("button", { name: "Remove the boundary" }).click();
  await expect(panel).toContainText("Click where the boundary begins");
  await page.locator("body").press("Control+z");
  await expect(panel).toContainText("Closes within");
});
