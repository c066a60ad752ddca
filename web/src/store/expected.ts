import { isRowEdit, type Operation, type RowEdit, type Schemas } from "../api/client";
import type { Edit } from "./edits";
import type { Kind, Rows, Thing } from "./rows";
import type { Derived, WallShape } from "./shapes";
import { lineOf, pointAlong, type WallLine } from "./walls";

/** Rows and shapes as the screen shows them. */
export interface Picture {
  rows: Rows;
  derived: ReadonlyMap<string, Derived>;
}

/** Rows that go with those they stand on, and the field that says so. */
const STANDS_ON: readonly [Kind, string, Kind][] = [
  ["opening", "wall", "wall"],
  ["outlineCorner", "outline", "outline"],
  ["leg", "boundary", "boundary"],
];

/** Of what the server will work out, until it has: nothing. */
const BLANK: { readonly [K in Kind]?: Partial<Thing<K>> } = {
  knownLength: { mm: 0, stepMm: 0, course: null, unitLength: null },
  storey: { alternativeOf: null, wing: null },
  opening: { leaf: "single" },
  wall: { rise: 0, buildUp: null },
  divider: { rise: 0 },
  outlineCorner: { rise: 0 },
  leg: { radius: "", turns: "left", gives: "chord" },
};

/**
 * What is told with edits upon it that are not acknowledged yet, as far as it can be known here: rows are exact, walls stand as
 * plain bodies until the core has made theirs, rooms keep their shapes. What only the server can work out is not shown.
 */
export function expected(told: Picture, edits: readonly Edit[]): Picture {
  const counting = inForce(edits);
  return counting.length === 0 ? told : counting.reduce((shown, edit) => withEdit(shown, edit), told);
}

/** Edits without those that a later one of them takes back. */
function inForce(edits: readonly Edit[]): Edit[] {
  const back = new Set<string>();
  for (const { kind, target } of edits) {
    if (target === null) continue;
    if (kind === "undo") back.add(target);
    if (kind === "redo") back.delete(target);
  }
  return edits.filter((e) => e.kind === "change" && !back.has(e.id));
}

function withEdit(shown: Picture, edit: Edit): Picture {
  const draft = new Draft(shown.rows);
  for (const operation of edit.operations) draft.apply(operation);
  return draft.done(shown.derived);
}

/** Rows while operations are laid upon them. */
class Draft {
  private readonly maps: { [kind: string]: Map<string, Thing<Kind>> } = {};
  private readonly touched: { [kind: string]: Set<string> } = {};

  constructor(private readonly before: Rows) {}

  apply(operation: Operation): void {
    if (isRowEdit(operation)) this.edit(operation);
    else if (operation.do === "trace") this.trace(operation.trace);
    else if (operation.do === "shift") this.shift(operation.shift);
    else if (operation.do === "toStorey") {
      const { things = [], storey } = operation.toStorey;
      for (const { type, id } of things) this.set(type, id, { storey });
    }
  }

  private edit({ do: what, type, id, ids, by, values = {} }: RowEdit): void {
    for (const one of id === undefined ? (ids ?? []) : [id]) {
      if (what === "add") this.put(type, { ...BLANK[type], ...values, id: one, revision: 0 });
      else if (what === "set" || what === "setMany") this.set(type, one, values);
      else if (what === "move") this.move(type, one, by ?? []);
      else this.remove(type, one);
    }
  }

  done(derived: Picture["derived"]): Picture {
    const rows = { ...this.before, ...this.maps } as Rows;
    const shapes = new Map(derived);
    for (const [storey, shape] of derived) shapes.set(storey, this.shapesOf(shape, rows));
    return { rows, derived: shapes };
  }

  private get<K extends Kind>(kind: K, id: string): Thing<K> | undefined {
    return (this.maps[kind] ?? this.before[kind]).get(id) as Thing<K> | undefined;
  }

  private put(kind: Kind, row: { id: string; revision: number }): void {
    this.maps[kind] ??= new Map(this.before[kind] as ReadonlyMap<string, Thing<Kind>>);
    this.maps[kind].set(row.id, row as Thing<Kind>);
    this.note(kind, row.id);
  }

  private note(kind: Kind, id: string): void {
    this.touched[kind] ??= new Set();
    this.touched[kind].add(id);
  }

  private set(kind: Kind, id: string, values: object): void {
    const row = this.get(kind, id);
    if (row) this.put(kind, { ...row, ...values });
  }

  private remove(kind: Kind, id: string): void {
    if (!this.get(kind, id)) return;
    this.maps[kind] ??= new Map(this.before[kind] as ReadonlyMap<string, Thing<Kind>>);
    this.maps[kind].delete(id);
    this.note(kind, id);
    for (const [standing, field, on] of STANDS_ON) {
      if (on !== kind) continue;
      for (const row of [...(this.maps[standing] ?? this.before[standing]).values()]) {
        if ((row as unknown as Record<string, unknown>)[field] === id) this.remove(standing, row.id);
      }
    }
  }

  private move(kind: Kind, id: string, [dx = 0, dy = 0]: readonly number[]): void {
    const row = this.get(kind, id) as Record<string, unknown> | undefined;
    const moved: Record<string, number> = {};
    for (const key of ["x", "y", "x1", "y1", "x2", "y2", "toX", "toY"]) {
      const at = row?.[key];
      if (typeof at === "number") moved[key] = at + (/x/i.test(key) ? dx : dy);
    }
    this.set(kind, id, moved);
  }

  private trace(trace: Schemas["Trace"]): void {
    const { storey, points, nodes, walls, closed = false, line, thickness } = trace;
    nodes.forEach((id, i) => {
      const [x = 0, y = 0] = points[i] ?? [];
      this.put("node", {
        ...this.get("node", id),
        id,
        revision: 0,
        ...{ storey, drawing: trace.drawing ?? null, x, y },
      });
    });
    walls.forEach((id, i) => {
      const [fromNode, toNode] = [nodes[i], nodes[closed ? (i + 1) % nodes.length : i + 1]];
      if (fromNode === undefined || toNode === undefined) return;
      const more = { height: trace.height ?? null, buildUp: trace.buildUp ?? null, rise: trace.rises?.[i] ?? 0 };
      const kept = { evidence: trace.evidence ?? "ink", enclosing: trace.enclosing ?? true };
      this.put("wall", {
        ...kept,
        ...this.get("wall", id),
        ...{ id, revision: 0, storey, fromNode, toNode, line, thickness, ...more },
      });
    });
  }

  private shift(shift: Schemas["Shift"]): void {
    for (const { id, x, y } of shift.nodes ?? []) this.set("node", id, { x, y });
    for (const id of shift.thickness === undefined ? [] : (shift.walls ?? [])) {
      this.set("wall", id, { thickness: shift.thickness });
    }
    const line = shift.wall === undefined ? null : lineIn(shift.wall, (kind, id) => this.get(kind, id));
    if (!line) return;
    const [dx, dy] = [(line.to[0] - line.from[0]) / line.length, (line.to[1] - line.from[1]) / line.length];
    const by = (node: string, x: number, y: number) => {
      const row = this.get("node", node);
      if (row) this.set("node", node, { x: row.x + x, y: row.y + y });
    };
    const { left, length, holds = "from" } = shift;
    if (left !== undefined) for (const end of [line.wall.fromNode, line.wall.toNode]) by(end, -dy * left, dx * left);
    if (length !== undefined) {
      const more = length - line.length;
      if (holds === "from") by(line.wall.toNode, dx * more, dy * more);
      else by(line.wall.fromNode, -dx * more, -dy * more);
    }
  }

  /** A storey's shapes: plain bodies for walls that differ, nothing for those that are gone, names where rooms got one. */
  private shapesOf(told: Derived, rows: Rows): Derived {
    const differing = new Set(this.touched.wall);
    const moved = this.touched.node;
    for (const wall of moved ? rows.wall.values() : []) {
      if (moved?.has(wall.fromNode) || moved?.has(wall.toNode)) differing.add(wall.id);
    }
    for (const id of this.touched.opening ?? []) {
      const wall = (rows.opening.get(id) ?? this.before.opening.get(id))?.wall;
      if (wall) differing.add(wall);
    }
    const walls = new Map(told.walls);
    for (const id of differing) {
      const line = rows.wall.get(id)?.storey === told.storey ? lineIn(id, (kind, row) => rows[kind].get(row)) : null;
      if (line) walls.set(id, plainBody(line, rows));
      else walls.delete(id);
    }
    const regions = this.touched.room ? this.named(told, rows) : told.regions;
    return differing.size === 0 && regions === told.regions ? told : { ...told, walls, regions };
  }

  private named(told: Derived, rows: Rows): Derived["regions"] {
    const regions = new Map(told.regions);
    for (const id of this.touched.room ?? []) {
      const room = rows.room.get(id);
      for (const region of told.regions.values()) {
        if (region.id === id && !room) regions.set(region.key, { ...region, id: null });
        if (region.id === null && room?.storey === told.storey && holds(region.polygon, room.x, room.y)) {
          regions.set(region.key, { ...region, id });
        }
      }
    }
    return regions;
  }
}

/** A wall's line without the index by place, which would have to be made anew for rows that are seen only once. */
function lineIn(
  id: string,
  row: <K extends "wall" | "node">(kind: K, id: string) => Thing<K> | undefined,
): WallLine | null {
  const wall = row("wall", id);
  const [a, b] = wall ? [row("node", wall.fromNode), row("node", wall.toNode)] : [];
  return wall && a && b ? lineOf(wall, [a.x, a.y], [b.x, b.y]) : null;
}

/** A wall with square ends, its openings cut out: what stands until the core has joined it to the others. */
function plainBody(line: WallLine, rows: Rows): WallShape {
  const half = line.wall.thickness / 2;
  const beside = (along: number, left: number): [number, number] => {
    const [x, y] = pointAlong(line, along);
    const [a, b] = [pointAlong(line, Math.max(0, along - 1)), pointAlong(line, Math.min(line.length, along + 1))];
    const run = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return [x - ((b[1] - a[1]) / run) * left, y + ((b[0] - a[0]) / run) * left];
  };
  const steps = line.chain.map((_, i) => (i / Math.max(1, line.chain.length - 1)) * line.length);
  const face = (left: number, at: readonly number[]) => at.map((along) => beside(along, left));
  const openings = [...rows.opening.values()].filter((o) => o.wall === line.wall.id);
  return {
    id: line.wall.id,
    stretches: [
      {
        from: [...line.from],
        right: face(-half, steps),
        to: [...line.to],
        left: face(half, [...steps].reverse()),
      },
    ],
    openings: openings.map(({ id, offset, width }) => {
      const ends = [offset, ...steps.filter((s) => s > offset && s < offset + width), offset + width];
      return { id, polygon: [...face(-half, ends), ...face(half, [...ends].reverse())] };
    }),
    findings: [],
  };
}

function holds(ring: readonly (readonly number[])[], x: number, y: number): boolean {
  let inside = false;
  ring.forEach(([ax = 0, ay = 0], i) => {
    const [bx = 0, by = 0] = ring[(i + ring.length - 1) % ring.length] ?? [];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  });
  return inside;
}

/** Walls as an edit would have them, where they would differ: drawn beside what is there. */
export function wallsOf(rows: Rows, edit: Edit): WallLine[] {
  const mine = withEdit({ rows, derived: new Map() }, edit).rows;
  if (mine.wall === rows.wall && mine.node === rows.node) return [];
  const isOther = (node: string) => mine.node.get(node) !== rows.node.get(node);
  return [...mine.wall.values()].flatMap((wall) => {
    const differs = rows.wall.get(wall.id) !== wall || isOther(wall.fromNode) || isOther(wall.toNode);
    return (differs && lineIn(wall.id, (kind, id) => mine[kind].get(id))) || [];
  });
}
