import { expect, type Page, test } from "@playwright/test";
import { followSite, level, lookAgain, traceFace, trueUpByCourses } from "./outside";
import { begin, expectAccessible, FACADE, facade, Hand, SCAN, SITE, saved, signIn, site } from "./scan";
import { brought } from "./waiting";

type XY = readonly [number, number];

async function bringIn(page: Page, name: string, file: string): Promise<void> {
  await signIn(page);
  await begin(page, name);
  await page.getByLabel("Drawing file").setInputFiles(file);
  await page.keyboard.press("Alt+2");
  await brought(page, page.getByText("1 page", { exact: true }));
  await page.keyboard.press("f");
}

const known = (page: Page, text: string) => page.getByRole("group", { name: `Known length ${text}` });

test("a facade is calibrated by its courses, straightened, levelled, and traced round", async ({ page }) => {
  await bringIn(page, "From the lane", SCAN);
  // The side stands on a line of the plan.
  const plan = new Hand(page);
  await plan.seesWholePage();
  await page.keyboard.press("p");
  await page.getByRole("button", { name: "a side", exact: true }).click();
  await plan.click([0, 0]);
  await plan.click([13200, 0]);
  await page.getByRole("textbox", { name: "side" }).fill("South");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "South", exact: true }).click();
  await page.keyboard.press("Alt+1");
  await page.getByLabel("Drawing file").setInputFiles(FACADE);
  await expect(page.getByLabel("Place of station-south-side")).toHaveValue(/side/);
  await page.keyboard.press("Alt+2");
  await brought(page, page.getByText("2 pages", { exact: true }));
  await page.keyboard.press("f");
  const hand = new Hand(page, facade);
  await hand.seesWholePage();
  await trueUpByCourses(page, hand);
  await expectAccessible(page);
  // Levels: the finished floor is zero, the others follow with their ±.
  await page.keyboard.press("l");
  await level(page, hand, [6200, 0], "finished floor 0");
  await lookAgain(page, hand);
  await page.keyboard.press("l");
  await level(page, hand, [6200, 2040], "head");
  const ledger = page.locator("aside, section, div").filter({ hasText: /^finished floor/ });
  await expect(ledger.first()).toContainText("±0");
  const head = /head\s*\+([\d\u2009\u202f ]+)±(\d+)/.exec((await page.getByTestId("levels").textContent()) ?? "");
  // A hand on whole pixels of the screen: the height is as true as it says of itself, three standard deviations of it.
  const told = Number(head?.[2]);
  expect(told).toBeLessThan(50);
  expect(Math.abs(Number(head?.[1]?.replace(/\D/g, "")) - 2040)).toBeLessThan(1.5 * told);
  // Round the face; Enter closes it, and its area is told.
  await page.keyboard.press("o");
  await traceFace(page, hand);
  const face = page.getByTestId("levels").getByRole("button", { name: /^Face/ });
  await expect(face).toContainText(/6[34]\.\d\d m²/);
  await expectAccessible(page);
  await saved(page);
  await page.keyboard.press("Control+z");
  await expect(face).toHaveCount(0);
});

test("a photograph is straightened by its own lines, sized by one length, and taken back", async ({ page }) => {
  await bringIn(page, "By its lines", FACADE);
  const straighten = page.getByRole("button", {
    name: "A photograph, by its lines that converge: straighten it by them",
  });
  await brought(page, straighten);
  const hand = new Hand(page, facade);
  await hand.seesWholePage();
  await page.keyboard.press("c");
  await hand.click([0, -150]);
  await hand.click([13200, -150]);
  await page.getByRole("textbox", { name: "true length" }).fill("13 200");
  await page.keyboard.press("Enter");
  await saved(page);
  // As it was taken, one length says next to nothing of the rest, and ± owns that.
  await expect(page.getByRole("heading", { name: /^±[\d\u2009\u202f ]{3,} mm over 10 m/ })).toBeVisible();
  await page.keyboard.press("Escape");
  await straighten.click();
  const straightened = page.getByText("Straightened by its lines");
  await expect(straightened).toBeVisible();
  await expect(page.getByText("Perspective is taken back")).toBeVisible();
  await saved(page);
  // What runs along the wall was measured; how high it is hangs on the lens.
  await expect(page.getByRole("heading", { name: /±[\d.]+ mm over 10 m along.x/ })).toBeVisible();
  await expect(page.getByText("is not tested yet")).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "As it was taken" }).click();
  await expect(straightened).toBeHidden();
});

test("a storey is placed on another by two points and keeps its size", async ({ page }) => {
  await bringIn(page, "Stacked storeys", SCAN);
  const hand = new Hand(page);
  await hand.seesWholePage();
  await page.keyboard.press("c");
  await hand.click([0, 0]);
  await hand.click([13200, 0]);
  await page.keyboard.type("13 200");
  await page.keyboard.press("Enter");
  await expect(known(page, "13 200")).toBeVisible();
  await saved(page);
  const scale = await page.getByText(/1 px is [\d.]+ mm/).textContent();
  await page.keyboard.press("p");
  await page.getByLabel("points keep its size").click();
  await expect(page.getByLabel("points keep its size")).toBeChecked();
  await saved(page);
  const place = async (point: XY, at: string) => {
    await hand.click(point);
    await page.getByRole("textbox", { name: "lies at" }).fill(at);
    await page.keyboard.press("Enter");
    await saved(page);
  };
  await place([0, 0], "0 0");
  await expect(page.getByText("Placed at 0 0")).toBeVisible();
  await page.keyboard.press("f");
  await page.waitForTimeout(300);
  // The floor below has this corner 13 230 mm away, straight along x.
  await place([13200, 0], "13230 0");
  const rows = page.getByText(/off by 1[45]\.\d mm/);
  await expect(rows).toHaveCount(2);
  await expect(page.getByText(/1 px is [\d.]+ mm/)).toHaveText(scale ?? "");
  // Left to say the size as well, they take it.
  await page.getByLabel("points keep its size").click();
  await expect(page.getByText(/1 px is [\d.]+ mm/)).not.toHaveText(scale ?? "");
});

test("a drawing is placed onto what shows through of another storey", async ({ page }) => {
  await bringIn(page, "Two storeys", SCAN);
  const hand = new Hand(page);
  await hand.seesWholePage();
  // A room drawn on the wrong storey goes up by one click.
  await page.keyboard.press("Alt+3");
  await page.keyboard.press("w");
  await page.getByRole("button", { name: "a rectangle" }).click();
  const board = await page.getByTestId("board").boundingBox();
  if (!board) throw new Error("There is no board.");
  const corner = [board.x + 60, board.y + board.height - 120] as const;
  await page.mouse.click(...corner);
  await page.mouse.move(corner[0] + 200, corner[1] - 150);
  await page.keyboard.type("6 m x 4 m");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "4 walls, 1 room" })).toBeVisible();
  await saved(page);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Storeys" }).click();
  await page.getByRole("button", { name: "Add above" }).click();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Move everything here" }).click();
  await expect(page.getByRole("heading", { name: "4 walls, 1 room" })).toBeVisible();
  await saved(page);
  await page.getByRole("button", { name: "Ground", exact: true }).click();
  await expect(page.getByRole("heading", { name: "0 walls, 0 rooms" })).toBeVisible();
  await page.getByRole("button", { name: "Storeys" }).click();
  await page.getByLabel("shows through").check();
  await page.getByLabel("its drawings too").check();
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Alt+2");
  await page.keyboard.press("p");
  await hand.click([0, 0]);
  await expect(page.getByRole("textbox", { name: "lies at" })).toBeVisible();
  await page.mouse.move(...corner);
  await expect(page.getByText("onto the corner of Storey 2")).toBeVisible();
  await page.mouse.click(...corner);
  await saved(page);
  await expect(page.getByText("Placed at corner of Storey 2")).toBeVisible();
});

test("a site is followed leg by leg, one of them by its ink, and closes", async ({ page }) => {
  await bringIn(page, "Lot at the fen", SITE);
  const hand = new Hand(page, site);
  await hand.seesWholePage();
  await followSite(page, hand);
  const panel = page.getByRole("region", { name: "Boundary" });
  await expect(panel).toContainText(/Closes within \d{1,2}\.\d mm in 111\.73 m/);
  await expect(panel).toContainText(/It encloses 81[78]\.\d\d m²/);
  await expectAccessible(page);
});
