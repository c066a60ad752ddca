import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";

const demo = (name: string) => fileURLToPath(new URL(`../demo/${name}`, import.meta.url));

/** The ground floor as it hangs in the office, the same scanned anew, and a sheet of four drawings. */
export const SCAN = demo("sallow-fen-ground.jpg");
export const ANEW = demo("scanner/ground floor anew.jpg");
/** Its south side as a photograph taken at a slant, and a sketch of its site. */
export const FACADE = demo("station-south-side.jpg");
export const SITE = demo("station-site-sketch.jpg");
export const SHEET = demo("scanner/sheet 3 loft roof elevation section.jpg");

type XY = readonly [number, number];

export interface Truth {
  size: [number, number];
  mmPerPixel: number;
  pixelToMm: number[][];
  rooms: { name: string; netArea: number }[];
  walls: { id: string; from: XY; to: XY }[];
  openings: { wall: string; kind: string; offset: number; width: number }[];
}

const truthOf = <T>(name: string): T & Truth => JSON.parse(readFileSync(demo(`${name}.truth.json`), "utf8"));

export const truth = truthOf("sallow-fen-ground");
export const facade = truthOf("station-south-side");
export const site = truthOf<{ boundary: XY[]; legs: { bearing: string; length: string }[] }>("station-site-sketch");

/** Where a true point lies on the picture, page pixels. */
export function pixelOf([x, y]: XY, of: Truth = truth): XY {
  const [[a = 0, b = 0, c = 0] = [], [d = 0, e = 0, f = 0] = [], [g = 0, h = 0, i = 1] = []] = of.pixelToMm;
  // The adjugate serves: homogeneous coordinates do not care about its factor.
  const w = (d * h - e * g) * x + (b * g - a * h) * y + (a * e - b * d);
  const u = (e * i - f * h) * x + (c * h - b * i) * y + (b * f - c * e);
  const v = (f * g - d * i) * x + (a * i - c * g) * y + (c * d - a * f);
  return [u / w, v / w];
}

/** A hand that sees the scan on the screen: knows two marks on the glass and finds every other point by them. */
export class Hand {
  private from: { px: XY; at: XY }[] = [];
  /** whether it sees the picture as it was taken, or straightened, where millimetres count */
  private straight = false;
  clicks = 0;

  constructor(
    readonly page: Page,
    readonly of: Truth = truth,
  ) {}

  private see(point: XY): XY {
    return this.straight ? [point[0], -point[1]] : pixelOf(point, this.of);
  }

  /** With the whole unturned page in view, its middle lies in the middle of the board. */
  async seesWholePage(): Promise<void> {
    const box = await this.board();
    const [w, h] = this.of.size;
    const k = Math.min((box.width - 24) / w, (box.height - 24) / h);
    const [mx, my] = [box.x + box.width / 2, box.y + box.height / 2];
    this.from = [
      { px: [w / 2, h / 2], at: [mx, my] },
      { px: [w / 2 + 100, h / 2], at: [mx + 100 * k, my] },
    ];
  }

  /** After the picture was turned: by the end rings of the grid line along the south face. */
  async seesGridLine(a: XY = [0, 0], b: XY = [13200, 0], straight = false): Promise<void> {
    this.straight = straight;
    const rings = this.page.locator("svg g[stroke='#0f4f4b'] circle");
    const middle = async (i: number): Promise<XY> => {
      const box = await rings.nth(i).boundingBox();
      if (!box) throw new Error("The grid line is not on the screen.");
      return [box.x + box.width / 2, box.y + box.height / 2];
    };
    this.from = [
      { px: this.see(a), at: await middle(0) },
      { px: this.see(b), at: await middle(1) },
    ];
  }

  at(point: XY): XY {
    const px = this.see(point);
    const [a, b] = this.from;
    if (!a || !b) throw new Error("The hand has not looked yet.");
    const [ux, uy] = [b.px[0] - a.px[0], b.px[1] - a.px[1]];
    const [vx, vy] = [b.at[0] - a.at[0], b.at[1] - a.at[1]];
    const n = ux * ux + uy * uy;
    const [c, s] = [(vx * ux + vy * uy) / n, (vy * ux - vx * uy) / n];
    const [dx, dy] = [px[0] - a.px[0], px[1] - a.px[1]];
    return [a.at[0] + c * dx - s * dy, a.at[1] + s * dx + c * dy];
  }

  /** A mouse stands on whole pixels. */
  async click(point: XY): Promise<void> {
    const [x, y] = this.at(point).map(Math.round) as [number, number];
    await this.page.mouse.move(x, y);
    await this.page.mouse.click(x, y);
    this.clicks++;
  }

  /** Rests until the ink says what is there, then clicks. */
  async clickInk(point: XY): Promise<void> {
    const [x, y] = this.at(point).map(Math.round) as [number, number];
    await this.page.mouse.move(x, y);
    await expect(this.page.getByTestId("pointer-words")).toContainText("on the scan");
    await this.page.mouse.click(x, y);
    this.clicks++;
  }

  /** Goes closer with the wheel, clicks the pixel nearest to the point, and goes back. */
  async clickClose(point: XY): Promise<void> {
    const target = this.at(point);
    const [x, y] = target.map(Math.round) as [number, number];
    const turn = 1000;
    const closer = Math.exp(turn * 0.0016);
    await this.page.mouse.move(x, y);
    await this.page.mouse.wheel(0, -turn);
    await this.page.waitForTimeout(60);
    await this.page.mouse.click(Math.round(x + (target[0] - x) * closer), Math.round(y + (target[1] - y) * closer));
    await this.page.mouse.move(x, y);
    await this.page.mouse.wheel(0, turn);
    await this.page.waitForTimeout(60);
  }

  async board() {
    const box = await this.page.getByTestId("board").boundingBox();
    if (!box) throw new Error("There is no board.");
    return box;
  }
}

export async function signIn(page: Page): Promise<void> {
  await page.goto("/");
  await page.getByRole("button", { name: "Open the demo" }).click();
  await page.getByRole("heading", { name: "Projects" }).waitFor();
}

export async function begin(page: Page, name: string): Promise<void> {
  await page.getByLabel("Name").fill(name);
  await page.getByRole("button", { name: "Begin" }).click();
  await page.getByText("Drop a drawing here").waitFor();
}

export async function saved(page: Page): Promise<void> {
  await page
    .getByTestId("saved")
    .getByText(/^saved/)
    .waitFor();
}

/** Nothing serious for axe. */
export async function expectAccessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  const serious = violations.filter((v) => v.impact === "serious" || v.impact === "critical");
  expect(serious.map((v) => `${v.id}: ${v.nodes[0]?.html}`)).toEqual([]);
}
