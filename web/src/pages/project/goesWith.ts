import type { Rows } from "../../store/rows";
import { count, listed } from "../../ui/numbers";

/** What goes with a storey, in words; empty where nothing does. */
export function goesWith(rows: Rows, storey: string): string {
  const on = (of: Iterable<{ storey: string | null }>) => [...of].filter((row) => row.storey === storey).length;
  const openings = [...rows.opening.values()].filter((o) => rows.wall.get(o.wall)?.storey === storey).length;
  const counts: [number, string][] = [
    [on(rows.wall.values()), "wall"],
    [on(rows.room.values()), "room name"],
    [on(rows.column.values()), "column"],
    [on(rows.divider.values()), "divider"],
    [on(rows.outline.values()), "outline"],
    [on(rows.figure.values()), "figure"],
    [on(rows.note.values()), "note"],
    [on(rows.drawing.values()), "drawing"],
  ];
  const words = counts.flatMap(([n, word]) => (n > 0 ? [count(n, word)] : []));
  if (openings > 0) words.splice(1, 0, `${openings} ${openings === 1 ? "opening" : "doors and windows"}`);
  if (on(rows.boundary.values()) > 0) words.push("its boundary");
  return listed(words);
}
