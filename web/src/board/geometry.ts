/** Plane geometry of the board. Model: mm, y up. Page: pixels, y down. Screen: CSS pixels from the board's corner. */

export type XY = readonly [number, number];

/** 2 × 3 of an affine map, row by row. */
export type Map2 = readonly [number, number, number, number, number, number];

/** What a lens does to a picture: r → r / (1 + k r²) about its centre takes it back, page pixels. */
interface Lens {
  k: number;
  centre: XY;
}

/** A page as a camera saw it: first the lens is taken back, then a homography; the other way round for its inverse. */
export interface Slanted {
  /** 3 × 3, row by row */
  m: readonly number[];
  straightened: Lens | null;
  bent: Lens | null;
}

export type PageMap = Map2 | Slanted;

export interface Fit9 {
  m00: number;
  m01: number;
  m02: number;
  m10: number;
  m11: number;
  m12: number;
  m20?: number;
  m21?: number;
  m22?: number;
  lensK?: number | null;
  lensX?: number | null;
  lensY?: number | null;
}

export function mapOf(fit: Fit9): PageMap {
  const { m20 = 0, m21 = 0, m22 = 1, lensK = null } = fit;
  const flat: Map2 = [fit.m00, fit.m01, fit.m02, fit.m10, fit.m11, fit.m12];
  if (m20 === 0 && m21 === 0 && lensK === null) return flat;
  const lens: Lens | null = lensK === null ? null : { k: lensK, centre: [fit.lensX ?? 0, fit.lensY ?? 0] };
  return { m: [...flat, m20, m21, m22], straightened: lens, bent: null };
}

export function isSlanted(map: PageMap): map is Slanted {
  return "m" in map;
}

function straight({ k, centre }: Lens, [x, y]: XY): XY {
  const [dx, dy] = [x - centre[0], y - centre[1]];
  const w = 1 + k * (dx * dx + dy * dy);
  return [centre[0] + dx / w, centre[1] + dy / w];
}

function bent({ k, centre }: Lens, [x, y]: XY): XY {
  const [dx, dy] = [x - centre[0], y - centre[1]];
  const f = 2 / (1 + Math.sqrt(Math.max(0, 1 - 4 * k * (dx * dx + dy * dy))));
  return [centre[0] + f * dx, centre[1] + f * dy];
}

export function apply(map: PageMap, at: XY): XY {
  if (!isSlanted(map)) return [map[0] * at[0] + map[1] * at[1] + map[2], map[3] * at[0] + map[4] * at[1] + map[5]];
  const [x, y] = map.straightened ? straight(map.straightened, at) : at;
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, h = 0, i = 1] = map.m;
  const w = g * x + h * y + i;
  const to: XY = [(a * x + b * y + c) / w, (d * x + e * y + f) / w];
  return map.bent ? bent(map.bent, to) : to;
}

export function inverse(map: Map2): Map2;
export function inverse(map: PageMap): PageMap;
export function inverse(map: PageMap): PageMap {
  if (isSlanted(map)) {
    const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, h = 0, i = 1] = map.m;
    // The adjugate serves: homogeneous coordinates do not care about its factor.
    const m = [
      e * i - f * h,
      c * h - b * i,
      b * f - c * e,
      f * g - d * i,
      a * i - c * g,
      c * d - a * f,
      d * h - e * g,
      b * g - a * h,
      a * e - b * d,
    ];
    return { m, straightened: map.bent, bent: map.straightened };
  }
  const d = map[0] * map[4] - map[1] * map[3];
  return [
    map[4] / d,
    -map[1] / d,
    (map[1] * map[5] - map[2] * map[4]) / d,
    -map[3] / d,
    map[0] / d,
    (map[2] * map[3] - map[0] * map[5]) / d,
  ];
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

/** The affine map that does near a point what this one does there. */
export function affineAt(map: PageMap, at: XY): Map2 {
  if (!isSlanted(map)) return map;
  const [x, y] = apply(map, at);
  const [rx, ry] = apply(map, [at[0] + 0.5, at[1]]);
  const [lx, ly] = apply(map, [at[0] - 0.5, at[1]]);
  const [dx, dy] = apply(map, [at[0], at[1] + 0.5]);
  const [ux, uy] = apply(map, [at[0], at[1] - 0.5]);
  const [a, b, d, e] = [rx - lx, dx - ux, ry - ly, dy - uy];
  return [a, b, x - a * at[0] - b * at[1], d, e, y - d * at[0] - e * at[1]];
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
export function viewUnder(view: View, old: PageMap, next: PageMap): View {
  const page = apply(inverse(old), [view.x, view.y]);
  const [x, y] = apply(next, page);
  return { x, y, k: (view.k * scaleOf(affineAt(old, page))) / scaleOf(affineAt(next, page)) };
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
