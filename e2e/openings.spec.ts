import { expect, test } from "@playwright/test";
import { begin, expectAccessible, Hand, SCAN, saved, signIn } from "./scan";

test("doors and windows are taken from the ink by one click each, and a plain opening by its edges", async ({
  page,
}) => {
  await signIn(page);
  await begin(page, "Openings by their ink");
  await page.getByLabel("Drawing file").setInputFiles(SCAN);
  await page.keyboard.press("Alt+2");
  await expect(page.getByText("1 page", { exact: true })).toBeVisible({ timeout: 30_000 });
  await page.keyboard.press("f");
  const hand = new Hand(page);
  await hand.seesWholePage();
  await page.keyboard.press("c");
  await hand.click([0, 0]);
  await hand.click([13200, 0]);
  await page.keyboard.type("13 200");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("group", { name: "Known length 13 200" })).toBeVisible();
  await page.keyboard.press("g");
  await hand.click([0, 0]);
  await hand.click([13200, 0]);
  await page.keyboard.press("Enter");
  await expect(page.getByText("Runs with x", { exact: true })).toBeVisible();
  await saved(page);
  await hand.seesGridLine();
  await page.keyboard.press("w");
  await hand.click([0, 0]);
  await hand.click([13200, 0]);
  await saved(page);
  await page.keyboard.press("Enter");
  await page.keyboard.press("d");
  const row = (number: string) => page.getByText(number, { exact: true }).locator("xpath=../..");
  // A door of 1 010, a window of 1 800, each by a click somewhere in its middle.
  await hand.click([6700, 150]);
  await expect(row("D01")).toContainText(/door · (99\d|1.0[01]\d) wide/);
  await hand.click([2300, 150]);
  await expect(row("W01")).toContainText(/window · 1.(78\d|79\d|80\d) wide, sill 900/);
  await saved(page);
  // Held off the ink, by both edges, as what is chosen.
  await page.getByRole("button", { name: "an opening", exact: true }).click();
  await page.keyboard.down("Alt");
  await hand.click([4000, 150]);
  await page.keyboard.up("Alt");
  await hand.click([4900, 150]);
  await expect(row("O01")).toContainText("opening ·");
  await saved(page);
  await expectAccessible(page);
  await page.keyboard.press("Control+z");
  await expect(page.getByText("O01", { exact: true })).toHaveCount(0);
});
