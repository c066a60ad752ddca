import type { Operation, Refused } from "../api/client";
import { api, settled } from "../api/client";
import { newId } from "../api/ids";
import { apply, distance, inverse, nearestOn, type XY } from "../board/geometry";
import { change, useProject } from "../project/store";
import { type Chain, NOTHING_DRAFTED, type Snap, useDesk } from "./desk";
import { read, sendDraft } from "./draft";
import { outlinePoint } from "./elevation";
import { inkIsReady } from "./found";
import { pick } from "./picking";
import { drawingsOn, fitMap, type Place, wallLines } from "./selectors";
import { regionUnder, SNAP_PX, snapAt, wallUnder } from "./snap";

/** A click on the board, at a model point. */
export function clickAt(pointer: XY, free: boolean, corners = false): void {
  const desk = useDesk.getState();
  const snap = snapAt(pointer, free);
  const at = snap?.at ?? pointer;
  switch (desk.act) {
    case "calibrate":
    case "square":
    case "place":
    case "levels":
      return pick(pointer, free, corners);
    case "outline":
      return void outlinePoint(pointer, free, corners);
    case "walls":
      return wallPoint(at, snap);
    case "openings":
      return openingAt(pointer, free);
    case "rooms": {
      const region = regionUnder(pointer);
      useDesk.setState({
        roomAt: { at: pointer, room: region?.id ?? null },
        slip: region?.name ?? "",
        slipError: null,
      });
      return;
    }
    case "boundary":
      return void boundaryPoint(at);
    case "measure":
      return useDesk.setState({ measured: [...desk.measured, at] });
    default:
      return select(pointer);
  }
}

function select(pointer: XY): void {
  const desk = useDesk.getState();
  if (desk.step !== "trace" && desk.step !== "prove") return;
  const wall = wallUnder(pointer, 4 / desk.view.k);
  const opening = [...useProject.getState().rows.opening.values()].find(
    (o) => wall !== null && o.wall === wall.id && wall.along >= o.offset && wall.along <= o.offset + o.width,
  );
  useDesk.setState({
    selected: opening ? { type: "opening", id: opening.id } : wall ? { type: "wall", id: wall.id } : null,
  });
}

/** The first click sets where the boundary of the storey begins; later ones ask the ink which way the next leg runs. */
async function boundaryPoint(at: XY): Promise<void> {
  const { storey, drawing } = useDesk.getState();
  if (storey === null) return;
  const { rows } = useProject.getState();
  const known = [...rows.boundary.values()].find((b) => b.storey === storey);
  if (!known) {
    const values = { storey, name: "Boundary", x: at[0], y: at[1], up: "" };
    await change("Begin a boundary", [{ do: "add", type: "boundary", id: newId(), values }]);
    return;
  }
  const map = fitMap(rows, drawing);
  if (drawing === null || !map) return;
  const { path, upDegrees } = await settled(api.GET("/api/boundaries/{id}", { params: { path: { id: known.id } } }));
  const [x = known.x, y = known.y] = path.at(-1) ?? [];
  const [a, b] = [apply(inverse(map), [x, y]), apply(inverse(map), at)];
  try {
    const query = { ax: a[0], ay: a[1], bx: b[0], by: b[1], up: upDegrees };
    const { found } = await settled(
      api.GET("/api/drawings/{id}/bearing", { params: { path: { id: drawing }, query } }),
    );
    useDesk.setState({ inkBearing: found });
    if (!found)
      useProject.setState({ trouble: "No straight line runs that way in the ink: click further along the leg." });
  } catch (error) {
    useProject.setState({ trouble: (error as Refused).message });
  }
}

function wallPoint(at: XY, snap: Snap | null): void {
  const { chain } = useDesk.getState();
  if (snap?.closes && chain) {
    void sendChain({ ...chain, walls: [...chain.walls, newId()] }, true);
    useDesk.setState({ chain: null, slip: null });
    return;
  }
  addChainPoint(at, "ink", snap?.wall);
}

function addChainPoint(at: XY, evidence: Chain["evidence"], joins?: string): void {
  const chain = useDesk.getState().chain ?? { points: [], nodes: [], walls: [], joins: [], evidence: "ink" as const };
  const last = chain.points.at(-1);
  if (last && distance(last, at) < 1) return;
  const next: Chain = {
    points: [...chain.points, at],
    nodes: [...chain.nodes, newId()],
    walls: last ? [...chain.walls, newId()] : [],
    // Only the chain's own ends join other walls.
    joins: [
      ...chain.joins.filter((j) => j.point === 0),
      ...(joins ? [{ point: chain.points.length, wall: joins }] : []),
    ],
    evidence,
  };
  const ends = joins !== undefined && last !== undefined;
  useDesk.setState({ chain: ends ? null : next, slip: null, slipError: null });
  if (last) void sendChain(next, false);
}

async function sendChain(chain: Chain, closed: boolean): Promise<void> {
  const { storey, drawing, line, thickness } = useDesk.getState();
  if (storey === null) return;
  const refused = await change(chain.walls.length > 1 ? "Go on with walls" : "Trace a wall", [
    {
      do: "trace",
      trace: {
        storey,
        drawing,
        points: chain.points.map(([x, y]) => [x, y]),
        nodes: chain.nodes,
        walls: chain.walls,
        closed,
        line,
        thickness,
        evidence: chain.evidence,
        joins: closed ? [] : chain.joins,
      },
    },
  ]);
  if (refused) useDesk.setState({ chain: null });
}

/** A typed length along the rubber band sets the next point of the chain: `4.2 m` or `4.2 m 30°`. */
export async function setChainLength(text: string): Promise<void> {
  const { chain, pointer, snap } = useDesk.getState();
  const last = chain?.points.at(-1);
  const toward = snap?.at ?? pointer;
  if (!last || !toward) return;
  const [, lengthText = text, angleText] = /^(.*?)(?:\s+(-?\d+(?:\.\d+)?)\s*°)?$/.exec(text.trim()) ?? [];
  const mm = await read(lengthText);
  if (mm === null) return;
  const angle =
    angleText === undefined
      ? Math.atan2(toward[1] - last[1], toward[0] - last[0])
      : (Number(angleText) * Math.PI) / 180;
  addChainPoint([last[0] + mm * Math.cos(angle), last[1] + mm * Math.sin(angle)], "figure");
}

/** One click in the middle of a gap takes the opening as the ink shows it; at an edge, the first of two. */
function openingAt(pointer: XY, free: boolean): void {
  const { door, view, drawing } = useDesk.getState();
  if (door === null) {
    const hit = wallUnder(pointer, SNAP_PX / view.k);
    if (!hit) return;
    useDesk.setState({ door: { wall: hit.id, from: hit.along, to: null }, slip: "", slipError: null });
    if (!free && drawing !== null && inkIsReady(drawing)) void openingByInk(hit.id, pointer, drawing);
    return;
  }
  const along = alongDoorWall(pointer);
  if (along !== null && Math.abs(along - door.from) > 1) {
    void byHand(door.wall, Math.min(door.from, along), Math.abs(along - door.from), pointer);
  }
}

/** The hand is not kept waiting: where it has clicked the other edge or typed a width meanwhile, that counts. */
async function openingByInk(wall: string, pointer: XY, drawing: string): Promise<void> {
  const { door } = useDesk.getState();
  const gap = await gapIn(drawing, wall, pointer);
  const now = useDesk.getState();
  if (!gap || now.door !== door || now.slip !== "") return;
  await addOpening(wall, now.openingKind === "as drawn" ? gap.kind : now.openingKind, gap.offset, gap.width, {
    hand: gap.leafAt === "far" ? "right" : "left",
    swing: gap.leafSide ?? "left",
  });
}

/** What the ink of a drawing shows in a wall; null where it cannot be asked or shows nothing. */
async function gapIn(drawing: string, wall: string, [x, y]: XY) {
  try {
    const params = { path: { id: drawing }, query: { wall, x, y } };
    return (await settled(api.GET("/api/drawings/{id}/gap", { params }))).found;
  } catch {
    return null; // away: its edges can be clicked
  }
}

export function alongDoorWall(pointer: XY): number | null {
  const { door, storey } = useDesk.getState();
  const line = wallLines(useProject.getState().rows, storey).find((l) => l.wall.id === door?.wall);
  return line ? nearestOn(pointer, line.from, line.to).along : null;
}

/** A typed width runs from the clicked edge toward the pointer. */
export async function setDoorWidth(text: string): Promise<void> {
  const { door, pointer } = useDesk.getState();
  if (door === null) return;
  const width = await read(text);
  if (width === null) return;
  const toward = pointer ? alongDoorWall(pointer) : null;
  await byHand(door.wall, toward !== null && toward < door.from ? door.from - width : door.from, width, pointer);
}

async function byHand(wall: string, offset: number, width: number, pointer: XY | null): Promise<void> {
  const { storey, openingKind } = useDesk.getState();
  const line = wallLines(useProject.getState().rows, storey).find((l) => l.wall.id === wall);
  // The leaf swings to the side on which the pointer is.
  const left = !line || !pointer || nearestOn(pointer, line.from, line.to).side >= 0;
  const kind = openingKind === "as drawn" ? "door" : openingKind;
  await addOpening(wall, kind, offset, width, { hand: "left", swing: left ? "left" : "right" });
}

type OpeningKind = "door" | "window" | "opening";

/** Usual heights, mm: common practice, no source. */
const USUAL: Record<OpeningKind, { letter: string; title: string; sill: number; height: number }> = {
  door: { letter: "D", title: "Door", sill: 0, height: 2040 },
  window: { letter: "W", title: "Window", sill: 900, height: 1200 },
  opening: { letter: "O", title: "Opening", sill: 0, height: 2100 },
};

async function addOpening(
  wall: string,
  kind: OpeningKind,
  offset: number,
  width: number,
  leaf: { hand: "left" | "right"; swing: "left" | "right" },
): Promise<void> {
  const { letter, title, sill, height } = USUAL[kind];
  const taken = [...useProject.getState().rows.opening.values()].map((o) => o.number);
  let n = 1;
  while (taken.includes(`${letter}${String(n).padStart(2, "0")}`)) n++;
  const number = `${letter}${String(n).padStart(2, "0")}`;
  await sendDraft(title, [
    {
      do: "add",
      type: "opening",
      id: newId(),
      values: { wall, kind, offset, width, sill, height, ...leaf, number },
    },
  ]);
}

export async function nameRoom(name: string): Promise<void> {
  const { roomAt, storey, drawing } = useDesk.getState();
  if (roomAt === null || storey === null) return;
  const [x, y] = roomAt.at;
  await sendDraft("Name a room", [
    roomAt.room
      ? { do: "set", type: "room", id: roomAt.room, values: { name } }
      : { do: "add", type: "room", id: newId(), values: { storey, drawing, name, number: "", x, y } },
  ]);
}

/** Removes a wall with its openings, and the nodes that nothing else needs. */
export function removeWall(id: string): Promise<Refused | null> {
  const { rows } = useProject.getState();
  const wall = rows.wall.get(id);
  if (!wall) return Promise.resolve(null);
  const others = [...rows.wall.values()].filter((w) => w.id !== id);
  const operations: Operation[] = [...rows.opening.values()]
    .filter((o) => o.wall === id)
    .map((o) => ({ do: "remove", type: "opening", id: o.id }));
  operations.push({ do: "remove", type: "wall", id });
  for (const node of [wall.fromNode, wall.toNode]) {
    if (!others.some((w) => w.fromNode === node || w.toNode === node)) {
      operations.push({ do: "remove", type: "node", id: node });
    }
  }
  useDesk.setState({ selected: null });
  return change("Remove a wall", operations);
}

export function removeOpening(id: string): void {
  const number = useProject.getState().rows.opening.get(id)?.number ?? "an opening";
  useDesk.setState({ selected: null });
  void change(`Remove ${number}`, [{ do: "remove", type: "opening", id }]);
}

/** One step back; nothing that was saved is lost by it. */
export function stepBack(): void {
  const desk = useDesk.getState();
  if (desk.slip !== null && desk.slip !== "")
    return useDesk.setState({ slip: desk.picks.length > 0 || desk.door ? "" : null, slipError: null, caution: null });
  if (desk.pendingSlip) return useDesk.setState({ pendingSlip: null });
  if (desk.pendingFit) return useDesk.setState({ pendingFit: null });
  if (desk.audit) return useDesk.setState({ audit: null });
  const drafting =
    desk.picks.length > 0 || desk.chain || desk.door || desk.roomAt || desk.measured.length > 0 || desk.ring.length > 0;
  if (drafting) return useDesk.setState(structuredClone(NOTHING_DRAFTED));
  if (desk.act) return useDesk.setState({ act: null });
  useDesk.setState({ selected: null });
}

/** Goes to a storey or side; its topmost drawing that shows becomes the one worked on. */
export function choosePlace(place: Place): void {
  const drawings = drawingsOn(useProject.getState().rows, place);
  const drawing = drawings.findLast((d) => !d.hidden) ?? drawings[0];
  useDesk.setState({
    ...place,
    drawing: drawing?.id ?? null,
    selected: null,
    cutting: null,
    ...structuredClone(NOTHING_DRAFTED),
  });
}

/** Makes a drawing the one worked on, where it is, and shows it if it was hidden. */
export function chooseDrawing(id: string): void {
  const drawing = useProject.getState().rows.drawing.get(id);
  if (!drawing) return;
  if (drawing.hidden) {
    void change("Show a drawing", [{ do: "set", type: "drawing", id, values: { hidden: false } }]);
  }
  useDesk.setState({
    storey: drawing.storey,
    side: drawing.side,
    drawing: id,
    selected: null,
    cutting: null,
    ...structuredClone(NOTHING_DRAFTED),
  });
}

/** One drawing of a side for another: the next one shows, and the one that did is put away. */
export async function showOther(): Promise<void> {
  const { side, drawing } = useDesk.getState();
  if (side === null) return;
  const all = drawingsOn(useProject.getState().rows, { storey: null, side });
  const next = all[(all.findIndex((d) => d.id === drawing) + 1) % all.length];
  if (!next || next.id === drawing) return;
  useDesk.setState({ drawing: next.id, ...structuredClone(NOTHING_DRAFTED) });
  await change(
    `Show ${next.name}`,
    all
      .filter((d) => d.hidden !== (d.id !== next.id))
      .map((d): Operation => ({ do: "set", type: "drawing", id: d.id, values: { hidden: d.id !== next.id } })),
  );
}
