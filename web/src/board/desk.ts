import { create } from "zustand";
import { useShallow } from "zustand/react/shallow";
import type { Schemas } from "../api/client";
import { mapOf } from "../geometry/maps";
import type { XY } from "../geometry/plane";
import { type Size, type View, viewUnder } from "../geometry/view";
import { useProject } from "../store/project";
import type { Kind } from "../store/rows";

export type Step = "bring-in" | "true-up" | "trace" | "prove" | "hand-over";

/** Names of all acts. Each act adds its own beside its code, so that one that is not there cannot be gone to. */
// biome-ignore lint/suspicious/noEmptyInterface: acts add to it
export interface ActNames {}
export type ActName = keyof ActNames;

/** What may be in the making, by name. Each act adds its own beside its code: the union of all is closed. */
export interface Drafts {
  /** points of the picture being picked for what is stated next */
  picks: {
    picks: readonly Picked[];
    /** the one that arrow keys move */
    focused: number;
    /** joints found along the length being counted, page pixels */
    ticks: readonly XY[];
  };
  /** lines of what is being dragged, where it would go, model points; with their lengths where those are told */
  moved: { lines: readonly (readonly [XY, XY])[]; told: boolean };
  /** corners of the area being selected, and whether it is taken away */
  area: { from: XY; to: XY; takeAway: boolean };
}
export type Drafted<K extends keyof Drafts> = { readonly of: K } & Drafts[K];
export type Draft = { [K in keyof Drafts]: Drafted<K> }[keyof Drafts];

export interface Snap {
  at: XY;
  words: string;
  /** what the ink shows there */
  kind?: Schemas["Found"]["kind"];
  /** how surely it holds, in page pixels; for picks */
  sigmaPx?: number;
  /** thickness of the wall whose face it holds to, page pixels */
  thicknessPx?: number | null;
  /** which way the line runs that the ink shows there, radians from x, model */
  along?: number;
  /** the wall that an end joins */
  wall?: string;
  closes?: boolean;
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

export interface DeskState {
  step: Step;
  act: ActName | null;
  /** the storey being worked on; null while a side is */
  storey: string | null;
  side: string | null;
  drawing: string | null;
  view: View;
  size: Size;
  pointer: XY | null;
  snap: Snap | null;
  /** what is being made, by the act at hand or by a drag */
  draft: Draft | null;
  /** what is typed in the figure slip; null while it is closed */
  slip: string | null;
  slipError: string | null;
  caution: Caution | null;
  selected: { type: Kind; id: string } | null;
  /** walls selected together; none where it is one or none */
  group: readonly string[];
  /** several things selected together that were drawn freely: lines, dimensions, notes, outlines */
  things: readonly Schemas["Drawn"][];
  /** directions near the grid's are held to it */
  holdSquare: boolean;
  /** the storey that shows through faintly, and whether its drawings do as well */
  through: string | null;
  throughPicture: boolean;
  /** the slider that is being moved, before it is saved */
  fading: { drawing: string; fade: number } | null;
  /** the board's face: the plan or side as it is drawn, or the building as it stands */
  face: "drawn" | "standing";
  showsOpen: boolean;
  keysShown: boolean;
  singleKeys: boolean;
}

export const NOTHING_SELECTED = { selected: null, group: [], things: [] } as const satisfies Partial<DeskState>;

const NOTHING_DRAFTED = {
  draft: null,
  slip: null,
  slipError: null,
  caution: null,
  snap: null,
} as const satisfies Partial<DeskState>;

export const useDesk = create<DeskState>(() => ({
  step: "true-up",
  act: null,
  storey: null,
  side: null,
  drawing: null,
  view: { x: 0, y: 0, k: 0.05 },
  size: { width: 800, height: 600 },
  pointer: null,
  ...NOTHING_SELECTED,
  holdSquare: true,
  through: null,
  throughPicture: false,
  fading: null,
  face: "drawn",
  showsOpen: false,
  keysShown: false,
  singleKeys: true,
  ...NOTHING_DRAFTED,
}));

/** Some fields of the desk: redraws only when one of these changes, not with every move of the pointer. */
export function useDeskFields<K extends keyof DeskState>(...keys: readonly K[]): Pick<DeskState, K> {
  return useDesk(useShallow((s) => Object.fromEntries(keys.map((k) => [k, s[k]])) as Pick<DeskState, K>));
}

const isOf = <K extends keyof Drafts>(draft: Draft | null, of: K): draft is Draft & Drafted<K> => draft?.of === of;

/** What is being made, if it is of this kind. */
export function drafted<K extends keyof Drafts>(of: K): Drafted<K> | null {
  const { draft } = useDesk.getState();
  return isOf(draft, of) ? draft : null;
}

export function useDrafted<K extends keyof Drafts>(of: K): Drafted<K> | null {
  return useDesk((s) => (isOf(s.draft, of) ? s.draft : null));
}

/** Nothing is being made any more, and no slip is open. */
export function clearDraft(): void {
  useDesk.setState(NOTHING_DRAFTED);
}

export function goTo(step: Step, act: ActName | null = null): void {
  useDesk.setState({
    step,
    act,
    ...(act === null ? {} : { face: "drawn" as const }),
    ...NOTHING_SELECTED,
    showsOpen: false,
    ...NOTHING_DRAFTED,
  });
}

/** @param face where it points: on what is drawn, unless it can point in space as well */
export function setAct(act: ActName | null, face: DeskState["face"] = "drawn"): void {
  useDesk.setState({ act, ...(act === null ? {} : { face }), showsOpen: false, ...NOTHING_DRAFTED });
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
