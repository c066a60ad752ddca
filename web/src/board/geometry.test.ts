import { describe, expect, it } from "vitest";
import {
  apply,
  composed,
  heldSquare,
  inverse,
  type Map2,
  nearestOn,
  roundStep,
  scaleOf,
  toScreen,
  type View,
  viewOf,
  viewUnder,
  type XY,
  zoomAt,
} from "./geometry";

const SIZE = { width: 730, height: 700 };
const VIEW: View = { x: 1000, y: -400, k: 0.07 };

describe("the board's view", () => {
  it("keeps the point under the pointer while it zooms", () => {
    const pointer: XY = [610, 33];
    const before = apply(inverse(toScreen(VIEW, SIZE)), pointer);
    const after = apply(inverse(toScreen(zoomAt(VIEW, SIZE, pointer, 3.7), SIZE)), pointer);
    expect(after[0]).toBeCloseTo(before[0], 9);
    expect(after[1]).toBeCloseTo(before[1], 9);
  });

  it("shows all that it is asked to show, with its margin", () => {
    const points: XY[] = [
      [0, 0],
      [12000, 300],
      [4000, 9000],
    ];
    const view = viewOf(points, SIZE, 40);
    expect(view).not.toBeNull();
    for (const p of points) {
      const [x, y] = apply(toScreen(view as View, SIZE), p);
      expect(x).toBeGreaterThanOrEqual(39.999);
      expect(x).toBeLessThanOrEqual(SIZE.width - 39.999);
      expect(y).toBeGreaterThanOrEqual(39.999);
      expect(y).toBeLessThanOrEqual(SIZE.height - 39.999);
    }
    expect(viewOf([], SIZE)).toBeNull();
  });

  it("leaves the picture where it lay when the scale becomes known", () => {
    const guess: Map2 = [12.7, 0, 0, 0, -12.7, 29000];
    const fit: Map2 = [6.35, 0, 10500, 0, -6.35, 22000];
    const px: XY = [640, 1846];
    const before = apply(composed(toScreen(VIEW, SIZE), guess), px);
    const now = apply(composed(toScreen(viewUnder(VIEW, guess, fit), SIZE), fit), px);
    expect(now[0]).toBeCloseTo(before[0], 6);
    expect(now[1]).toBeCloseTo(before[1], 6);
  });
});

describe("maps", () => {
  it("are undone by their inverse", () => {
    const map: Map2 = [6.1, -0.4, 300, -0.4, -6.1, 9000];
    const [x, y] = apply(composed(inverse(map), map), [123.4, 567.8]);
    expect(x).toBeCloseTo(123.4, 9);
    expect(y).toBeCloseTo(567.8, 9);
    expect(scaleOf(map)).toBeCloseTo(Math.hypot(6.1, 0.4), 9);
  });
});

describe("hold square", () => {
  it("holds what is nearly square and nearly half way, and nothing else", () => {
    expect(heldSquare([0, 0], [1000, 20], 0.05)).toEqual({ at: [1000, 0], words: "square, along x" });
    expect(heldSquare([0, 0], [-15, -900], 0.05)?.words).toBe("square, along y");
    expect(heldSquare([0, 0], [700, 720], 0.05)?.words).toBe("at 45°");
    expect(heldSquare([0, 0], [1000, 400], 0.05)).toBeNull();
  });
});

describe("nearest point of a wall", () => {
  it("stays between the ends and says the side", () => {
    expect(nearestOn([500, 80], [0, 0], [1000, 0])).toEqual({ at: [500, 0], along: 500, off: 80, side: 80 });
    expect(nearestOn([1500, -30], [0, 0], [1000, 0]).along).toBe(1000);
  });
});

describe("round steps", () => {
  it("are 1, 2 or 5 times a power of ten and long enough to see", () => {
    for (const k of [0.001, 0.0137, 0.05, 0.4, 3]) {
      const step = roundStep(k, 60);
      expect(step * k).toBeGreaterThanOrEqual(60);
      expect(step * k).toBeLessThan(60 * 2.51);
      expect([1, 2, 5]).toContain(Math.round(step / 10 ** Math.floor(Math.log10(step) + 1e-9)));
    }
  });
});
