import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { begin, expectAccessible, Hand, SCAN, saved, signIn, truth } from "./scan";
import { brought } from "./waiting";

test("a scan becomes a plan: calibrated, squared, traced, measured and taken away as DXF", async ({ page }) => {
  await signIn(page);
  await begin(page, "Whole job");
  await page.getByLabel("Drawing file").setInputFiles(SCAN);
  await page.getByRole("button", { name: "True up", exact: true }).click();
  await expect(page.getByText("The scale is a guess")).toBeVisible();
  // The page is ready, and its ink has been looked at.
  await brought(page, page.getByRole("button", { name: /^Square .*° off/ }));
  const hand = new Hand(page);
  await hand.seesWholePage();

  // Two known lengths, then a grid line.
  await knownLength(page, hand, [0, 0], [13200, 0], "13 200");
  await expect(page.getByRole("heading", { name: /±\d+(\.\d)? mm over 10 m/ })).toBeVisible();
  await knownLength(page, hand, [0, 0], [0, 8600], "8.6 m");
  await page.keyboard.press("g");
  await hand.click([0, 0]);
  await hand.click([13200, 0]);
  await expect(page.getByTestId("turn-words")).toHaveText(/turns 1\.3\d° right/);
  await page.keyboard.press("Enter");
  await expect(page.getByText("Runs with x", { exact: true })).toBeVisible();
  await saved(page);

  // The picture has turned about the middle of the page: look again, by the marks of the grid line on the screen.
  await hand.seesGridLine();
  const begun = Date.now();
  await page.keyboard.press("w");
  await page.getByRole("button", { name: "300", exact: true }).click();
  for (const corner of [
    [0, 0],
    [13200, 0],
    [13200, 6400],
    [11000, 8600],
    [0, 8600],
  ] as const) {
    await hand.clickInk(corner);
    await saved(page);
  }
  await hand.click([0, 0]);
  await saved(page);
  await expect(page.getByRole("heading", { name: "5 walls, 1 room" })).toBeVisible();
  // Each along one face, from corner to corner.
  await partition(page, hand, 200, "left", [5100, 300], [5100, 8300]);
  await partition(page, hand, 120, "right", [300, 3840], [5100, 3840]);
  await partition(page, hand, 120, "left", [5300, 4760], [12900, 4760]);
  await partition(page, hand, 120, "left", [8940, 300], [8940, 4640]);
  await partition(page, hand, 120, "left", [8140, 4760], [8140, 8300]);
  await expect(page.getByRole("heading", { name: "10 walls, 6 rooms" })).toBeVisible();

  // Doors and windows by a click in their middle; a plain one by both jambs.
  await page.keyboard.press("d");
  for (const [number, { wall, offset, width }] of truth.openings.entries()) {
    const { from, to } = truth.walls.find((w) => w.id === wall) ?? { from: [0, 0] as const, to: [0, 0] as const };
    const part = (offset + width / 2) / Math.hypot(to[0] - from[0], to[1] - from[1]);
    await hand.click([from[0] + (to[0] - from[0]) * part, from[1] + (to[1] - from[1]) * part]);
    await expect(page.getByRole("button", { name: /^[DW]\d\d / })).toHaveCount(number + 1);
    await saved(page);
  }
  await expect(page.getByRole("button", { name: /^D\d\d / })).toHaveCount(6);
  await expect(page.getByRole("button", { name: /^W\d\d / })).toHaveCount(6);
  await page.keyboard.press("r");
  for (const [name, at] of [
    ["Net store", [2700, 2900]],
    ["Drying room", [2700, 7300]],
    ["Ringing room", [7600, 3300]],
    ["Log room", [11000, 3300]],
    ["Kitchen", [6300, 6300]],
    ["Bunk room", [11000, 6600]],
  ] as const) {
    await hand.click(at);
    await page.keyboard.type(name);
    await page.keyboard.press("Enter");
    await expect(page.getByTestId("room-label").filter({ hasText: name })).toBeVisible();
  }
  const seconds = Math.round((Date.now() - begun) / 1000);
  let worst = 0;
  for (const room of truth.rooms) {
    const text = await page.getByTestId("room-label").filter({ hasText: room.name }).textContent();
    worst = Math.max(worst, Math.abs(Number(/([\d.]+) m²/.exec(text ?? "")?.[1]) / room.netArea - 1));
  }
  console.log(
    `From the bare scan to named rooms: ${hand.clicks} clicks, ${seconds} s of them traced; areas within ${(100 * worst).toFixed(2)} %`,
  );
  expect(worst).toBeLessThan(0.005);

  // A length checked without meaning anything by it: nothing is saved.
  await saved(page);
  const before = await page.getByTestId("saved").textContent();
  await page.keyboard.press("m");
  await hand.click([0, 8600]);
  await page.mouse.move(...hand.at([11000, 8600]));
  await expect(page.getByTestId("pointer-words")).toContainText(/1[01].\d{3} ±\d+ mm/);
  await page.keyboard.press("Escape");
  expect(await page.getByTestId("saved").textContent()).toBe(before);

  // Undo and redo reach back over a reload.
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("room-label").filter({ hasText: "Bunk room" })).toHaveCount(0);
  await page.reload();
  await page.getByTestId("board").waitFor();
  await page.keyboard.press("Control+Shift+z");
  await expect(page.getByTestId("room-label").filter({ hasText: "Bunk room" })).toBeVisible();

  await page.keyboard.press("Alt+5");
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Take the DXF" }).click();
  const dxf = readFileSync(await (await download).path(), "latin1");
  const lines = centreLines(dxf);
  expect(lines).toHaveLength(10);
  // Within 0.1 % or one pixel of the scan, though every pick stood on a whole pixel of the screen.
  const tolerance = (mm: number) => Math.max(0.001 * mm, truth.mmPerPixel);
  for (const [from, to, mm] of [
    [0, 0, 12900],
    [0, 1, 8300],
  ] as const) {
    const along = lines.map((l) => Math.abs((l[from + 2 + to] ?? 0) - (l[from + to] ?? 0)));
    const nearest = along.reduce((best, l) => (Math.abs(l - mm) < Math.abs(best - mm) ? l : best));
    expect(Math.abs(nearest - mm)).toBeLessThan(tolerance(mm));
  }
});

test("the demo opens on its picture, and axe finds nothing serious at any step", async ({ page }) => {
  await signIn(page);
  await expectAccessible(page);
  await page.getByRole("link", { name: /Sallow Fen/ }).click();
  await expect(page.getByRole("heading", { name: "7 walls, 3 rooms" })).toBeVisible();
  for (const step of [1, 2, 3, 4, 5]) {
    await page.keyboard.press(`Alt+${step}`);
    await expectAccessible(page);
  }
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog")).toContainText("one step back");
  await expectAccessible(page);
});

test("a figure that is no length is answered at the slip, and what was typed stays", async ({ page }) => {
  await signIn(page);
  await begin(page, "Slips");
  await page.getByLabel("Drawing file").setInputFiles(SCAN);
  await page.getByRole("button", { name: "True up", exact: true }).click();
  const hand = new Hand(page);
  await hand.seesWholePage();
  await hand.click([0, 0]);
  await hand.click([13200, 0]);
  // Each end can be reached and moved by keyboard; the arrow keys move it by a quarter pixel.
  const end = page.getByRole("button", { name: /^End B/ });
  const [, x] = /at ([\d.]+),/.exec((await end.getAttribute("aria-label")) ?? "") ?? [];
  await end.press("ArrowRight");
  await expect(end).toHaveAccessibleName(new RegExp(`at ${(Number(x) + 0.25).toFixed(2)},`));
  const slip = page.getByRole("textbox", { name: "true length" });
  await slip.fill("thirteen");
  await slip.press("Enter");
  await expect(page.getByRole("alert")).toContainText("A number is expected at character 1");
  await expect(slip).toHaveValue("thirteen");
  await slip.fill("0");
  await slip.press("Enter");
  await expect(page.getByRole("alert")).toContainText("longer than zero");
  await slip.fill("43' 3 11/16\"");
  await slip.press("Enter");
  await expect(page.getByTestId("known-lengths")).toContainText("fits 13");
});

test("no picture, an empty one and a broken one are refused in words; the project stays as it was", async ({
  page,
}) => {
  await signIn(page);
  await begin(page, "Bad files");
  const give = (name: string, buffer: Buffer) =>
    page.getByLabel("Drawing file").setInputFiles({ name, mimeType: "image/jpeg", buffer });
  await give("letter.jpg", Buffer.from("Dear Sir or Madam"));
  await expect(page.getByRole("alert").last()).toContainText("This is no picture, PDF, SVG or DXF");
  await give("empty.png", Buffer.alloc(0));
  await expect(page.getByRole("alert").last()).toContainText("empty");
  await give("half.jpg", readFileSync(SCAN).subarray(0, 400_000));
  await expect(page.getByText("ends too early")).toBeVisible();
  await expect(page.getByRole("button", { name: "Try again" })).toBeVisible();
});

async function knownLength(
  page: Page,
  hand: Hand,
  from: readonly [number, number],
  to: readonly [number, number],
  text: string,
) {
  // No zooming: the ink says what the pick means.
  await hand.click(from);
  await hand.click(to);
  await page.keyboard.type(text);
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("known-lengths").getByText(text, { exact: true })).toBeVisible();
}

async function partition(
  page: Page,
  hand: Hand,
  thickness: number,
  face: "left" | "right",
  from: readonly [number, number],
  to: readonly [number, number],
) {
  await page.getByLabel("Thickness", { exact: true }).fill(String(thickness));
  await page.getByRole("radio", { name: `${face} face` }).check();
  await page.getByTestId("board").hover({ position: { x: 5, y: 5 } });
  await hand.clickInk(from);
  await hand.clickInk(to);
  await saved(page);
}

/** [x1, y1, x2, y2] of each LINE on the layer of centre lines. */
function centreLines(dxf: string): number[][] {
  const pairs = dxf.split(/\r\n/);
  const found: number[][] = [];
  for (let i = 0; i < pairs.length; i += 2) {
    if (pairs[i] !== "0" || pairs[i + 1] !== "LINE") continue;
    const values = new Map<string, string>();
    for (let j = i + 2; pairs[j] !== "0"; j += 2) values.set(pairs[j] ?? "", pairs[j + 1] ?? "");
    if (values.get("8") === "centre-lines") found.push(["10", "20", "11", "21"].map((c) => Number(values.get(c))));
  }
  return found;
}
