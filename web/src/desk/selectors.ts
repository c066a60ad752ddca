import { affineAt, isSlanted, mapOf, type PageMap, scaleOf, type XY } from "../board/geometry";
import type { Picture } from "../board/picture";
import type { ProjectState } from "../store/project";
import { projectId } from "../store/project";
import { lies } from "../store/rectified";
import type { Rows, Thing } from "../store/rows";
import type { Derived } from "../store/shapes";
import { picturesAre } from "../store/work";

/** What is worked on: a storey or a side. */
export interface Place {
  storey: string | null;
  side: string | null;
}

export function placeName(rows: Rows, place: Place): string {
  if (place.storey !== null) return rows.storey.get(place.storey)?.name ?? "";
  return place.side === null ? "" : (rows.side.get(place.side)?.name ?? "");
}

export function pictureOf(project: ProjectState, drawing: string | null, near?: XY): Picture | null {
  const row = drawing === null ? undefined : project.rows.drawing.get(drawing);
  const page = row && project.rows.page.get(row.page);
  const map = fitMap(project.rows, drawing);
  if (!page || !map) return null;
  const made = project.pages.get(page.id);
  const crop = { left: row.left, top: row.top, width: row.width, height: row.height };
  const straight = isSlanted(map) ? project.rectified.get(row.id) : undefined;
  if (straight) {
    return {
      page: page.id,
      tiles: `/api/projects/${projectId()}/drawings/${row.id}/rectified/${straight.shape}/tiles`,
      crop: { left: 0, top: 0, width: straight.width, height: straight.height },
      cutFrom: crop,
      made: made?.made ?? null,
      width: straight.width,
      height: straight.height,
      ready: true,
      hasPreview: false,
      pixelToMm: lies(straight, map),
    };
  }
  return {
    page: page.id,
    tiles: `/api/projects/${projectId()}/pages/${page.id}/${made?.pictures ?? ""}/tiles`,
    crop,
    cutFrom: crop,
    made: made?.made ?? null,
    width: page.width,
    height: page.height,
    ready: picturesAre(project, page.id) === "ready",
    hasPreview: made?.hasPreview ?? false,
    // Until it is straightened a slanted picture lies as well as it can near the place that matters.
    pixelToMm: affineAt(map, near ?? [row.left + row.width / 2, row.top + row.height / 2]),
  };
}

/** The whole page under a drawing, as it lies by that drawing's fit. */
export function pageWhole(project: ProjectState, drawing: string | null): Picture | null {
  const row = drawing === null ? undefined : project.rows.drawing.get(drawing);
  const page = row && project.rows.page.get(row.page);
  const map = fitMap(project.rows, drawing);
  const picture = pictureOf({ ...project, rectified: new Map() }, drawing);
  if (!picture || !page || !map) return null;
  const whole = { left: 0, top: 0, width: page.width, height: page.height };
  return { ...picture, crop: whole, cutFrom: whole };
}

/** Scale of a drawing in its middle; 1 where nothing is known. */
export function mmPerPixel(rows: Rows, drawing: string | null): number {
  const map = fitMap(rows, drawing);
  const row = drawing === null ? undefined : rows.drawing.get(drawing);
  return map && row ? scaleOf(affineAt(map, [row.left + row.width / 2, row.top + row.height / 2])) : 1;
}

export function fitMap(rows: Rows, drawing: string | null): PageMap | null {
  const fit = drawing === null ? undefined : rows.fit.get(drawing);
  return fit ? mapOf(fit) : null;
}

/** Drawings of a storey or side, the lowest first. */
export function drawingsOn(rows: Rows, place: Place): Thing<"drawing">[] {
  // An alternative lies over the drawings of the storey that it is one of.
  const base = rows.storey.get(place.storey ?? "")?.alternativeOf;
  return [...rows.drawing.values()]
    .filter((d) =>
      place.storey === null
        ? d.side !== null && d.side === place.side
        : d.storey === place.storey || (base !== null && d.storey === base),
    )
    .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));
}

/** Pages that a newer version waits to replace are shown with it, not for themselves. */
export function pagesOf(rows: Rows, source: string): Thing<"page">[] {
  return [...rows.page.values()].filter((p) => p.source === source).sort((a, b) => a.number - b.number);
}

/** Named rooms of a storey that no region holds, or that run into another one. */
export function openRooms(rows: Rows, shapes: Derived): Thing<"room">[] {
  const second = shapes.findings.filter((f) => f.code === "two-names").flatMap((f) => f.things.slice(1));
  return [...shapes.unplaced.keys(), ...second].flatMap((id) => rows.room.get(id) ?? []);
}

/** Rows in the order in which they were made: ids sort by time. */
export function inOrder<T extends { id: string }>(things: Iterable<T>): T[] {
  return [...things].sort((a, b) => (a.id < b.id ? -1 : 1));
}
