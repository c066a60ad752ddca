import { type BrowserContext, expect, type Page, test } from "@playwright/test";
import { saved, signIn } from "./scan";

/** No change goes out; what others do is heard of all the same. */
const holdBack = (context: BrowserContext) =>
  context.route("**/changes", (route) => (route.request().method() === "POST" ? route.abort() : route.continue()));

async function openDemo(page: Page, signedIn = false): Promise<void> {
  if (signedIn) await page.goto("/");
  else await signIn(page);
  await page.getByRole("link", { name: /Sallow Fen/ }).click();
  await page.getByTestId("board").waitFor();
  await page.keyboard.press("Alt+3");
}

const wall = (page: Page, name: RegExp) => page.getByRole("button", { name });
const thickness = (page: Page) => page.getByRole("region", { name: "Selected walls" }).getByLabel("thickness");

async function thicken(page: Page, mm: string): Promise<void> {
  await thickness(page).fill(mm);
  await thickness(page).press("Enter");
}

test("what is made offline is drawn at once, and what it met is decided beside it, also after a reload", async ({
  page,
  context,
  browser,
}) => {
  await openDemo(page);
  await wall(page, /^Wall 4 /).click();
  const before = await thickness(page).inputValue();
  await holdBack(context);
  await thicken(page, "345");
  await expect(wall(page, /^Wall 4 · 345/), "It is there before anybody else knows of it.").toBeVisible();
  await expect(page.getByTestId("saved")).toHaveText("1 kept here");
  await expect(page.getByRole("alert")).toContainText("1 unsaved change is kept");
  // A second one upon the first, taken back again before either is sent.
  await thicken(page, "365");
  await expect(wall(page, /^Wall 4 · 365/)).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  await expect(wall(page, /^Wall 4 · 345/)).toBeVisible();
  await expect(page.getByTestId("saved")).toHaveText("3 kept here");

  const other = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await openDemo(other);
  await wall(other, /^Wall 4 /).click();
  await thicken(other, "225");
  await saved(other);
  // What was shown under one's own hands stays until it is decided.
  await expect(wall(page, /^Wall 4 · 345/)).toBeVisible();
  await context.unroute("**/changes");
  const decision = page.getByRole("region", { name: "To decide" });
  await expect(decision.getByRole("article").first()).toContainText("was there first with Thickness");
  await expect(wall(page, /^Wall 4 · 225/), "Theirs stands.").toBeVisible();
  await page.reload();
  await expect(decision.getByRole("article").first()).toContainText("Thickness");
  // All three met the other's, and each is told when the server has judged it.
  await expect(decision.getByRole("article")).toHaveCount(3);
  for (const left of [2, 1, 0]) {
    await decision.getByRole("button", { name: "Let mine go" }).first().click();
    await expect(decision.getByRole("article")).toHaveCount(left);
  }
  await expect(wall(page, /^Wall 4 · 225/)).toBeVisible();
  await other.keyboard.press("Escape");
  await other.keyboard.press("Control+z");
  await expect(wall(page, new RegExp(`^Wall 4 · ${Number.parseInt(before, 10)}`))).toBeVisible();
  await other.context().close();
});

test("what a tab had not sent when it was closed is sent by the next one, and by none that lives beside it", async ({
  page,
  context,
}) => {
  await openDemo(page);
  await holdBack(context);
  await wall(page, /^Wall 5 /).click();
  const before = await thickness(page).inputValue();
  await thicken(page, "255");
  await expect(page.getByTestId("saved")).toHaveText("1 kept here");
  const beside = await context.newPage();
  await openDemo(beside, true);
  await expect(beside.getByTestId("saved"), "The other tab lives.").toHaveText(/^saved/);
  await page.close();
  await beside.reload();
  await expect(beside.getByTestId("saved")).toHaveText("1 kept here");
  await expect(wall(beside, /^Wall 5 · 255/)).toBeVisible();
  await context.unroute("**/changes");
  await expect(beside.getByTestId("saved")).toHaveText(/^saved/);
  await wall(beside, /^Wall 5 · 255/).click();
  await beside.keyboard.press("Escape");
  await beside.keyboard.press("Control+z");
  await expect(wall(beside, new RegExp(`^Wall 5 · ${Number.parseInt(before, 10)}`))).toBeVisible();
});
