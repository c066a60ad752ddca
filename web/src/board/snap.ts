import { apply, inverse } from "../geometry/maps";
import { contains, type XY } from "../geometry/plane";
import { fitMap, mmPerPixel } from "../store/drawings";
import { useProject } from "../store/project";
import { wallAt } from "../store/walls";
import { currentAct } from "./act";
import { type Snap, useDesk } from "./desk";
import { linesOf } from "./lines";

/** Screen pixels within which a point holds to something. */
export const SNAP_PX = 9;
/** How well the end of a line in a file is told, in pixels of its page. */
const EXACT_PX = 0.05;

/** What a point would hold to under the pointer, told in words. */
export function snapAt(pointer: XY, free: boolean): Snap | null {
  return currentAct()?.snap?.(pointer, SNAP_PX / useDesk.getState().view.k, free) ?? null;
}

/** On a line drawing: the line's own end, or a point of the line, told by the file and not by its pixels. */
export function exactSnap(pointer: XY, reach: number, free: boolean): Snap | null {
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
