import { create } from "zustand";
import { useShallow } from "zustand/react/shallow";
import type { Operation, Schemas } from "../api/client";
import type { Size, View, XY } from "../board/geometry";
import { mapOf, viewUnder } from "../board/geometry";
import { useProject } from "../store/project";
import type { DrawingKind, OutlineKind, Values, WallSide } from "../store/rows";

export type Step = "bring-in" | "true-up" | "trace" | "prove" | "hand-over";
export type Act =
  | "cut"
  | "calibrate"
  | "square"
  | "unstretch"
  | "place"
  | "ink"
  | "walls"
  | "openings"
  | "rooms"
  | "figures"
  | "notes"
  | "settle"
  | "boundary"
  | "levels"
  | "outline"
  | "measure";

export interface Snap {
  at: XY;
  words: string;
  /** what the ink shows there */
  kind?: Schemas["Found"]["kind"];
  /** how surely it holds, in page pixels; for picks */
  sigmaPx?: number;
  /** thickness of the wall whose face it holds to, page pixels */
  thicknessPx?: number | null;
  /** the wall that an end joins */
  wall?: string;
  closes?: boolean;
}

/** A box on a page while it is being cut into drawings; page pixels. */
export interface CutBox {
  /** the drawing that it is the outline of; null for one still to be made */
  drawing: string | null;
  left: number;
  top: number;
  width: number;
  height: number;
  name: string;
  kind: DrawingKind;
  /** where it goes: a storey, a side, or a side of its own still to be made */
  place: { storey: string } | { side: string } | "new side";
}

/** A pick being made, page pixels. */
export interface Picked {
  at: XY;
  sigmaPx: number;
  /** what it was put on */
  words: string;
  thicknessPx: number | null;
}

/** A figure that looks like a slip, said before it is taken. */
export interface Caution {
  text: string;
  code: string;
  message: string;
  wouldBeMm: number;
}

/** A change of the fit that would move the picture under what is traced: kept or carried along, as the user says. */
export interface PendingFit {
  title: string;
  operations: Operation[];
  mm: number;
  traced: number;
}

export interface Cutting {
  page: string;
  boxes: CutBox[];
  focused: number;
}

/** The centre line of a wall, or one of its faces. */
export interface Face {
  wall: string;
  side: WallSide;
}

/** What is dragged on the board: from where to where, mm. */
export interface Held {
  kind: "wall" | "node" | "opening" | "jamb" | "column";
  id: string;
  /** which jamb, or how far into the opening it was taken hold of */
  part: number;
  from: XY;
  to: XY;
}

export interface Chain {
  points: XY[];
  nodes: string[];
  walls: string[];
  joins: { point: number; wall: string }[];
  evidence: "figure" | "ink";
}

export interface DeskState {
  step: Step;
  act: Act | null;
  /** the storey being worked on; null while a side is */
  storey: string | null;
  side: string | null;
  drawing: string | null;
  cutting: Cutting | null;
  view: View;
  size: Size;
  pointer: XY | null;
  snap: Snap | null;
  /** picks of the length, line, room or point being stated */
  picks: Picked[];
  focusedEnd: number;
  /** joints found along the length being counted, page pixels */
  ticks: XY[];
  caution: Caution | null;
  chain: Chain | null;
  door: { wall: string; from: number; to: number | null } | null;
  roomAt: { at: XY; room: string | null } | null;
  /** corner of a rectangle of walls; start and end of an arc; start of a divider */
  rectangle: XY | null;
  arc: XY[];
  divider: XY | null;
  /** faces between which a figure is stated, and the one whose wall stays */
  figureFaces: Face[];
  figureHolds: "a" | "b";
  noteAt: { at: XY; to: XY | null } | null;
  /** what an act of a selected wall waits for: a place on it, or another wall */
  asked: { kind: "split" | "join" | "end" | "beside"; wall: string } | null;
  held: Held | null;
  /** corners of the area being selected, and whether it is taken away */
  area: { from: XY; to: XY; takeAway: boolean } | null;
  measured: XY[];
  /** corners of the outline being traced */
  ring: XY[];
  /** which way a leg runs by the ink, as it was read there */
  inkBearing: { bearing: string; plusMinusDegrees: number } | null;
  /** what is typed in the figure slip; null while it is closed */
  slip: string | null;
  slipError: string | null;
  selected: {
    type: "wall" | "knownLength" | "gridPick" | "room" | "opening" | "figure" | "divider" | "column" | "note";
    id: string;
  } | null;
  /** walls selected together; none where it is one or none */
  group: readonly string[];
  wallShape: "chain" | "rectangle" | "arc";
  snapTo: { tracing: boolean; ink: boolean; lines: boolean };
  /** lengths clicked are rounded to this, mm; 0 leaves them */
  roundTo: number;
  buildUp: string | null;
  roomMode: "name" | "divider" | "column";
  /** sides of the columns that are set, as typed: `350` or `350 × 450` */
  columnSize: string;
  columnRound: boolean;
  /** what an outline on a storey goes round */
  outlineKind: Exclude<OutlineKind, "face">;
  /** how the doors that are set open */
  openingLeaf: "single" | "double" | "sliding";
  /** the storey that shows through faintly */
  through: string | null;
  line: "centre" | "left" | "right";
  thickness: number;
  holdSquare: boolean;
  heldOut: boolean;
  standing: Values["knownLength"]["standing"];
  /** what a figure runs between, and what is picked */
  endsAt: Values["knownLength"]["ends"];
  pickedAt: Values["knownLength"]["picked"];
  /** thickness of the walls at its ends as typed, where the two differ */
  wallText: string;
  /** how far what is picked stands before the wall plane, and from how far away that was photographed, as typed */
  standOff: { by: string; from: string };
  along: "straight" | "x" | "y" | "across";
  wholePage: boolean;
  calibrateBy: "length" | "room" | "count";
  /** sides of the size ghost as typed, and in mm once they are read */
  ghost: { width: string; depth: string; mm: readonly [number, number] | null };
  /** what the next pick of Place states */
  /** what a click in a wall makes */
  openingKind: "as drawn" | "door" | "window" | "opening";
  placing: "point" | "axis x" | "axis y" | "side";
  pendingFit: PendingFit | null;
  pendingSlip: { title: string; operations: Operation[]; caution: Caution } | null;
  /** the known length whose ends are looked at again */
  audit: string | null;
  truthPlot: boolean;
  /** the slider that is being moved, before it is saved */
  fading: { drawing: string; fade: number } | null;
  showsOpen: boolean;
  keysShown: boolean;
  singleKeys: boolean;
}

export const NOTHING_DRAFTED = {
  picks: [],
  focusedEnd: 1,
  ticks: [],
  caution: null,
  chain: null,
  door: null,
  roomAt: null,
  rectangle: null,
  arc: [],
  divider: null,
  figureFaces: [],
  figureHolds: "a",
  noteAt: null,
  asked: null,
  held: null,
  area: null,
  measured: [],
  ring: [],
  inkBearing: null,
  slip: null,
  slipError: null,
  snap: null,
} as const satisfies Partial<DeskState>;

/** Some fields of the desk: redraws only when one of these changes, not with every move of the pointer. */
export function useDeskFields<K extends keyof DeskState>(...keys: readonly K[]): Pick<DeskState, K> {
  return useDesk(useShallow((s) => Object.fromEntries(keys.map((k) => [k, s[k]])) as Pick<DeskState, K>));
}

export const useDesk = create<DeskState>(() => ({
  step: "true-up",
  act: null,
  storey: null,
  side: null,
  drawing: null,
  cutting: null,
  view: { x: 0, y: 0, k: 0.05 },
  size: { width: 800, height: 600 },
  pointer: null,
  selected: null,
  group: [],
  wallShape: "chain",
  snapTo: { tracing: true, ink: true, lines: true },
  roundTo: 0,
  buildUp: null,
  roomMode: "name",
  columnSize: "350",
  columnRound: false,
  outlineKind: "slab",
  openingLeaf: "single",
  through: null,
  line: "right",
  thickness: 300,
  holdSquare: true,
  heldOut: false,
  standing: "figured",
  endsAt: "outer face",
  pickedAt: "outer face",
  wallText: "",
  standOff: { by: "", from: "" },
  along: "straight",
  wholePage: false,
  calibrateBy: "length",
  ghost: { width: "", depth: "", mm: null },
  openingKind: "as drawn",
  placing: "point",
  pendingFit: null,
  pendingSlip: null,
  audit: null,
  truthPlot: false,
  fading: null,
  showsOpen: false,
  keysShown: false,
  singleKeys: true,
  ...structuredClone(NOTHING_DRAFTED),
}));

export function goTo(step: Step, act: Act | null = null): void {
  useDesk.setState({
    step,
    act,
    selected: null,
    group: [],
    cutting: null,
    audit: null,
    ...structuredClone(NOTHING_DRAFTED),
  });
}

export function setAct(act: Act | null): void {
  useDesk.setState({ act, audit: null, ...structuredClone(NOTHING_DRAFTED) });
}

export function setView(view: View): void {
  useDesk.setState({ view });
}

/** The model's point that lies in the new view where the given one lay on the screen: a hand that rests is not lost. */
const stayed = ([x, y]: XY, old: View, next: View): XY => [
  next.x + ((x - old.x) * old.k) / next.k,
  next.y + ((y - old.y) * old.k) / next.k,
];

/** When a drawing gets a new fit, the view follows, so that the picture stays where the eye has it. */
useProject.subscribe((now, before) => {
  const { drawing, view, pointer } = useDesk.getState();
  if (drawing === null || now.rows.fit === before.rows.fit) return;
  const next = now.rows.fit.get(drawing);
  const old = before.rows.fit.get(drawing);
  // On another page its pixels are others, and the model stays where it is.
  const samePage = now.rows.drawing.get(drawing)?.page === before.rows.drawing.get(drawing)?.page;
  if (next && old && next !== old && samePage) {
    const under = viewUnder(view, mapOf(old), mapOf(next));
    setView(under);
    useDesk.setState({ pointer: pointer && stayed(pointer, view, under), snap: null });
  }
});
