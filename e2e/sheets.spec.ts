import { execFileSync } from "node:child_process";
import { expect, type Locator, type Page, test } from "@playwright/test";
import { expectAccessible, signIn } from "./scan";

async function handOver(page: Page): Promise<Locator> {
  await signIn(page);
  await page.getByRole("link", { name: /Reedmace Lodge/ }).click();
  await expect(page.getByRole("heading", { name: "7 walls, 4 rooms" })).toBeVisible();
  await page.getByRole("button", { name: /^Hand over/ }).click();
  return page.getByRole("region", { name: "Print sheets" });
}

const large = (page: Page) => page.getByRole("region", { name: "The sheet as it prints" });

async function drag(page: Page, what: Locator, dx: number, dy: number): Promise<void> {
  const box = await what.boundingBox();
  if (!box) throw new Error("Nothing to drag.");
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + dx / 2, y + dy / 2, { steps: 4 });
  await page.mouse.move(x + dx, y + dy, { steps: 4 });
  await page.mouse.up();
}

test("a planning set is proposed, its sheets are looked at, and it is taken as one document", async ({ page }) => {
  test.setTimeout(120_000);
  const card = await handOver(page);
  // The demo has a set of five.
  await expect(card.getByRole("listitem")).toHaveCount(5);
  await card.getByRole("button", { name: "Remove all" }).click();
  await expect(card.getByRole("listitem")).toHaveCount(0);
  await card.getByRole("button", { name: "A1", exact: true }).click();
  await card.getByRole("button", { name: "Propose a planning set" }).click();
  const picture = large(page).getByRole("img", { name: "The sheet as it prints" });
  await expect(picture).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole("heading", { name: "Site, notes and key" })).toBeVisible();
  // A1 lies: 841 × 594.
  await expect
    .poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth / img.naturalHeight))
    .toBeCloseTo(841 / 594, 2);
  await expectAccessible(page);
  await page.getByRole("button", { name: "The next one" }).click();
  await expect(page.getByRole("heading", { name: "Plans" })).toBeVisible();
  await expect(large(page).getByRole("button", { name: "Ground" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(large(page)).toBeHidden();
  await card.getByRole("button", { name: "Print the set as one PDF" }).click();
  const arrives = page.waitForEvent("download");
  await card.getByRole("link", { name: "Take the set" }).click({ timeout: 60_000 });
  const file = await (await arrives).path();
  const told = execFileSync("pdfinfo", [file], { encoding: "utf8" });
  expect(told).toMatch(/Title: +Reedmace Lodge/);
  expect(told).toMatch(/Pages: +5/);
  const words = execFileSync("pdftotext", [file, "-"], { encoding: "utf8" });
  for (const said of ["Site plan", "3 Hall", "Section A", "Doors and windows", "23.09 m²"])
    expect(words).toContain(said);
  // One undo takes all of the proposal back, another one brings the demo's own.
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(card.getByRole("listitem")).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(card.getByRole("listitem")).toHaveCount(5);
});

test("views and dimensions are moved on the sheet itself, left out, and stay so when the plan changes", async ({
  page,
}) => {
  test.setTimeout(120_000);
  const card = await handOver(page);
  await card.getByRole("button", { name: /Plans/ }).click();
  const ground = large(page).getByRole("button", { name: "Ground", exact: true });
  const upper = large(page).getByRole("button", { name: "Upper", exact: true });
  await expect(ground).toBeVisible({ timeout: 30_000 });
  // In hand it is dragged, and what stands beside it holds it level.
  const [before, beside] = [await ground.boundingBox(), await upper.boundingBox()];
  await ground.click({ position: { x: 5, y: 5 } });
  await drag(page, ground, 6, 40);
  await expect.poll(async () => (await ground.boundingBox())?.y ?? 0).toBeGreaterThan((before?.y ?? 0) + 30);
  expect((await upper.boundingBox())?.y).toBeCloseTo(beside?.y ?? 0, 0);
  // A dimension is moved, and another one left out, by the keys.
  const figure = large(page).getByRole("button", { name: "Dimension 2350" });
  const stood = await figure.first().boundingBox();
  await figure.first().focus();
  for (let k = 0; k < 6; k++) await page.keyboard.press("ArrowUp");
  await expect(page.getByText("1 thing moved.")).toBeVisible();
  await expect.poll(async () => (await figure.first().boundingBox())?.y ?? 0).toBeLessThan((stood?.y ?? 0) - 4);
  const left = large(page).getByRole("button", { name: "Dimension 5050" });
  await left.first().focus();
  await page.getByRole("button", { name: "Leave it out" }).click();
  await expect(left).toHaveCount(0);
  await expect(page.getByText("1 thing left out.")).toBeVisible();
  await page.getByRole("button", { name: "Bring back" }).click();
  await expect(left).not.toHaveCount(0);
  // What it shows, and what the sheet is called.
  await page.getByLabel("rooms coloured").check();
  await page.getByRole("button", { name: "Back to the sheet" }).click();
  await page.getByLabel("What it shows").fill("Plans as they stand");
  await page.getByLabel("What it shows").press("Enter");
  await expect(page.getByRole("heading", { name: "Plans as they stand" })).toBeVisible();
  await expectAccessible(page);
});
