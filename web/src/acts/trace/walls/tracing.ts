import { api, type Refused, settled } from "../../../api/client";
import { newId } from "../../../api/ids";
import type { Click } from "../../../board/act";
import { clearDraft, drafted, useDesk } from "../../../board/desk";
import { read, readAlong } from "../../../board/slip";
import { snapAt } from "../../../board/snap";
import { apply, inverse } from "../../../geometry/maps";
import { distance, type XY } from "../../../geometry/plane";
import { fitMap } from "../../../store/drawings";
import { twoLengths } from "../../../store/lengths";
import { change, inProject, useProject } from "../../../store/project";
import { riseThrough } from "../../../store/walls";
import { useWallOptions } from "./options";
import { pointedAt } from "./wing";

export interface Chain {
  points: readonly XY[];
  nodes: readonly string[];
  walls: readonly string[];
  joins: readonly { point: number; wall: string }[];
  evidence: "figure" | "ink";
}

declare module "../../../board/desk" {
  interface Drafts {
    /** walls of which each begins where the one before ends; they are sent as they come */
    chain: Chain;
    rectangle: { from: XY };
    /** start of an arc, and its end */
    arc: { ends: readonly XY[] };
  }
}

/** The ink's direction counts where it runs within this of where the pointer is. */
const INK_WITHIN_RAD = (6 * Math.PI) / 180;

/** A click while walls are traced. */
export function wallPoint(click: Click): void {
  const { pointer, free } = click;
  if (useWallOptions.getState().asks !== null) return void pointedAt(click);
  const desk = useDesk.getState();
  const { shape } = useWallOptions.getState();
  // What the ink showed where the pointer rests counts; a hand that goes on before it is known does not wait.
  const snap = desk.snap && desk.pointer === pointer && !free ? desk.snap : snapAt(pointer, free);
  const at = snap?.at ?? pointer;
  if (shape === "rectangle") return void rectanglePoint(at);
  if (shape === "arc") return arcPoint(at);
  const chain = drafted("chain");
  if (snap?.closes && chain) {
    void sendChain({ ...chain, walls: [...chain.walls, newId()] }, true);
    useDesk.setState({ draft: null, slip: null });
    return;
  }
  addChainPoint(at, "ink", snap?.wall);
}

function addChainPoint(at: XY, evidence: Chain["evidence"], joins?: string): void {
  const chain = drafted("chain") ?? { points: [], nodes: [], walls: [], joins: [], evidence: "ink" as const };
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
  useDesk.setState({ draft: ends ? null : { of: "chain", ...next }, slip: null, slipError: null });
  if (last) void sendChain(next, false);
}

async function sendChain(chain: Chain, closed: boolean, rises: readonly number[] = []): Promise<void> {
  const { storey, drawing } = useDesk.getState();
  const { line, thickness, buildUp } = useWallOptions.getState();
  const kind = useProject.getState().rows.buildUp.get(buildUp ?? "");
  if (storey === null) return;
  const refused = await change(chain.walls.length > 1 ? "Go on with walls" : "Trace a wall", [
    {
      do: "trace",
      trace: {
        storey,
        drawing,
        points: chain.points.map(([x, y]) => [x, y]),
        nodes: [...chain.nodes],
        walls: [...chain.walls],
        closed,
        line,
        thickness: kind?.thickness ?? thickness,
        height: kind?.height ?? null,
        enclosing: kind?.enclosing ?? true,
        buildUp: kind?.id ?? null,
        rises: [...rises],
        evidence: chain.evidence,
        joins: closed ? [] : [...chain.joins],
      },
    },
  ]);
  if (refused && drafted("chain")) useDesk.setState({ draft: null });
}

/** What is typed at the wall being drawn: a length, a length and an angle, two sides, or a rise. */
export function setWallFigure(text: string): Promise<void> {
  const { shape } = useWallOptions.getState();
  if (shape === "rectangle") return setRectangleSides(text);
  return shape === "arc" ? setArcRise(text) : setChainLength(text);
}

/** A typed length along the rubber band sets the next point of the chain: `4.2 m` or `4.2 m 30°`. */
export async function setChainLength(text: string): Promise<void> {
  const { pointer, snap } = useDesk.getState();
  const chain = drafted("chain");
  const last = chain?.points.at(-1);
  const toward = snap?.at ?? pointer;
  if (!last || !toward) return;
  const typed = await readAlong(text);
  if (typed === null) return;
  const { mm } = typed;
  const pointed = Math.atan2(toward[1] - last[1], toward[0] - last[0]);
  const angle =
    typed.radians !== null
      ? typed.radians
      : snap?.words.includes("square") || snap?.words.includes("45°")
        ? pointed
        : ((await inkDirection(last, toward)) ?? pointed);
  addChainPoint([last[0] + mm * Math.cos(angle), last[1] + mm * Math.sin(angle)], "figure");
}

/** Which way the ink runs from one place towards another, where a line is drawn there; radians. */
async function inkDirection(from: XY, toward: XY): Promise<number | null> {
  const { drawing } = useDesk.getState();
  const { snapTo } = useWallOptions.getState();
  const map = fitMap(useProject.getState().rows, drawing);
  if (drawing === null || !map || !snapTo.ink) return null;
  const [a, b] = [apply(inverse(map), from), apply(inverse(map), toward)];
  try {
    const query = { ax: a[0], ay: a[1], bx: b[0], by: b[1], up: 0 };
    const { found } = await settled(
      api.GET("/api/projects/{project}/drawings/{id}/bearing", { params: { path: inProject(drawing), query } }),
    );
    if (!found) return null;
    // A bearing runs clockwise from up.
    const angle = ((90 - found.degrees) * Math.PI) / 180;
    const off = Math.atan2(toward[1] - from[1], toward[0] - from[0]) - angle;
    return Math.abs(Math.atan2(Math.sin(off), Math.cos(off))) < INK_WITHIN_RAD ? angle : null;
  } catch {
    return null; // away: the pointer's direction serves
  }
}

/** Corners of a rectangle square to the drawing's grid. */
async function rectanglePoint(at: XY): Promise<void> {
  const rectangle = drafted("rectangle")?.from;
  if (!rectangle) return useDesk.setState({ draft: { of: "rectangle", from: at }, slip: "", slipError: null });
  await sendRectangle(rectangle, at, "ink");
}

/** `3.6 x 4.2`: width and depth, towards where the pointer is. */
async function setRectangleSides(text: string): Promise<void> {
  const { pointer } = useDesk.getState();
  const rectangle = drafted("rectangle")?.from;
  if (!rectangle) return;
  const sides = await twoLengths(text).catch((refused: Refused) => refused.message);
  if (typeof sides === "string") return useDesk.setState({ slipError: sides });
  const [width, depth] = sides;
  const [x, y] = pointer ?? [rectangle[0] + 1, rectangle[1] + 1];
  await sendRectangle(
    rectangle,
    [rectangle[0] + (x < rectangle[0] ? -width : width), rectangle[1] + (y < rectangle[1] ? -depth : depth)],
    "figure",
  );
}

async function sendRectangle(a: XY, b: XY, evidence: Chain["evidence"]): Promise<void> {
  if (Math.abs(a[0] - b[0]) < 1 || Math.abs(a[1] - b[1]) < 1) return;
  const [x1, x2] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
  const [y1, y2] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
  clearDraft();
  // Counter-clockwise: its right faces are the outer ones, as they are of a chain round a building.
  const points: XY[] = [
    [x1, y1],
    [x2, y1],
    [x2, y2],
    [x1, y2],
  ];
  const ids = () => points.map(() => newId());
  await sendChain({ points, nodes: ids(), walls: ids(), joins: [], evidence }, true);
}

/** Start, end, and a point that the arc passes through. */
function arcPoint(at: XY): void {
  const arc = drafted("arc")?.ends ?? [];
  const [from, to] = arc;
  const last = arc.at(-1);
  if (last && distance(last, at) < 1) return;
  if (!from || !to) {
    const slip = arc.length === 1 ? "" : null;
    return useDesk.setState({ draft: { of: "arc", ends: [...arc, at] }, slip, slipError: null });
  }
  void sendArc(from, to, riseThrough(from, at, to), "ink");
}

/** A typed rise over the chord, to the side on which the pointer is. */
async function setArcRise(text: string): Promise<void> {
  const { pointer } = useDesk.getState();
  const arc = drafted("arc")?.ends ?? [];
  const [from, to] = arc;
  if (!from || !to) return;
  const rise = await read(text);
  if (rise === null) return;
  const left = !pointer || (pointer[1] - from[1]) * (to[0] - from[0]) - (pointer[0] - from[0]) * (to[1] - from[1]) >= 0;
  await sendArc(from, to, left ? rise : -rise, "figure");
}

async function sendArc(from: XY, to: XY, rise: number, evidence: Chain["evidence"]): Promise<void> {
  clearDraft();
  const chain = { points: [from, to], nodes: [newId(), newId()], walls: [newId()], joins: [], evidence };
  await sendChain(chain, false, [rise]);
}
