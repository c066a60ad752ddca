import { useProject } from "../../store/project";
import { pointAlong, type WallLine, wallLines } from "../../store/walls";
import type { Place3 } from "./camera";

/** How high over the floor the line runs, mm: as on a building site; and how far before the face. */
const METRE_MM = 1000;
const BEFORE_MM = 10;
/** Arcs are followed in steps of this, mm. */
const STEP_MM = 150;

/**
 * On what walls of a storey rest, as a line along both their faces a metre over the floor: full where a figure says it, dotted where
 * it was a free hand; where ink was seen there is none, as on the board. Ends of segments, mm.
 */
export function wearOf(storey: string): { figure: Place3[]; hand: Place3[] } {
  const { rows } = useProject.getState();
  const z = (rows.storey.get(storey)?.elevation ?? 0) + METRE_MM;
  const open = new Map<string, (readonly [number, number])[]>();
  for (const o of rows.opening.values()) {
    if (o.sill < METRE_MM && o.sill + (o.height ?? Number.POSITIVE_INFINITY) > METRE_MM) {
      open.set(o.wall, [...(open.get(o.wall) ?? []), [o.offset, o.offset + o.width]]);
    }
  }
  const told: { figure: Place3[]; hand: Place3[] } = { figure: [], hand: [] };
  for (const line of wallLines(rows, storey)) {
    const { wall } = line;
    if (wall.evidence === "ink") continue;
    const into = wall.evidence === "figure" ? told.figure : told.hand;
    for (const [from, to] of between(line.length, open.get(wall.id) ?? [])) {
      const steps = wall.rise === 0 ? 1 : Math.ceil((to - from) / STEP_MM);
      for (const off of [wall.thickness / 2 + BEFORE_MM, -wall.thickness / 2 - BEFORE_MM]) {
        for (let i = 0; i < steps; i++) {
          into.push(
            beside(line, from + ((to - from) * i) / steps, off, z),
            beside(line, from + ((to - from) * (i + 1)) / steps, off, z),
          );
        }
      }
    }
  }
  return told;
}

/** What stretches leave of a length. */
function between(length: number, stretches: readonly (readonly [number, number])[]): (readonly [number, number])[] {
  const left: (readonly [number, number])[] = [];
  let from = 0;
  for (const [start, end] of [...stretches].sort((a, b) => a[0] - b[0])) {
    if (start > from) left.push([from, Math.min(start, length)]);
    from = Math.max(from, end);
  }
  if (from < length) left.push([from, length]);
  return left;
}

/** A place so far along a wall, and off its centre line to its left. */
function beside(line: WallLine, along: number, left: number, z: number): Place3 {
  const at = pointAlong(line, along);
  const [a, b] = [pointAlong(line, Math.max(0, along - 1)), pointAlong(line, Math.min(line.length, along + 1))];
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  return [at[0] - ((b[1] - a[1]) / length) * left, at[1] + ((b[0] - a[0]) / length) * left, z];
}
