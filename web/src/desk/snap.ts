import { apply, contains, distance, heldSquare, inverse, type XY } from "../board/geometry";
import { linesOf } from "../board/lines";
import { type ProjectState, useProject } from "../store/project";
import { wallAt } from "../store/walls";
import { type Act, type Snap, useDesk } from "./desk";
import { grouped } from "./numbers";
import { fitMap, mmPerPixel } from "./selectors";

/** Screen pixels within which a point holds to something. */
export const SNAP_PX = 9;
/** How well the end of a line in a file is told, in pixels of its page. */
const EXACT_PX = 0.05;
/** confidence of a skew below which it is not held to */
const SURE = 0.15;
/** Directions nearer to the grid than this are held square, unless Alt is down. */
const HOLD_RAD = (4 * Math.PI) / 180;

/** Acts in which points of the picture are wanted. */
export function isPicking(act: Act | null): boolean {
  return act === "calibrate" || act === "square" || act === "place" || act === "levels" || act === "outline";
}

/** What a point would hold to under the pointer, told in words. */
export function snapAt(pointer: XY, free: boolean): Snap | null {
  const desk = useDesk.getState();
  const reach = SNAP_PX / desk.view.k;
  if (isPicking(desk.act)) return exactSnap(pointer, reach, free) ?? squareSnap(pointer, free);
  if (desk.act === "walls") return wallSnap(pointer, reach, free);
  if (desk.act === "openings" && desk.door === null) {
    const hit = wallUnder(pointer, reach);
    return hit ? { at: hit.at, words: "the middle of a gap, or an edge of the opening", wall: hit.id } : null;
  }
  if (desk.act === "rooms") {
    const region = regionUnder(pointer);
    if (desk.roomMode === "divider") return dividerSnap(pointer, reach, free);
    if (desk.roomMode === "column") return { at: pointer, words: "centre of a column, by hand" };
    if (!region) return { at: pointer, words: "name a room here; nothing closes round it yet" };
    const name = useProject.getState().rows.room.get(region.id ?? "")?.name;
    return { at: pointer, words: name ? `rename ${name}` : "name this room" };
  }
  if (desk.act === "figures") {
    const hit = wallAt(useProject.getState().rows, desk.storey, pointer, reach);
    if (!hit) return null;
    const off = hit.side / hit.line.wall.thickness;
    const face = Math.abs(off) < 0.15 ? "centre of this wall" : "this face of the wall";
    return { at: hit.at, words: desk.figureFaces.length === 1 ? `to the ${face.replace("this ", "")}` : face };
  }
  const last = desk.act === "measure" ? desk.measured.at(-1) : undefined;
  if (last && desk.holdSquare && !free) {
    const held = heldSquare(last, pointer, HOLD_RAD / 2);
    if (held) return { at: held.at, words: held.words };
  }
  return null;
}

/** A divider runs from wall to wall, square where it is nearly so. */
function dividerSnap(pointer: XY, reach: number, free: boolean): Snap | null {
  const { divider, holdSquare } = useDesk.getState();
  const held = divider && holdSquare && !free ? heldSquare(divider, pointer, HOLD_RAD) : null;
  const hit = free ? null : wallUnder(held?.at ?? pointer, reach);
  if (!hit) return held ?? { at: pointer, words: divider ? "the divider ends here" : "a divider begins here" };
  return { at: held?.at ?? hit.at, words: held ? `on this wall, ${held.words}` : "on this wall", wall: hit.id };
}

/** On a line drawing: the line's own end, or a point of the line, told by the file and not by its pixels. */
function exactSnap(pointer: XY, reach: number, free: boolean): Snap | null {
  const { drawing } = useDesk.getState();
  const project = useProject.getState();
  const map = fitMap(project.rows, drawing);
  const page = drawing === null ? undefined : project.rows.drawing.get(drawing)?.page;
  if (free || !map || page === undefined || !project.pages.get(page)?.made?.lines) return null;
  const found = linesOf(page)?.nearest(apply(inverse(map), pointer), reach / mmPerPixel(project.rows, drawing));
  if (!found) return null;
  const words = found.isEnd ? "end of a line, exact" : "on a line, exact";
  return { at: apply(map, found.at), words, sigmaPx: EXACT_PX };
}

/** In line with the first pick along the drawing's own grid, which until it is squared is the grid of its ink. */
function squareSnap(pointer: XY, free: boolean): Snap | null {
  const { act, picks, drawing, holdSquare, calibrateBy } = useDesk.getState();
  const project = useProject.getState();
  const map = fitMap(project.rows, drawing);
  const from = picks.at(-1);
  if (free || !holdSquare || act !== "calibrate" || calibrateBy === "room" || !from || picks.length > 1 || !map)
    return null;
  const [x, y] = apply(map, from.at);
  const turn = inkOffGrid(project, drawing);
  if (turn === null) return null;
  const rad = (turn * Math.PI) / 180;
  const [c, s] = [Math.cos(rad), Math.sin(rad)];
  const [dx, dy] = [pointer[0] - x, pointer[1] - y];
  const held = heldSquare([0, 0], [c * dx + s * dy, c * dy - s * dx], HOLD_RAD / 4);
  if (!held || held.words === "at 45°") return null;
  const [u, v] = held.at;
  return { at: [x + c * u - s * v, y + s * u + c * v], words: held.words };
}

/** By how many degrees the drawing's own grid runs off the model's: none once it is squared; null where the ink does not tell. */
export function inkOffGrid(project: ProjectState, drawing: string | null): number | null {
  const report = drawing === null ? undefined : project.fits.get(drawing);
  if (report?.determined.turn) return 0;
  const page = drawing === null ? undefined : project.rows.drawing.get(drawing)?.page;
  const skew = page === undefined ? undefined : project.pages.get(page)?.made?.skew;
  if (!report || !skew || skew.confidence < SURE) return null;
  // As the drawing lies now: its own direction on the page, and the turn given to the page.
  const off = skew.degrees + report.rotationDegrees;
  return off - 90 * Math.round(off / 90);
}

function wallSnap(pointer: XY, reach: number, free: boolean): Snap | null {
  const { chain, holdSquare, wallShape, arc, snapTo } = useDesk.getState();
  const first = chain?.points[0];
  const last = chain?.points.at(-1) ?? (wallShape === "arc" && arc.length === 1 ? arc[0] : undefined);
  if (chain && first && chain.points.length > 2 && distance(first, pointer) < reach * 1.4) {
    return { at: first, words: "closes the chain", closes: true };
  }
  const held = last && holdSquare && !free ? heldSquare(last, pointer, HOLD_RAD) : null;
  const at = held?.at ?? pointer;
  const joined = free || !snapTo.tracing ? null : wallUnder(pointer, reach, chain?.walls);
  if (joined) return { at, words: held ? `joins this wall, ${held.words}` : "joins this wall", wall: joined.id };
  const exact = snapTo.lines ? exactSnap(pointer, reach, free) : null;
  if (exact && (held === null || distance(exact.at, held.at) < reach)) return exact;
  const lined = free || !snapTo.tracing ? null : inLine(at, last, held?.words ?? null, reach);
  if (lined) return lined;
  if (!held) return null;
  return last ? rounded(last, held) : held;
}

/** In line with a corner that is traced already, along the grid: told by where that corner lies. */
function inLine(at: XY, last: XY | undefined, held: string | null, reach: number): Snap | null {
  const { chain, storey } = useDesk.getState();
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
      const where = `in line with ${name} ${grouped(away / 1000, 2)} m ${way}`;
      best = { snap: { at: to, words: held === null ? where : `${held} · ${where}` }, off };
    }
  }
  return best?.snap ?? null;
}

/** A clicked length in whole steps of the module that lengths are rounded to. */
export function rounded(last: XY, snap: Snap): Snap {
  const { roundTo } = useDesk.getState();
  if (roundTo <= 0) return snap;
  const mm = distance(last, snap.at);
  const to = Math.max(roundTo, Math.round(mm / roundTo) * roundTo);
  const part = to / mm;
  const at: XY = [last[0] + (snap.at[0] - last[0]) * part, last[1] + (snap.at[1] - last[1]) * part];
  return { ...snap, at, words: `${snap.words} · in steps of ${grouped(roundTo)}` };
}

/** What the ink shows where the next corner is wanted; held square, as far along as that. */
export function inkForWall(found: Snap, pointer: XY): Snap {
  const { chain, holdSquare } = useDesk.getState();
  const last = chain?.points.at(-1);
  const held = last && holdSquare ? heldSquare(last, pointer, HOLD_RAD) : null;
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

export function wallUnder(
  pointer: XY,
  reach: number,
  except: readonly string[] = [],
): { id: string; at: XY; along: number; side: number } | null {
  const { storey } = useDesk.getState();
  const hit = wallAt(useProject.getState().rows, storey, pointer, reach, except);
  return hit && { id: hit.line.wall.id, at: hit.at, along: hit.along, side: hit.side };
}

export function regionUnder(pointer: XY) {
  const { storey } = useDesk.getState();
  const shapes = storey === null ? undefined : useProject.getState().derived.get(storey);
  for (const region of shapes?.regions.values() ?? []) {
    if (contains(region.polygon, pointer) && !region.holes.some((h) => contains(h, pointer))) return region;
  }
  return null;
}
