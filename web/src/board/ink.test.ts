import { describe, expect, it } from "vitest";
import { clearPaper, TINT_COLOURS } from "./ink";
import { ExactLines } from "./lines";

function made(levels: number[], lightOnDark = false) {
  return {
    tileSuffix: ".png",
    cuts: [],
    lightOnDark,
    contrast: 200,
    paper: { cell: 128, columns: 2, rows: 2, levels: btoa(String.fromCharCode(...levels)) },
    lines: 0,
    bytes: 0,
  };
}

function alphas(greys: number[], of: ReturnType<typeof made>): { alpha: number[]; colour: number[] } {
  const data = new Uint8ClampedArray(greys.flatMap((g) => [g, g, g, 255]));
  clearPaper(data, greys.length, 1, of, "plum", { left: 0, top: 0, side: 256 });
  return { alpha: greys.map((_, i) => data[4 * i + 3] ?? -1), colour: [...data.subarray(0, 3)] };
}

describe("ink only", () => {
  it("clears the paper, keeps the ink, in one tint", () => {
    const { alpha, colour } = alphas([240, 230, 30], made([240, 240, 240, 240]));
    expect(alpha[0]).toBe(0);
    expect(alpha[1], "Grain is paper.").toBe(0);
    expect(alpha[2]).toBe(255);
    expect(colour).toEqual([...TINT_COLOURS.plum]);
  });

  it("follows the light: what is grey in the sun is paper in the shade", () => {
    expect(alphas([150], made([240, 240, 240, 240])).alpha[0]).toBeGreaterThan(100);
    expect(alphas([150], made([150, 150, 150, 150])).alpha[0]).toBe(0);
  });

  it("takes light lines on a dark ground for ink", () => {
    const { alpha } = alphas([40, 245], made([215, 215, 215, 215], true));
    expect(alpha).toEqual([0, 255]);
  });
});

describe("exact lines", () => {
  const lines = new ExactLines([
    [100, 100, 900, 100],
    [900, 100, 900, 700],
    [50, 50, 50, 50],
  ]);

  it("give their ends first, then the nearest point on them", () => {
    expect(lines.nearest([896, 97], 8)).toEqual({ at: [900, 100], isEnd: true });
    expect(lines.nearest([500, 104], 8)).toEqual({ at: [500, 100], isEnd: false });
    expect(lines.nearest([500, 120], 8)).toBeNull();
    expect(lines.nearest([52, 51], 8)).toEqual({ at: [50, 50], isEnd: true });
  });

  it("have the ends of arcs, and nothing on their chords", () => {
    const arc = new ExactLines([[100, 100, 900, 100, 3, 200]]);
    expect(arc.nearest([103, 98], 8)).toEqual({ at: [100, 100], isEnd: true });
    expect(arc.nearest([500, 101], 8)).toBeNull();
  });
});
