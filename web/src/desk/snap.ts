import { apply, contains, distance, heldSquare, inverse, nearestOn, type XY } from "../board/geometry";
import { linesOf } from "../board/lines";
import { type ProjectState, useProject } from "../project/store";
import { type Act, type Snap, useDesk } from "./desk";
import { fitMap, mmPerPixel, wallLines } from "./selectors";

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
    if (!region) return { at: pointer, words: "name a room here; nothing closes round it yet" };
    return { at: pointer, words: region.name ? `rename ${region.name}` : "name this room" };
  }
  const last = desk.act === "measure" ? desk.measured.at(-1) : undefined;
  if (last && desk.holdSquare && !free) {
    const held = heldSquare(last, pointer, HOLD_RAD / 2);
    if (held) return { at: held.at, words: held.words };
  }
  return null;
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
  const { chain, holdSquare } = useDesk.getState();
  const first = chain?.points[0];
  const last = chain?.points.at(-1);
  if (chain && first && chain.points.length > 2 && distance(first, pointer) < reach * 1.4) {
    return { at: first, words: "closes the chain", closes: true };
  }
  const held = last && holdSquare && !free ? heldSquare(last, pointer, HOLD_RAD) : null;
  const at = held?.at ?? pointer;
  const joined = free ? null : wallUnder(pointer, reach, chain?.walls);
  if (joined) return { at, words: held ? `joins this wall, ${held.words}` : "joins this wall", wall: joined.id };
  const exact = exactSnap(pointer, reach, free);
  if (exact && (held === null || distance(exact.at, held.at) < reach)) return exact;
  if (!held) return null;
  if (first && chain && chain.points.length > 1) {
    // In line with the chain's beginning: corners close without measuring.
    if (Math.abs(at[0] - first[0]) < reach && held.words.endsWith("x")) {
      return { at: [first[0], at[1]], words: `${held.words} · in line with the start` };
    }
    if (Math.abs(at[1] - first[1]) < reach && held.words.endsWith("y")) {
      return { at: [at[0], first[1]], words: `${held.words} · in line with the start` };
    }
  }
  return { at, words: held.words };
}

export function wallUnder(
  pointer: XY,
  reach: number,
  except: readonly string[] = [],
): { id: string; at: XY; along: number; side: number } | null {
  const { storey } = useDesk.getState();
  let best: { id: string; at: XY; along: number; off: number; side: number } | null = null;
  for (const { wall, from, to } of wallLines(useProject.getState().rows, storey)) {
    if (except.includes(wall.id)) continue;
    const near = nearestOn(pointer, from, to);
    if (near.off <= wall.thickness / 2 + reach && (best === null || near.off < best.off)) {
      best = { id: wall.id, ...near };
    }
  }
  return best;
}

export function regionUnder(pointer: XY) {
  const { storey } = useDesk.getState();
  const shapes = storey === null ? undefined : useProject.getState().derived.get(storey);
  return shapes?.rooms.find((r) => contains(r.polygon, pointer) && !r.holes.some((h) => contains(h, pointer))) ?? null;
}
