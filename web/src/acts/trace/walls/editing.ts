import type { Operation, Refused } from "../../../api/client";
import type { Drag } from "../../../board/act";
import { NOTHING_SELECTED, useDesk } from "../../../board/desk";
import { selectedWalls } from "../../../board/selection";
import { snapAt } from "../../../board/snap";
import { distance, type XY } from "../../../geometry/plane";
import { change, useProject } from "../../../store/project";
import { type WallLine, wallAt, wallLine, wallsAtNode } from "../../../store/walls";

/** A drag of a selected wall, of all that are selected with it, or of one of its ends. */
export function wallDrag(id: string, at: XY, reach: number): Drag | null {
  const { storey, group } = useDesk.getState();
  const { rows } = useProject.getState();
  const line = group.length > 0 ? undefined : wallLine(rows, id);
  if (line && distance(at, line.from) < reach) return nodeDrag(line.wall.fromNode);
  if (line && distance(at, line.to) < reach) return nodeDrag(line.wall.toNode);
  const hit = wallAt(rows, storey, at, 0)?.line;
  if (!hit || !selectedWalls().includes(hit.wall.id)) return null;
  return group.length > 1 ? groupDrag(group) : acrossDrag(hit);
}

function nodeDrag(node: string): Drag {
  let to: XY | null = null;
  return {
    move(_from, at, free) {
      to = snapAt(at, free)?.at ?? at;
      show(new Map([[node, to]]));
    },
    async drop() {
      useDesk.setState({ draft: null });
      if (!to) return;
      const [x, y] = to;
      await change("Move a corner", [{ do: "shift", shift: { nodes: [{ id: node, x, y }] } }]);
    },
  };
}

/** A wall moves across itself. */
function acrossDrag(line: WallLine): Drag {
  const [ux, uy] = [(line.to[0] - line.from[0]) / line.length, (line.to[1] - line.from[1]) / line.length];
  let left = 0;
  return {
    move(from, to) {
      left = (to[1] - from[1]) * ux - (to[0] - from[0]) * uy;
      const off = ([x, y]: XY): XY => [x - uy * left, y + ux * left];
      show(
        new Map([
          [line.wall.fromNode, off(line.from)],
          [line.wall.toNode, off(line.to)],
        ]),
      );
    },
    async drop() {
      useDesk.setState({ draft: null });
      await change("Move a wall", [{ do: "shift", shift: { wall: line.wall.id, left } }]);
    },
  };
}

function groupDrag(walls: readonly string[]): Drag {
  const { rows } = useProject.getState();
  const nodes = new Map<string, XY>();
  for (const id of walls) {
    const line = wallLine(rows, id);
    if (line) nodes.set(line.wall.fromNode, line.from).set(line.wall.toNode, line.to);
  }
  let moved = nodes;
  return {
    move(from, to) {
      const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
      moved = new Map([...nodes].map(([id, [x, y]]) => [id, [x + dx, y + dy] as XY]));
      show(moved);
    },
    async drop() {
      useDesk.setState({ draft: null });
      const shift = { nodes: [...moved].map(([id, [x, y]]) => ({ id, x, y })) };
      await change("Move walls", [{ do: "shift", shift }]);
    },
  };
}

/** Every wall that meets one of the nodes, as it would lie. */
function show(moved: ReadonlyMap<string, XY>): void {
  const { storey } = useDesk.getState();
  const { rows } = useProject.getState();
  const lines = new Map<string, readonly [XY, XY]>();
  for (const node of storey === null ? [] : moved.keys()) {
    for (const each of wallsAtNode(rows, storey ?? "", node)) {
      lines.set(each.wall.id, [moved.get(each.wall.fromNode) ?? each.from, moved.get(each.wall.toNode) ?? each.to]);
    }
  }
  useDesk.setState({ draft: { of: "moved", lines: [...lines.values()], told: true } });
}

/** Removes walls with their openings; the nodes that nothing else needs go with them. */
export function removeWalls(ids: readonly string[]): Promise<Refused | null> {
  useDesk.setState(NOTHING_SELECTED);
  return change(ids.length === 1 ? "Remove a wall" : `Remove ${ids.length} walls`, [
    { do: "removeMany", type: "wall", ids: [...ids] },
  ]);
}

/** A typed length along the centre line; the end that stays is the start, unless nothing else is joined to it. */
export function setLength(wall: string, length: number): Promise<Refused | null> {
  const { rows } = useProject.getState();
  const row = rows.wall.get(wall);
  const joined = (node: string | undefined) => (row && node ? wallsAtNode(rows, row.storey, node).length : 0);
  const holds = joined(row?.fromNode) === 1 && joined(row?.toNode) > 1 ? "to" : "from";
  return change("Length of a wall", [{ do: "shift", shift: { wall, length, holds } }]);
}

export function setThickness(walls: readonly string[], mm: number): Promise<Refused | null> {
  return change("Thickness", [{ do: "shift", shift: { walls: [...walls], thickness: mm } }]);
}

export function setOfWalls(
  title: string,
  walls: readonly string[],
  values: Record<string, unknown>,
): Promise<Refused | null> {
  return change(title, [{ do: "setMany", type: "wall", ids: [...walls], values }]);
}

export function reverse(walls: readonly string[]): Promise<Refused | null> {
  return change(
    "Turn round",
    walls.map((wall): Operation => ({ do: "rework", rework: { kind: "reverse", wall } })),
  );
}
