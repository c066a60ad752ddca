import { expect, test } from "@playwright/test";
import { begin, expectAccessible, saved, signIn } from "./scan";

test("a project is copied, put into the bin and back, and removed for good", async ({ page }) => {
  await signIn(page);
  await begin(page, "Weir keeper's hut");
  await page.goto("/#/");
  const card = (name: string) => page.getByRole("listitem").filter({ hasText: name });
  await card("Weir keeper's hut").getByRole("button", { name: "Make a copy" }).click();
  const copy = card("Weir keeper's hut, copy");
  await expect(copy).toBeVisible();
  await copy.getByRole("button", { name: "Put into the bin" }).click();
  const bin = page.getByRole("region", { name: "Bin" });
  await expect(bin).toContainText("goes for good in 30 days");
  await expectAccessible(page);
  await bin.getByRole("button", { name: "Put back" }).click();
  await expect(bin).toHaveCount(0);
  await copy.getByRole("link").first().click();
  await expect(page.getByTestId("board")).toBeVisible();
  await page.goto("/#/");
  const coming = page.waitForEvent("download");
  await copy.getByRole("link", { name: "Take as archive" }).click();
  const archive = await (await coming).path();
  await copy.getByRole("button", { name: "Put into the bin" }).click();
  await bin.getByRole("button", { name: "Remove now" }).click();
  await bin.getByRole("button", { name: "Remove for good" }).click();
  await expect(bin).toHaveCount(0);
  await expect(card("Weir keeper's hut")).toHaveCount(1);
  // It is gone, and comes back out of its archive.
  await page.getByLabel("Choose an archive").setInputFiles(archive);
  await expect(page.getByTestId("board")).toBeVisible();
  await page.goto("/#/");
  await expect(copy).toHaveCount(1);
});

test("a storey goes with what lies on it, said before, and comes back by one undo", async ({ page }) => {
  await signIn(page);
  await begin(page, "Two storeys");
  await page.keyboard.press("Alt+3");
  await page.keyboard.press("n");
  await page.getByTestId("board").click({ position: { x: 300, y: 300 } });
  await page.keyboard.type("Look here");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Storeys" }).click();
  await page.getByRole("button", { name: "Add above" }).click();
  await saved(page);
  await page.getByRole("button", { name: "remove", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("Ground goes with 1 note.");
  await page.getByRole("button", { name: "Remove it" }).click();
  await saved(page);
  const ground = page.getByRole("button", { name: "Ground", exact: true });
  await expect(ground).toHaveCount(0);
  await page.keyboard.press("Escape");
  await page.locator("body").press("Control+z");
  await expect(ground).toBeVisible();
  await ground.click();
  await expect(page.getByText("Look here").first()).toBeVisible();
});
