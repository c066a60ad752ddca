import { describe, expect, it } from "vitest";
import { highestLevel, levelFor } from "./picture";

describe("tile levels", () => {
  it("end where one tile holds the page", () => {
    expect(highestLevel(3307, 2339)).toBe(4);
    expect(highestLevel(256, 100)).toBe(0);
    expect(highestLevel(257, 100)).toBe(1);
    expect(highestLevel(9933, 7016)).toBe(6);
  });

  it("never show fewer pixels than the screen has, within a fifth", () => {
    for (const zoom of [0.05, 0.12, 0.25, 0.3, 0.5, 0.99, 1, 4]) {
      const level = levelFor(zoom, 4);
      expect(2 ** (level - 4)).toBeGreaterThanOrEqual(Math.min(1, zoom) * 0.8);
      expect(2 ** (level - 4)).toBeLessThanOrEqual(Math.max(zoom * 2, 1 / 16));
    }
  });
});
