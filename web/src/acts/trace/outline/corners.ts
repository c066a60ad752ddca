import type { Operation } from "../../../api/client";
import { newId } from "../../../api/ids";
import type { Drag } from "../../../board/act";
import { useDesk } from "../../../board/desk";
import { inkAt } from "../../../board/found";
import { exactSnap, SNAP_PX } from "../../../board/snap";
import { distance, middleOfChain, nearestOn, type XY } from "../../../geometry/plane";
import { change, say, useProject } from "../../../store/project";
import { inOrder, type Thing } from "../../../store/rows";
import { arcChain } from "../../../store/walls";
import { wallCornerNear } from "./outline";

type Corner = Thing<"outlineCorner">;

/** Corners of an outline in their order. */
export function cornersOf(corners: Iterable<Corner>, outline: string): Corner[] {
  return inOrder(corners)
    .filter((c) => c.outline === outline)
    .sort((a, b) => a.order - b.order);
}

/** Its edges, from each corner to the next: straight, or arcs as chains of chords. */
export function edgesOf(corners: readonly Corner[]): (readonly XY[])[] {
  return corners.map((c, i) => {
    const next = corners[(i + 1) % corners.length] ?? c;
    return arcChain([c.x, c.y], [next.x, next.y], c.rise);
  });
}

const cornersNow = (outline: string) => cornersOf(useProject.getState().rows.outlineCorner.values(), outline);

export function cornerPoints(outline: string): XY[] {
  return cornersNow(outline).map((c) => [c.x, c.y]);
}

/** Middles of its edges, where a further corner can be pulled out. */
export function edgeMiddles(outline: string): XY[] {
  return edgesOf(cornersNow(outline)).map(middleOfChain);
}

/** Outlines of the storey or side at hand. */
function outlinesHere(): Thing<"outline">[] {
  const { side, storey } = useDesk.getState();
  const isHere = (o: Thing<"outline">) => (side === null ? o.storey === storey : o.side === side);
  return [...useProject.getState().rows.outline.values()].filter(isHere);
}

/** Corners of all of them. */
export const cornersHere = (): XY[] => outlinesHere().flatMap(({ id }) => cornerPoints(id));

/** The outline of the storey or side at hand that has an edge within the reach of a point. */
export function outlineAt(pointer: XY, reach: number): string | null {
  let best: { id: string; off: number } | null = null;
  for (const outline of outlinesHere()) {
    for (const chain of edgesOf(cornersNow(outline.id))) {
      for (let i = 1; i < chain.length; i++) {
        const { off } = nearestOn(pointer, chain[i - 1] ?? pointer, chain[i] ?? pointer);
        if (off < Math.min(reach, best?.off ?? reach)) best = { id: outline.id, off };
      }
    }
  }
  return best?.id ?? null;
}

/** A drag of a corner of a selected outline, or of the middle of an edge: that becomes a corner more. */
export function cornerDrag(outline: string, at: XY, reach: number): Drag | null {
  const corners = cornersNow(outline);
  const index = corners.findIndex((c) => distance(at, [c.x, c.y]) < reach);
  const edge = index < 0 ? edgesOf(corners).findIndex((chain) => distance(at, middleOfChain(chain)) < reach) : -1;
  const corner = corners[Math.max(index, edge)];
  if (!corner) return null;
  const [before, after] = edge < 0 ? [index - 1, index + 1] : [edge, edge + 1];
  const ends = [before, after].flatMap((i): XY[] => {
    const end = corners.at(i % corners.length);
    return end ? [[end.x, end.y]] : [];
  });
  let to: { at: XY; free: boolean; held: boolean } | null = null;
  return {
    move(_from, pointer, free) {
      const held = free
        ? null
        : (wallCornerNear(pointer) ?? exactSnap(pointer, SNAP_PX / useDesk.getState().view.k, free)?.at);
      to = { at: held ?? pointer, free, held: held != null };
      useDesk.setState({
        draft: { of: "moved", lines: ends.map((end) => [end, held ?? pointer] as const), told: true },
      });
    },
    async drop() {
      if (!to) return useDesk.setState({ draft: null });
      // Where nothing surer holds it, the ink is asked where it was let go.
      const found = to.free || to.held ? null : await inkAt(to.at, true);
      const [x, y] = found?.kind === "corner" || found?.kind === "line" ? found.at : to.at;
      useDesk.setState({ draft: null });
      if (edge >= 0) return addCorner(corners, edge, [x, y], 0);
      return change("Move a corner", [{ do: "set", type: "outlineCorner", id: corner.id, values: { x, y } }]);
    },
  };
}

/** A further corner after another; the edge that it falls into runs as `rise` says on either side of it. */
function addCorner(corners: readonly Corner[], after: number, [x, y]: XY, rise: number): Promise<unknown> {
  const corner = corners[after];
  if (!corner) return Promise.resolve(null);
  const order = corner.order + 1;
  return change("Add a corner", [
    ...corners
      .slice(after + 1)
      .map((c, i): Operation => ({ do: "set", type: "outlineCorner", id: c.id, values: { order: order + 1 + i } })),
    ...(corner.rise === rise
      ? []
      : [{ do: "set", type: "outlineCorner", id: corner.id, values: { rise } } satisfies Operation]),
    {
      do: "add",
      type: "outlineCorner",
      id: newId(),
      values: { outline: corner.outline, drawing: corner.drawing, order, x, y, rise },
    },
  ]);
}

/** In the middle of the edge that begins at a corner, which keeps its shape. */
export function halveEdge(outline: string, corner: string): Promise<unknown> {
  const corners = cornersNow(outline);
  const after = corners.findIndex((c) => c.id === corner);
  const from = corners[after];
  const next = corners[(after + 1) % corners.length];
  if (!from || !next) return Promise.resolve(null);
  const chord = distance([from.x, from.y], [next.x, next.y]);
  // With r and the half angle θ/2 of the arc, each of its halves rises by r (1 − cos(θ/4)).
  const quarter = Math.atan((2 * from.rise) / chord);
  const radius = from.rise === 0 ? 0 : (chord * chord) / 8 / from.rise + from.rise / 2;
  const to: XY = [
    (from.x + next.x) / 2 - ((next.y - from.y) / chord) * from.rise,
    (from.y + next.y) / 2 + ((next.x - from.x) / chord) * from.rise,
  ];
  return addCorner(corners, after, to, radius * (1 - Math.cos(quarter)));
}

/** The next corner goes along the edge until that is so long. */
export function setEdge(outline: string, corner: string, length: number): Promise<unknown> {
  const corners = cornersNow(outline);
  const at = corners.findIndex((c) => c.id === corner);
  const from = corners[at];
  const next = corners[(at + 1) % corners.length];
  if (!from || !next) return Promise.resolve(null);
  const part = length / distance([from.x, from.y], [next.x, next.y]);
  const values = { x: from.x + (next.x - from.x) * part, y: from.y + (next.y - from.y) * part };
  return change("Length of an edge", [{ do: "set", type: "outlineCorner", id: next.id, values }]);
}

export function removeCorner(outline: string, corner: string): Promise<unknown> {
  if (cornersNow(outline).length < 4) {
    say("An outline needs three corners. Remove the outline instead.");
    return Promise.resolve(null);
  }
  return change("Remove a corner", [{ do: "remove", type: "outlineCorner", id: corner }]);
}
