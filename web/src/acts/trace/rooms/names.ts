import type { Operation } from "../../../api/client";
import { newId } from "../../../api/ids";
import { useDesk } from "../../../board/desk";
import { apply } from "../../../geometry/maps";
import { contains, distance, type XY } from "../../../geometry/plane";
import { fitMap } from "../../../store/drawings";
import { change, useProject } from "../../../store/project";
import { boxOf, wallLines } from "../../../store/walls";
import { pair, type ReadRoom } from "../../searches";
import { nextNumber } from "./rooms";

/** Where a name was read, in the model. */
export function placeOf(room: ReadRoom): XY | null {
  const map = fitMap(useProject.getState().rows, useDesk.getState().drawing);
  return map ? apply(map, pair(room.at)) : null;
}

/** Names that lie in rooms that have none yet, of each room the one that was read most surely. */
export function roomsToName(rooms: readonly ReadRoom[]): ReadRoom[] {
  const { storey } = useDesk.getState();
  const shapes = storey === null ? undefined : useProject.getState().derived.get(storey);
  const open = [...(shapes?.regions.values() ?? [])].filter((r) => r.id === null);
  const surest = new Map<string, ReadRoom>();
  for (const room of rooms) {
    const at = placeOf(room);
    const region = at && open.find((r) => contains(r.polygon, at));
    const before = region && surest.get(region.key);
    if (region && (!before || room.confidence > before.confidence)) surest.set(region.key, room);
  }
  return rooms.filter((room) => [...surest.values()].includes(room));
}

/** A room whose name stands so near to one that was read was named by that, also where it was corrected first, mm. */
const SAME_PLACE_MM = 300;

/** Names among the traced walls that nothing closes off yet, or that lie with another in one region, and nobody has named anything so. */
export function roomsUnclosed(rooms: readonly ReadRoom[]): ReadRoom[] {
  const { storey } = useDesk.getState();
  const { rows, derived } = useProject.getState();
  const regions = [...(derived.get(storey ?? "")?.regions.values() ?? [])];
  const boxes = wallLines(rows, storey).map(boxOf);
  if (boxes.length < 3) return [];
  const bound = (k: 0 | 1 | 2 | 3) => (k < 2 ? Math.min : Math.max)(...boxes.map((b) => b[k]));
  const [x1, y1, x2, y2] = [bound(0), bound(1), bound(2), bound(3)];
  const here = [...rows.room.values()].filter((r) => r.storey === storey);
  const isNamed = (name: string, at: XY) =>
    here.some((r) => r.name.toLowerCase() === name.toLowerCase() || distance([r.x, r.y], at) < SAME_PLACE_MM);
  const first = new Set(roomsToName(rooms));
  return rooms.filter((room) => {
    const at = placeOf(room);
    if (!at || isNamed(titled(room.name), at)) return false;
    const isAmong = at[0] > x1 && at[0] < x2 && at[1] > y1 && at[1] < y2;
    const region = regions.find((r) => contains(r.polygon, at));
    return isAmong && (region === undefined || !first.has(room));
  });
}

/** Names rooms, by the names that are given with where they were read. */
export async function nameRooms(rooms: readonly ReadRoom[]): Promise<void> {
  const { storey, drawing } = useDesk.getState();
  if (storey === null) return;
  const first = Number.parseInt(nextNumber(), 10);
  const operations = rooms.flatMap((room, i): Operation[] => {
    const at = placeOf(room);
    return at
      ? [
          {
            do: "add",
            type: "room",
            id: newId(),
            values: {
              storey,
              drawing,
              name: room.name.trim(),
              number: String(first + i),
              x: at[0],
              y: at[1],
              height: null,
            },
          },
        ]
      : [];
  });
  if (operations.length > 0) await change(operations.length === 1 ? "Name a room" : "Name rooms", operations);
}

/** Names and areas as they were read become the rooms table of the storey. */
export async function listRooms(rooms: readonly ReadRoom[]): Promise<void> {
  const { storey } = useDesk.getState();
  if (storey === null) return;
  const listed = rooms.filter((r) => r.areaM2 !== null);
  if (listed.length === 0) return;
  await change(
    "List rooms",
    listed.map(
      (r): Operation => ({
        do: "add",
        type: "listedRoom",
        id: newId(),
        values: { storey, number: "", name: titled(r.name), width: null, depth: null, areaM2: r.areaM2 },
      }),
    ),
  );
}

/** Drawings write in capitals; names read easier without. */
export function titled(name: string): string {
  // Short ones and those with points are abbreviations.
  return name.length > 3 && !name.includes(".") ? name.charAt(0) + name.slice(1).toLowerCase() : name;
}
