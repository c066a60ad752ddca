import { create } from "zustand";
import type { Operation, Schemas } from "../../../api/client";
import { newId } from "../../../api/ids";
import { useDesk } from "../../../board/desk";
import { regionUnder, wallUnder } from "../../../board/snap";
import type { XY } from "../../../geometry/plane";
import { change, say, useProject } from "../../../store/project";
import { inOrder, type Rows, type Thing } from "../../../store/rows";

export type Finish = Thing<"finish">;
export type Surface = Thing<"surface">;
type SurfaceOn = Schemas["SurfaceOn"];
/** What the next click finishes. */
export type LaysOn = "floor" | "ceiling" | "walls" | "face";

/** What is laid next, and of upright surfaces from where to where above the floor. */
export const useNextFinish = create<{
  finish: string | null;
  on: LaysOn;
  bottom: number | null;
  top: number | null;
}>(() => ({ finish: null, on: "floor", bottom: null, top: null }));

/** Where a surface lies. */
export type Place = { room: string | null; wall: string | null; on: SurfaceOn };

/** How a new one begins; common sizes, common practice, no source. */
const NEW: Record<Finish["pattern"], Omit<Finish, "id" | "revision">> = {
  plain: { name: "Plain", colour: "#e6e0d2", pattern: "plain", width: 0, height: 0, joint: 0, bond: "stacked" },
  tiles: { name: "Tiles", colour: "#d5c7b4", pattern: "tiles", width: 300, height: 300, joint: 3, bond: "stacked" },
  boards: { name: "Boards", colour: "#c9b088", pattern: "boards", width: 140, height: 0, joint: 2, bond: "stacked" },
};

/** A new finish, which is laid next. */
export async function addFinish(pattern: Finish["pattern"]): Promise<void> {
  const id = newId();
  const names = new Set([...useProject.getState().rows.finish.values()].map((f) => f.name));
  const { name } = NEW[pattern];
  let n = 1;
  while (names.has(n === 1 ? name : `${name} ${n}`)) n++;
  const values = { ...NEW[pattern], name: n === 1 ? name : `${name} ${n}` };
  useNextFinish.setState({ finish: id });
  await change("A new finish", [{ do: "add", type: "finish", id, values }]);
}

/** A finish goes, and with it all surfaces that have it. */
export async function removeFinish(id: string): Promise<void> {
  const ids = [...useProject.getState().rows.surface.values()].filter((s) => s.finish === id).map((s) => s.id);
  const operations: Operation[] = [{ do: "remove", type: "finish", id }];
  if (ids.length > 0) operations.unshift({ do: "removeMany", type: "surface", ids });
  useNextFinish.setState({ finish: null });
  await change("Remove a finish", operations);
}

/** Values of a finish of another pattern: what that cannot be without is what is usual. */
export function patterned(finish: Finish, pattern: Finish["pattern"]) {
  const { width, height, joint } = NEW[pattern];
  return {
    pattern,
    width: finish.width > 0 ? finish.width : width,
    height: pattern === "tiles" && finish.height === 0 ? height : finish.height,
    joint: finish.joint > 0 ? finish.joint : joint,
  };
}

/** What is laid next: the one chosen, or the first there is. */
export function nextFinish(rows: Rows): Finish | undefined {
  return rows.finish.get(useNextFinish.getState().finish ?? "") ?? inOrder(rows.finish.values())[0];
}

/** What a click at a place would finish; words for what is not there. */
export function placeUnder(pointer: XY, reach: number): Place | string {
  const { on } = useNextFinish.getState();
  if (on === "face") {
    const wall = wallUnder(pointer, reach);
    if (!wall) return "point at a wall, on the side that is meant";
    return { room: null, wall: wall.id, on: wall.side > 0 ? "left" : "right" };
  }
  const region = regionUnder(pointer);
  if (!region) return "nothing closes round it";
  return region.id === null ? "name this room first" : { room: region.id, wall: null, on };
}

/** The surface that lies at a place already; upright ones over the same part of it. */
export function surfaceAt(surfaces: Iterable<Surface>, place: Place, bottom: number | null, top: number | null) {
  return [...surfaces].find(
    (s) =>
      s.room === place.room &&
      s.wall === place.wall &&
      s.on === place.on &&
      (!isUpright(s) || (s.bottom === bottom && s.top === top)),
  );
}

export const isUpright = ({ on }: { on: SurfaceOn }) => on !== "floor" && on !== "ceiling";

/** Lays what was chosen on what is under the pointer; where something lies already that becomes it. */
export async function layFinish(pointer: XY, reach: number): Promise<void> {
  const { rows, derived } = useProject.getState();
  const finish = nextFinish(rows);
  if (!finish) return say("Make a finish first: a colour, tiles or boards.");
  const place = placeUnder(pointer, reach);
  if (typeof place === "string") return say(`No surface is there: ${place}.`);
  const upright = isUpright(place);
  const { bottom, top } = upright ? useNextFinish.getState() : { bottom: null, top: null };
  const there = surfaceAt(rows.surface.values(), place, bottom, top);
  const id = there?.id ?? newId();
  useDesk.setState({ selected: { type: "surface", id }, group: [], things: [] });
  if (there?.finish === finish.id) return;
  if (there)
    return void (await change("Another finish", [{ do: "set", type: "surface", id, values: { finish: finish.id } }]));
  const region = [...(derived.get(useDesk.getState().storey ?? "")?.regions.values() ?? [])].find(
    (r) => r.id === place.room,
  );
  // A pattern begins in the corner of the room, or where the upright part does.
  const [x, y] = upright ? [0, bottom ?? 0] : lowest(region?.polygon ?? []);
  const values = { finish: finish.id, ...place, bottom, top, start: null, end: null, x, y, degrees: 0 };
  await change("Lay a finish", [{ do: "add", type: "surface", id, values }]);
}

/** The lower left of what is round a ring. */
function lowest(ring: readonly (readonly number[])[]): readonly [number, number] {
  const [xs, ys] = [ring.map((p) => p[0] ?? 0), ring.map((p) => p[1] ?? 0)];
  return ring.length === 0 ? [0, 0] : [Math.min(...xs), Math.min(...ys)];
}

/** Surfaces of a storey, by their finish and what they are of. */
export function surfacesHere(rows: Rows, storey: string | null): Surface[] {
  const here = [...rows.surface.values()].filter(
    (s) => (rows.room.get(s.room ?? "")?.storey ?? rows.wall.get(s.wall ?? "")?.storey) === storey,
  );
  const key = (s: Surface) => `${rows.finish.get(s.finish)?.name} ${whereInWords(rows, s)}`;
  return here.sort((a, b) => key(a).localeCompare(key(b), undefined, { numeric: true }));
}

/** `3 Hall, floor`; `a wall, its left face`. */
export function whereInWords(rows: Rows, { room, on }: Pick<Surface, "room" | "on">): string {
  const named = rows.room.get(room ?? "");
  return named ? `${named.number} ${named.name}, ${on}`.trim() : `a wall, its ${on} face`;
}
