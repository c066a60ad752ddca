import { expect, it } from "vitest";
import { onMap, worldFile, worldText } from "./taken";

it("says where the middle of each pixel lies, y upwards, as world files have it", () => {
  const world = worldFile({ x: 5000, y: 3000, k: 0.1 }, { width: 800, height: 600 }, 4);
  // A pixel of the board is 10 mm, one of the picture a quarter of that.
  expect(world).toEqual([2.5, 0, 0, -2.5, 5000 - 4000 + 1.25, 3000 + 3000 - 1.25]);
  expect(worldText(world).split("\n")).toEqual(["2.5", "0", "0", "-2.5", "1001.25", "5998.75", ""]);
});

it("lies in the map as the plan does: moved, turned by a quarter, a little enlarged", () => {
  const lies = { east: 431_200, north: 5_402_100, degrees: 90, scale: 1.0004 };
  const world = onMap([2, 0, 0, -2, 1000, 3000], lies);
  const expected = [0, 0.0020008, 0.0020008, 0, 431_200 - 3.0012, 5_402_100 + 1.0004];
  world.forEach((n, i) => void expect(n).toBeCloseTo(expected[i] ?? Number.NaN, 9));
});
