import { create } from "zustand";
import { useShallow } from "zustand/react/shallow";
import type { Size, View, XY } from "../board/geometry";
import { mapOf, viewUnder } from "../board/geometry";
import type { DrawingKind } from "../project/rows";
import { useProject } from "../project/store";

export type Step = "bring-in" | "true-up" | "trace" | "prove" | "hand-over";
export type Act = "cut" | "calibrate" | "square" | "walls" | "openings" | "rooms" | "measure";

export interface Snap {
  at: XY;
  words: string;
  /** it holds to a line of the file itself, not to its pixels */
  exact?: boolean;
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

export interface Cutting {
  page: string;
  boxes: CutBox[];
  focused: number;
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
  /** picked ends of a length or grid line, page pixels */
  ends: XY[];
  /** which of the ends hold to lines of the file itself */
  exactEnds: boolean[];
  focusedEnd: 0 | 1;
  chain: Chain | null;
  door: { wall: string; from: number; to: number | null } | null;
  roomAt: { at: XY; room: string | null } | null;
  measured: XY[];
  /** what is typed in the figure slip; null while it is closed */
  slip: string | null;
  slipError: string | null;
  selected: { type: "wall" | "knownLength" | "gridPick" | "room" | "opening"; id: string } | null;
  line: "centre" | "left" | "right";
  thickness: number;
  holdSquare: boolean;
  heldOut: boolean;
  standing: string;
  endsAt: string;
  /** the slider that is being moved, before it is saved */
  fading: { drawing: string; fade: number } | null;
  showsOpen: boolean;
  keysShown: boolean;
  singleKeys: boolean;
}

export const NOTHING_DRAFTED = {
  ends: [],
  exactEnds: [],
  focusedEnd: 1,
  chain: null,
  door: null,
  roomAt: null,
  measured: [],
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
  line: "right",
  thickness: 300,
  holdSquare: true,
  heldOut: false,
  standing: "figured",
  endsAt: "outer face",
  fading: null,
  showsOpen: false,
  keysShown: false,
  singleKeys: true,
  ...structuredClone(NOTHING_DRAFTED),
}));

export function goTo(step: Step, act: Act | null = null): void {
  useDesk.setState({ step, act, selected: null, cutting: null, ...structuredClone(NOTHING_DRAFTED) });
}

export function setAct(act: Act | null): void {
  useDesk.setState({ act, ...structuredClone(NOTHING_DRAFTED) });
}

export function setView(view: View): void {
  useDesk.setState({ view });
}

/** When a drawing gets a new fit, the view follows, so that the picture stays where the eye has it. */
useProject.subscribe((now, before) => {
  const { drawing, view } = useDesk.getState();
  if (drawing === null || now.rows.fit === before.rows.fit) return;
  const next = now.rows.fit.get(drawing);
  const old = before.rows.fit.get(drawing);
  // On another page its pixels are others, and the model stays where it is.
  const samePage = now.rows.drawing.get(drawing)?.page === before.rows.drawing.get(drawing)?.page;
  if (next && old && next !== old && samePage) {
    setView(viewUnder(view, mapOf(old), mapOf(next)));
    useDesk.setState({ pointer: null, snap: null });
  }
});
