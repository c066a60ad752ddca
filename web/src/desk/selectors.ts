import type { Shapes } from "../api/client";
import { type Map2, mapOf, type XY } from "../board/geometry";
import type { Picture } from "../board/picture";
import type { Rows, Thing } from "../project/rows";
import type { ProjectState } from "../project/store";

export interface WallLine {
  wall: Thing<"wall">;
  from: XY;
  to: XY;
}

export function wallLines(rows: Rows, storey: string | null): WallLine[] {
  const lines: WallLine[] = [];
  for (const wall of rows.wall.values()) {
    const from = rows.node.get(wall.fromNode);
    const to = rows.node.get(wall.toNode);
    if (wall.storey === storey && from && to) lines.push({ wall, from: [from.x, from.y], to: [to.x, to.y] });
  }
  return lines;
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

export function pictureOf(project: ProjectState, drawing: string | null): Picture | null {
  const row = drawing === null ? undefined : project.rows.drawing.get(drawing);
  const page = row && project.rows.page.get(row.page);
  const map = fitMap(project.rows, drawing);
  if (!page || !map) return null;
  const progress = project.pages.get(page.id);
  return {
    page: page.id,
    crop: { left: row.left, top: row.top, width: row.width, height: row.height },
    made: progress?.made ?? null,
    width: page.width,
    height: page.height,
    ready: progress?.state === "ready",
    hasPreview: progress?.hasPreview ?? false,
    pixelToMm: map,
  };
}

/** The whole page under a drawing, as it lies by that drawing's fit. */
export function pageWhole(project: ProjectState, drawing: string | null): Picture | null {
  const picture = pictureOf(project, drawing);
  return picture && { ...picture, crop: { left: 0, top: 0, width: picture.width, height: picture.height } };
}

export function fitMap(rows: Rows, drawing: string | null): Map2 | null {
  const fit = drawing === null ? undefined : rows.fit.get(drawing);
  return fit ? mapOf(fit) : null;
}

/** Drawings of a storey or side, the lowest first. */
export function drawingsOn(rows: Rows, place: Place): Thing<"drawing">[] {
  return [...rows.drawing.values()]
    .filter((d) => (place.storey === null ? d.side !== null && d.side === place.side : d.storey === place.storey))
    .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));
}

/** Pages that a newer version waits to replace are shown with it, not for themselves. */
export function pagesOf(rows: Rows, source: string): Thing<"page">[] {
  return [...rows.page.values()].filter((p) => p.source === source).sort((a, b) => a.number - b.number);
}

/** Named rooms of a storey that no region holds. */
export function openRooms(rows: Rows, shapes: Shapes): Thing<"room">[] {
  return inOrder(rows.room.values()).filter(
    (room) => room.storey === shapes.id && !shapes.rooms.some((r) => r.id === room.id),
  );
}

/** Rows in the order in which they were made: ids sort by time. */
export function inOrder<T extends { id: string }>(things: Iterable<T>): T[] {
  return [...things].sort((a, b) => (a.id < b.id ? -1 : 1));
}
