import { describe, expect, it } from "vitest";
import { apply, inverse, type Map2, mapOf, type PageMap } from "../board/geometry";
import { lies, type Rectified } from "./rectified";

const FIT = { m00: 5, m01: 0, m02: 0, m10: 0, m11: -5, m12: 9000, m20: 1e-5, m21: -4e-5, m22: 1 };
const PICTURE: Map2 = [4.8, 0, 120, 0, -4.8, 8800];

const picture = (under: PageMap): Rectified => ({ shape: "s", width: 2000, height: 1500, pixelToMm: PICTURE, under });

describe("a straightened picture", () => {
  it("lies where it was told while the fit stays", () => {
    for (const [i, v] of lies(picture(mapOf(FIT)), mapOf(FIT)).entries()) expect(v).toBeCloseTo(PICTURE[i] ?? 0, 6);
  });

  it("moves, turns and scales with its drawing at once, without a new picture", () => {
    const [c, s, k] = [Math.cos(0.3), Math.sin(0.3), 1.02];
    const m = (a: number, b: number, g: number) => ({
      x: k * (c * a - s * b) + 500 * g,
      y: k * (s * a + c * b) - 40 * g,
    });
    const moved = mapOf({
      ...FIT,
      m00: m(5, 0, 1e-5).x,
      m10: m(5, 0, 1e-5).y,
      m01: m(0, -5, -4e-5).x,
      m11: m(0, -5, -4e-5).y,
      m02: m(0, 9000, 1).x,
      m12: m(0, 9000, 1).y,
    });
    const now = lies(picture(mapOf(FIT)), moved);
    for (const p of [
      [0, 0],
      [1900, 1400],
      [1000, 20],
    ] as const) {
      const page = apply(inverse(mapOf(FIT)), apply(PICTURE, p));
      const [x, y] = apply(moved, page);
      expect(apply(now, p)[0]).toBeCloseTo(x, 5);
      expect(apply(now, p)[1]).toBeCloseTo(y, 5);
    }
  });
});
