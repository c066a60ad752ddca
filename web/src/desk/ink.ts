import { create } from "zustand";
import { api, type Operation, type Schemas, settled } from "../api/client";
import { newId } from "../api/ids";
import { apply, contains, nearestOn, type XY } from "../board/geometry";
import { change, inProject, say, useProject } from "../store/project";
import { useDesk } from "./desk";
import { projectUnit } from "./draft";
import { nextNumber } from "./rooms";
import { fitMap } from "./selectors";
import { sendStatement } from "./statements";

export type Proposals = Schemas["Proposals"];
export type Readings = Schemas["Readings"];
type Settled = Schemas["Settled"];
export type ProposedWall = Proposals["walls"][number];
export type ReadFigure = Readings["figures"][number];
export type ReadRoom = Readings["rooms"][number];

interface InkState {
  /** what was told last, and of which drawing */
  proposals: { of: string; told: Proposals } | null;
  readings: { of: string; told: Readings } | null;
  settled: { of: string; told: Settled } | null;
  /** the proposal or reading that is looked at */
  looked: string | null;
  /** what the last probe found, told until the next */
  probed: string | null;
}

export const useInk = create<InkState>(() => ({
  proposals: null,
  readings: null,
  settled: null,
  looked: null,
  probed: null,
}));

export type Search = "proposals" | "readings";
const PATHS = {
  proposals: {
    show: "/api/projects/{project}/drawings/{id}/proposals",
    refuse: "/api/projects/{project}/drawings/{id}/proposals/refuse",
  },
  readings: {
    show: "/api/projects/{project}/drawings/{id}/readings",
    refuse: "/api/projects/{project}/drawings/{id}/readings/refuse",
  },
} as const;

function keep(search: Search, of: string, told: Proposals | Readings): void {
  useInk.setState(
    search === "proposals"
      ? { proposals: { of, told: told as Proposals } }
      : { readings: { of, told: told as Readings } },
  );
}

/** What a search has found. */
export async function look(search: Search, drawing: string): Promise<void> {
  try {
    const params = { path: inProject(drawing) };
    keep(search, drawing, await settled<Proposals | Readings>(api.GET(PATHS[search].show, { params })));
  } catch {
    // Away: it is asked again when the panel is next looked at.
  }
}

/** What is not wanted; nothing takes all refusals back. */
export async function refuse(search: Search, drawing: string, ids: readonly string[]): Promise<void> {
  const params = { path: inProject(drawing) };
  await said(async () => {
    const told =
      search === "proposals"
        ? await settled<Proposals>(api.POST(PATHS.proposals.refuse, { params, body: { walls: [...ids] } }))
        : await settled<Readings>(api.POST(PATHS.readings.refuse, { params, body: { readings: [...ids] } }));
    keep(search, drawing, told);
  });
}

async function said(does: () => Promise<void>): Promise<void> {
  try {
    await does();
  } catch (error) {
    say((error as Error).message);
  }
}

/** Lays proposed walls down with their openings, as one change: some, or all that are sure and the columns too. */
export async function accept(ids: readonly string[] | null): Promise<void> {
  const { proposals } = useInk.getState();
  const { storey, drawing } = useDesk.getState();
  if (!proposals || storey === null || proposals.of !== drawing) return;
  const walls = proposals.told.walls.filter((w) => (ids === null ? w.sure : ids.includes(w.id)));
  const columns = ids === null ? proposals.told.columns : [];
  if (walls.length === 0 && columns.length === 0) return;
  const index = new Map(walls.map((w, i) => [w.id, i]));
  const openings = proposals.told.openings.flatMap((o) => {
    const wall = index.get(o.wall);
    return wall === undefined || !o.sure
      ? []
      : [{ wall, kind: o.kind, offset: o.offset, width: o.width, leafAt: o.leafAt, leafSide: o.leafSide }];
  });
  const refused = await change(walls.length === 1 ? "Accept a wall" : "Accept walls", [
    {
      do: "lay",
      lay: {
        storey,
        drawing,
        walls: walls.map((w) => ({ from: w.from, to: w.to, thickness: w.thickness, buildUp: w.buildUp?.id ?? null })),
        openings,
        columns: columns.map(({ x, y, width, depth }) => ({ x, y, width, depth })),
      },
    },
  ]);
  if (!refused) await look("proposals", drawing);
}

/** The proposed wall under a place. */
export function proposalAt(at: XY): ProposedWall | null {
  const { proposals } = useInk.getState();
  const { view, drawing } = useDesk.getState();
  if (!proposals || proposals.of !== drawing) return null;
  const near = 6 / view.k;
  return (
    proposals.told.walls.find((w) => nearestOn(at, pair(w.from), pair(w.to)).off <= Math.max(w.thickness / 2, near)) ??
    null
  );
}

/** All proposed walls whose ends lie in an area: accepted as far as they are sure, or refused. */
export async function acceptWithin(a: XY, b: XY, takeAway: boolean): Promise<void> {
  const { proposals } = useInk.getState();
  if (!proposals) return;
  const ring = [a, [b[0], a[1]], b, [a[0], b[1]]] as const;
  const ids = proposals.told.walls
    .filter((w) => (takeAway || w.sure) && contains(ring, pair(w.from)) && contains(ring, pair(w.to)))
    .map((w) => w.id);
  if (ids.length === 0) return;
  await (takeAway ? refuse("proposals", proposals.of, ids) : accept(ids));
}

/** A click takes the proposal there, or else the drawn wall under it. */
export async function inkPoint(at: XY): Promise<void> {
  const { storey, drawing } = useDesk.getState();
  if (storey === null || drawing === null) return;
  const proposed = proposalAt(at);
  if (proposed) return accept([proposed.id]);
  await said(async () => {
    const params = { path: inProject(drawing), query: { x: at[0], y: at[1] } };
    const { found } = await settled(api.GET("/api/projects/{project}/drawings/{id}/probe", { params }));
    if (!found) {
      useInk.setState({ probed: "No wall is drawn there: click on its body or between its two lines." });
      return;
    }
    const walls = [{ from: found.from, to: found.to, thickness: found.thickness, buildUp: found.buildUp?.id ?? null }];
    const refused = await change("Probe a wall", [{ do: "lay", lay: { storey, drawing, walls } }]);
    if (refused) return;
    const taken = found.buildUp ? `, taken as ${found.buildUp.name}` : "";
    useInk.setState({
      probed: `${found.thickness.toFixed(0)} mm thick, ±${Math.max(0.1, found.plusMinusMm).toFixed(1)}${taken}.`,
    });
    if (useInk.getState().proposals?.of === drawing) await look("proposals", drawing);
  });
}

/** What settling the storey would do. */
export async function previewSettling(storey: string): Promise<void> {
  await said(async () => {
    const told = await settled(
      api.GET("/api/projects/{project}/storeys/{id}/settled", { params: { path: inProject(storey) } }),
    );
    useInk.setState({ settled: { of: storey, told } });
  });
}

export async function settle(storey: string): Promise<void> {
  const refused = await change("Settle the storey", [{ do: "settle", settle: { storey } }]);
  if (!refused) await previewSettling(storey);
}

/** A figure that was read becomes a known length, or a check length. */
export async function takeFigure(figure: ReadFigure, heldOut: boolean): Promise<void> {
  const { drawing } = useDesk.getState();
  if (drawing === null) return;
  await sendStatement(heldOut ? "Check length" : "Known length", asLength(drawing, figure, heldOut));
  await look("readings", drawing);
}

/** What the drawing says of its scale becomes its stated scale. */
export async function takeScale(drawing: string, statedScale: number | null): Promise<void> {
  await sendStatement("Stated scale", [{ do: "set", type: "drawing", id: drawing, values: { statedScale } }]);
}

/** The drawing is sized by its own figures in one act, which undo takes back as one; what disagrees with the rest is named. */
export async function sizeByFigures(): Promise<void> {
  const { drawing } = useDesk.getState();
  if (drawing === null) return;
  const known = new Set(useProject.getState().rows.knownLength.keys());
  await sendStatement("Sized by its own figures", [{ do: "size", size: { drawing } }]);
  await look("readings", drawing);
  const out = [...useProject.getState().rows.knownLength.values()]
    .filter((l) => !known.has(l.id) && l.drawing === drawing && l.heldOut)
    .map((l) => l.text);
  if (out.length > 0)
    say(`${out.join(" and ")} ${out.length > 1 ? "disagree" : "disagrees"} with the others: held out, as a check.`);
}

function asLength(drawing: string, figure: ReadFigure, heldOut: boolean): Operation[] {
  const [a, b] = [newId(), newId()];
  const pick = (id: string, [x = 0, y = 0]: readonly number[]): Operation => ({
    do: "add",
    type: "pick",
    id,
    values: { drawing, x, y, sigmaPx: figure.sigmaPx },
  });
  return [
    pick(a, figure.a),
    pick(b, figure.b),
    {
      do: "add",
      type: "knownLength",
      id: newId(),
      values: {
        drawing,
        a,
        b,
        c: null,
        text: figure.typed,
        unit: projectUnit(),
        standing: figure.standing,
        ends: "outer face",
        picked: "outer face",
        along: "straight",
        heldOut,
        wholePage: false,
      },
    },
  ];
}

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

/** Names rooms as they were read. */
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
              name: titled(room.name),
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
  return name.length > 3 ? name.charAt(0) + name.slice(1).toLowerCase() : name;
}

export function pair(p: readonly number[]): XY {
  return [p[0] ?? 0, p[1] ?? 0];
}
