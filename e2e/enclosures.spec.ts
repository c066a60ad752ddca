import { expect, type Page, test } from "@playwright/test";
import { begin, expectAccessible, saved, signIn } from "./scan";

/** A click on the floor of a room, under its name. */
async function clickIn(page: Page, room: string): Promise<void> {
  const label = await page.getByTestId("room-label").filter({ hasText: room }).boundingBox();
  if (!label) throw new Error(`${room} is not in sight.`);
  const [x, y] = [label.x + label.width / 2, label.y + label.height + 12];
  await page.mouse.move(x, y, { steps: 3 });
  await page.mouse.click(x, y);
}

test("rooms are enclosed by classes, what breaks them is mended, and a fire plan is printed", async ({ page }) => {
  await signIn(page);
  await begin(page, "Fire in the lodge");
  await page.setInputFiles("input[type=file]", new URL("../demo/reedmace-lodge.json", import.meta.url).pathname);
  await page.getByRole("button", { name: "Upper" }).waitFor();
  await page.keyboard.press("Alt+3");
  await page.keyboard.press("t");
  await page.keyboard.press("x");
  const key = page.getByRole("region", { name: "Enclosures" });
  await expect(key.getByRole("button", { name: /REI 60 60\.48/ })).toBeVisible();
  await expect(page.locator("[data-enclosure]")).toHaveCount(2);
  // A class is in the key once, however it is spelled; another one is unlike those that are there.
  await key.getByLabel("a class, as REI 60").fill("rei–60");
  await expect(key.getByRole("button", { name: "Take REI 60" })).toBeVisible();
  await key.getByLabel("a class, as REI 60").fill("EI 90");
  await key.getByLabel("a class, as REI 60").press("Enter");
  await saved(page);
  await expect(key.getByRole("button", { name: /^EI 90/ })).toHaveAttribute("aria-pressed", "true");
  await expectAccessible(page);

  // Where two lie over each other that is found, until it is allowed.
  await clickIn(page, "Hall");
  await saved(page);
  await expect(page.locator("[data-enclosure='EI 90']")).toHaveCount(1);
  await expect(key).toContainText("lie over one place here");
  await key.getByRole("button", { name: "Allow the two together" }).press("Enter");
  await expect(key).not.toContainText("lie over one place here");
  await expect(page.getByRole("region", { name: "Enclosure", exact: true })).toContainText("not rated");

  // A stair that is enclosed below only: said, and mended with one press.
  await page.getByRole("button", { name: "Upper" }).click();
  await page.getByRole("button", { name: /REI 60 Landing/ }).click();
  await page.getByRole("region", { name: "Enclosure", exact: true }).getByRole("button", { name: "Remove" }).click();
  await expect(key).toContainText("The stair goes on here, and REI 60 does not.");
  await key.getByRole("button", { name: "Enclose Landing as well" }).press("Enter");
  await expect(key).not.toContainText("The stair goes on here");

  // Down the stair one stays enclosed until one is out.
  await page.keyboard.press("Alt+4");
  await expect(page.getByRole("region", { name: "Ways out" })).toContainText("Enclosed by REI 60 until the open air.");

  await page.keyboard.press("Alt+5");
  await page.getByRole("button", { name: "Fire plans" }).click();
  await expect(page.getByRole("heading", { name: "Fire plan, Ground" })).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "PDF", exact: true }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/\.pdf$/);
});
