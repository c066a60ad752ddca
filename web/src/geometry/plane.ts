/** Points and rings of a plane. Model: mm, y up. Page: pixels, y down. Screen: CSS pixels from the board's corner. */

export type XY = readonly [number, number];

export function distance(a: XY, b: XY): number {
  return Math.hypot(b[0] - a[0], b[1] - a[1]);
}

export function middle(a: XY, b: XY): XY {
  return [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
}

/** Nearest point of the segment ab, and its distance along it from a. */
export function nearestOn(p: XY, a: XY, b: XY): { at: XY; along: number; off: number; side: number } {
  const length = distance(a, b);
  const ux = (b[0] - a[0]) / length;
  const uy = (b[1] - a[1]) / length;
  const along = Math.max(0, Math.min(length, (p[0] - a[0]) * ux + (p[1] - a[1]) * uy));
  const at: XY = [a[0] + ux * along, a[1] + uy * along];
  return { at, along, off: distance(p, at), side: (p[1] - a[1]) * ux - (p[0] - a[0]) * uy };
}

/** Area of a closed ring without its last corner said twice, positive where it runs counter-clockwise. */
export function ringArea(ring: readonly XY[]): number {
  return ring.reduce((sum, [x, y], i) => {
    const [nx, ny] = ring[(i + 1) % ring.length] ?? [x, y];
    return sum + (x * ny - nx * y) / 2;
  }, 0);
}

/** The angle at a corner between the lines to its two neighbours, degrees from 0 to 180. */
export function turnBetween(before: XY, corner: XY, after: XY): number {
  const [ax, ay] = [before[0] - corner[0], before[1] - corner[1]];
  const [bx, by] = [after[0] - corner[0], after[1] - corner[1]];
  return (Math.atan2(Math.abs(ax * by - ay * bx), ax * bx + ay * by) * 180) / Math.PI;
}

export function contains(ring: readonly (readonly number[])[], [x, y]: XY): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [xi = 0, yi = 0] = ring[i] ?? [];
    const [xj = 0, yj = 0] = ring[j] ?? [];
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
  }
  return inside;
}

/**
 * Holds a direction square to the model's grid, or at half a right angle, when it is within the tolerance; or to a grid that is
 * turned, along or across it.
 *
 * @param turn of that grid, radians from x; 0 for the model's
 * @returns the held end and the words for it, or null
 */
export function heldSquare(from: XY, to: XY, toleranceRad: number, turn = 0): { at: XY; words: string } | null {
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0]) - turn;
  const part = turn === 0 ? Math.PI / 4 : Math.PI / 2;
  const step = Math.round(angle / part);
  if (Math.abs(angle - step * part) > toleranceRad) return null;
  const ux = Math.cos(step * part + turn);
  const uy = Math.sin(step * part + turn);
  const along = (to[0] - from[0]) * ux + (to[1] - from[1]) * uy;
  if (turn !== 0) {
    const words = step % 2 === 0 ? "along the wing" : "across the wing";
    return { at: [from[0] + ux * along, from[1] + uy * along], words };
  }
  const words = step % 2 === 0 ? (step % 4 === 0 ? "square, along x" : "square, along y") : "at 45°";
  return { at: [from[0] + ux * along, from[1] + uy * along], words };
}

/** A round step of 1, 2 or 5 × 10ⁿ mm that takes at least `least` screen pixels. */
export function roundStep(k: number, least: number): number {
  const raw = least / k;
  const ten = 10 ** Math.floor(Math.log10(raw));
  return [1, 2, 5, 10].map((f) => f * ten).find((s) => s >= raw) ?? 10 * ten;
}

/** The middle of an arc as equal chords, or of a straight line. */
export function middleOfChain(chain: readonly XY[]): XY {
  const half = (chain.length - 1) / 2;
  return middle(chain[Math.floor(half)] ?? [0, 0], chain[Math.ceil(half)] ?? [0, 0]);
}
