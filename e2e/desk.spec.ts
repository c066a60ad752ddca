import { expect, type Page, test } from "@playwright/test";
import { begin, expectAccessible, Hand, SCAN, saved, signIn } from "./scan";

test("work goes on while the server is away, and is there once it is back", async ({ page }) => {
  await openDemo(page);
  await page.route("**/api/projects/*/changes**", (route) => route.abort());
  await page.getByRole("button", { name: /^Wall 1/ }).click();
  await page.getByRole("button", { name: "200", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("1 unsaved change is kept");
  await expect(page.getByTestId("saved")).toHaveText("1 kept here");
  await page.unroute("**/api/projects/*/changes**");
  await expect(page.getByTestId("saved")).toHaveText(/^saved/);
  await expect(page.getByRole("region", { name: "Selected walls" }).getByLabel("thickness")).toHaveValue("200 mm");
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("region", { name: "Selected walls" }).getByLabel("thickness")).toHaveValue("300 mm");
});

test("what was not sent yet outlives a reload", async ({ page }) => {
  await openDemo(page);
  await page.route("**/changes", (route) => (route.request().method() === "POST" ? route.abort() : route.continue()));
  await page.getByRole("button", { name: /^Wall 3/ }).click();
  await page.getByRole("button", { name: "120", exact: true }).click();
  await expect(page.getByTestId("saved")).toHaveText("1 kept here");
  await page.reload();
  await expect(page.getByTestId("saved")).toHaveText("1 kept here");
  await page.unroute("**/changes");
  await expect(page.getByTestId("saved")).toHaveText(/^saved/);
  await page.getByRole("button", { name: /^Wall 3 · 120/ }).click();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("region", { name: "Selected walls" }).getByLabel("thickness")).toHaveValue("300 mm");
});

test("two browsers see each other's work, and the later one on the same wall is told", async ({ page, browser }) => {
  await openDemo(page);
  const other = await (await browser.newContext()).newPage();
  await openDemo(other);
  await page.getByRole("button", { name: /^Wall 2/ }).click();
  await other.getByRole("button", { name: /^Wall 2/ }).click();
  // The other browser does not hear of the change before it makes its own.
  await other.route("**/changes?since=*", (route) => route.abort());
  await page.getByRole("button", { name: "120", exact: true }).click();
  await saved(page);
  await other.getByRole("button", { name: "100", exact: true }).click();
  const decision = other.getByRole("region", { name: "To decide" });
  await expect(decision).toContainText("Thickness");
  await expect(decision.getByRole("row", { name: "thickness" })).toContainText("100");
  await expect(decision.getByRole("row", { name: "thickness" })).toContainText("120");
  await other.unroute("**/changes?since=*");
  await expect(other.getByRole("region", { name: "Selected walls" }).getByLabel("thickness")).toHaveValue("120 mm");
  // Done over it, and let go by its author.
  await decision.getByRole("button", { name: "Do mine over it" }).click();
  await expect(page.getByRole("region", { name: "Selected walls" }).getByLabel("thickness")).toHaveValue("100 mm");
  await expect(decision).toBeHidden();
  await other.keyboard.press("Control+z");
  await expect(page.getByRole("region", { name: "Selected walls" }).getByLabel("thickness")).toHaveValue("120 mm");
  await saved(page);
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("region", { name: "Selected walls" }).getByLabel("thickness")).toHaveValue("300 mm");
  await expect(other.getByRole("region", { name: "Selected walls" }).getByLabel("thickness")).toHaveValue("300 mm");
});

test("a length is picked, typed and set by keyboard alone", async ({ page }) => {
  await signIn(page);
  await begin(page, "By keyboard");
  await page.getByLabel("Drawing file").setInputFiles(SCAN);
  await expect(page.getByText("1 page", { exact: true }).first()).toBeVisible();
  await page.keyboard.press("Alt+2");
  await page.keyboard.press("c");
  for (let i = 0; i < 10; i++) await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Space");
  for (let i = 0; i < 20; i++) await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Space");
  await page.keyboard.type("10 m");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("known-lengths").getByText("10 m", { exact: true })).toBeVisible();
  // Held out as a check length and removed again, by Tab and Enter.
  const hold = page.getByRole("button", { name: "Only check it" });
  await hold.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText("The scale is a guess")).toBeVisible();
  await page.getByRole("button", { name: "Remove", exact: true }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("known-lengths").getByText("10 m", { exact: true })).toHaveCount(0);
});

test("zooming keeps the ink under the pointer, and the picture cannot be dragged off its place", async ({ page }) => {
  await openDemo(page);
  const hand = new Hand(page);
  const box = await hand.board();
  const corner = await labelAt(page, "Net store");
  await page.mouse.move(corner.x, corner.y);
  await page.mouse.wheel(0, -400);
  await expect.poll(async () => Math.abs((await labelAt(page, "Net store")).x - corner.x)).toBeLessThan(1.5);
  const before = await page.getByTestId("saved").textContent();
  await page.mouse.move(box.x + 30, box.y + 30);
  await page.mouse.down();
  await page.mouse.move(box.x + 130, box.y + 90, { steps: 5 });
  await page.mouse.up();
  const after = await labelAt(page, "Net store");
  expect(after.x - corner.x).toBeCloseTo(100, -1);
  expect(after.y - corner.y).toBeCloseTo(60, -1);
  expect(await page.getByTestId("saved").textContent(), "Panning changes nothing.").toBe(before);
});

test("a room's label gives way to the pointer of an act at hand", async ({ page }) => {
  await openDemo(page);
  const label = page.getByTestId("room-label").filter({ hasText: "Net store" });
  const { x, y } = await labelAt(page, "Net store");
  await page.mouse.move(x, y);
  await expect(label).toHaveCSS("opacity", "1");
  await page.keyboard.press("w");
  await page.mouse.move(x + 2, y);
  await expect(label).toHaveCSS("opacity", "0.15");
  await page.mouse.move(x, y + 120);
  await expect(label).toHaveCSS("opacity", "1");
});

test("a foreign or missing project is answered in words", async ({ page }) => {
  await signIn(page);
  await page.goto("/#/project/00000000-0000-7000-8000-000000000000");
  await expect(page.getByRole("heading", { name: "This project cannot be opened" })).toBeVisible();
  await page.getByRole("link", { name: "All projects" }).click();
  await expect(page.getByRole("heading", { name: "Projects" })).toBeVisible();
});

test("a wrong password is answered at the form, and signing out leads back to it", async ({ page }) => {
  await page.goto("/");
  await page.getByLabel("E-mail").fill("nobody@plinth.example");
  await page.getByLabel("Password").fill("wrong wrong wrong");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert")).toContainText("do not belong together");
  await page.getByRole("button", { name: "Open the demo" }).click();
  await page.getByRole("button", { name: /Account of/ }).click();
  await page.getByRole("menuitem", { name: "Sign out" }).click();
  await expect(page.getByRole("button", { name: "Open the demo" })).toBeVisible();
});

async function openDemo(page: Page): Promise<void> {
  await signIn(page);
  await page.getByRole("link", { name: /Sallow Fen/ }).click();
  await expect(page.getByTestId("room-label").filter({ hasText: "Net store" })).toBeVisible();
  await page.waitForTimeout(300);
}

async function labelAt(page: Page, name: string): Promise<{ x: number; y: number }> {
  const box = await page.getByTestId("room-label").filter({ hasText: name }).boundingBox();
  return { x: (box?.x ?? 0) + (box?.width ?? 0) / 2, y: (box?.y ?? 0) + (box?.height ?? 0) / 2 };
}

test("the guide opens beside the work and is read to its end", async ({ page }) => {
  await signIn(page);
  await page.getByRole("link", { name: /Sallow Fen/ }).click();
  await page.getByTestId("board").waitFor();
  await page.keyboard.press("?");
  const beside = page.waitForEvent("popup");
  await page.getByRole("link", { name: "The job in ten minutes" }).click();
  const guide = await beside;
  await expect(guide.getByRole("heading", { name: "1. Bring in" })).toBeInViewport();
  await expect(guide.getByRole("img").first()).toHaveJSProperty("complete", true);
  await expectAccessible(guide);
  await guide.mouse.move(640, 400);
  await expect(async () => {
    await guide.mouse.wheel(0, 2000);
    await expect(guide.getByText("every act works without a mouse")).toBeInViewport({ timeout: 200 });
  }).toPass();
});
