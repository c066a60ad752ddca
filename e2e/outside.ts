import { expect, type Page } from "@playwright/test";
import { type Hand, saved, site } from "./scan";
import { straightened } from "./waiting";

/** A level line at the foot of the wall, mm. */
export const GROUND = [
  [300, -150],
  [12900, -150],
] as const;

/** The middle of a bed joint, mm above the finished floor. */
const bed = (course: number) => -145 + 75 * course;

/** The photograph is trued up by its courses, two widths, a level and a plumb line, and straightened by the worker. */
export async function trueUpByCourses(page: Page, hand: Hand, onCounted?: () => Promise<void>): Promise<void> {
  await page.keyboard.press("u");
  await page.getByRole("button", { name: "It is a photograph" }).click();
  await expect(page.getByTestId("proportions")).toContainText("not straightened yet");
  await page.keyboard.press("c");
  await page.getByRole("button", { name: "a count", exact: true }).click();
  if ((await page.getByLabel("course up").inputValue()) === "") {
    await page.getByLabel("course up").fill("75");
    await page.getByLabel("course up").press("Enter");
  }
  await saved(page);
  for (const x of [60, 13100]) {
    await hand.click([x, bed(2)]);
    await hand.click([x, bed(58)]);
    await expect(page.getByRole("textbox", { name: "holds" })).toHaveValue("56c");
    if (x > 60) await onCounted?.();
    await page.keyboard.press("Enter");
    await saved(page);
  }
  await expect(page.getByRole("group", { name: "Known length 56c" })).toHaveCount(2);
  await page.getByRole("button", { name: "a length", exact: true }).click();
  for (const course of [12, 58]) {
    await hand.click([0, bed(course)]);
    await hand.click([13200, bed(course)]);
    await page.getByRole("textbox", { name: "true length" }).fill("13 200");
    await page.keyboard.press("Enter");
    await saved(page);
  }
  await expect(page.getByRole("group", { name: "Known length 13 200" })).toHaveCount(2);
  await page.keyboard.press("g");
  await hand.click(GROUND[0]);
  await hand.click(GROUND[1]);
  await page.keyboard.press("Enter");
  await expect(page.getByText("Runs with x", { exact: true })).toBeVisible();
  await saved(page);
  await hand.seesGridLine(...GROUND);
  await hand.click([0, 200]);
  await hand.click([0, 4500]);
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("proportions")).toContainText("Photograph, straightened");
  await page.keyboard.press("Escape");
  await straightened(page);
  await lookAgain(page, hand);
}

/** Marks on the straightened picture, found by its level line. */
export async function lookAgain(page: Page, hand: Hand): Promise<void> {
  await page.keyboard.press("Alt+2");
  await page.keyboard.press("f");
  await page.waitForTimeout(500);
  await hand.seesGridLine(...GROUND, true);
}

/** Enter after a pick at a level, at some x of the wall. */
export async function level(page: Page, hand: Hand, at: readonly [number, number], text: string): Promise<void> {
  await hand.click(at);
  await page.getByRole("textbox", { name: "level" }).fill(text);
  await page.keyboard.press("Enter");
  await saved(page);
}

/** Clicks round the wall's face. */
export async function traceFace(page: Page, hand: Hand): Promise<void> {
  for (const corner of [
    [0, -150],
    [13200, -150],
    [13200, 4650],
    [0, 4650],
  ] as const) {
    await hand.click(corner);
    await page.waitForTimeout(300);
  }
  await page.keyboard.press("Enter");
}

/** The site's sketch is trued up by the building's south wall and its boundary followed, the fourth leg by its ink. */
export async function followSite(page: Page, hand: Hand): Promise<void> {
  await page.keyboard.press("c");
  await hand.click([0, 0]);
  await hand.click([13200, 0]);
  await page.keyboard.type("13.20 m");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("group", { name: "Known length 13.20 m" })).toBeVisible();
  // The picture takes its size when the server has said it.
  await saved(page);
  await page.keyboard.press("g");
  await hand.click([0, 0]);
  await hand.click([13200, 0]);
  await page.keyboard.press("Enter");
  await expect(page.getByText("Runs with x", { exact: true })).toBeVisible();
  await page.keyboard.press("Escape");
  await saved(page);
  await page.keyboard.press("f");
  await page.waitForTimeout(500);
  await hand.seesGridLine();
  await page.keyboard.press("b");
  const panel = page.getByRole("region", { name: "Boundary" });
  const [first = [0, 0], , , from = [0, 0], to = [0, 0]] = site.boundary;
  await hand.click(first);
  await expect(panel).toContainText("Type each leg as it is written");
  for (const [i, leg] of site.legs.entries()) {
    if (i === 3) {
      // Only its length is written.
      await hand.click([from[0] + 0.85 * (to[0] - from[0]), from[1] + 0.85 * (to[1] - from[1])]);
      await expect(panel).toContainText("Read off the ink");
      await expect(panel.getByLabel("bearing")).toHaveValue(/^26[45]°/);
    } else await panel.getByLabel("bearing").fill(leg.bearing);
    await panel.getByLabel("length").fill(leg.length);
    await page.keyboard.press("Enter");
    await expect(panel.getByRole("listitem")).toHaveCount(i + 1);
  }
}
