import { describe, expect, it } from "vitest";
import { drawnOf } from "./forms";

/** 4 × 0.2 × 3 m with a window through it, as the core tells it: each face its rings, the hole the other way round. */
const corners = (x1: number, x2: number, z1: number, z2: number, y: number) =>
  [
    [x1, y, z1],
    [x2, y, z1],
    [x2, y, z2],
    [x1, y, z2],
  ].flat();
const vertices = [
  ...corners(0, 4000, 0, 3000, 0),
  ...corners(0, 4000, 0, 3000, 200),
  ...corners(1000, 2000, 900, 2100, 0),
  ...corners(1000, 2000, 900, 2100, 200),
];
const face = (...rings: number[][]) => [rings.length, ...rings.flatMap((r) => [r.length, ...r])];
const wall = {
  vertices,
  faces: [
    face([0, 1, 2, 3], [8, 11, 10, 9]),
    face([5, 4, 7, 6], [13, 14, 15, 12]),
    face([1, 0, 4, 5]),
    face([2, 1, 5, 6]),
    face([3, 2, 6, 7]),
    face([0, 3, 7, 4]),
    face([8, 9, 13, 12]),
    face([9, 10, 14, 13]),
    face([10, 11, 15, 14]),
    face([11, 8, 12, 15]),
  ].flat(),
};

describe("a form as it is drawn", () => {
  it("is closed by triangles that look outward: they hold what is solid", () => {
    const { triangles } = drawnOf(wall);
    let volume = 0;
    for (let i = 0; i < triangles.length; i += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => {
        const v = 3 * (triangles[i + k] ?? 0);
        return [vertices[v] ?? 0, vertices[v + 1] ?? 0, vertices[v + 2] ?? 0] as const;
      });
      if (!a || !b || !c) continue;
      volume +=
        (a[0] * (b[1] * c[2] - b[2] * c[1]) - a[1] * (b[0] * c[2] - b[2] * c[0]) + a[2] * (b[0] * c[1] - b[1] * c[0])) /
        6e9;
    }
    expect(volume).toBeCloseTo((4 * 3 - 1 * 1.2) * 0.2, 9);
  });

  it("has a line wherever faces meet at an angle, each once", () => {
    expect(drawnOf(wall).creases).toHaveLength(2 * 24);
  });

  it("has none where faces run on", () => {
    const roof = {
      vertices: [0, 0, 0, 1000, 0, 0, 2000, 0, 0, 2000, 1000, 0, 1000, 1000, 0, 0, 1000, 0],
      faces: [...face([0, 1, 4, 5]), ...face([1, 2, 3, 4])],
    };
    expect(drawnOf(roof).creases).toHaveLength(0);
    expect(drawnOf(roof).triangles).toHaveLength(12);
  });

  it("is cut up once", () => {
    expect(drawnOf(wall)).toBe(drawnOf(wall));
  });
});
