import { describe, expect, it } from "vitest";
import { ghostRing } from "./ghost";

const rounded = (ring: ReturnType<typeof ghostRing>) => ring?.map(([x, y]) => [Math.round(x) || 0, Math.round(y) || 0]);

describe("the size ghost", () => {
  it("lies round the pointer until a corner is picked", () => {
    expect(rounded(ghostRing([400, 200], { a: undefined, b: undefined, beyond: [0, 0] }, 0))).toEqual([
      [-200, -100],
      [200, -100],
      [200, 100],
      [-200, 100],
    ]);
    expect(ghostRing([400, 200], { a: undefined, b: undefined, beyond: null }, 0)).toBeNull();
  });

  it("opens from the corner toward the pointer, with the drawing's grid", () => {
    expect(rounded(ghostRing([400, 200], { a: [0, 0], b: undefined, beyond: [-1, 1] }, 0))?.[2]).toEqual([-400, 200]);
    expect(rounded(ghostRing([400, 200], { a: [0, 0], b: undefined, beyond: [-1, 5] }, Math.PI / 2))?.[1]).toEqual([
      0, 400,
    ]);
  });

  it("follows the side that is picked, and lies on the side where the room is", () => {
    expect(rounded(ghostRing([400, 200], { a: [0, 0], b: [0, -50], beyond: [9, -9] }, 0))).toEqual([
      [0, 0],
      [0, -400],
      [200, -400],
      [200, 0],
    ]);
  });
});
