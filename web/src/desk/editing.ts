import type { Operation, Refused, Schemas } from "../api/client";
import { newId } from "../api/ids";
import { contains, distance, nearestOn, type XY } from "../board/geometry";
import { allStoreys, change, useProject } from "../store/project";
import type { Thing } from "../store/rows";
import { boxOf, nearestOnLine, pointAlong, wallAt, wallLine, wallLines, wallsAtNode } from "../store/walls";
import { type Held, useDesk } from "./desk";
import { read } from "./draft";
import { removeOpening } from "./openings";
import { inOrder } from "./selectors";
import { regionUnder, SNAP_PX, wallUnder } from "./snap";

const HANDLE_PX = 9;

/** Walls that are selected: one, or a group. */
export function selectedWalls(): readonly string[] {
  const { selected, group } = useDesk.getState();
  return group.length > 0 ? group : selected?.type === "wall" ? [selected.id] : [];
}

/** A click with nothing in hand: selects what lies there; with Shift it is added, or taken away again. */
export function selectAt(pointer: XY, add: boolean): void {
  const desk = useDesk.getState();
  if (desk.step !== "trace" && desk.step !== "prove") return;
  const { rows } = useProject.getState();
  const reach = 4 / desk.view.k;
  const hit = wallUnder(pointer, reach);
  if (add) {
    if (!hit) return;
    const before = selectedWalls();
    return selectWalls(before.includes(hit.id) ? before.filter((id) => id !== hit.id) : [...before, hit.id]);
  }
  const opening = [...rows.opening.values()].find(
    (o) => hit !== null && o.wall === hit.id && hit.along >= o.offset && hit.along <= o.offset + o.width,
  );
  if (opening) return useDesk.setState({ selected: { type: "opening", id: opening.id }, group: [] });
  const column = columnUnder(pointer);
  if (column) return useDesk.setState({ selected: { type: "column", id: column.id }, group: [] });
  if (hit) return useDesk.setState({ selected: { type: "wall", id: hit.id }, group: [] });
  const divider = [...rows.divider.values()].find(
    (d) => d.storey === desk.storey && nearestOn(pointer, [d.x1, d.y1], [d.x2, d.y2]).off < reach,
  );
  if (divider) return useDesk.setState({ selected: { type: "divider", id: divider.id }, group: [] });
  const room = regionUnder(pointer)?.id;
  useDesk.setState({ selected: room ? { type: "room", id: room } : null, group: [] });
}

/** The column of the storey that a point lies in. */
export function columnUnder([x, y]: XY): Thing<"column"> | undefined {
  const { storey } = useDesk.getState();
  return [...useProject.getState().rows.column.values()].find(
    (c) => c.storey === storey && Math.abs(x - c.x) <= c.width / 2 && Math.abs(y - c.y) <= c.depth / 2,
  );
}

export function selectWalls(ids: readonly string[]): void {
  const [only] = ids;
  useDesk.setState({
    selected: only !== undefined && ids.length === 1 ? { type: "wall", id: only } : null,
    group: ids.length > 1 ? ids : [],
  });
}

/** Walls that lie wholly within a rectangle are selected: added to what is, or taken away. */
export function selectWithin(a: XY, b: XY, takeAway: boolean): void {
  const { storey } = useDesk.getState();
  const [x1, x2] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
  const [y1, y2] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
  const inside = wallLines(useProject.getState().rows, storey)
    .filter((line) => {
      const box = boxOf(line);
      return box[0] >= x1 && box[1] >= y1 && box[2] <= x2 && box[3] <= y2;
    })
    .map((line) => line.wall.id);
  const before = selectedWalls();
  selectWalls(takeAway ? before.filter((id) => !inside.includes(id)) : [...new Set([...before, ...inside])]);
}

/** What a drag that begins at a point would move; null where it moves the view. */
export function heldAt(at: XY): Pick<Held, "kind" | "id" | "part"> | null {
  const { act, step, selected, group, view, storey } = useDesk.getState();
  if (act !== null || (step !== "trace" && step !== "prove")) return null;
  const { rows, role } = useProject.getState();
  if (role === "read" || storey === null) return null;
  const reach = HANDLE_PX / view.k;
  if (selected?.type === "opening") {
    const opening = rows.opening.get(selected.id);
    const line = wallLine(rows, opening?.wall);
    if (!opening || !line) return null;
    const on = nearestOnLine(at, line);
    if (on.off > line.wall.thickness / 2 + reach) return null;
    if (Math.abs(on.along - opening.offset) < reach) return { kind: "jamb", id: opening.id, part: 0 };
    if (Math.abs(on.along - opening.offset - opening.width) < reach) return { kind: "jamb", id: opening.id, part: 1 };
    const inside = on.along > opening.offset && on.along < opening.offset + opening.width;
    return inside ? { kind: "opening", id: opening.id, part: on.along - opening.offset } : null;
  }
  if (selected?.type === "column") {
    return columnUnder(at)?.id === selected.id ? { kind: "column", id: selected.id, part: 0 } : null;
  }
  const line = selected?.type === "wall" ? wallLine(rows, selected.id) : undefined;
  if (line) {
    if (distance(at, line.from) < reach) return { kind: "node", id: line.wall.fromNode, part: 0 };
    if (distance(at, line.to) < reach) return { kind: "node", id: line.wall.toNode, part: 0 };
  }
  const hit = wallAt(rows, storey, at, 0);
  if (hit && (hit.line.wall.id === selected?.id || group.includes(hit.line.wall.id))) {
    return { kind: "wall", id: hit.line.wall.id, part: 0 };
  }
  return null;
}

/** The drag has ended: what it moved is told to the server, which moves what is joined to it. */
export async function dropHeld(): Promise<void> {
  const { held, group } = useDesk.getState();
  useDesk.setState({ held: null });
  if (!held) return;
  const { rows } = useProject.getState();
  const by: XY = [held.to[0] - held.from[0], held.to[1] - held.from[1]];
  if (held.kind === "node") {
    const node = rows.node.get(held.id);
    if (!node) return;
    const shift = { nodes: [{ id: held.id, x: held.to[0], y: held.to[1] }] };
    await change("Move a corner", [{ do: "shift", shift }]);
    return;
  }
  if (held.kind === "wall") {
    const line = wallLine(rows, held.id);
    if (!line) return;
    if (group.length > 1) return void (await moveGroup(group, by));
    const [ux, uy] = [(line.to[0] - line.from[0]) / line.length, (line.to[1] - line.from[1]) / line.length];
    await change("Move a wall", [{ do: "shift", shift: { wall: held.id, left: by[1] * ux - by[0] * uy } }]);
    return;
  }
  if (held.kind === "column") {
    const column = rows.column.get(held.id);
    if (!column) return;
    const values = { x: column.x + by[0], y: column.y + by[1] };
    await change("Move a column", [{ do: "set", type: "column", id: held.id, values }]);
    return;
  }
  const values = openingDragged(held);
  const number = rows.opening.get(held.id)?.number ?? "";
  if (values)
    await change(`${held.kind === "jamb" ? "Width of" : "Move"} ${number}`, [
      { do: "set", type: "opening", id: held.id, values },
    ]);
}

/** Offset and width of an opening as it is being dragged. */
export function openingDragged(held: {
  kind: string;
  id: string;
  part: number;
  to: XY;
}): { offset: number; width: number } | null {
  const { rows } = useProject.getState();
  const opening = rows.opening.get(held.id);
  const line = wallLine(rows, opening?.wall);
  if (!opening || !line) return null;
  const { along } = nearestOnLine(held.to, line);
  const end = opening.offset + opening.width;
  if (held.kind === "opening") {
    return { offset: Math.max(0, Math.min(line.length - opening.width, along - held.part)), width: opening.width };
  }
  if (held.part === 0) {
    const offset = Math.max(0, Math.min(end - 50, along));
    return { offset, width: end - offset };
  }
  return {
    offset: opening.offset,
    width: Math.max(50, Math.min(line.length - opening.offset, along - opening.offset)),
  };
}

async function moveGroup(walls: readonly string[], [dx, dy]: XY): Promise<void> {
  const { rows } = useProject.getState();
  const nodes = new Map<string, { id: string; x: number; y: number }>();
  for (const id of walls) {
    const wall = rows.wall.get(id);
    for (const node of [wall?.fromNode, wall?.toNode]) {
      const row = node === undefined ? undefined : rows.node.get(node);
      if (row) nodes.set(row.id, { id: row.id, x: row.x + dx, y: row.y + dy });
    }
  }
  await change("Move walls", [{ do: "shift", shift: { nodes: [...nodes.values()] } }]);
}

/** Removes walls with their openings; the nodes that nothing else needs go with them. */
export function removeWalls(ids: readonly string[]): Promise<Refused | null> {
  useDesk.setState({ selected: null, group: [] });
  return change(ids.length === 1 ? "Remove a wall" : `Remove ${ids.length} walls`, [
    { do: "removeMany", type: "wall", ids: [...ids] },
  ]);
}

export function removeSelected(): void {
  const { selected } = useDesk.getState();
  const walls = selectedWalls();
  if (walls.length > 0) void removeWalls(walls);
  else if (selected?.type === "opening") removeOpening(selected.id);
  else if (selected && ["room", "divider", "column", "note", "figure"].includes(selected.type)) {
    useDesk.setState({ selected: null });
    void change(`Remove a ${selected.type}`, [
      { do: "remove", type: selected.type as "room" | "divider" | "column" | "note" | "figure", id: selected.id },
    ]);
  }
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

/** Walls take a build-up's thickness, height and whether it encloses. */
export function setBuildUp(walls: readonly string[], id: string | null): Promise<Refused | null> {
  const kind = useProject.getState().rows.buildUp.get(id ?? "");
  if (!kind) return setOfWalls("Build-up", walls, { buildUp: null });
  const { thickness, height, enclosing } = kind;
  return change("Build-up", [
    { do: "shift", shift: { walls: [...walls], thickness } },
    ...walls.map(
      (wall): Operation => ({ do: "set", type: "wall", id: wall, values: { buildUp: kind.id, height, enclosing } }),
    ),
  ]);
}

/** A build-up becomes another, and with it every wall that has it. */
export async function changeBuildUp(
  id: string,
  values: { name?: string; thickness?: number; height?: number | null; enclosing?: boolean },
): Promise<Refused | null> {
  await allStoreys();
  const walls = [...useProject.getState().rows.wall.values()].filter((w) => w.buildUp === id).map((w) => w.id);
  const { name: _name, thickness, ...shared } = values;
  const operations: Operation[] = [{ do: "set", type: "buildUp", id, values }];
  if (walls.length > 0 && thickness !== undefined) operations.push({ do: "shift", shift: { walls, thickness } });
  if (thickness !== undefined || Object.keys(shared).length > 0) {
    for (const wall of walls)
      operations.push({ do: "set", type: "wall", id: wall, values: { ...shared, buildUp: id } });
  }
  return change("Change a build-up", operations);
}

/** A build-up goes; walls that have it stay as they are. */
export async function removeBuildUp(id: string): Promise<Refused | null> {
  await allStoreys();
  const walls = [...useProject.getState().rows.wall.values()].filter((w) => w.buildUp === id);
  useDesk.setState({ buildUp: null });
  return change("Remove a build-up", [
    { do: "setMany", type: "wall", ids: walls.map((w) => w.id), values: { buildUp: null } },
    { do: "remove", type: "buildUp", id },
  ]);
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

/** A click on the board after an act of a selected wall has asked for a place or another wall. */
export function askedPoint(pointer: XY): void {
  const { asked, view } = useDesk.getState();
  if (!asked) return;
  const { rows } = useProject.getState();
  const wall = wallLine(rows, asked.wall);
  if (!wall) return useDesk.setState({ asked: null });
  const hit = wallUnder(pointer, SNAP_PX / view.k, asked.kind === "split" ? [] : [asked.wall]);
  if (asked.kind === "beside") return; // its distance is typed
  if (!hit) return;
  useDesk.setState({ asked: null });
  if (asked.kind === "split") {
    const rework = { kind: "split", wall: hit.id, along: hit.along, node: newId(), newWall: newId() } as const;
    return void change("Split a wall", [{ do: "rework", rework }]);
  }
  if (asked.kind === "join") {
    const rework = { kind: "join", wall: asked.wall, other: hit.id } as const;
    return void change("Make one wall of two", [{ do: "rework", rework }]);
  }
  const host = wallLine(rows, hit.id);
  const meet = host ? crossing(wall, host) : null;
  const atStart = meet !== null && distance(meet, wall.from) < distance(meet, wall.to);
  const rework = { kind: "end", wall: asked.wall, other: hit.id, atStart, node: newId() } as const;
  void change("End at a wall", [{ do: "rework", rework } satisfies Operation]);
}

/** A copy beside the wall, on the pointer's side, at a typed clear distance between the two. */
export async function setBeside(text: string): Promise<void> {
  const { asked, pointer } = useDesk.getState();
  const line = wallLine(useProject.getState().rows, asked?.wall);
  if (!asked || !line) return;
  const clear = await read(text);
  if (clear === null) return;
  const left = pointer === null || nearestOnLine(pointer, line).side >= 0 ? 1 : -1;
  const rework: Schemas["Rework"] = {
    kind: "beside",
    wall: asked.wall,
    left: left * (clear + line.wall.thickness),
    node: newId(),
    secondNode: newId(),
    newWall: newId(),
  };
  useDesk.setState({ asked: null, slip: null, slipError: null });
  await change("Copy beside", [{ do: "rework", rework }]);
}

function crossing(a: { from: XY; to: XY }, b: { from: XY; to: XY }): XY | null {
  const [ux, uy] = [a.to[0] - a.from[0], a.to[1] - a.from[1]];
  const [vx, vy] = [b.to[0] - b.from[0], b.to[1] - b.from[1]];
  const cross = ux * vy - uy * vx;
  if (cross === 0) return null;
  const s = ((b.from[0] - a.from[0]) * vy - (b.from[1] - a.from[1]) * vx) / cross;
  return [a.from[0] + s * ux, a.from[1] + s * uy];
}

/** Lines of what is held, where it would go: of a wall, of those that meet it, and of what is dragged otherwise. */
export function preview(): readonly (readonly [XY, XY])[] {
  const { held, group, storey } = useDesk.getState();
  if (!held || storey === null) return [];
  const { rows } = useProject.getState();
  const moved = new Map<string, XY>();
  const by: XY = [held.to[0] - held.from[0], held.to[1] - held.from[1]];
  const line = held.kind === "wall" ? wallLine(rows, held.id) : undefined;
  if (held.kind === "node") moved.set(held.id, held.to);
  if (line && group.length > 1) {
    for (const id of group) {
      const each = wallLine(rows, id);
      if (!each) continue;
      moved.set(each.wall.fromNode, [each.from[0] + by[0], each.from[1] + by[1]]);
      moved.set(each.wall.toNode, [each.to[0] + by[0], each.to[1] + by[1]]);
    }
  } else if (line) {
    const [ux, uy] = [(line.to[0] - line.from[0]) / line.length, (line.to[1] - line.from[1]) / line.length];
    const left = by[1] * ux - by[0] * uy;
    moved.set(line.wall.fromNode, [line.from[0] - uy * left, line.from[1] + ux * left]);
    moved.set(line.wall.toNode, [line.to[0] - uy * left, line.to[1] + ux * left]);
  }
  const lines = new Map<string, readonly [XY, XY]>();
  for (const node of moved.keys()) {
    for (const each of wallsAtNode(rows, storey, node)) {
      lines.set(each.wall.id, [moved.get(each.wall.fromNode) ?? each.from, moved.get(each.wall.toNode) ?? each.to]);
    }
  }
  if (held.kind === "opening" || held.kind === "jamb") {
    const at = openingDragged(held);
    const host = wallLine(rows, rows.opening.get(held.id)?.wall);
    if (at && host) lines.set(held.id, [pointAlong(host, at.offset), pointAlong(host, at.offset + at.width)]);
  }
  return [...lines.values()];
}

/** Walls go to another storey, with their nodes and openings; nodes that others need are left and copied. */
export async function moveToStorey(walls: readonly string[], storey: string): Promise<void> {
  const { rows } = useProject.getState();
  const title = `Move to ${rows.storey.get(storey)?.name ?? "another storey"}`;
  const refused = await change(title, [{ do: "toStorey", toStorey: { walls: [...walls], storey } }]);
  if (!refused) useDesk.setState({ selected: null, group: [] });
}

/** Walls of another storey are copied to this one, where they stand, without their openings. */
export async function copyWalls(from: string, to: string, which: (id: string) => boolean): Promise<void> {
  const { rows } = useProject.getState();
  const walls = wallLines(rows, from).flatMap(({ wall }) => (which(wall.id) ? [wall.id] : []));
  if (walls.length > 0) {
    await change(`Copy walls of ${rows.storey.get(from)?.name ?? ""}`, [{ do: "copy", copy: { walls, to } }]);
  }
}

/** Further from a face than this is beside the wall, mm. */
const BESIDE_MM = 20;

/** Walls with no room beside some of their length: those round the building. */
export function outerWalls(storey: string): ReadonlySet<string> {
  const shapes = useProject.getState().derived.get(storey);
  const regions = [...(shapes?.regions.values() ?? [])];
  const outer = new Set<string>();
  for (const { id, stretches } of shapes?.walls.values() ?? []) {
    for (const { from, to, right, left } of stretches) {
      const [x1 = 0, y1 = 0, x2 = 0, y2 = 0] = [from[0], from[1], to[0], to[1]];
      const length = Math.hypot(x2 - x1, y2 - y1);
      if (length < BESIDE_MM) continue;
      const [nx, ny] = [-(y2 - y1) / length, (x2 - x1) / length];
      const beside = (face: readonly (readonly number[])[], side: number): XY => {
        const off = Math.abs(((face[0]?.[0] ?? x1) - x1) * nx + ((face[0]?.[1] ?? y1) - y1) * ny) + BESIDE_MM;
        return [(x1 + x2) / 2 + side * off * nx, (y1 + y2) / 2 + side * off * ny];
      };
      const isOpen = (p: XY) => !regions.some((r) => contains(r.polygon, p));
      if (isOpen(beside(left, 1)) || isOpen(beside(right, -1))) outer.add(id);
    }
  }
  return outer;
}

/** Storeys from the lowest to the highest, alternatives after what they are one of. */
export function storeysInOrder() {
  const all = inOrder(useProject.getState().rows.storey.values());
  return all.sort((a, b) => a.elevation - b.elevation || (a.alternativeOf === null ? -1 : 1));
}
