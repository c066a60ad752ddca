import type { XY } from "./plane";

/**
 * Lines of equal value over evenly spaced values, by marching squares; coordinates count columns and rows.
 *
 * @param values row by row
 */
export function contours(
  values: readonly number[],
  columns: number,
  rows: number,
  levels: readonly number[],
): { value: number; lines: (readonly [XY, XY])[] }[] {
  return levels.map((value) => {
    const lines: (readonly [XY, XY])[] = [];
    for (let j = 0; j + 1 < rows; j++) {
      for (let i = 0; i + 1 < columns; i++) {
        const corner = (di: number, dj: number) => values[(j + dj) * columns + i + di] ?? 0;
        const at: XY[] = [];
        for (const [a, b] of EDGES) {
          const [va, vb] = [corner(a[0], a[1]), corner(b[0], b[1])];
          if (va < value === vb < value) continue;
          const t = (value - va) / (vb - va);
          at.push([i + a[0] + t * (b[0] - a[0]), j + a[1] + t * (b[1] - a[1])]);
        }
        // Two crossings make a piece; at a saddle four make two.
        for (let k = 0; k + 1 < at.length; k += 2) lines.push([at[k] as XY, at[k + 1] as XY]);
      }
    }
    return { value, lines };
  });
}

/** Round the cell, so that at a saddle neighbouring edges belong together. */
const EDGES = [
  [
    [0, 0],
    [1, 0],
  ],
  [
    [1, 0],
    [1, 1],
  ],
  [
    [1, 1],
    [0, 1],
  ],
  [
    [0, 1],
    [0, 0],
  ],
] as const;
