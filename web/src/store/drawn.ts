import { distance, middleOfChain, nearestOn, type XY } from "../geometry/plane";
import type { Place } from "./drawings";
import { inOrder, type Thing } from "./rows";
import { arcChain } from "./walls";

/** A corner of a line that was drawn, and how far the stretch to the next one rises over its chord, to its left. */
export interface DrawnCorner {
  at: XY;
  rise: number;
}

export type LineKind = Thing<"drawnLine">["kind"];
export type Fill = Thing<"drawnLine">["fill"];

/** As it stands in a row: "x y", or "x y rise", with semicolons between. */
export function cornersIn(line: string): DrawnCorner[] {
  return line
    .split(";")
    .filter((p) => p.trim() !== "")
    .map((p) => {
      const [x = 0, y = 0, rise = 0] = p.trim().split(/\s+/).map(Number);
      return { at: [x, y], rise };
    });
}

export function lineOf(corners: readonly DrawnCorner[]): string {
  return corners.map(({ at: [x, y], rise }) => (rise === 0 ? `${x} ${y}` : `${x} ${y} ${rise}`)).join("; ");
}

/** Its stretches as chains of chords. */
export function stretchesOf(corners: readonly DrawnCorner[], closed: boolean): (readonly XY[])[] {
  const n = corners.length;
  return corners.slice(0, closed ? n : n - 1).map(({ at, rise }, i) => {
    const next = corners[(i + 1) % n]?.at ?? at;
    return arcChain(at, next, rise);
  });
}

/** All along it. */
export function chainOf({ line, closed }: Pick<Thing<"drawnLine">, "line" | "closed">): XY[] {
  const corners = cornersIn(line);
  const [first] = corners;
  const chains = stretchesOf(corners, closed);
  return first ? [first.at, ...chains.flatMap((chain) => chain.slice(1))] : [];
}

/** Middles of its stretches, where a further corner can be pulled out. */
export const middlesOf = ({ line, closed }: Thing<"drawnLine">): XY[] =>
  stretchesOf(cornersIn(line), closed).map(middleOfChain);

/** Rows of the storey or side at hand. */
export function here<T extends Place & { id: string }>(rows: Iterable<T>, { storey, side }: Place): T[] {
  return inOrder(rows).filter((row) => (side === null ? row.storey === storey : row.side === side));
}

/** How far a point lies off a line, mm. */
export function offLine(p: XY, chain: readonly XY[]): number {
  let off = Number.POSITIVE_INFINITY;
  for (let i = 1; i < chain.length; i++) {
    const [a, b] = [chain[i - 1] ?? p, chain[i] ?? p];
    off = Math.min(off, distance(a, b) === 0 ? distance(p, a) : nearestOn(p, a, b).off);
  }
  return off;
}

/** The dimension line: its ends, which lie beside the two places, and how long it is. */
export function dimensionLine(d: Pick<Thing<"dimension">, "x1" | "y1" | "x2" | "y2" | "direction" | "off">) {
  const [dx, dy] = [d.x2 - d.x1, d.y2 - d.y1];
  const apart = Math.hypot(dx, dy);
  const angle = d.direction === null ? Math.atan2(dy, dx) : (d.direction * Math.PI) / 180;
  const [ux, uy] = apart === 0 && d.direction === null ? [1, 0] : [Math.cos(angle), Math.sin(angle)];
  const ahead = dx * ux + dy * uy;
  const from: XY = [d.x1 - uy * d.off, d.y1 + ux * d.off];
  const to: XY = [from[0] + ux * ahead, from[1] + uy * ahead];
  return { from, to, mm: Math.abs(ahead), along: [ux, uy] as XY };
}
