/** Plane geometry of the board. Model: mm, y up. Page: pixels, y down. Screen: CSS pixels from the board's corner. */

export type XY = readonly [number, number];

/** 2 × 3 of an affine map, row by row. */
export type Map2 = readonly [number, number, number, number, number, number];

export interface Fit9 {
  m00: number;
  m01: number;
  m02: number;
  m10: number;
  m11: number;
  m12: number;
}

export function mapOf(fit: Fit9): Map2 {
  return [fit.m00, fit.m01, fit.m02, fit.m10, fit.m11, fit.m12];
}

export function apply(m: Map2, [x, y]: XY): XY {
  return [m[0] * x + m[1] * y + m[2], m[3] * x + m[4] * y + m[5]];
}

export function inverse(m: Map2): Map2 {
  const d = m[0] * m[4] - m[1] * m[3];
  return [m[4] / d, -m[1] / d, (m[1] * m[5] - m[2] * m[4]) / d, -m[3] / d, m[0] / d, (m[2] * m[3] - m[0] * m[5]) / d];
}

/** First b, then a. */
export function composed(a: Map2, b: Map2): Map2 {
  return [
    a[0] * b[0] + a[1] * b[3],
    a[0] * b[1] + a[1] * b[4],
    a[0] * b[2] + a[1] * b[5] + a[2],
    a[3] * b[0] + a[4] * b[3],
    a[3] * b[1] + a[4] * b[4],
    a[3] * b[2] + a[4] * b[5] + a[5],
  ];
}

export function scaleOf(m: Map2): number {
  return Math.sqrt(Math.abs(m[0] * m[4] - m[1] * m[3]));
}

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

export function contains(ring: readonly (readonly number[])[], [x, y]: XY): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [xi = 0, yi = 0] = ring[i] ?? [];
    const [xj = 0, yj = 0] = ring[j] ?? [];
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
  }
  return inside;
}

/** Where the board looks: the model point in its middle, and screen pixels per millimetre. */
export interface View {
  x: number;
  y: number;
  k: number;
}

export interface Size {
  width: number;
  height: number;
}

export function toScreen(view: View, size: Size): Map2 {
  return [view.k, 0, size.width / 2 - view.k * view.x, 0, -view.k, size.height / 2 + view.k * view.y];
}

/** Zooms by a factor so that the model point under the pointer stays there. */
export function zoomAt(view: View, size: Size, pointer: XY, factor: number): View {
  const k = Math.max(1e-4, Math.min(20, view.k * factor));
  const [mx, my] = apply(inverse(toScreen(view, size)), pointer);
  return { k, x: mx - (pointer[0] - size.width / 2) / k, y: my + (pointer[1] - size.height / 2) / k };
}

/** The view that shows all the points with a margin. */
export function viewOf(points: readonly XY[], size: Size, margin = 56): View | null {
  if (points.length === 0) return null;
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const [x1, x2, y1, y2] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const k = Math.min(
    Math.max(40, size.width - 2 * margin) / Math.max(1, x2 - x1),
    Math.max(40, size.height - 2 * margin) / Math.max(1, y2 - y1),
  );
  return { x: (x1 + x2) / 2, y: (y1 + y2) / 2, k };
}

/** The view under a new fit in which the picture lies where it lay: nothing jumps when the scale becomes known. */
export function viewUnder(view: View, old: Map2, next: Map2): View {
  const [x, y] = apply(composed(next, inverse(old)), [view.x, view.y]);
  return { x, y, k: (view.k * scaleOf(old)) / scaleOf(next) };
}

/**
 * Holds a direction square to the model's grid, or at half a right angle, when it is within the tolerance.
 *
 * @returns the held end and the words for it, or null
 */
export function heldSquare(from: XY, to: XY, toleranceRad: number): { at: XY; words: string } | null {
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const step = Math.round(angle / (Math.PI / 4));
  if (Math.abs(angle - (step * Math.PI) / 4) > toleranceRad) return null;
  const ux = Math.cos((step * Math.PI) / 4);
  const uy = Math.sin((step * Math.PI) / 4);
  const along = (to[0] - from[0]) * ux + (to[1] - from[1]) * uy;
  const words = step % 2 === 0 ? (step % 4 === 0 ? "square, along x" : "square, along y") : "at 45°";
  return { at: [from[0] + ux * along, from[1] + uy * along], words };
}

/** A round step of 1, 2 or 5 × 10ⁿ mm that takes at least `least` screen pixels. */
export function roundStep(k: number, least: number): number {
  const raw = least / k;
  const ten = 10 ** Math.floor(Math.log10(raw));
  return [1, 2, 5, 10].map((f) => f * ten).find((s) => s >= raw) ?? 10 * ten;
}
