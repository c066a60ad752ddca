import type { Rows, Thing } from "../../store/rows";
import { count, listed } from "../../ui/numbers";

/** What goes with a source or a drawing, and what stays, in words. */
export function statement(rows: Rows, what: { source: string } | { drawing: string }): { goes: string; stays: string } {
  const pages = "source" in what ? [...rows.page.values()].filter((p) => p.source === what.source) : [];
  const drawings = [...rows.drawing.values()].filter((d) =>
    "drawing" in what ? d.id === what.drawing : pages.some((p) => p.id === d.page),
  );
  const of = (thing: { drawing: string | null }) => drawings.some((d) => d.id === thing.drawing);
  const lengths = [...rows.knownLength.values()].filter(of).length;
  const lines = [...rows.gridPick.values()].filter(of).length;
  const nodes = new Set([...rows.node.values()].filter(of).map((n) => n.id));
  const walls = [...rows.wall.values()].filter((w) => nodes.has(w.fromNode) || nodes.has(w.toNode)).length;
  const rooms = [...rows.room.values()].filter(of).length;
  const goes = [
    "source" in what ? count(pages.length, "page") : "",
    "source" in what ? count(drawings.length, "drawing") : "",
    lengths > 0 ? count(lengths, "known length") : "",
    lines > 0 ? count(lines, "grid line") : "",
  ].filter((w) => w !== "");
  const stays = [walls > 0 ? count(walls, "wall") : "", rooms > 0 ? count(rooms, "room name") : ""].filter(
    (w) => w !== "",
  );
  return {
    goes: listed(goes.length > 0 ? goes : ["this drawing alone"]),
    stays: stays.length > 0 ? `${listed(stays)} traced over it` : "",
  };
}

/** Bytes of all source files, each counted once, and of the pictures made from them. */
export function storage(
  sources: Iterable<Thing<"source">>,
  pages: Iterable<{ made: { bytes: number } | null }>,
): { files: number; bytes: number; made: number } {
  const kept = new Map([...sources].map((s) => [s.sha256, s.bytes]));
  let made = 0;
  for (const page of pages) made += page.made?.bytes ?? 0;
  return { files: kept.size, bytes: [...kept.values()].reduce((sum, b) => sum + b, 0), made };
}

export function size(bytes: number): string {
  if (bytes < 1000) return `${bytes} bytes`;
  return bytes < 1e6 ? `${Math.round(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`;
}
