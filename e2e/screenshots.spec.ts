import { expect, test } from "@playwright/test";
import { begin, Hand, SCAN, saved, signIn } from "./scan";

// Refreshes docs/screenshots from a running instance: PLINTH_SHOTS=1 PLINTH_ADDRESS=… npx playwright test screenshots
const shot = (name: string) => ({ path: `../docs/screenshots/${name}.png` });

test("main views", async ({ page }) => {
  await signIn(page);
  await expect(page.getByText("13 changes")).toBeVisible();
  await expect(page.locator("img")).not.toHaveCount(0);
  await page.screenshot(shot("projects"));
  await begin(page, "Reed bed annexe");
  await page.getByLabel("Drawing file").setInputFiles(SCAN);
  await expect(page.locator("img")).toHaveCount(1);
  await expect(page.getByText(/[1-9]\d* of 182 tiles/)).toBeVisible();
  await page.screenshot(shot("bring-in"));
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
