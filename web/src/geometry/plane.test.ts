import { describe, expect, it } from "vitest";
import { affineAt, apply, composed, inverse, isSlanted, type Map2, mapOf, scaleOf } from "./maps";
import { heldSquare, nearestOn, ringArea, roundStep, turnBetween, type XY } from "./plane";
import { toScreen, type View, viewOf, viewUnder, zoomAt } from "./view";

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

describe("a photograph's map", () => {
  const FIT = {
    ...{ m00: 5, m01: 0.1, m02: -700, m10: 0.2, m11: -5.1, m12: 9000, m20: 2e-5, m21: -6e-5, m22: 1 },
    ...{ lensK: -0.04 / 1800 ** 2, lensX: 1500, lensY: 1000 },
  };

  it("goes there and back, lens and all", () => {
    for (const fit of [FIT, { ...FIT, lensK: null, lensX: null, lensY: null }]) {
      const map = mapOf(fit);
      expect(isSlanted(map)).toBe(true);
      for (const p of [
        [0, 0],
        [2900, 1950],
        [1500, 1000],
      ] as const) {
        const back = apply(inverse(map), apply(map, p));
        expect(back[0]).toBeCloseTo(p[0], 6);
        expect(back[1]).toBeCloseTo(p[1], 6);
      }
    }
  });

  it("is like its affine map near a place and unlike it far off", () => {
    const map = mapOf(FIT);
    const near = affineAt(map, [700, 600]);
    const off = (p: XY) => Math.hypot(apply(near, p)[0] - apply(map, p)[0], apply(near, p)[1] - apply(map, p)[1]);
    expect(off([701, 602])).toBeLessThan(0.01);
    expect(off([2700, 1800])).toBeGreaterThan(50);
  });

  it("leaves a flat page's map as it is", () => {
    const map = mapOf({ ...FIT, m20: 0, m21: 0, lensK: null });
    expect(isSlanted(map)).toBe(false);
    expect(apply(map, [1, 1])).toEqual([5 + 0.1 - 700, 0.2 - 5.1 + 9000]);
  });
});

describe("rings and corners", () => {
  it("have areas that are positive counter-clockwise, and angles on either side", () => {
    const ring = [
      [0, 0],
      [4, 0],
      [4, 3],
    ] as const;
    expect(ringArea(ring)).toBe(6);
    expect(ringArea([...ring].reverse())).toBe(-6);
    expect(turnBetween([4, 0], [0, 0], [0, 5])).toBeCloseTo(90);
    expect(turnBetween([4, 0], [0, 0], [3, -3])).toBeCloseTo(45);
    expect(turnBetween([4, 0], [0, 0], [-1, 0])).toBeCloseTo(180);
  });
});
