import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { expectAccessible, signIn } from "./scan";

test("a plan is put on a sheet, looked at as it prints, and taken as PDF; what does not fit is said", async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole("link", { name: /Reedmace Lodge/ }).click();
  await expect(page.getByRole("heading", { name: "7 walls, 4 rooms" })).toBeVisible();
  await page.getByRole("button", { name: /^Hand over/ }).click();
  const card = page.getByRole("region", { name: "Print sheet" });
  const small = card.getByRole("img", { name: "The sheet as it prints" });
  await expect(small).toBeVisible();
  // A3 lies: 420 × 297.
  await expect
    .poll(() => small.evaluate((img: HTMLImageElement) => img.naturalWidth / img.naturalHeight))
    .toBeCloseTo(420 / 297, 2);
  await expectAccessible(page);
  await card.getByRole("button", { name: "1:20", exact: true }).click();
  await expect(card).toContainText("do not fit on A3 at 1:20");
  await expect(card.getByRole("link", { name: "Take the PDF" })).toBeHidden();
  await card.getByRole("button", { name: "A0", exact: true }).click();
  await expect(card).not.toContainText("do not fit");
  await card.getByRole("button", { name: "A1", exact: true }).click();
  await card.getByRole("button", { name: "1:50", exact: true }).click();
  await card.getByRole("button", { name: "Upright" }).click();
  await card.getByRole("button", { name: "Look at it closely" }).click();
  const large = page.getByRole("region", { name: "The sheet as it prints" });
  await expect(large).toBeVisible();
  const before = await large.getByRole("img").boundingBox();
  await large.getByRole("button", { name: "closer" }).click();
  const after = await large.getByRole("img").boundingBox();
  expect(after?.width ?? 0).toBeGreaterThan(1.3 * (before?.width ?? 0));
  await page.keyboard.press("Escape");
  await expect(large).toBeHidden();
  const arrives = page.waitForEvent("download");
  await card.getByRole("link", { name: "Take the PDF" }).click();
  const pdf = readFileSync(await (await arrives).path(), "latin1");
  expect(pdf.startsWith("%PDF")).toBe(true);
  // A1 upright in points: 594 × 841 mm.
  expect(pdf).toMatch(/MediaBox \[ ?0 0 1683\.7\d* 2383\.9\d* ?\]/);
});
