import { expect, test } from "@playwright/test";
import { expectAccessible, signIn } from "./scan";

test("from every room one sees the way out, over the stair as well", async ({ page }) => {
  await signIn(page);
  await page.getByRole("link", { name: /Reedmace Lodge/ }).click();
  await page.getByTestId("saved").waitFor();
  await page.keyboard.press("Alt+4");
  const told = page.getByRole("region", { name: "Ways out" });
  await expect(told).toContainText(/Kitchen 8\s\d{3}\smm into the open air/);
  await expect(told).toContainText(/through D05, D02, D01, 800\smm at the narrowest; against it open D05, D02, D01/);
  const way = page.getByTestId("marks").locator("[data-way-out]");
  await expect(way).toHaveCount(0);
  await told.getByRole("button", { name: "Show the way" }).first().press("Enter");
  await expect(way.locator("polyline")).toHaveCount(1);
  await expect(way).toContainText(/8\s\d{3}/);
  // It begins and ends where it can be seen: in a corner of the kitchen and at the front door.
  const [board, line] = [await page.getByTestId("marks").boundingBox(), await way.locator("polyline").boundingBox()];
  expect(line && board && line.width > 100 && line.x > board.x && line.x + line.width < board.x + board.width).toBe(
    true,
  );
  await expectAccessible(page);
  // From above it goes down the stair: as far as it, and on from it on the ground floor.
  await page.getByRole("button", { name: "Upper" }).click();
  await expect(told).toContainText(/Bunks 22\s\d{3}\smm into the open air\D*through D11, D04, D01 and a stair/);
  await told.getByRole("button", { name: "Show the way" }).first().press("Enter");
  await expect(way.locator("polyline")).toHaveCount(1);
  await page.getByRole("button", { name: "Ground" }).click();
  await expect(way.locator("polyline")).toHaveCount(1);
});
