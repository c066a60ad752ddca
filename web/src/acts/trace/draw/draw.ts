import { create } from "zustand";
import type { Operation, Refused } from "../../../api/client";
import { newId } from "../../../api/ids";
import type { Click } from "../../../board/act";
import { clearDraft, drafted, type Snap, useDesk } from "../../../board/desk";
import { HOLD_RAD, held } from "../../../board/held";
import { read, readAlong, sendDraft } from "../../../board/slip";
import { SNAP_PX, snapAt } from "../../../board/snap";
import { distance, middle, type XY } from "../../../geometry/plane";
import { type DrawnCorner, type Fill, type LineKind, lineOf } from "../../../store/drawn";
import { twoLengths } from "../../../store/lengths";
import { riseThrough } from "../../../store/walls";
import { drawnSnap } from "../../drawnSnap";

declare module "../../../board/desk" {
  interface Drafts {
    /** corners of the line being drawn, and the end of an arc that waits for a place it passes through */
    line: { corners: readonly DrawnCorner[]; arcTo: XY | null };
    /** a corner of a rectangle, or the middle of a circle */
    shape: { from: XY };
    /** what lies between two places is told; the second one, until it is clicked */
    dimension: { from: XY; to: XY | null };
  }
}

export type Shape = "line" | "rectangle" | "circle" | "dimension";

/** How the next one is drawn. */
export const useDrawOptions = create<{
  shape: Shape;
  stretch: "straight" | "arc";
  kind: LineKind;
  fill: Fill;
  measures: "straight" | "level" | "upright";
  ink: boolean;
}>(() => ({
  shape: "line",
  stretch: "straight",
  kind: "continuous narrow",
  fill: "none",
  measures: "straight",
  ink: true,
}));

const NONE: readonly DrawnCorner[] = [];

export const cornersNow = (): readonly DrawnCorner[] => drafted("line")?.corners ?? NONE;

const put = (corners: readonly DrawnCorner[], arcTo: XY | null = null) =>
  useDesk.setState({ draft: { of: "line", corners, arcTo }, slip: null, slipError: null, snap: null });

/** Where the last point is from which the next one is seen. */
export function lastPoint(): XY | null {
  const { from = null } = drafted("shape") ?? drafted("dimension") ?? {};
  return drafted("line")?.arcTo ?? cornersNow().at(-1)?.at ?? from;
}

/** What is drawn holds to what is there; a stretch to the grid. */
export function drawSnap(pointer: XY, reach: number, free: boolean): Snap | null {
  const corners = cornersNow();
  const [first] = corners;
  if (first && corners.length > 1 && distance(first.at, pointer) < reach) {
    return { at: first.at, words: "closes", closes: true, sigmaPx: 0 };
  }
  const found = drawnSnap(pointer, reach, free);
  const from = lastPoint();
  const { shape } = useDrawOptions.getState();
  const holds = !found && !free && from && useDesk.getState().holdSquare && shape !== "rectangle" && shape !== "circle";
  return holds && !drafted("line")?.arcTo ? held(from, pointer, HOLD_RAD / 2) : found;
}

/** The ink under the pointer; a stretch that is held square stays so, and goes on as far as that. */
export function drawInk(found: Snap): Snap {
  const { snap } = useDesk.getState();
  const from = lastPoint();
  if (!from || !snap || snap.sigmaPx !== undefined || !/square|45°|wing/.test(snap.words)) return found;
  const length = distance(from, snap.at);
  if (length === 0) return found;
  const [ux, uy] = [(snap.at[0] - from[0]) / length, (snap.at[1] - from[1]) / length];
  const ahead = (found.at[0] - from[0]) * ux + (found.at[1] - from[1]) * uy;
  return { ...found, at: [from[0] + ux * ahead, from[1] + uy * ahead], words: `${snap.words}, ${found.words}` };
}

/** A click while something is drawn. */
export function drawPoint({ pointer, free }: Pick<Click, "pointer" | "free">): void {
  const desk = useDesk.getState();
  const snap = desk.snap && desk.pointer === pointer && !free ? desk.snap : snapAt(pointer, free);
  const at = snap?.at ?? pointer;
  const { shape } = useDrawOptions.getState();
  if (shape === "dimension") return dimensionPoint(at);
  if (shape !== "line") {
    const from = drafted("shape")?.from;
    if (!from) return useDesk.setState({ draft: { of: "shape", from: at }, slip: null, slipError: null });
    return void (shape === "rectangle" ? sendRectangle(from, at) : sendCircle(from, distance(from, at)));
  }
  linePoint(at, snap?.closes === true);
}

function linePoint(at: XY, closes: boolean): void {
  const corners = cornersNow();
  const last = corners.at(-1);
  const { arcTo } = drafted("line") ?? { arcTo: null };
  if (last && arcTo) return endArc(arcTo, riseThrough(last.at, at, arcTo));
  const isArc = useDrawOptions.getState().stretch === "arc";
  if (last && isArc) return put(corners, at);
  if (closes) return void sendLine(corners, true);
  // A second click on the last place ends it there.
  if (last && distance(last.at, at) < SNAP_PX / 2 / useDesk.getState().view.k) return void endLine();
  put([...corners, { at, rise: 0 }]);
}

/** An arc goes on to its end; where that is the first corner, it closes. */
function endArc(to: XY, rise: number): void {
  const corners = cornersNow();
  const bowed = corners.map((c, i) => (i === corners.length - 1 ? { ...c, rise } : c));
  const [first] = bowed;
  if (first && distance(first.at, to) < 0.01) return void sendLine(bowed, true);
  put([...bowed, { at: to, rise: 0 }]);
}

/** What is drawn so far is a line. */
export async function endLine(closed = false): Promise<void> {
  const corners = cornersNow();
  if (corners.length > 1) await sendLine(corners, closed);
}

async function sendLine(corners: readonly DrawnCorner[], closed: boolean): Promise<void> {
  const { storey, side, drawing } = useDesk.getState();
  const { kind, fill } = useDrawOptions.getState();
  if (storey === null && side === null) return;
  const values = {
    ...placeNow(),
    drawing,
    name: "",
    line: lineOf(corners),
    closed,
    kind,
    fill: closed ? fill : ("none" as const),
  };
  await sendDraft(closed ? "Draw a shape" : "Draw a line", [{ do: "add", type: "drawnLine", id: newId(), values }]);
}

const placeNow = () => {
  const { storey, side } = useDesk.getState();
  return side === null ? { storey, side: null } : { storey: null, side };
};

async function sendRectangle([x1, y1]: XY, [x2, y2]: XY): Promise<void> {
  if (Math.abs(x1 - x2) < 1e-3 || Math.abs(y1 - y2) < 1e-3) return;
  const ring: XY[] = [
    [Math.min(x1, x2), Math.min(y1, y2)],
    [Math.max(x1, x2), Math.min(y1, y2)],
    [Math.max(x1, x2), Math.max(y1, y2)],
    [Math.min(x1, x2), Math.max(y1, y2)],
  ];
  await sendLine(
    ring.map((at) => ({ at, rise: 0 })),
    true,
  );
}

/** Two half circles. */
async function sendCircle([x, y]: XY, radius: number): Promise<void> {
  if (radius < 1e-3) return;
  const corners: DrawnCorner[] = [
    { at: [x - radius, y], rise: -radius },
    { at: [x + radius, y], rise: -radius },
  ];
  await sendLine(corners, true);
}

/** From, to, and where its line stands. */
function dimensionPoint(at: XY): void {
  const draft = drafted("dimension");
  if (!draft) return useDesk.setState({ draft: { of: "dimension", from: at, to: null }, snap: null });
  if (draft.to === null) {
    if (distance(draft.from, at) > 0) useDesk.setState({ draft: { ...draft, to: at }, snap: null });
    return;
  }
  const told = dimensionTo(draft.from, draft.to, at);
  const operation: Operation = { do: "add", type: "dimension", id: newId(), values: { ...placeNow(), ...told } };
  void sendDraft("Draw a dimension", [operation]);
}

/** A dimension whose line passes a place. */
export function dimensionTo(from: XY, to: XY, through: XY) {
  const { measures } = useDrawOptions.getState();
  const direction = measures === "straight" ? null : measures === "level" ? 0 : 90;
  const angle = direction === null ? Math.atan2(to[1] - from[1], to[0] - from[0]) : (direction * Math.PI) / 180;
  const off = (through[1] - from[1]) * Math.cos(angle) - (through[0] - from[0]) * Math.sin(angle);
  return { x1: from[0], y1: from[1], x2: to[0], y2: to[1], direction, off };
}

/** What can be typed now, and what the typed text does. */
export function drawSlip(tip: XY | null) {
  const from = lastPoint();
  if (!from || !tip || drafted("dimension")) return null;
  const shared = { at: middle(from, tip), about: [from, tip], passes: true };
  const { shape } = useDrawOptions.getState();
  if (shape === "rectangle") {
    const hint = "Click the opposite corner, or type both sides: 300 x 120.";
    return { ...shared, label: "sides", hint, send: typeSides };
  }
  if (shape === "circle") {
    return { ...shared, label: "radius", hint: "Click a place on it, or type its radius.", send: typeRadius };
  }
  if (drafted("line")?.arcTo) {
    const hint = "Click a place that the arc passes through, or type its rise over the chord.";
    return { ...shared, label: "rise", hint, send: typeRise };
  }
  const hint = "Enter sets the next corner: 120, or 120 30°. Enter with nothing typed ends it.";
  return { ...shared, label: "length", hint, send: typeLength };
}

async function typeSides(text: string): Promise<void> {
  const from = drafted("shape")?.from;
  const [x, y] = useDesk.getState().pointer ?? [0, 0];
  const sides = await twoLengths(text).catch((refused: Refused) => refused.message);
  if (!from || typeof sides === "string") return useDesk.setState({ slipError: sides as string });
  await sendRectangle(from, [
    from[0] + (x < from[0] ? -sides[0] : sides[0]),
    from[1] + (y < from[1] ? -sides[1] : sides[1]),
  ]);
}

async function typeRadius(text: string): Promise<void> {
  const from = drafted("shape")?.from;
  const radius = await read(text);
  if (from && radius !== null) await sendCircle(from, radius);
}

async function typeRise(text: string): Promise<void> {
  const last = cornersNow().at(-1)?.at;
  const to = drafted("line")?.arcTo;
  const rise = await read(text);
  if (!last || !to || rise === null) return;
  const [x, y] = useDesk.getState().pointer ?? to;
  const isLeft = (to[0] - last[0]) * (y - last[1]) - (to[1] - last[1]) * (x - last[0]) >= 0;
  endArc(to, isLeft ? rise : -rise);
}

async function typeLength(text: string): Promise<void> {
  const { pointer, snap } = useDesk.getState();
  const from = cornersNow().at(-1)?.at;
  const toward = snap?.at ?? pointer;
  const typed = await readAlong(text);
  if (!from || !toward || !typed) return;
  const angle = typed.radians ?? Math.atan2(toward[1] - from[1], toward[0] - from[0]);
  const at: XY = [from[0] + typed.mm * Math.cos(angle), from[1] + typed.mm * Math.sin(angle)];
  if (useDrawOptions.getState().stretch === "arc") put(cornersNow(), at);
  else put([...cornersNow(), { at, rise: 0 }]);
}

/** The last corner is taken back; with none left nothing is drawn any more. */
export function takeBack(): boolean {
  const draft = drafted("line");
  if (!draft) return false;
  if (draft.arcTo) put(draft.corners);
  else if (draft.corners.length > 1) {
    put(draft.corners.slice(0, -1).map((c, i, all) => (i === all.length - 1 ? { ...c, rise: 0 } : c)));
  } else clearDraft();
  return true;
}
