import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { ANEW, begin, expectAccessible, FACADE, Hand, SCAN, SHEET, saved, signIn } from "./scan";
import { brought } from "./waiting";

test("drawings come in by dropping, by pasting, and many at once", async ({ page }) => {
  await signIn(page);
  await begin(page, "Ways in");
  await hand(page, SCAN, "dropped.jpg", "drop");
  await expect(page.getByRole("article", { name: "dropped.jpg" })).toBeVisible();
  // Anywhere in the project, at any step.
  await page.keyboard.press("Alt+3");
  await hand(page, SHEET, "pasted.jpg", "paste");
  await expect(page.getByRole("article", { name: "pasted.jpg" })).toBeVisible();
  await page.getByLabel("Drawing file").setInputFiles([SCAN, ANEW]);
  await expect(page.getByRole("article", { name: "ground floor anew.jpg" })).toBeVisible();
  await expect(page.getByRole("alert")).toContainText("The same file is here already as dropped.jpg");
  await expect(page.getByRole("heading", { name: "4 sources" })).toBeVisible();
  await page
    .getByLabel("Drawing file")
    .setInputFiles({ name: "notes.txt", mimeType: "text/plain", buffer: Buffer.from("no drawing") });
  await expect(page.getByRole("alert").filter({ hasText: "notes.txt" })).toHaveCount(0);
  await expect(page.getByText("This is no picture, PDF, SVG or DXF")).toBeVisible();
});

test("the office scanner delivers to the drop-in folder, and its page is taken from there", async ({ page }) => {
  await signIn(page);
  await begin(page, "From the scanner");
  const folder = page.getByRole("region", { name: "Drop-in folder" });
  await folder.getByRole("button", { name: "Scan a page" }).click();
  await brought(page, folder.getByRole("button", { name: "Bring in" }));
  await folder.getByRole("button", { name: "Bring in" }).first().click();
  await expect(page.getByRole("heading", { name: "1 source" })).toBeVisible();
  await page.getByRole("button", { name: "about" }).click();
  await expect(page.getByLabel("origin")).toHaveValue("drop-in folder");
  await page.getByLabel("address").fill("tray 2");
  await page.getByLabel("address").press("Enter");
  await saved(page);
  await page.reload();
  await page.getByTestId("board").waitFor();
  await page.keyboard.press("Alt+1");
  await page.getByRole("button", { name: "about" }).click();
  await expect(page.getByLabel("address")).toHaveValue("tray 2");
});

test("a sheet is cut into its four drawings, each named and put where it belongs", async ({ page }) => {
  await signIn(page);
  await begin(page, "Cutting");
  await page.getByLabel("Drawing file").setInputFiles(SHEET);
  await page.getByRole("button", { name: "This page seems to hold 4 drawings: cut it" }).click();
  for (const [i, name, kind] of [
    [1, "Loft", "plan"],
    [2, "Roof", "roof"],
    [3, "South", "elevation"],
    [4, "Across", "section"],
  ] as const) {
    await page.getByLabel(`Name of drawing ${i}`).fill(name);
    await page.getByLabel(`Kind of drawing ${i}`).selectOption(kind);
  }
  await expectAccessible(page);
  // The lower edge of the second is drawn down by the mouse, and back up by the keyboard.
  await page.getByLabel("Name of drawing 2").focus();
  const edge = page.getByRole("button", { name: /^Lower edge of Roof/ });
  const before = await middleOf(edge);
  await page.mouse.move(before.x, before.y);
  await page.mouse.down();
  await page.mouse.move(before.x + 3, before.y + 30, { steps: 4 });
  await page.mouse.up();
  const after = await middleOf(edge);
  expect(after.y - before.y).toBeCloseTo(30, 0);
  expect(Math.abs(after.x - before.x)).toBeLessThan(1);
  for (let i = 0; i < 6; i++) await edge.press("Shift+ArrowUp");
  expect((await middleOf(edge)).y).toBeLessThan(after.y - 10);
  await page.getByRole("button", { name: "Cut into 4 drawings" }).click();
  await expect(page.getByRole("group", { name: "Sides" }).getByRole("button")).toHaveText(["South", "Across"]);
  await expect(page.getByLabel("Place of South")).toHaveValue(/side/);
  await expect(page.getByLabel("Kind of South")).toHaveValue("elevation");
  // Only the elevation shows on its side: paper where the loft would be, ink where the ground line is.
  await page.getByRole("group", { name: "Sides" }).getByRole("button", { name: "South" }).click();
  await page.keyboard.press("f");
  await expect.poll(() => darkest(page, 0.1, 0.5, 0.9, 0.9)).toBeLessThan(120);
  await page.getByRole("button", { name: "Ground", exact: true }).click();
  await expect(page.getByRole("button", { name: "How drawings show" })).toContainText("2 drawings shown");
  // A cut is one change.
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("group", { name: "Sides" })).toHaveCount(0);
});

test("a newer scan takes the place of the older one, and the tracing stays on its ink", async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press("Alt+1");
  await page
    .getByRole("article", { name: "sallow-fen-ground.jpg" })
    .getByLabel("Newer version of page 1")
    .setInputFiles(ANEW);
  const newer = page.getByTestId("newer-version");
  const words = /turned 1\.99° right, 1\.200 × as fine\. \d\d places agree within 0\.\d\d px/;
  await brought(page, newer.getByText(/places agree within/));
  await expect(newer).toContainText(words);
  await page.keyboard.press("Alt+3");
  const label = await middleOf(page.getByTestId("room-label").filter({ hasText: "Net store" }));
  await page.keyboard.press("Alt+1");
  await newer.getByRole("button", { name: "Take its place" }).click();
  await expect(page.getByRole("article", { name: "ground floor anew.jpg" })).toBeVisible();
  await expect(page.getByRole("article", { name: "sallow-fen-ground.jpg" })).toHaveCount(0);
  await page.keyboard.press("Alt+3");
  await expect(page.getByRole("heading", { name: "7 walls, 3 rooms" })).toBeVisible();
  const moved = await middleOf(page.getByTestId("room-label").filter({ hasText: "Net store" }));
  expect(Math.hypot(moved.x - label.x, moved.y - label.y), "Nothing jumps on the board.").toBeLessThan(2);
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Alt+1");
  await expect(page.getByRole("article", { name: "sallow-fen-ground.jpg" })).toBeVisible();
  // The same points picked by hand, by mouse and by keyboard, lead to the same end.
  await newer.getByRole("button", { name: "Pick the same points" }).click();
  const [old, fresh] = [
    page.getByRole("button", { name: /^The older page/ }),
    page.getByRole("button", { name: /^The newer page/ }),
  ];
  await expectAccessible(page);
  // Corners of the sheet's own frame, by eye.
  await clickPart(page, old, 0.111, 0.93);
  await clickPart(page, fresh, 0.075, 0.886);
  await clickPart(page, old, 0.86, 0.118);
  await clickPart(page, fresh, 0.853, 0.117);
  await old.press(" ");
  await expect(page.getByText("2 so far")).toBeVisible();
  await page.getByRole("button", { name: "Take the last back" }).click();
  await page.getByRole("button", { name: "Look again" }).click();
  await brought(page, newer.getByText(/places agree within|greatest difference/));
  await newer.getByRole("button", { name: "Put aside" }).click();
  await expect(newer).toHaveCount(0);
});

test("removing a source says what goes with it, and undo brings it all back", async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press("Alt+1");
  const source = page.getByRole("article", { name: "sallow-fen-ground.jpg" });
  await source.getByRole("button", { name: "Remove", exact: true }).click();
  await expect(source.getByRole("alert")).toContainText("1 page, 1 drawing, 3 known lengths and 1 grid line");
  await expect(source.getByRole("alert")).toContainText("7 walls and 2 room names traced over it stay where they are");
  await source.getByRole("button", { name: "Remove it" }).click();
  await expect(source).toHaveCount(0);
  await page.keyboard.press("Alt+3");
  await expect(page.getByRole("heading", { name: "7 walls, 3 rooms" })).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await page.keyboard.press("Alt+2");
  await expect(page.getByTestId("known-lengths").getByText("13 200")).toBeVisible();
  await page.keyboard.press("Alt+1");
  await expect(source.getByLabel(/^Place of /)).toHaveValue(/storey/);
  await expect(source.getByText("trued", { exact: true })).toBeVisible();
  await saved(page);
});

test("a drawing goes where it belongs by one click, and its kind and place are changed on its card", async ({
  page,
}) => {
  await signIn(page);
  await begin(page, "Arrivals");
  await page.getByLabel("Drawing file").setInputFiles(FACADE);
  // Nobody has said that it shows no plan: its pixels do.
  const belongs = page.getByText(/seems to be an elevation, as it is a photograph of a building/);
  await brought(page, belongs);
  await expectAccessible(page);
  await page.getByRole("button", { name: "Put it there" }).click();
  await expect(belongs).toBeHidden();
  await saved(page);
  const [kind, place] = [page.getByLabel("Kind of station-south-side"), page.getByLabel("Place of station-south-side")];
  await expect(kind).toHaveValue("elevation");
  await expect(page.getByRole("group", { name: "Sides" }).getByRole("button")).toHaveText(["station-south-side"]);
  // What is a plan lies on a storey, here one that is made for it.
  await kind.selectOption("site");
  await saved(page);
  await expect(place.locator("option:checked")).toHaveText("Ground");
  await place.selectOption({ label: "a new storey above Ground" });
  await saved(page);
  await expect(page.getByRole("button", { name: "Storey 2", exact: true })).toBeVisible();
  await expect(place.locator("option:checked")).toHaveText("Storey 2");
});

test("how a drawing shows is kept with it: ink only on clear paper, tinted, faded, hidden", async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press("h");
  const shows = page.getByRole("group", { name: "sallow-fen-ground" });
  await shows.getByRole("button", { name: "ink only" }).click();
  await shows.getByRole("button", { name: "plum" }).click();
  await saved(page);
  // Paper is as clear as the board itself, and the scan's ink is plum.
  await expect.poll(() => colours(page).then((c) => c.paper)).toEqual([253, 252, 250]);
  await expect.poll(() => colours(page).then((c) => c.plum)).toBeGreaterThan(200);
  await expectAccessible(page);
  await page.reload();
  await expect(page.getByTestId("room-label").first()).toBeVisible();
  await expect.poll(() => colours(page).then((c) => c.plum)).toBeGreaterThan(200);
  await page.keyboard.press("h");
  await shows.getByRole("button", { name: "hidden" }).click();
  await expect(page.getByRole("button", { name: "How drawings show" })).toContainText("0 of 2 shown");
  await expect.poll(() => colours(page).then((c) => c.plum)).toBe(0);
  for (let i = 0; i < 3; i++) await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("button", { name: "How drawings show" })).toContainText("1 of 2 shown");
  await saved(page);
});

/** Hands a file to the window as the system does when it is dropped or pasted. */
async function hand(page: Page, path: string, name: string, how: "drop" | "paste"): Promise<void> {
  const base64 = readFileSync(path).toString("base64");
  await page.evaluate(
    ([data, fileName, kind]) => {
      const bytes = Uint8Array.from(atob(data), (c) => c.charCodeAt(0));
      const transfer = new DataTransfer();
      transfer.items.add(new File([bytes], fileName, { type: "image/jpeg" }));
      if (kind === "paste") {
        document.body.dispatchEvent(
          new ClipboardEvent("paste", { clipboardData: transfer, bubbles: true, cancelable: true }),
        );
      } else {
        for (const type of ["dragover", "drop"]) {
          document.body.dispatchEvent(new DragEvent(type, { dataTransfer: transfer, bubbles: true, cancelable: true }));
        }
      }
    },
    [base64, name, how] as const,
  );
}

/** The darkest grey value of a part of the board, given in shares of its size. */
function darkest(page: Page, x1: number, y1: number, x2: number, y2: number): Promise<number> {
  return page.evaluate(
    ([a, b, c, d]) => {
      const canvas = document.querySelector<HTMLCanvasElement>("[data-testid=board] canvas");
      const [w, h] = [canvas?.width ?? 1, canvas?.height ?? 1];
      const data = canvas?.getContext("2d")?.getImageData(w * a, h * b, w * (c - a), h * (d - b)).data ?? [];
      let least = 255;
      for (let i = 0; i < data.length; i += 4) least = Math.min(least, data[i] ?? 255);
      return least;
    },
    [x1, y1, x2, y2] as const,
  );
}

/** The most frequent colour of the board, and how many of its pixels are plainly plum. */
function colours(page: Page): Promise<{ paper: number[]; plum: number }> {
  return page.evaluate(() => {
    const canvas = document.querySelector<HTMLCanvasElement>("[data-testid=board] canvas");
    const data =
      canvas?.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height).data ?? new Uint8ClampedArray();
    const counts = new Map<number, number>();
    let plum = 0;
    for (let i = 0; i < data.length; i += 4) {
      const [r = 0, g = 0, b = 0] = data.subarray(i, i + 3);
      const key = (r << 16) | (g << 8) | b;
      counts.set(key, (counts.get(key) ?? 0) + 1);
      if (r - g > 35 && b - g > 25) plum++;
    }
    const [most = 0] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? [];
    return { paper: [most >> 16, (most >> 8) & 255, most & 255], plum };
  });
}

async function middleOf(locator: ReturnType<Page["locator"]>): Promise<{ x: number; y: number }> {
  const box = await locator.boundingBox();
  if (!box) throw new Error("It is not on the screen.");
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

async function clickPart(page: Page, locator: ReturnType<Page["locator"]>, u: number, v: number): Promise<void> {
  const box = await locator.boundingBox();
  if (!box) throw new Error("It is not on the screen.");
  await page.mouse.click(box.x + u * box.width, box.y + v * box.height);
}

async function openDemo(page: Page): Promise<void> {
  await signIn(page);
  await page.getByRole("link", { name: /Sallow Fen/ }).click();
  await expect(page.getByTestId("room-label").filter({ hasText: "Net store" })).toBeVisible();
  await new Hand(page).board();
}

test("a page that lies upside down is turned by what is written on it", async ({ page }, info) => {
  const upside = info.outputPath("upside.jpg");
  execFileSync("vips", ["rot", SCAN, upside, "d180"]);
  await signIn(page);
  await begin(page, "Upside down");
  await page.getByLabel("Drawing file").setInputFiles(upside);
  const ask = page.getByRole("button", { name: "Way up?" });
  await brought(page, ask);
  await ask.click();
  const turn = page.getByRole("button", { name: "Turn it the right way up" });
  await brought(page, turn);
  await expect(page.getByText("By its writing this page lies upside down.")).toBeVisible();
  await expect(ask).toBeHidden();
  await turn.click();
  await expect(page.getByText("By its writing it lies the right way up.")).toBeVisible();
  await expect(turn).toBeHidden();
  await saved(page);
});
