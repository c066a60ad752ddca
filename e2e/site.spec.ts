import { expect, test } from "@playwright/test";
import { begin, expectAccessible, saved, signIn } from "./scan";

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
  // What is typed belongs to the leg: N is north, and begins no note.
  for (const [bearing, length] of legs.slice(0, 4)) {
    await expect(panel.getByLabel("bearing")).toBeFocused();
    await page.keyboard.type(bearing);
    await page.keyboard.press("Tab");
    await page.keyboard.type(length);
    await page.keyboard.press("Enter");
    await expect(panel.getByRole("listitem").filter({ hasText: length })).toBeVisible();
  }
  await expect(panel).toContainText("Still open by 86.9");
  // The leg that would close it is told, and so could be taken where nothing is written along it.
  await expect(panel).toContainText(/What closes it: 206°\d\d'\d\d", 86\.9\d m/);
  await panel.getByLabel("bearing").fill("south");
  await panel.getByLabel("length").fill("285.13 ft");
  await page.keyboard.press("Enter");
  await expect(panel.getByRole("alert")).toContainText("is no bearing");
  await panel.getByLabel("bearing").fill(legs[4][0]);
  await page.keyboard.press("Enter");
  await expect(panel).toContainText(/Closes within 2\d\.\d mm in 751\.64 m, 1 : 3\d.\d{3}/);
  await expect(panel).toContainText(/It encloses 25.32\d\.\d\d m²/);
  await saved(page);
  // The third leg was mistyped, and is corrected where it stands.
  const third = panel.getByRole("listitem").nth(2);
  await third.getByRole("button", { name: "720.35 ft" }).click();
  await third.getByLabel("length").fill("702.35 ft");
  await page.keyboard.press("Enter");
  await expect(panel).toContainText("Closes only within");
  await expect(panel).toContainText("It would close if leg 3 were 219.5");
  await expect(third.getByLabel("length")).toBeFocused();
  await third.getByLabel("length").fill("219.56268"); // a bare number is in metres here, in a project of millimetres too
  await page.keyboard.press("Enter");
  await expect(panel).toContainText(/1 : 3\d.\d{3}/);
  await expect(third).toContainText("219.56268 m");
  // With no act in hand a click on a leg opens it.
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await expect(panel).toHaveCount(0);
  await page.keyboard.press("t");
  const points = await page.locator("polyline[fill-opacity]").first().getAttribute("points");
  const at = (i: number) => (points?.split(" ")[i] ?? "").split(",").map(Number);
  const [ax = 0, ay = 0] = at(2);
  const [bx = 0, by = 0] = at(3);
  await board.click({ position: { x: (ax + bx) / 2, y: (ay + by) / 2 } });
  await expect(third.getByLabel("length")).toHaveValue("219.56268");
  // A curve behind it whose figures do not go together is refused at its fields, and what was typed stays.
  await third.getByRole("button", { name: "Insert one after" }).click();
  const curve = third.locator("form").last();
  await curve.getByLabel("a curve").check();
  await curve.getByLabel("bearing of its chord").fill("0");
  await curve.getByLabel("chord", { exact: true }).fill("30 ft");
  await curve.getByLabel("radius").fill("10 ft");
  await page.keyboard.press("Enter");
  await expect(curve.getByRole("alert")).toContainText("Is it the length along the curve?");
  await curve.getByRole("button", { name: "arc length" }).click();
  await curve.getByLabel("length along it").press("Enter");
  await expect(panel.getByRole("listitem")).toHaveCount(6);
  await expect(panel).toContainText("Closes only within");
  await expectAccessible(page);
  await page.locator("body").press("Control+z");
  await expect(panel).toContainText("Closes within");
  await panel.getByRole("button", { name: "Remove the boundary" }).click();
  await expect(panel).toContainText("Click where the boundary begins");
  await page.locator("body").press("Control+z");
  await expect(panel).toContainText("Closes within");
});
