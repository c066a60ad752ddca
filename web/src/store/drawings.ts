import type { Schemas } from "../api/client";
import { affineAt, isSlanted, type Map2, mapOf, type PageMap, scaleOf } from "../geometry/maps";
import type { XY } from "../geometry/plane";
import type { ProjectState } from "./project";
import { projectId } from "./project";
import type { Rows, Thing } from "./rows";
import { lies } from "./straightened";
import { picturesAre } from "./work";

/** A drawing as it is painted: its tiles, and where they lie. */
export interface Picture {
  page: string;
  /** where its tiles are */
  tiles: string;
  width: number;
  height: number;
  ready: boolean;
  hasPreview: boolean;
  pixelToMm: Map2;
  /** the part of the page that is the drawing */
  crop: { left: number; top: number; width: number; height: number };
  /** the part of the page that it shows: of a straightened picture, what it was made from */
  cutFrom: { left: number; top: number; width: number; height: number };
  made: Schemas["Made"] | null;
}

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

/** Drawings of another storey that can show through: its plans that are not hidden. */
export function drawingsThrough(rows: Rows, storey: string): Thing<"drawing">[] {
  return drawingsOn(rows, { storey, side: null }).filter((d) => !d.hidden && d.kind !== "detail");
}

/** Pages that a newer version waits to replace are shown with it, not for themselves. */
export function pagesOf(rows: Rows, source: string): Thing<"page">[] {
  return [...rows.page.values()].filter((p) => p.source === source).sort((a, b) => a.number - b.number);
}
