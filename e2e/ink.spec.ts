import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { expect, type Page, test } from "@playwright/test";
import { begin, expectAccessible, Hand, SCAN, saved, signIn, type Truth } from "./scan";
import { brought } from "./waiting";

const SHOTS = process.env.PLINTH_SHOTS ? "../docs/screenshots/" : null;

async function trued(page: Page, name: string): Promise<Hand> {
  await signIn(page);
  await begin(page, name);
  await page.getByLabel("Drawing file").setInputFiles(SCAN);
  await page.getByRole("button", { name: "True up", exact: true }).click();
  await brought(page, page.getByRole("button", { name: /^Square .*° off/ }));
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
  return hand;
}

test("from a bare scan to named rooms by what the ink shows, and settled", async ({ page }) => {
  await signIn(page);
  await begin(page, "By the ink");
  await page.getByLabel("Drawing file").setInputFiles(SCAN);
  await page.getByRole("button", { name: "True up", exact: true }).click();
  await brought(page, page.getByRole("button", { name: /^Square .*° off/ }));
  await expect(page.getByRole("heading", { name: "The scale is a guess" })).toBeVisible();
  // Figures are read with nothing known, at once where somebody wants them. All of them size and square the drawing in one act,
  // which undo takes back.
  await page.keyboard.press("c");
  await page.getByRole("button", { name: "Read the drawing’s figures" }).click();
  const figures = page.getByRole("region", { name: "Figures read" });
  await brought(page, figures.getByLabel("Figure, read 8 600"));
  await figures.getByLabel("Figure, read 11 000").hover();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Size it by the 9 figures written on it" }).click();
  await expect(page.getByRole("heading", { name: /±[\d.]+ mm over 10 m/ })).toBeVisible({ timeout: 60_000 });
  const longest = page.getByRole("group", { name: "Known length 13 200" });
  await expect(longest.getByText(/fits 13.(199|200)/)).toBeVisible();
  await saved(page);
  if (SHOTS) await page.screenshot({ path: `${SHOTS}own-figures.png` });
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("heading", { name: "The scale is a guess" })).toBeVisible();
  // What is written is on the page: it need not be read again, for any fit.
  const read = (text: string) => figures.getByRole("listitem").filter({ has: page.getByLabel(`Figure, read ${text}`) });
  await read("8 600").getByRole("button", { name: "check" }).click();
  await expect(page.getByRole("group", { name: /8 600/ })).toBeVisible();
  await page.getByRole("button", { name: "Size it by the 8 figures written on it" }).click();
  await expect(longest).toBeVisible();
  await saved(page);

  const begun = Date.now();
  await page.keyboard.press("a");
  await page.getByRole("button", { name: "Find the walls of the whole drawing" }).click();
  const panel = page.getByRole("region", { name: "From the ink" });
  await brought(page, panel.getByRole("button", { name: "Accept all of them" }));
  await panel.getByRole("listitem").nth(2).hover();
  if (SHOTS) await page.screenshot({ path: `${SHOTS}proposals.png` });
  await expectAccessible(page);
  // One that is refused is not laid down; taken back it is found again.
  await panel.getByRole("button", { name: "Refuse" }).first().click();
  const back = panel.getByRole("button", { name: "Take back 1 refused" });
  await back.click();
  await expect(back).toBeHidden();
  await panel.getByRole("button", { name: "Accept all of them" }).click();
  await saved(page);
  await expect(page.getByRole("heading", { name: "10 walls, 6 rooms" })).toBeVisible();
  await expect(panel.getByText("Nothing found is left to accept.")).toBeVisible();

  await page.keyboard.press("r");
  await page.getByRole("button", { name: /List \d areas?/ }).click();
  await page.getByRole("button", { name: "Take all names" }).click();
  await saved(page);
  await expect(page.getByText("Net store").first()).toBeVisible();
  await expect(page.getByText("Bunk room").first()).toBeVisible();
  console.log(`  by the ink: 6 named rooms, 12 openings in ${Math.round((Date.now() - begun) / 1000)} s with 6 clicks`);

  await page.keyboard.press("s");
  const settle = page.getByRole("region", { name: "Settle" });
  await expect(settle.getByText("Largest move")).toBeVisible();
  if (SHOTS) await page.screenshot({ path: `${SHOTS}settle.png` });
  await expectAccessible(page);
  await settle.getByRole("button", { name: "Settle the storey" }).click();
  await expect(settle.getByText("Walls that are meant square or parallel are")).toBeVisible();
  await expect(page.getByRole("heading", { name: "10 walls, 6 rooms" })).toBeVisible();
  // One change each: five steps back and nothing is traced.
  for (let i = 0; i < 4; i++) await page.keyboard.press("Control+z");
  await saved(page);
  await expect(page.getByRole("heading", { name: "0 walls, 0 rooms" })).toBeVisible();
});

test("a sheet in feet and inches becomes named rooms in feet and inches", async ({ page }, info) => {
  const sheet = info.outputPath("fen in feet");
  execFileSync("php", [fileURLToPath(new URL("../demo/draw", import.meta.url)), "feet", sheet]);
  const { rooms } = JSON.parse(readFileSync(`${sheet}.truth.json`, "utf8")) as Truth;
  await signIn(page);
  await begin(page, "In feet");
  await page.getByLabel("Drawing file").setInputFiles(`${sheet}.jpg`);
  await page.getByRole("button", { name: "True up", exact: true }).click();
  await brought(page, page.getByRole("button", { name: /^Square .*° off/ }));
  // Nobody has said that it is in feet: its own figures do, and the project follows by one click.
  await page.keyboard.press("c");
  const size = page.getByRole("button", { name: /^Size it by the \d+ figures written on it/ });
  await brought(page, size.or(page.getByRole("button", { name: "Read the drawing’s figures" })));
  if (!(await size.isVisible())) await page.getByRole("button", { name: "Read the drawing’s figures" }).click();
  await brought(page, size);
  await size.click();
  await brought(page, page.getByText("Its figures are in feet and inches."));
  await page.getByRole("button", { name: "Show all sizes so" }).click();
  await expect(page.getByRole("heading", { name: /^±.*" over/ })).toBeVisible();
  await saved(page);
  await page.keyboard.press("a");
  await page.getByRole("button", { name: "Find the walls of the whole drawing" }).click();
  const panel = page.getByRole("region", { name: "From the ink" });
  await brought(page, panel.getByRole("button", { name: "Accept all of them" }));
  await panel.getByRole("button", { name: "Accept all of them" }).click();
  await saved(page);
  await page.keyboard.press("r");
  await page.getByRole("button", { name: /List \d areas?/ }).click();
  await page.getByRole("button", { name: "Take all names" }).click();
  await saved(page);
  // Six rooms, each with its area in square feet within a hundredth of what is drawn.
  for (const room of rooms) {
    const words = await page.getByTestId("room-label").filter({ hasText: room.name }).textContent();
    const feet = Number(/([\d.]+) ft²/.exec(words ?? "")?.[1]);
    expect(Math.abs(feet / (room.netArea / 0.3048 ** 2) - 1), `${room.name}: ${words}`).toBeLessThan(0.01);
  }
});

test("a click on a drawn wall lays a wall on it with its thickness", async ({ page }) => {
  const hand = await trued(page, "Probed");
  await hand.seesGridLine();
  await page.keyboard.press("a");
  await hand.click([9000, 2000]);
  await expect(page.getByText(/^1[12]\d mm thick, ±/)).toBeVisible();
  await saved(page);
  await expect(page.getByRole("heading", { name: "1 wall, 0 rooms" })).toBeVisible();
  await hand.click([7000, 3700]);
  await expect(page.getByText("No wall is drawn there")).toBeVisible();
});
