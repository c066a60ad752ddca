import { expect, test } from "@playwright/test";
import { ANEW, begin, Hand, SCAN, SHEET, saved, signIn } from "./scan";

// Refreshes docs/screenshots from a running instance: PLINTH_SHOTS=1 PLINTH_ADDRESS=… npx playwright test screenshots
const shot = (name: string) => ({ path: `../docs/screenshots/${name}.png` });

test("main views", async ({ page }) => {
  await signIn(page);
  await expect(page.getByText("13 changes")).toBeVisible();
  await expect(page.locator("img")).not.toHaveCount(0);
  await page.screenshot(shot("projects"));
  await begin(page, "Reed bed annexe");
  await page.getByLabel("Drawing file").setInputFiles(SCAN);
  await expect(page.getByText("plan · Ground")).toBeVisible();
  await page.getByRole("button", { name: "True up", exact: true }).click();
  await expect(page.getByText("1 page", { exact: true })).toBeVisible();
  const hand = new Hand(page);
  await hand.seesWholePage();
  await hand.click([0, 0]);
  await hand.click([13200, 0]);
  await page.keyboard.type("13 200");
  await page.waitForTimeout(500);
  await page.screenshot(shot("calibrate"));
  await page.keyboard.press("Enter");
  await hand.click([0, 0]);
  await hand.click([0, 8600]);
  await page.keyboard.type("8 500");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("known-lengths").getByText("8 500")).toBeVisible();
  await hand.click([0, 8600]);
  await hand.click([11000, 8600]);
  await page.keyboard.type("11 m");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("known-lengths").getByText("11 m", { exact: true })).toBeVisible();
  await page.keyboard.press("g");
  await hand.click([0, 0]);
  await hand.click([13200, 0]);
  await page.keyboard.press("Enter");
  await expect(page.getByText("Runs with x", { exact: true })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.waitForTimeout(800);
  await page.screenshot(shot("true-up"));

  await hand.seesGridLine();
  await page.keyboard.press("w");
  for (const corner of [
    [0, 0],
    [13200, 0],
    [13200, 6400],
    [11000, 8600],
  ] as const) {
    await hand.click(corner);
    await saved(page);
  }
  await page.mouse.move(...hand.at([3000, 8610]));
  await page.waitForTimeout(400);
  await page.screenshot(shot("walls"));
  // The last wall stops short of the first corner: a leak.
  await hand.click([0, 8600]);
  await page.mouse.move(...hand.at([0, 4000]));
  await page.keyboard.type("7.9");
  await page.keyboard.type(" m");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.keyboard.press("Escape");
  await page.keyboard.press("r");
  await hand.click([4000, 5000]);
  await page.keyboard.type("Drying room");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /Close the leak/ })).toBeVisible();
  await page.waitForTimeout(500);
  await page.screenshot(shot("leak"));

  await page.goto("/");
  await begin(page, "Loft and roof");
  await page.getByLabel("Drawing file").setInputFiles(SCAN);
  await expect(page.getByText("plan · Ground")).toBeVisible();
  await page.getByLabel("Drawing file").setInputFiles(SHEET);
  await expect(page.getByRole("button", { name: /seems to hold 4 drawings/ })).toBeVisible();
  await page.waitForTimeout(1500);
  await page.screenshot(shot("bring-in"));
  await page.getByRole("button", { name: /seems to hold 4 drawings/ }).click();
  for (const [i, name, kind] of [
    [1, "Net loft", "plan"],
    [2, "Roof", "roof"],
    [3, "South elevation", "elevation"],
    [4, "Section", "section"],
  ] as const) {
    await page.getByLabel(`Name of drawing ${i}`).fill(name);
    await page.getByLabel(`Kind of drawing ${i}`).selectOption(kind);
  }
  await page.getByLabel("Name of drawing 2").focus();
  await page.waitForTimeout(600);
  await page.screenshot(shot("cut"));
  await page.getByRole("button", { name: "Cut into 4 drawings" }).click();
  await saved(page);
  await page.getByRole("button", { name: "Ground", exact: true }).click();
  await page.keyboard.press("h");
  const shows = page.getByRole("region", { name: "How drawings show" });
  // The loft is hidden; the roof's ink lies over the scan of the ground floor.
  await shows.getByRole("button", { name: "hidden" }).nth(1).click();
  await shows.getByRole("button", { name: "ink only" }).first().click();
  await shows.getByRole("button", { name: "plum" }).click();
  await saved(page);
  await page.keyboard.press("f");
  await page.waitForTimeout(1200);
  await page.screenshot(shot("ink-only"));
  await page.keyboard.press("h");
  await page.getByLabel("Newer version of page 1").last().setInputFiles(ANEW);
  await expect(page.getByText(/places agree within/)).toBeVisible({ timeout: 60_000 });
  await page.getByText(/places agree within/).scrollIntoViewIfNeeded();
  await page.waitForTimeout(500);
  await page.screenshot(shot("newer-version"));

  await page.goto("/");
  await page.getByRole("link", { name: /Sallow Fen/ }).click();
  await expect(page.getByRole("heading", { name: "7 walls, 3 rooms" })).toBeVisible();
  await page.waitForTimeout(1200);
  await page.screenshot(shot("trace"));
  await page.keyboard.press("Alt+4");
  await page.waitForTimeout(300);
  await page.screenshot(shot("prove"));
  await page.keyboard.press("Alt+5");
  await page.waitForTimeout(300);
  await page.screenshot(shot("hand-over"));
});
