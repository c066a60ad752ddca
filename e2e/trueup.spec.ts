import { expect, type Page, test } from "@playwright/test";
import { begin, expectAccessible, Hand, SCAN, saved, signIn, truth } from "./scan";
import { brought } from "./waiting";

type XY = readonly [number, number];

test.describe("a scan is trued up without zooming", () => {
  let hand: Hand;

  test.beforeEach(async ({ page }, info) => {
    await signIn(page);
    await begin(page, info.title.slice(0, 40));
    await page.getByLabel("Drawing file").setInputFiles(SCAN);
    await page.getByRole("button", { name: "True up", exact: true }).click();
    // The page is ready, and its ink has been looked at.
    await brought(page, page.getByRole("button", { name: /^Square .*° off/ }));
    hand = new Hand(page);
    await hand.seesWholePage();
    await page.keyboard.press("c");
  });

  async function length(page: Page, from: XY, to: XY, text: string): Promise<void> {
    await hand.click(from);
    await hand.click(to);
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
    await expect(row(page, text)).toBeVisible();
  }

  const row = (page: Page, text: string) => page.getByRole("group", { name: `Known length ${text}` });

  test("six lengths: all within their ±, then one wrong one is named with what would agree", async ({ page }) => {
    for (const [from, to, text] of [
      [[0, 0], [13200, 0], "13 200"],
      [[0, 0], [0, 8600], "8 600"],
      [[0, 8600], [11000, 8600], "11 000"],
      [[300, 300], [300, 3840], "3 540"],
      [[300, 300], [5100, 300], "4.8 m"],
    ] as const) {
      await length(page, from, to, text);
    }
    await expect(page.getByRole("heading", { name: /^±\d{1,2}(\.\d)? mm over 10 m$/ })).toBeVisible();
    // Every reading comes within a pixel of the scan.
    for (const [text, mm] of [
      ["13 200", 13200],
      ["8 600", 8600],
      ["11 000", 11000],
    ] as const) {
      // The heading may be of the lengths before: what is awaited is the answer that knows this one.
      await expect
        .poll(async () => {
          const told = (await row(page, text).textContent()) ?? "";
          return Math.abs(Number(/fits ([\d.\u2009]+)/.exec(told)?.[1]?.replaceAll("\u2009", "")) - mm);
        })
        .toBeLessThan(truth.mmPerPixel);
    }
    await hand.click([13200, 0]);
    await hand.click([13200, 6400]);
    await page.keyboard.type("6 500");
    await page.keyboard.press("Enter");
    await expect(row(page, "6 500")).toContainText(/The rest would agree with 6.(39[5-9]|40[0-5]) ±/);
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await expect(page.getByRole("button", { name: /6.500 mm disagrees with the rest/ })).toBeVisible();
    // What would hold without it, on resting there.
    await row(page, "6 500").hover();
    await expect(row(page, "6 500")).toContainText(/Without it ±\d/);
    await page.keyboard.press("v");
    await expect(page.getByTestId("truth-plot")).toContainText(/±\d+ mm/);
    await expectAccessible(page);
  });

  test("a slip of ten is caught before it is taken", async ({ page }) => {
    await hand.click([0, 0]);
    await hand.click([13200, 0]);
    const slip = page.getByRole("textbox", { name: "true length" });
    await slip.fill("132 000");
    await slip.press("Enter");
    await expect(page.getByRole("alert")).toContainText("a decimal point may have slipped");
    await expectAccessible(page);
    await page.getByRole("button", { name: "Write 13 200 mm" }).click();
    await slip.press("Enter");
    await expect(row(page, "13200 mm")).toBeVisible();
  });

  test("squared by its ink, turned by hand, and back to the fit before", async ({ page }) => {
    await length(page, [0, 0], [13200, 0], "13 200");
    await page.keyboard.press("g");
    await expect(page.getByText(/The ink would turn the picture 1\.37° right/)).toBeVisible();
    await page.getByRole("button", { name: "Square by the ink" }).click();
    await expect(page.getByText("Squared by the ink").first()).toBeVisible();
    await expect(page.getByText("The page is turned 1.37° to the right")).toBeVisible();
    await saved(page);
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "Earlier fits" }).click();
    await page
      .getByRole("listitem")
      .filter({ hasText: "Known length" })
      .getByRole("button", { name: "Go back" })
      .click();
    await expect(page.getByText("The page is turned")).toHaveCount(0);
    await expect(row(page, "13 200")).toBeVisible();
  });

  test("a room of known size is laid over the picture and then stated", async ({ page }) => {
    await length(page, [0, 0], [13200, 0], "13 200");
    await page.getByRole("button", { name: "a room" }).click();
    await page.getByLabel("width").fill("4.8 m");
    await page.getByLabel("depth").fill("3540");
    await page.mouse.move(...hand.at([2700, 2000]));
    await expect.poll(() => painted(page), "the ghost's wash, 4.8 × 3.54 m of it").toBeGreaterThan(8000);
    for (const corner of [
      [300, 300],
      [5100, 300],
      [5100, 3840],
      [300, 3840],
    ] as const)
      await hand.click(corner);
    await expect(page.getByRole("textbox", { name: "room" })).toHaveValue("4.8 m x 3540");
    await page.keyboard.press("Enter");
    await expect(page.getByTestId("known-lengths")).toContainText(/fits 4.(79|80)\d\.\d × 3.5(3|4)\d\.\d/);
    await expectAccessible(page);
  });

  test("set onto the grid, locked, and moved by nothing then", async ({ page }) => {
    await length(page, [0, 0], [13200, 0], "13 200");
    await page.keyboard.press("p");
    await page.getByLabel("spacings along x").fill("2 x 6600");
    await page.keyboard.press("Enter");
    await page.getByLabel("spacings along y").fill("3900 + 4700");
    await page.keyboard.press("Enter");
    await expect(page.getByText("A B C")).toBeVisible();
    await hand.click([13200, 0]);
    await page.keyboard.type("A/3");
    await page.keyboard.press("Enter");
    await expect(page.getByText("Placed at A/3")).toBeVisible();
    await expect(page.getByTestId("known-lengths")).toContainText("13\u2009200, 0 · off by 0.0 mm");
    await page.getByRole("button", { name: "At every crossing" }).click();
    await expect(page.getByRole("button", { name: "Remove 9" })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole("button", { name: "Lock it" }).click();
    await expect(page.getByText("Locked: nothing moves it.")).toBeVisible();
    await saved(page);
    await row(page, "13 200").getByRole("button", { name: "Only check it" }).click();
    await expect(page.getByRole("alert")).toContainText("This drawing is locked");
    await expect(row(page, "13 200").getByRole("button", { name: "Only check it" })).toBeVisible();
  });

  test("the figure that waits is filled by the distance meter", async ({ page, context }) => {
    await hand.click([0, 0]);
    await hand.click([13200, 0]);
    const slip = page.getByRole("textbox", { name: "true length" });
    await expect(slip).toBeFocused();
    // The figure waits; what was sent before does not count.
    await page.waitForResponse((r) => r.url().endsWith("/api/meter"));
    const meter = await context.newPage();
    await meter.goto("/#/meter");
    await meter.getByLabel("distance ahead, m").fill("13.2");
    await expectAccessible(meter);
    await meter.getByRole("button", { name: "Measure and send" }).click();
    await expect(meter.getByText(/m sent/)).toBeVisible();
    await meter.close();
    await expect(slip).toHaveValue(/^13\.(199|2)\d* m$/);
    await slip.press("Enter");
    await expect(page.getByTestId("known-length")).toContainText("taped");
  });
});

test("a fit changed after tracing says how far it would move, and the tracing stays or comes along", async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole("link", { name: /Sallow Fen/ }).click();
  await page.getByTestId("board").waitFor();
  await page.keyboard.press("Alt+2");
  const length = page.getByRole("group", { name: "Known length 8 600" });
  await length.getByRole("button", { name: "Only check it" }).click();
  const card = page.getByRole("alert", { name: "The fit changes" });
  await expect(card).toContainText(/moves the picture by up to \d+(\.\d)? mm where 9 corners are traced/);
  await expectAccessible(page);
  await card.getByRole("button", { name: "Leave the fit as it is" }).click();
  await expect(length.getByRole("button", { name: "Only check it" })).toBeVisible();
  await length.getByRole("button", { name: "Only check it" }).click();
  await card.getByRole("button", { name: "Carry it along" }).click();
  await expect(length.getByRole("button", { name: "Use in the fit" })).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(length.getByRole("button", { name: "Only check it" })).toBeVisible();
});

/** Pixels that the hand's layer has painted. */
function painted(page: Page): Promise<number> {
  return page.evaluate(() => {
    const canvas = document.querySelector<HTMLCanvasElement>("[data-testid=hand]");
    const data = canvas?.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
    let seen = 0;
    for (let i = 3; i < data.length; i += 4) if ((data[i] ?? 0) > 0) seen++;
    return seen;
  });
}
