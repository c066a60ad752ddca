import { distance, nearestOn, type XY } from "../geometry/plane";
import type { Rows, Thing } from "./rows";

/** A line that may be an arc. */
export interface Course {
  from: XY;
  to: XY;
  /** along it; the chords of an arc */
  chain: readonly XY[];
  length: number;
}

/** A wall by its centre line. */
export interface WallLine extends Course {
  wall: Thing<"wall">;
}

/** A place on a wall: its distance from the start, how far off its centre line, and on which side. */
export interface OnCourse<L extends Course> {
  line: L;
  at: XY;
  along: number;
  off: number;
  /** positive to the left of from → to */
  side: number;
}
export type OnWall = OnCourse<WallLine>;

const CELL_MM = 2000;
/** A chord stands for its piece of an arc where it lies no further off than this, of small ones less; the board needs no more. */
const CHORD_MM = 2;

interface Index {
  lines: readonly WallLine[];
  byId: ReadonlyMap<string, WallLine>;
  cells: ReadonlyMap<string, readonly WallLine[]>;
  byNode: ReadonlyMap<string, readonly WallLine[]>;
}

let known: { walls: Rows["wall"]; nodes: Rows["node"]; storeys: Map<string, Index> } | null = null;

/** Walls of a storey by place, kept until a wall or node differs. */
function indexOf(rows: Rows, storey: string | null): Index {
  if (known === null || known.walls !== rows.wall || known.nodes !== rows.node) {
    known = { walls: rows.wall, nodes: rows.node, storeys: new Map() };
  }
  const found = known.storeys.get(storey ?? "");
  if (found) return found;
  const lines: WallLine[] = [];
  const cells = new Map<string, WallLine[]>();
  const byNode = new Map<string, WallLine[]>();
  for (const wall of rows.wall.values()) {
    const a = rows.node.get(wall.fromNode);
    const b = rows.node.get(wall.toNode);
    if (wall.storey !== storey || !a || !b) continue;
    const line = lineOf(wall, [a.x, a.y], [b.x, b.y]);
    lines.push(line);
    for (const node of [wall.fromNode, wall.toNode]) {
      const at = byNode.get(node);
      if (at) at.push(line);
      else byNode.set(node, [line]);
    }
    for (const key of cellsOf(boxOf(line))) {
      const cell = cells.get(key);
      if (cell) cell.push(line);
      else cells.set(key, [line]);
    }
  }
  const index = { lines, cells, byNode, byId: new Map(lines.map((l) => [l.wall.id, l])) };
  known.storeys.set(storey ?? "", index);
  return index;
}

export function wallLines(rows: Rows, storey: string | null): readonly WallLine[] {
  return indexOf(rows, storey).lines;
}

export function wallLine(rows: Rows, id: string | undefined): WallLine | undefined {
  const wall = id === undefined ? undefined : rows.wall.get(id);
  return wall && indexOf(rows, wall.storey).byId.get(wall.id);
}

export function wallsAtNode(rows: Rows, storey: string, node: string): readonly WallLine[] {
  return indexOf(rows, storey).byNode.get(node) ?? [];
}

/** Walls whose body may touch a box. */
export function wallsNear(
  rows: Rows,
  storey: string | null,
  box: readonly [number, number, number, number],
): WallLine[] {
  const { cells } = indexOf(rows, storey);
  const near = new Set<WallLine>();
  for (const key of cellsOf(box)) {
    for (const line of cells.get(key) ?? []) near.add(line);
  }
  return [...near];
}

/** The wall whose body, or what lies within the reach of it, holds a point; the nearest one. */
export function wallAt(
  rows: Rows,
  storey: string | null,
  p: XY,
  reach: number,
  except: readonly string[] = [],
): OnWall | null {
  let best: OnWall | null = null;
  for (const line of wallsNear(rows, storey, [p[0] - reach, p[1] - reach, p[0] + reach, p[1] + reach])) {
    if (except.includes(line.wall.id)) continue;
    const near = nearestOnLine(p, line);
    if (near.off <= line.wall.thickness / 2 + reach && (best === null || near.off < best.off)) best = near;
  }
  return best;
}

export function nearestOnLine<L extends Course>(p: XY, line: L): OnCourse<L> {
  let best = { at: line.from, along: 0, off: Number.POSITIVE_INFINITY, side: 0 };
  let start = 0;
  for (let i = 1; i < line.chain.length; i++) {
    const a = line.chain[i - 1] ?? line.from;
    const b = line.chain[i] ?? line.to;
    const near = nearestOn(p, a, b);
    if (near.off < best.off) best = { ...near, along: start + near.along };
    start += distance(a, b);
  }
  // Chords are a little shorter than their arc.
  return { line, ...best, along: (best.along * line.length) / start };
}

/** A point of it by its distance from the start. */
export function pointAlong(line: Course, along: number): XY {
  const chords = line.chain.length - 1;
  const part = Math.max(0, Math.min(chords, (along / line.length) * chords));
  const i = Math.min(chords - 1, Math.floor(part));
  const a = line.chain[i] ?? line.from;
  const b = line.chain[i + 1] ?? line.to;
  return [a[0] + (b[0] - a[0]) * (part - i), a[1] + (b[1] - a[1]) * (part - i)];
}

/** A stretch of it, beside it by so much to the left. */
export function besideCourse(line: Course, from: number, to: number, left: number): XY[] {
  const n = Math.max(1, Math.ceil(((to - from) / line.length) * (line.chain.length - 1)));
  return Array.from({ length: n + 1 }, (_, i): XY => {
    const at = from + ((to - from) * i) / n;
    // Square to a short piece of it about the place.
    const [a, b] = [pointAlong(line, at - line.length * 1e-3), pointAlong(line, at + line.length * 1e-3)];
    const part = left / (distance(a, b) || 1);
    const p = pointAlong(line, at);
    return [p[0] - (b[1] - a[1]) * part, p[1] + (b[0] - a[0]) * part];
  });
}

export function lineOf(wall: Thing<"wall">, from: XY, to: XY): WallLine {
  return { wall, ...courseOf(from, to, wall.rise, wall.thickness) };
}

export function courseOf(from: XY, to: XY, rise: number, thickness: number): Course {
  return { from, to, chain: arcChain(from, to, rise, thickness), length: lengthOf(from, to, rise) };
}

function lengthOf(from: XY, to: XY, rise: number): number {
  const chord = distance(from, to);
  if (rise === 0) return chord;
  const radius = (chord * chord) / 8 / Math.abs(rise) + Math.abs(rise) / 2;
  return radius * 4 * Math.atan((2 * Math.abs(rise)) / chord);
}

/** Chords of the arc that rises over a chord to the left of its direction. */
export function arcChain(from: XY, to: XY, rise: number, thickness = 0): readonly XY[] {
  const chord = distance(from, to);
  if (rise === 0 || chord === 0) return [from, to];
  const radius = (chord * chord) / 8 / Math.abs(rise) + Math.abs(rise) / 2;
  const back = rise - Math.sign(rise) * radius;
  const centre: XY = [
    (from[0] + to[0]) / 2 - ((to[1] - from[1]) / chord) * back,
    (from[1] + to[1]) / 2 + ((to[0] - from[0]) / chord) * back,
  ];
  const start = Math.atan2(from[1] - centre[1], from[0] - centre[0]);
  const sweep = -4 * Math.atan((2 * rise) / chord);
  const step = 2 * Math.acos(Math.max(-1, 1 - Math.min(CHORD_MM, radius / 200) / (radius + thickness / 2)));
  const n = Math.max(1, Math.ceil(Math.abs(sweep) / step));
  return Array.from({ length: n + 1 }, (_, i): XY => {
    const angle = start + (sweep * i) / n;
    return [centre[0] + radius * Math.cos(angle), centre[1] + radius * Math.sin(angle)];
  });
}

/** Rise over the chord of the arc through three points; 0 where they lie on one line. */
export function riseThrough(from: XY, on: XY, to: XY): number {
  const chord = distance(from, to);
  const u = ((on[0] - from[0]) * (to[0] - from[0]) + (on[1] - from[1]) * (to[1] - from[1])) / chord;
  const v = ((on[1] - from[1]) * (to[0] - from[0]) - (on[0] - from[0]) * (to[1] - from[1])) / chord;
  if (Math.abs(v) < 1e-9 * chord) return 0;
  const k = (u * u + v * v - u * chord) / (2 * v);
  const radius = Math.hypot(chord / 2, k);
  return v > 0 ? k + radius : k - radius;
}

export function boxOf({ chain, wall }: WallLine): readonly [number, number, number, number] {
  const r = wall.thickness / 2;
  const xs = chain.map((p) => p[0]);
  const ys = chain.map((p) => p[1]);
  return [Math.min(...xs) - r, Math.min(...ys) - r, Math.max(...xs) + r, Math.max(...ys) + r];
}

function cellsOf([x1, y1, x2, y2]: readonly [number, number, number, number]): string[] {
  const keys: string[] = [];
  for (let i = Math.floor(x1 / CELL_MM); i <= Math.floor(x2 / CELL_MM); i++) {
    for (let j = Math.floor(y1 / CELL_MM); j <= Math.floor(y2 / CELL_MM); j++) keys.push(`${i},${j}`);
  }
  return keys;
}
