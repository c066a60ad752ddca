import { affineAt, apply, inverse, type Map2, type PageMap, scaleOf } from "./maps";
import type { XY } from "./plane";

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

/** Whether anything of what lies between the points is seen. */
export function inSight(view: View, size: Size, points: readonly XY[]): boolean {
  const [w, h] = [size.width / 2 / view.k, size.height / 2 / view.k];
  const beyond = (i: 0 | 1, middle: number, half: number) =>
    points.every((p) => p[i] < middle - half) || points.every((p) => p[i] > middle + half);
  return points.length > 0 && !beyond(0, view.x, w) && !beyond(1, view.y, h);
}

/** The view under a new fit in which the picture lies where it lay: nothing jumps when the scale becomes known. */
export function viewUnder(view: View, old: PageMap, next: PageMap): View {
  const page = apply(inverse(old), [view.x, view.y]);
  const [x, y] = apply(next, page);
  return { x, y, k: (view.k * scaleOf(affineAt(old, page))) / scaleOf(affineAt(next, page)) };
}
