import type { XY } from "./plane";

/** 2 × 3 of an affine map, row by row. */
export type Map2 = readonly [number, number, number, number, number, number];

/** What a lens does to a picture: r → r / (1 + k r²) about its centre takes it back, page pixels. */
interface Bend {
  k: number;
  centre: XY;
}

/** A page as a camera saw it: first the lens is taken back, then a homography; the other way round for its inverse. */
export interface Slanted {
  /** 3 × 3, row by row */
  m: readonly number[];
  straightened: Bend | null;
  bent: Bend | null;
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
  const lens: Bend | null = lensK === null ? null : { k: lensK, centre: [fit.lensX ?? 0, fit.lensY ?? 0] };
  return { m: [...flat, m20, m21, m22], straightened: lens, bent: null };
}

export function isSlanted(map: PageMap): map is Slanted {
  return "m" in map;
}

function straight({ k, centre }: Bend, [x, y]: XY): XY {
  const [dx, dy] = [x - centre[0], y - centre[1]];
  const w = 1 + k * (dx * dx + dy * dy);
  return [centre[0] + dx / w, centre[1] + dy / w];
}

function bent({ k, centre }: Bend, [x, y]: XY): XY {
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
