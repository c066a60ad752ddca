import { drafted, type Snap, useDesk } from "../../../board/desk";
import { onGrid } from "../../../board/grid";
import { held as heldHere } from "../../../board/held";
import { exactSnap, wallUnder } from "../../../board/snap";
import { distance, type XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { inWords } from "../../../ui/measures";
import { crossings, nearestKnown, placedPoints, shownThrough } from "../../known";
import { useWallOptions } from "./options";

/** Nothing that the ink shows is surer. */
const KNOWN_PX = 0;

/** Where the next corner would hold to: the chain's beginning, a wall, a place that is known, an exact line, or a line through what is traced. */
export function wallSnap(pointer: XY, reach: number, free: boolean): Snap | null {
  const { holdSquare } = useDesk.getState();
  const { snapTo } = useWallOptions.getState();
  const chain = drafted("chain");
  const arc = drafted("arc")?.ends ?? [];
  const first = chain?.points[0];
  const last = chain?.points.at(-1) ?? (arc.length === 1 ? arc[0] : undefined);
  if (chain && first && chain.points.length > 2 && distance(first, pointer) < reach * 1.4) {
    return { at: first, words: "closes the chain", closes: true };
  }
  const held = last && holdSquare && !free ? heldHere(last, pointer) : null;
  const at = held?.at ?? pointer;
  const joined = free || !snapTo.tracing ? null : wallUnder(pointer, reach, chain?.walls);
  if (joined) return { at, words: held ? `joins this wall, ${held.words}` : "joins this wall", wall: joined.id };
  const known =
    free || !snapTo.tracing
      ? null
      : nearestKnown(pointer, reach, [...placedPoints(), ...crossings(), ...shownThrough()]);
  if (known && (held === null || distance(known.at, held.at) < reach)) return { ...known, sigmaPx: KNOWN_PX };
  const exact = snapTo.lines ? exactSnap(pointer, reach, free) : null;
  if (exact && (held === null || distance(exact.at, held.at) < reach)) return exact;
  const crossing = free ? null : onGrid(pointer);
  if (crossing) return { at: crossing, words: "on the regular grid" };
  const lined = free || !snapTo.tracing ? null : inLine(at, last, held?.words ?? null, reach);
  if (lined) return lined;
  if (!held) return null;
  return last ? rounded(last, held) : held;
}

/** In line with a corner that is traced already, along the grid: told by where that corner lies. */
function inLine(at: XY, last: XY | undefined, held: string | null, reach: number): Snap | null {
  const { storey } = useDesk.getState();
  const chain = drafted("chain");
  const corners: (readonly [XY, string])[] = (chain?.points ?? [])
    .slice(0, -1)
    .map((p, i) => [p, i === 0 ? "the start" : `corner ${i + 1}`] as const);
  for (const node of useProject.getState().rows.node.values()) {
    if (node.storey === storey) corners.push([[node.x, node.y], "a corner"]);
  }
  let best: { snap: Snap; off: number } | null = null;
  for (const [corner, name] of corners) {
    // Held along x only x is free to be lined up, and the other way round.
    for (const [axis, other] of [
      [0, 1],
      [1, 0],
    ] as const) {
      if (held !== null && !held.endsWith(axis === 0 ? "x" : "y")) continue;
      const off = Math.abs(at[axis] - corner[axis]);
      const away = Math.abs(at[other] - corner[other]);
      if (off > reach || away < reach || (best && off >= best.off) || (last && distance(corner, last) < 1)) continue;
      const to: XY = axis === 0 ? [corner[0], at[1]] : [at[0], corner[1]];
      const way =
        axis === 0 ? (corner[1] > at[1] ? "above" : "below") : corner[0] > at[0] ? "to the right" : "to the left";
      const where = `in line with ${name} ${inWords(away)} ${way}`;
      best = { snap: { at: to, words: held === null ? where : `${held} · ${where}` }, off };
    }
  }
  return best?.snap ?? null;
}

/** A clicked length in whole steps of the module that lengths are rounded to. */
export function rounded(last: XY, snap: Snap): Snap {
  const { roundTo } = useWallOptions.getState();
  if (roundTo <= 0) return snap;
  const mm = distance(last, snap.at);
  const to = Math.max(roundTo, Math.round(mm / roundTo) * roundTo);
  const part = to / mm;
  const at: XY = [last[0] + (snap.at[0] - last[0]) * part, last[1] + (snap.at[1] - last[1]) * part];
  return { ...snap, at, words: `${snap.words} · in steps of ${inWords(roundTo)}` };
}

/** What the ink shows where the next corner is wanted; held square, as far along as that. */
export function inkForWall(found: Snap, pointer: XY): Snap {
  const { holdSquare } = useDesk.getState();
  const chain = drafted("chain");
  const last = chain?.points.at(-1);
  const held = last && holdSquare ? heldHere(last, pointer) : null;
  if (!held || !last) return found;
  const [dx, dy] = [held.at[0] - last[0], held.at[1] - last[1]];
  const length = Math.hypot(dx, dy);
  if (length === 0) return found;
  const along = ((found.at[0] - last[0]) * dx + (found.at[1] - last[1]) * dy) / length;
  return {
    ...found,
    at: [last[0] + (dx / length) * along, last[1] + (dy / length) * along],
    words: `${found.words} · ${held.words}`,
  };
}
