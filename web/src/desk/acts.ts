import type { Operation, Refused } from "../api/client";
import { api, settled } from "../api/client";
import { newId } from "../api/ids";
import { apply, distance, inverse, nearestOn, scaleOf, type XY } from "../board/geometry";
import { change, useProject } from "../project/store";
import { type Chain, NOTHING_DRAFTED, type Snap, useDesk } from "./desk";
import { drawingsOn, fitMap, type Place, wallLines } from "./selectors";
import { regionUnder, SNAP_PX, snapAt, wallUnder } from "./snap";

/** How well the end of a line in a file is told, in pixels of its page. */
const EXACT_PX = 0.05;

/** A click on the board, at a model point. */
export function clickAt(pointer: XY, free: boolean): void {
  const desk = useDesk.getState();
  const snap = snapAt(pointer, free);
  const at = snap?.at ?? pointer;
  switch (desk.act) {
    case "calibrate":
    case "square":
      return pickEnd(at, snap?.exact ?? false);
    case "walls":
      return wallPoint(at, snap);
    case "openings":
      return openingEdge(pointer);
    case "rooms": {
      const region = regionUnder(pointer);
      useDesk.setState({
        roomAt: { at: pointer, room: region?.id ?? null },
        slip: region?.name ?? "",
        slipError: null,
      });
      return;
    }
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
  useDesk.setState({ selected: wall ? { type: "wall", id: wall.id } : null });
}

function pickEnd(at: XY, exact: boolean): void {
  const { drawing, ends, exactEnds, act } = useDesk.getState();
  const map = fitMap(useProject.getState().rows, drawing);
  if (!map) return;
  const px = apply(inverse(map), at);
  if (ends.length < 2) {
    const next = [...ends, px];
    useDesk.setState({
      ends: next,
      exactEnds: [...exactEnds, exact],
      slip: next.length === 2 ? "" : null,
      slipError: null,
      focusedEnd: next.length === 2 ? 1 : 0,
    });
  } else if (act === "square" || useDesk.getState().slip === "") {
    // A click elsewhere begins again; a figure half typed is not thrown away by it.
    useDesk.setState({ ends: [px], exactEnds: [exact], slip: null, slipError: null, focusedEnd: 0 });
  }
}

/** Moves the focused end of the length being picked, page pixels as seen upright on the screen. */
export function nudgeEnd(dx: number, dy: number): void {
  const { ends, exactEnds, focusedEnd } = useDesk.getState();
  const moved = Math.min(focusedEnd, ends.length - 1);
  useDesk.setState({
    ends: ends.map((p, i): XY => (i === moved ? [p[0] + dx, p[1] + dy] : p)),
    exactEnds: exactEnds.map((exact, i) => exact && i !== moved),
  });
}

/** How well a pick is held: the lens shows it eight times as large, a coarse view shakes the hand a little. */
function pickSigma(exact: boolean): number {
  if (exact) return EXACT_PX;
  const { drawing, view } = useDesk.getState();
  const map = fitMap(useProject.getState().rows, drawing);
  const zoom = map ? view.k * scaleOf(map) : 1;
  return Math.max(0.35, Math.min(1.5, 0.4 / zoom));
}

export async function setKnownLength(text: string): Promise<void> {
  const { drawing, ends, exactEnds, heldOut, standing, endsAt } = useDesk.getState();
  const [a, b] = ends;
  const unit = projectUnit();
  if (drawing === null || !a || !b) return;
  const [idA, idB] = [newId(), newId()];
  await sendDraft(heldOut ? "Check length" : "Known length", [
    addPick(idA, drawing, a, exactEnds[0]),
    addPick(idB, drawing, b, exactEnds[1]),
    {
      do: "add",
      type: "knownLength",
      id: newId(),
      values: { drawing, a: idA, b: idB, text, unit, standing, ends: endsAt, along: "straight", heldOut },
    },
  ]);
}

export async function setGridLine(): Promise<void> {
  const { drawing, ends, exactEnds } = useDesk.getState();
  const [a, b] = ends;
  if (drawing === null || !a || !b) return;
  const [idA, idB] = [newId(), newId()];
  await sendDraft("Grid line", [
    addPick(idA, drawing, a, exactEnds[0]),
    addPick(idB, drawing, b, exactEnds[1]),
    { do: "add", type: "gridPick", id: newId(), values: { drawing, a: idA, b: idB, axis: gridTurn()?.axis ?? "x" } },
  ]);
}

/** Which way the picked line runs and by how much the picture will turn, counter-clockwise positive. */
export function gridTurn(): { axis: "x" | "y"; degrees: number } | null {
  const { drawing, ends } = useDesk.getState();
  const map = fitMap(useProject.getState().rows, drawing);
  const [a, b] = ends;
  if (!map || !a || !b) return null;
  const [p, q] = [apply(map, a), apply(map, b)];
  const angle = (Math.atan2(q[1] - p[1], q[0] - p[0]) * 180) / Math.PI;
  const axis = Math.abs((((angle % 180) + 180) % 180) - 90) < 45 ? "y" : "x";
  const off = ((((angle - (axis === "y" ? 90 : 0) + 90) % 180) + 180) % 180) - 90;
  return { axis, degrees: -off };
}

function addPick(id: string, drawing: string, [x, y]: XY, exact = false): Operation {
  return { do: "add", type: "pick", id, values: { drawing, x, y, sigmaPx: pickSigma(exact) } };
}

export function projectUnit() {
  const [project] = useProject.getState().rows.project.values();
  return project?.unit ?? "mm";
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

/** Reads a length above zero, or says at the slip why it is none. */
async function read(text: string): Promise<number | null> {
  try {
    const { mm } = await settled(api.GET("/api/length", { params: { query: { text, unit: projectUnit() } } }));
    if (mm > 0) return mm;
    useDesk.setState({ slipError: "A length must be longer than zero." });
  } catch (error) {
    useDesk.setState({ slipError: (error as Refused).message });
  }
  return null;
}

function openingEdge(pointer: XY): void {
  const { door, view } = useDesk.getState();
  if (door === null) {
    const hit = wallUnder(pointer, SNAP_PX / view.k);
    if (hit) useDesk.setState({ door: { wall: hit.id, from: hit.along, to: null }, slip: "", slipError: null });
    return;
  }
  const along = alongDoorWall(pointer);
  if (along !== null && Math.abs(along - door.from) > 1) {
    void addDoor(door.wall, Math.min(door.from, along), Math.abs(along - door.from), pointer);
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
  await addDoor(door.wall, toward !== null && toward < door.from ? door.from - width : door.from, width, pointer);
}

async function addDoor(wall: string, offset: number, width: number, pointer: XY | null): Promise<void> {
  const { rows } = useProject.getState();
  const { storey } = useDesk.getState();
  const line = wallLines(rows, storey).find((l) => l.wall.id === wall);
  // The leaf swings to the side on which the pointer is.
  const left = !line || !pointer || nearestOn(pointer, line.from, line.to).side >= 0;
  const number = `D${String([...rows.opening.values()].filter((o) => o.kind === "door").length + 1).padStart(2, "0")}`;
  const swing = left ? "left" : "right";
  await sendDraft("Door", [
    {
      do: "add",
      type: "opening",
      id: newId(),
      values: { wall, kind: "door", offset, width, sill: 0, height: 2040, hand: "left", swing, number },
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

/**
 * Sends a change and clears the draft at once, so that the next pick need not wait for the answer. A refusal brings the
 * draft back with its reason, unless the hand has gone on to something else.
 */
async function sendDraft(title: string, operations: Operation[]): Promise<void> {
  const { ends, exactEnds, focusedEnd, door, roomAt, slip } = useDesk.getState();
  useDesk.setState(structuredClone(NOTHING_DRAFTED));
  const refused = await change(title, operations);
  if (!refused) return;
  const now = useDesk.getState();
  if (now.ends.length > 0 || now.door || now.roomAt || now.chain) return;
  useDesk.setState({ ends, exactEnds, focusedEnd, door, roomAt, slip, slipError: refused.message });
  // The error stands at the slip, not twice.
  useProject.setState({ trouble: null });
}

export function removeKnownLength(id: string): Promise<Refused | null> {
  const { rows } = useProject.getState();
  const length = rows.knownLength.get(id);
  if (!length) return Promise.resolve(null);
  return change("Remove a known length", [
    { do: "remove", type: "knownLength", id },
    { do: "remove", type: "pick", id: length.a },
    { do: "remove", type: "pick", id: length.b },
  ]);
}

export function removeGridLine(id: string): Promise<Refused | null> {
  const line = useProject.getState().rows.gridPick.get(id);
  if (!line) return Promise.resolve(null);
  return change("Remove a grid line", [
    { do: "remove", type: "gridPick", id },
    { do: "remove", type: "pick", id: line.a },
    { do: "remove", type: "pick", id: line.b },
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

/** One step back; nothing that was saved is lost by it. */
export function stepBack(): void {
  const desk = useDesk.getState();
  if (desk.slip !== null && desk.slip !== "")
    return useDesk.setState({ slip: desk.ends.length === 2 || desk.door ? "" : null, slipError: null });
  const drafting = desk.ends.length > 0 || desk.chain || desk.door || desk.roomAt || desk.measured.length > 0;
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
