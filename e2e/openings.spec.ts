import { expect, test } from "@playwright/test";
import { begin, expectAccessible, Hand, SCAN, saved, signIn } from "./scan";
import { brought } from "./waiting";

test("doors and windows are taken from the ink by one click each, and a plain opening by its edges", async ({
  page,
}) => {
  await signIn(page);
  await begin(page, "Openings by their ink");
  await page.getByLabel("Drawing file").setInputFiles(SCAN);
  await page.keyboard.press("Alt+2");
  await brought(page, page.getByText("1 page", { exact: true }));
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
  // What the hand lets go of is not seen any more.
  const [x, y] = hand.at([3000, -1200]);
  const seen = () => page.screenshot({ clip: { x: x - 12, y: y - 12, width: 24, height: 24 } });
  await page.mouse.move(x + 300, y);
  const before = await seen();
  await page.keyboard.down("Alt");
  await hand.click([3000, -1200]);
  await page.keyboard.up("Alt");
  await page.mouse.move(x + 300, y);
  expect(before.equals(await seen())).toBe(false);
  await page.keyboard.press("Escape");
  await expect.poll(async () => before.equals(await seen())).toBe(true);
  await hand.click([0, 0]);
  await hand.click([13200, 0]);
  await saved(page);
  await page.keyboard.press("Enter");
  await page.keyboard.press("d");
  const row = (number: string) => page.getByRole("button", { name: new RegExp(`^${number} `) });
  // A door of 1 010, a window of 1 800, each by a click somewhere in its middle.
  await hand.click([6700, 150]);
  await expect(row("D01")).toContainText(/door · 1.0[01]\d wide/);
  await hand.click([2300, 150]);
  await expect(row("W01")).toContainText(/window · 1.(79[4-9]|80[0-6]) wide, sill 900/);
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
  await expect(row("O01")).toHaveCount(0);
  // What the drawing figures is typed: its width about its middle, and where it stands from either end.
  await row("D01").click();
  const panel = page.getByRole("region", { name: "Opening D01" });
  await panel.getByLabel("width").fill("900");
  await panel.getByLabel("width").press("Enter");
  await expect(row("D01")).toContainText("900 wide");
  await panel.getByLabel("from one end").fill("6.1 m");
  await panel.getByLabel("from one end").press("Enter");
  await expect(panel.getByLabel("from one end")).toHaveValue("6100 mm");
  await panel.getByLabel("width").fill("wide");
  await panel.getByLabel("width").press("Enter");
  await expect(page.getByRole("alert")).toContainText("A number is expected");
  await panel.getByRole("button", { name: "a window", exact: true }).click();
  await expect(row("D01")).toContainText("window · 900 wide");
  await expectAccessible(page);
  await saved(page);
  await panel.getByRole("button", { name: "Remove" }).click();
  await expect(row("D01")).toHaveCount(0);
  // A section across the wall: cut where it stands, and handed over as it is drawn.
  await page.keyboard.press("Alt+2");
  await page.keyboard.press("p");
  await page.getByRole("button", { name: "a section", exact: true }).click();
  await hand.click([4000, -800]);
  await hand.click([4000, 1500]);
  await page.getByRole("textbox", { name: "section" }).fill("A");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.getByRole("button", { name: "Section A", exact: true }).click();
  await page.keyboard.press("Alt+3");
  const cut = page.getByTestId("side-view").locator("path[fill-rule]");
  await expect(cut).toHaveAttribute("d", /M.*Z/);
  const across = await cut.boundingBox();
  expect((across?.height ?? 0) / (across?.width ?? 1)).toBeCloseTo(2700 / 300, 0);
  await expectAccessible(page);
  await page.keyboard.press("Alt+5");
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: /DXF/ }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/section-a\.dxf$/);
});
