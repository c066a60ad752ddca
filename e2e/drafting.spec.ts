import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { expectAccessible, saved, signIn } from "./scan";

/** The demo's lodge has a detail of its cornice on a side of its own, trued up by its figures. */
const openLodge = async (page: Page) => {
  await signIn(page);
  await page.getByRole("link", { name: /Reedmace Lodge/ }).click();
  await expect(page.getByRole("heading", { name: "7 walls, 4 rooms" })).toBeVisible();
};

test("a profile is drawn over its detail and taken round the building as a cornice", async ({ page }) => {
  await openLodge(page);
  await page.getByLabel("Sides").selectOption("Details");
  await expect(page.getByRole("heading", { name: "Details" })).toBeVisible();
  await page.keyboard.press("z");
  // A rectangle by both sides is profile enough; the ink holds its corner.
  await page.getByRole("button", { name: "rectangle" }).click();
  const box = await page.getByTestId("board").boundingBox();
  await page.mouse.click((box?.x ?? 0) + 300, (box?.y ?? 0) + 400);
  await page.mouse.move((box?.x ?? 0) + 360, (box?.y ?? 0) + 340);
  await page.keyboard.type("120 x 200");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: /Shape of 4 corners/ }).click();
  const line = page.getByRole("region", { name: "Selected line" });
  await expect(line).toContainText("640 mm round it");
  await expectAccessible(page);
  await line.getByLabel("take it along, as a moulding").selectOption("Ground");
  await saved(page);
  const moulding = page.getByRole("region", { name: "Selected moulding" });
  await expect(moulding).toBeVisible();
  await moulding.getByLabel("above the floor").fill("2600");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.getByLabel("Sides").selectOption("East");
  const seen = page.waitForResponse((r) => r.url().endsWith("/view") && r.ok());
  const { lines } = (await (await seen).json()) as { lines: { kind: string; from: number[]; to: number[] }[] };
  const swept = lines.filter((l) => l.kind === "swept").flatMap((l) => [l.from, l.to]);
  const us = swept.map(([u = 0]) => u);
  const vs = swept.map(([, v = 0]) => v);
  // The east side is 7.6 m wide: 120 more to either side, from 2400 to 2600.
  expect([Math.min(...us), Math.max(...us)].map(Math.round)).toEqual([-120, 7720]);
  expect([Math.min(...vs), Math.max(...vs)].map(Math.round)).toEqual([2400, 2600]);
  for (let k = 0; k < 3; ++k) {
    await page.getByRole("button", { name: "Undo" }).click();
    await saved(page);
  }
});

test("what is drawn on a side is repeated, mirrored and removed together", async ({ page }) => {
  await openLodge(page);
  await page.getByLabel("Sides").selectOption("West");
  await expect(page.getByTestId("side-view")).toBeVisible();
  await page.keyboard.press("z");
  const box = await page.getByTestId("board").boundingBox();
  const [left, top] = [(box?.x ?? 0) + 120, (box?.y ?? 0) + 120];
  await page.mouse.click(left, top);
  await page.mouse.move(left + 60, top - 20);
  await page.keyboard.type("600 0°");
  await page.keyboard.press("Enter");
  await page.keyboard.type("400 90°");
  await page.keyboard.press("Enter");
  await page.waitForTimeout(200);
  await page.keyboard.press("Enter");
  await saved(page);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: /Line of 2 parts/ }).click();
  const line = page.getByRole("region", { name: "Selected line" });
  await expect(line).toContainText("1 000 mm");
  await line.getByLabel("copies").fill("2");
  await page.keyboard.press("Enter");
  await line.getByLabel("move by x y").fill("1000 0");
  await page.keyboard.press("Enter");
  await saved(page);
  await expect(page.getByRole("button", { name: /Line of 2 parts/ })).toHaveCount(3);
  await line.getByRole("button", { name: "Left to right" }).click();
  await saved(page);
  await expect(page.getByRole("button", { name: /Line of 2 parts/ })).toHaveCount(4);
  await expectAccessible(page);
  await page.keyboard.press("Delete");
  await saved(page);
  await expect(page.getByRole("button", { name: /Line of 2 parts/ })).toHaveCount(3);
  const undos = page.getByRole("button", { name: "Undo" });
  for (let k = 0; k < 4; ++k) {
    await undos.click();
    await saved(page);
  }
  await expect(page.getByRole("button", { name: /Line of 2 parts/ })).toHaveCount(0);
});

test("sides stand in a row with their pictures, and the marked-up picture goes out with its world file", async ({
  page,
}) => {
  await openLodge(page);
  await page.getByRole("button", { name: "Storeys" }).click();
  await page.getByRole("button", { name: "A row of sides" }).click();
  await saved(page);
  await page.getByRole("button", { name: "All sides of the building, round the corner" }).click();
  await saved(page);
  const row = page.getByRole("region", { name: "Row of sides" });
  await expect(row).toContainText("37 200 mm in a row");
  await expectAccessible(page);
  await row.getByRole("listitem").filter({ hasText: "West" }).getByRole("button", { name: "take out" }).click();
  await saved(page);
  await expect(row).toContainText("29 600 mm in a row");
  await page.getByRole("button", { name: /^Hand over/ }).click();
  const files = new Map<string, string>();
  page.on("download", async (d) => void files.set(d.suggestedFilename(), await d.path()));
  await page.getByRole("button", { name: "Take the picture" }).click();
  await expect.poll(() => [...files.keys()].sort(), { timeout: 20_000 }).toEqual(["street.pgw", "street.png"]);
  const [mm = 0, , , down] = readFileSync(files.get("street.pgw") ?? "", "utf8")
    .trim()
    .split("\n")
    .map(Number);
  expect(mm).toBeGreaterThan(1);
  expect(down).toBe(-mm);
  const png = readFileSync(files.get("street.png") ?? "");
  const board = await page.getByTestId("board").boundingBox();
  expect(png.readUInt32BE(16)).toBe(Math.round((board?.width ?? 0) * 4));
  for (let k = 0; k < 3; ++k) {
    await page.getByRole("button", { name: "Undo" }).click();
    await saved(page);
  }
});
