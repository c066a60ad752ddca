import { create } from "zustand";
import type { Operation } from "../../../api/client";
import { newId } from "../../../api/ids";
import type { Click, Drag } from "../../../board/act";
import { drafted, useDesk } from "../../../board/desk";
import { inkAt } from "../../../board/found";
import { read, sendDraft } from "../../../board/slip";
import { regionUnder } from "../../../board/snap";
import { distance, type XY } from "../../../geometry/plane";
import { sidesOf } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import type { Rows, Thing } from "../../../store/rows";
import type { Derived, Leak } from "../../../store/shapes";
import { nearestOnLine, wallLine } from "../../../store/walls";

declare module "../../../board/desk" {
  interface Drafts {
    /** a room being named: where, and the one that is there */
    name: { at: XY; room: string | null };
    /** where a divider begins */
    divider: { from: XY };
  }
}

/** What a click does, and the sides of columns as typed: `350` or `350 × 450`. */
export const useRoomOptions = create<{
  mode: "name" | "divider" | "column";
  columnSize: string;
  columnRound: boolean;
}>(() => ({ mode: "name", columnSize: "350", columnRound: false }));

/** A click while rooms are named: opens the slip there, or sets a divider or a column. */
export function roomPoint({ pointer, snap, free }: Click): void {
  const { storey, drawing } = useDesk.getState();
  const { mode: roomMode } = useRoomOptions.getState();
  const at = snap?.at ?? pointer;
  if (storey === null) return;
  if (roomMode === "column") return void setColumn(storey, pointer, free);
  if (roomMode === "divider") {
    const divider = drafted("divider")?.from;
    if (!divider) return useDesk.setState({ draft: { of: "divider", from: at } });
    if (distance(divider, at) < 1) return;
    useDesk.setState({ draft: null });
    const values = { storey, drawing, x1: divider[0], y1: divider[1], x2: at[0], y2: at[1] };
    void change("Set a divider", [{ do: "add", type: "divider", id: newId(), values }]);
    return;
  }
  const region = regionUnder(pointer);
  const room = region?.id ? useProject.getState().rows.room.get(region.id) : undefined;
  useDesk.setState({
    draft: { of: "name", at: pointer, room: room?.id ?? null },
    slip: room ? (room.number ? `${room.number} ${room.name}` : room.name) : `${nextNumber()} `,
    slipError: null,
  });
}

/** A column of the size at hand, its centre where the ink shows one near the click, or else where it was clicked. */
async function setColumn(storey: string, pointer: XY, free: boolean): Promise<void> {
  const { pointer: rested, snap } = useDesk.getState();
  const { columnSize, columnRound } = useRoomOptions.getState();
  const seen = snap?.kind === "column centre" && rested === pointer ? snap : free ? null : await inkAt(pointer, false);
  const [x, y] = seen?.kind === "column centre" ? seen.at : pointer;
  const sides = await sidesOf(columnSize);
  if (sides === null) return;
  const [width, depth] = sides;
  const values = { storey, x, y, width, depth, round: columnRound };
  await change("Set a column", [{ do: "add", type: "column", id: newId(), values }]);
}

/** The number after the highest one on the storey. */
export function nextNumber(): string {
  const { storey } = useDesk.getState();
  const numbers = [...useProject.getState().rows.room.values()]
    .filter((r) => r.storey === storey)
    .map((r) => Number.parseInt(r.number, 10))
    .filter((n) => Number.isFinite(n));
  const level = storey === null ? undefined : useProject.getState().rows.storey.get(storey);
  // Rooms of upper storeys begin at 101, 201 …: common practice, no source.
  const storeys = [...useProject.getState().rows.storey.values()].sort((a, b) => a.elevation - b.elevation);
  const base = Math.max(0, storeys.findIndex((s) => s.id === level?.id) - storeys.findIndex((s) => s.elevation >= 0));
  return String(Math.max(base * 100, ...numbers) + 1);
}

/** `3 Tank room`: number and name; a number alone, or a name alone, is taken too. */
export function numberAndName(text: string): { number: string; name: string } {
  // The field holds the next number already: typed again it is still one.
  const [, number = "", name = ""] = /^\s*(\d[\w./-]{0,11})?(?:\s+\1(?=\s))?\s*(.*?)\s*$/.exec(text) ?? [];
  return { number, name: name === "" ? (number === "" ? "" : `Room ${number}`) : name };
}

export async function nameRoom(text: string): Promise<void> {
  const { storey, drawing } = useDesk.getState();
  const roomAt = drafted("name");
  if (roomAt === null || storey === null) return;
  const [x, y] = roomAt.at;
  const { number, name } = numberAndName(text);
  if (name === "") return useDesk.setState({ slipError: "A room needs a name or a number." });
  await sendDraft("Name a room", [
    roomAt.room
      ? { do: "set", type: "room", id: roomAt.room, values: { name, number } }
      : { do: "add", type: "room", id: newId(), values: { storey, drawing, name, number, x, y, height: null } },
  ]);
}

export async function setCeiling(room: string, text: string): Promise<void> {
  const mm = await read(text);
  if (mm === null) return;
  await change("Ceiling height", [{ do: "set", type: "room", id: room, values: { height: mm } }]);
}

/** mm: bodies that are nearer touch, and a divider between them has no length */
const TOUCH_MM = 1;

/** Both ends of what closes a leak: across it, or where two walls touch at a corner alone, from centre line to centre line. */
function neckOf(leak: Leak): readonly [XY, XY] {
  const [p, q] = [pair(leak.neck[0]), pair(leak.neck[1])];
  if (distance(p, q) > TOUCH_MM) return [p, q];
  const { rows } = useProject.getState();
  const [a, b] = leak.walls.map((id) => wallLine(rows, id)).map((line) => (line ? nearestOnLine(p, line).at : null));
  return a && b && distance(a, b) > TOUCH_MM ? [a, b] : [p, q];
}

const pair = ([x = 0, y = 0]: readonly number[] = []): XY => [x, y];

/** One act closes a leak: the wall that ends goes on to the one it misses, or a divider closes what is left open. */
export async function mendLeak(leak: Leak): Promise<void> {
  const { rows } = useProject.getState();
  const { storey, drawing } = useDesk.getState();
  const [ends, misses] = leak.walls;
  const [p, q] = neckOf(leak);
  if (storey === null) return;
  const isWall = leak.end !== null && rows.wall.has(ends ?? "") && rows.wall.has(misses ?? "");
  const divide: Operation = {
    do: "add",
    type: "divider",
    id: newId(),
    values: { storey, drawing, x1: p[0], y1: p[1], x2: q[0], y2: q[1] },
  };
  if (!isWall || !ends || !misses) return void (await change("Close a leak", [divide]));
  const rework = { kind: "end", wall: ends, other: misses, atStart: leak.end === "from", node: newId() } as const;
  const refused = await change("Close a leak", [{ do: "rework", rework }]);
  // Walls that never meet are closed across.
  if (refused) await change("Close a leak", [divide]);
}

/** Named rooms of a storey that no region holds, or that run into another one. */
export function openRooms(rows: Rows, shapes: Derived): Thing<"room">[] {
  const second = shapes.findings.filter((f) => f.code === "two-names").flatMap((f) => f.things.slice(1));
  return [...shapes.unplaced.keys(), ...second].flatMap((id) => rows.room.get(id) ?? []);
}

/** The column of the storey that a point lies in. */
export function columnUnder([x, y]: XY): Thing<"column"> | undefined {
  const { storey } = useDesk.getState();
  return [...useProject.getState().rows.column.values()].find(
    (c) => c.storey === storey && Math.abs(x - c.x) <= c.width / 2 && Math.abs(y - c.y) <= c.depth / 2,
  );
}

/** A drag of a selected column. */
export function columnDrag(id: string, at: XY): Drag | null {
  const column = columnUnder(at);
  if (column?.id !== id) return null;
  let to: XY = [column.x, column.y];
  return {
    move(from, now) {
      to = [column.x + now[0] - from[0], column.y + now[1] - from[1]];
      const corner = (sx: number, sy: number): XY => [to[0] + (sx * column.width) / 2, to[1] + (sy * column.depth) / 2];
      const ring = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)] as const;
      const lines = ring.map((p, i): readonly [XY, XY] => [p, ring[(i + 1) % ring.length] ?? p]);
      useDesk.setState({ draft: { of: "moved", lines, told: false } });
    },
    async drop() {
      useDesk.setState({ draft: null });
      await change("Move a column", [{ do: "set", type: "column", id, values: { x: to[0], y: to[1] } }]);
    },
  };
}
