import type { Place3 } from "./camera";

/** A place that was pointed at, and what of the body it holds to; metres. */
export interface Taken {
  at: Place3;
  on: "corner" | "edge" | "face";
}

/** How near to a corner, or to an edge, one has to point, px. */
const CORNER_PX = 11;
const EDGE_PX = 7;

/**
 * The corner that is meant where one is near, or else the place on an edge, or else that on the face.
 *
 * @param face where the face was hit
 * @param edges of the body that was hit, from end to end
 * @param onScreen where a place is seen, px
 */
export function taken(
  face: Place3,
  edges: readonly (readonly [Place3, Place3])[],
  onScreen: (place: Place3) => readonly [number, number],
): Taken {
  const [px, py] = onScreen(face);
  let corner: { at: Place3; off: number } | null = null;
  let edge: { at: Place3; off: number } | null = null;
  for (const [a, b] of edges) {
    const [ax, ay] = onScreen(a);
    const [bx, by] = onScreen(b);
    for (const [end, x, y] of [
      [a, ax, ay],
      [b, bx, by],
    ] as const) {
      const off = Math.hypot(x - px, y - py);
      if (off <= CORNER_PX && off < (corner?.off ?? Number.POSITIVE_INFINITY)) corner = { at: end, off };
    }
    const at = nearestTo(face, a, b);
    const [x, y] = onScreen(at);
    const off = Math.hypot(x - px, y - py);
    if (off <= EDGE_PX && off < (edge?.off ?? Number.POSITIVE_INFINITY)) edge = { at, off };
  }
  if (corner) return { at: corner.at, on: "corner" };
  return edge ? { at: edge.at, on: "edge" } : { at: face, on: "face" };
}

/** The place between two others that lies nearest to a third. */
function nearestTo(p: Place3, a: Place3, b: Place3): Place3 {
  const way = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
  const square = way[0] ** 2 + way[1] ** 2 + way[2] ** 2;
  const along = (p[0] - a[0]) * way[0] + (p[1] - a[1]) * way[1] + (p[2] - a[2]) * way[2];
  const part = square > 0 ? Math.max(0, Math.min(1, along / square)) : 0;
  return [a[0] + part * way[0], a[1] + part * way[1], a[2] + part * way[2]];
}

/** How far two places are apart: straight, level, and up; in the unit that they are in. */
export function apart([ax, ay, az]: Place3, [bx, by, bz]: Place3) {
  const level = Math.hypot(bx - ax, by - ay);
  return { straight: Math.hypot(level, bz - az), level, up: bz - az };
}
