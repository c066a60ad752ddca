import type { XY } from "../../../geometry/plane";

/**
 * Corners of the ghost in the model.
 *
 * @param at its first corner, a point of the side that runs from it, and a point that it opens toward; with no corner yet it lies round
 *   that point
 * @param gridRad direction of the drawing's x in the model
 */
export function ghostRing(
  [w, d]: readonly [number, number],
  at: { a: XY | undefined; b: XY | undefined; beyond: XY | null },
  gridRad: number,
): XY[] | null {
  const { a, b, beyond } = at;
  const [c, s] = [Math.cos(gridRad), Math.sin(gridRad)];
  let [ux, uy] = [c, s];
  let [vx, vy] = [-s, c];
  if (!a)
    return beyond
      ? ringFrom([beyond[0] - (ux * w + vx * d) / 2, beyond[1] - (uy * w + vy * d) / 2], [ux, uy], [vx, vy], w, d)
      : null;
  if (b) {
    const span = Math.max(1e-9, Math.hypot(b[0] - a[0], b[1] - a[1]));
    [ux, uy] = [(b[0] - a[0]) / span, (b[1] - a[1]) / span];
    [vx, vy] = [-uy, ux];
  }
  const [px, py] = beyond ? [beyond[0] - a[0], beyond[1] - a[1]] : [ux + vx, uy + vy];
  if (!b && px * ux + py * uy < 0) [ux, uy] = [-ux, -uy];
  if (px * vx + py * vy < 0) [vx, vy] = [-vx, -vy];
  return ringFrom(a, [ux, uy], [vx, vy], w, d);
}

function ringFrom([x, y]: XY, [ux, uy]: XY, [vx, vy]: XY, w: number, d: number): XY[] {
  return [
    [x, y],
    [x + ux * w, y + uy * w],
    [x + ux * w + vx * d, y + uy * w + vy * d],
    [x + vx * d, y + vy * d],
  ];
}
