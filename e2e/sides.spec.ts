import { expect, test } from "@playwright/test";
import { expectAccessible, saved, signIn } from "./scan";

/** The demo's lodge stands without a picture of its plan; its south side has a photograph, its north side an elevation. */
test("openings of a side are found in its photograph, traced, and give the plan its sills and heads", async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole("link", { name: /Reedmace Lodge/ }).click();
  await expect(page.getByRole("heading", { name: "7 walls, 4 rooms" })).toBeVisible();
  await page.getByLabel("Sides").selectOption("South");
  const held = page.getByRole("region", { name: "Openings on this side" });
  await expect(held).toContainText("not traced here");
  await page.getByRole("button", { name: "Find the openings in the picture" }).click();
  const all = page.getByRole("button", { name: "Trace all 5 that are sure" });
  await expect(all).toBeVisible({ timeout: 90_000 });
  await expect(page.locator("[data-facade] rect")).toHaveCount(5);
  await expectAccessible(page);
  await all.click();
  await saved(page);
  await expect(page.locator("[data-facade] rect")).toHaveCount(0);
  // The photograph has two sills where the plan has others: 40 and 60 mm higher.
  const differing = page.getByRole("button", { name: /Take the \d that differ/ });
  await expect(differing).toBeVisible();
  const window = held.locator("div").filter({ hasText: /^W11/ });
  await expect(window).toContainText(/here 9[56]\d/);
  await window.getByRole("button", { name: "Take them" }).click();
  await saved(page);
  await expect(window).toContainText("as it is here");
  await expectAccessible(page);

  // What the elevation shows and nobody has drawn on the plan goes into its wall.
  await page.getByLabel("Sides").selectOption("North");
  await page.getByRole("button", { name: "Find the openings in the picture" }).click();
  await page.getByRole("button", { name: "Trace all 5 that are sure" }).click({ timeout: 90_000 });
  await saved(page);
  await expect(held).toContainText(/Not in the plan, (69|70)\d/);
  await held.getByRole("button", { name: "Put it in" }).click();
  await saved(page);
  await expect(held).not.toContainText("Not in the plan");
  for (let k = 0; k < 4; ++k) {
    await page.getByRole("button", { name: "Undo" }).click();
    await saved(page);
  }
});
