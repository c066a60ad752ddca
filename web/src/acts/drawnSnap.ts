import { type Snap, useDesk } from "../board/desk";
import { exactSnap } from "../board/snap";
import { distance, nearestOn, type XY } from "../geometry/plane";
import { chainOf, cornersIn, dimensionLine, here } from "../store/drawn";
import { useProject } from "../store/project";
import { linesSeen } from "./SideView";

type Ends = readonly [XY, XY];

/** Corners that are there exactly: of lines, dimensions and outlines that were drawn, of walls, of what is seen from a side. */
function cornersThere(): { at: XY; words: string }[] {
  const { rows, derived } = useProject.getState();
  const { storey, side } = useDesk.getState();
  const drawn = here(rows.drawnLine.values(), { storey, side }).flatMap(({ line }) => cornersIn(line).map((c) => c.at));
  const told = here(rows.dimension.values(), { storey, side }).flatMap(({ x1, y1, x2, y2 }): XY[] => [
    [x1, y1],
    [x2, y2],
  ]);
  const outlines = new Set(here(rows.outline.values(), { storey, side }).map(({ id }) => id));
  const ofOutlines = [...rows.outlineCorner.values()].filter((c) => outlines.has(c.outline));
  const faces = [...(derived.get(storey ?? "")?.walls.values() ?? [])].flatMap(({ stretches }) =>
    stretches.flatMap(({ right, left }) => [...right, ...left]),
  );
  return [
    ...[...drawn, ...told].map((at) => ({ at, words: "end of a line" })),
    ...ofOutlines.map(({ x, y }) => ({ at: [x, y] as XY, words: "corner of an outline" })),
    ...faces.map(([x = 0, y = 0]) => ({ at: [x, y] as XY, words: "corner of a wall" })),
    ...seenHere()
      .flat()
      .map((at) => ({ at, words: "corner of what stands" })),
  ];
}

const seenHere = (): readonly Ends[] => linesSeen(useDesk.getState().side);

/** Pieces of lines that are there exactly. */
function piecesThere(): readonly Ends[] {
  const { rows } = useProject.getState();
  const { storey, side } = useDesk.getState();
  const drawn = here(rows.drawnLine.values(), { storey, side }).flatMap((row) => pairs(chainOf(row)));
  const dimensions = here(rows.dimension.values(), { storey, side }).map((d): Ends => {
    const { from, to } = dimensionLine(d);
    return [from, to];
  });
  return [...drawn, ...dimensions, ...seenHere()];
}

const pairs = (chain: readonly XY[]): Ends[] =>
  chain.slice(1).flatMap((b, i): Ends[] => {
    const a = chain[i];
    return a ? [[a, b]] : [];
  });

/** What a point holds to while something is drawn or laid elsewhere: corners, then ends in a line drawing's file, then lines. */
export function drawnSnap(pointer: XY, reach: number, free: boolean): Snap | null {
  if (free) return null;
  let best: (Snap & { off: number }) | null = null;
  for (const { at, words } of cornersThere()) {
    const off = distance(at, pointer);
    if (off < Math.min(reach, best?.off ?? reach)) best = { at, words, off, sigmaPx: 0 };
  }
  if (best) return best;
  const exact = exactSnap(pointer, reach, free);
  if (exact) return exact;
  for (const [a, b] of piecesThere()) {
    if (distance(a, b) === 0) continue;
    const { at, off } = nearestOn(pointer, a, b);
    if (off < Math.min(reach, best?.off ?? reach)) best = { at, words: "on a line", off, sigmaPx: 0 };
  }
  return best;
}
