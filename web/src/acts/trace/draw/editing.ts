import type { Drag } from "../../../board/act";
import { useDesk } from "../../../board/desk";
import { SNAP_PX } from "../../../board/snap";
import { distance, middleOfChain, type XY } from "../../../geometry/plane";
import {
  chainOf,
  cornersIn,
  type DrawnCorner,
  dimensionLine,
  here,
  lineOf,
  middlesOf,
  offLine,
  stretchesOf,
} from "../../../store/drawn";
import { change, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { arranged, pointsOf, type Thing as ThingRef } from "../../arranging";
import { drawnSnap } from "../../drawnSnap";

const lineNow = (id: string): Thing<"drawnLine"> | undefined => useProject.getState().rows.drawnLine.get(id);
const dimensionNow = (id: string): Thing<"dimension"> | undefined => useProject.getState().rows.dimension.get(id);

export function lineCorners(id: string): XY[] {
  return cornersIn(lineNow(id)?.line ?? "").map((c) => c.at);
}

export function lineMiddles(id: string): XY[] {
  const line = lineNow(id);
  return line ? middlesOf(line) : [];
}

/** The line of the storey or side at hand that lies within the reach of a point; the nearest, the last drawn first. */
export function lineUnder(pointer: XY, reach: number): string | null {
  let best: { id: string; off: number } | null = null;
  for (const line of here(useProject.getState().rows.drawnLine.values(), useDesk.getState())) {
    const off = offLine(pointer, chainOf(line));
    if (off < reach && off <= (best?.off ?? reach)) best = { id: line.id, off };
  }
  return best?.id ?? null;
}

/** Sets the corners of a line. */
export function setCorners(id: string, title: string, corners: readonly DrawnCorner[]): Promise<unknown> {
  return change(title, [{ do: "set", type: "drawnLine", id, values: { line: lineOf(corners) } }]);
}

/** A drag of a corner, of the middle of a stretch, which becomes a corner more, or of the whole line. */
export function lineDrag(id: string, at: XY, reach: number): Drag | null {
  const line = lineNow(id);
  const { things } = useDesk.getState();
  if (things.length > 0) {
    const isOnOne = things.some((t) => (t.type === "dimension" ? dimensionUnder : lineUnder)(at, reach) === t.id);
    return isOnOne ? wholeDrag(things, things.map(pointsOf)) : null;
  }
  if (!line) return null;
  const corners = cornersIn(line.line);
  const index = corners.findIndex((c) => distance(c.at, at) < reach);
  const stretch =
    index < 0 ? stretchesOf(corners, line.closed).findIndex((c) => distance(at, middleOfChain(c)) < reach) : -1;
  if (index < 0 && stretch < 0)
    return lineUnder(at, reach) === id ? wholeDrag([{ type: "drawnLine", id }], [chainOf(line)]) : null;
  const placed = (to: XY): DrawnCorner[] =>
    index >= 0
      ? corners.map((c, i) => (i === index ? { ...c, at: to } : c))
      : [
          ...corners.slice(0, stretch + 1).map((c, i) => (i === stretch ? { ...c, rise: 0 } : c)),
          { at: to, rise: 0 },
          ...corners.slice(stretch + 1),
        ];
  let next: readonly DrawnCorner[] | null = null;
  return {
    move(_from, pointer, free) {
      const to = drawnSnap(pointer, SNAP_PX / useDesk.getState().view.k, free)?.at ?? pointer;
      next = placed(to);
      const moved = index >= 0 ? index : stretch + 1;
      const chains = stretchesOf(next, line.closed);
      const n = next.length;
      const lines = [chains[(moved + n - 1) % n], chains[moved]].flatMap((chain) =>
        (chain ?? []).slice(1).map((b, i) => [chain?.[i] ?? b, b] as const),
      );
      useDesk.setState({ draft: { of: "moved", lines, told: lines.length < 3 } });
    },
    async drop() {
      useDesk.setState({ draft: null });
      if (next) await setCorners(id, index >= 0 ? "Move a corner" : "Add a corner", next);
    },
  };
}

/** A drag of things as they are. */
function wholeDrag(things: readonly ThingRef[], chains: readonly (readonly XY[])[]): Drag {
  let by: XY = [0, 0];
  return {
    move(from, to) {
      by = [to[0] - from[0], to[1] - from[1]];
      const lines = chains.flatMap((chain) => {
        const shifted = chain.map(([x, y]): XY => [x + by[0], y + by[1]]);
        return shifted.slice(1).map((b, i) => [shifted[i] ?? b, b] as const);
      });
      useDesk.setState({ draft: { of: "moved", lines, told: false } });
    },
    async drop() {
      useDesk.setState({ draft: null });
      if (by[0] !== 0 || by[1] !== 0)
        await arranged(things.length > 1 ? "Move what was drawn" : "Move a line", things, { by: [by[0], by[1]] });
    },
  };
}

/** Its two places, and where its line stands. */
export function dimensionEnds(id: string): XY[] {
  const d = dimensionNow(id);
  if (!d) return [];
  const { from, to } = dimensionLine(d);
  return [
    [d.x1, d.y1],
    [d.x2, d.y2],
    [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2],
  ];
}

export function dimensionUnder(pointer: XY, reach: number): string | null {
  const under = here(useProject.getState().rows.dimension.values(), useDesk.getState()).findLast((d) => {
    const { from, to } = dimensionLine(d);
    return offLine(pointer, [from, to]) < reach;
  });
  return under?.id ?? null;
}

/** A drag of one of its places, or of its line, which goes on standing beside them. */
export function dimensionDrag(id: string, at: XY, reach: number): Drag | null {
  const d = dimensionNow(id);
  if (!d) return null;
  const [first, second] = dimensionEnds(id);
  const end = [first, second].findIndex((p) => p !== undefined && distance(p, at) < reach);
  if (end < 0 && dimensionUnder(at, reach) !== id) return null;
  let values: Partial<Thing<"dimension">> = {};
  return {
    move(_from, pointer, free) {
      const [x, y] = drawnSnap(pointer, SNAP_PX / useDesk.getState().view.k, free)?.at ?? pointer;
      const [ux, uy] = dimensionLine(d).along;
      values =
        end === 0
          ? { x1: x, y1: y }
          : end === 1
            ? { x2: x, y2: y }
            : { off: (pointer[1] - d.y1) * ux - (pointer[0] - d.x1) * uy };
      const { from, to } = dimensionLine({ ...d, ...values });
      useDesk.setState({ draft: { of: "moved", lines: [[from, to]], told: true } });
    },
    async drop() {
      useDesk.setState({ draft: null });
      if (Object.keys(values).length > 0)
        await change("Move a dimension", [{ do: "set", type: "dimension", id, values }]);
    },
  };
}
