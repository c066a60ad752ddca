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

export function pictureOf(project: ProjectState, drawing: string | null): Picture | null {
  const row = drawing === null ? undefined : project.rows.drawing.get(drawing);
  const page = row && project.rows.page.get(row.page);
  const map = fitMap(project.rows, drawing);
  if (!page || !map) return null;
  const progress = project.pages.get(page.id);
  return {
    page: page.id,
    width: page.width,
    height: page.height,
    ready: progress?.state === "ready",
    hasPreview: progress?.hasPreview ?? false,
    pixelToMm: map,
  };
}

export function fitMap(rows: Rows, drawing: string | null): Map2 | null {
  const fit = drawing === null ? undefined : rows.fit.get(drawing);
  return fit ? mapOf(fit) : null;
}

export function drawingsOn(rows: Rows, storey: string | null): Thing<"drawing">[] {
  return [...rows.drawing.values()].filter((d) => d.storey === storey).sort((a, b) => (a.id < b.id ? -1 : 1));
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
