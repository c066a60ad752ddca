import type { FC } from "react";
import { create } from "zustand";
import type { Map2 } from "../geometry/maps";
import type { XY } from "../geometry/plane";
import type { Place } from "../store/drawings";
import type { ProjectState } from "../store/project";
import type { Kind } from "../store/rows";
import { type ActName, type DeskState, type Snap, type Step, useDesk } from "./desk";
import type { Pen } from "./pen";
import { STEPS } from "./steps";

/** What is drawn over the board: model to screen. */
export type OnBoard = FC<{ screen: Map2 }>;

/** How an act stands in the rail and on the keys; known before its code is loaded. */
export interface ActEntry {
  act: ActName;
  /** the step that it belongs to; null for one that serves in all of them and is not in the rail */
  step: Step | null;
  /** where it stands among its step's acts */
  order: number;
  label: string;
  key: string;
  when: string;
  /** where it can be done; anywhere unless it is said */
  on?: "storey" | "side";
  /** whether its clicks measure in space, too, where the building stands */
  measures?: true;
  /** a figure beside its name, where there is one to act on */
  hint?(project: ProjectState, drawing: string | null): string | null;
}

/** A click on the board. */
export interface Click {
  pointer: XY;
  /** what was found under the pointer while it rested there, or what it would hold to */
  snap: Snap | null;
  /** whether the ink is held off */
  free: boolean;
  /** whether corners only are wanted */
  corners: boolean;
}

/** What a drag does, model points. */
export interface Drag {
  move(from: XY, to: XY, free: boolean): void;
  drop(): Promise<unknown>;
}

/** The small field at what is being drawn. */
export interface Slip {
  /** where on the board, model point */
  at: XY;
  /** what must not be hidden by it; the same place unless it is said */
  about?: readonly XY[];
  label: string;
  hint: string;
  send: (text: string) => Promise<void>;
  /** the hand goes on pointing: the slip is no obstacle to it, and opens with the first digit */
  passes?: boolean;
  /** more that can be said of it, under the field */
  More?: FC;
}

/** A kind of row that can be selected. */
export interface Selectable {
  /** what is said of it in the ledger, and asked */
  Panel: FC<{ id: string }>;
  remove?(id: string): void;
  /** The one that a click at a place means; those of a lower rank are asked first. */
  hit?: { rank: number; at: (pointer: XY, reach: number) => string | null };
  /** Where it can be taken hold of, model points. */
  handles?(id: string): readonly XY[];
  /** Where more of them can be pulled out of it, model points. */
  pulls?(id: string): readonly XY[];
  /** What a drag from there does to it, once it is selected; null where it takes no hold of it. */
  drag?(id: string, at: XY, reach: number): Drag | null;
}

/** The one next thing that an act would have done; of several the one of the lowest rank is said. */
export interface NextStep {
  rank: number;
  words: string;
  go: () => void;
}

/** What an act does. It registers itself with its step; the board asks for nothing else of it. */
export interface Act {
  /** null for what is done in a step while no act is at hand */
  name: ActName | null;
  click(click: Click): void;
  /** What a point would hold to, told in words; `reach` is how far that may be, mm. */
  snap?(pointer: XY, reach: number, free: boolean): Snap | null;
  /** How many points of the picture are wanted: then the lens follows the pointer. */
  wanted?(): number;
  /** Only what runs level tells anything of such a point: another line would leave its height to the hand. */
  wantsLevel?: true;
  /** Whether the ink is asked where the pointer rests and nothing surer is there; where points are wanted it is. */
  asksInk?(snap: Snap | null): boolean;
  /** What is made of what the ink shows there; null where it is of no use. */
  takesInk?(found: Snap, pointer: XY): Snap | null;
  drag?(at: XY, e: { shiftKey: boolean }): Drag | null;
  /** What can be typed now. */
  slip?(): Slip | null;
  /** Words beside the pointer before what it holds to. */
  words?(tip: XY): readonly string[];
  /** Whether the page as it is shows, and nothing of the model. */
  onPage?(): boolean;
  /** Takes a key that nothing else wants; whether it did. */
  key?(e: KeyboardEvent): boolean;
  /** Draws what is being made, with every move of the pointer. */
  draws?(pen: Pen): void;
  /** Fields and buttons over the board. */
  Over?: OnBoard;
  /** What it asks and says in the ledger while it is at hand. */
  Panel?: FC;
  /** What it has made, as rows of the ledger of a storey or side; those of the lowest rank first. */
  Rows?: { of: FC<Place>; rank: number };
  /** What can be done with rows of these kinds. */
  selects?: Partial<Record<Kind, Selectable>>;
  next?(storey: string): NextStep | null;
}

/** What is drawn of what is there, while a step is at hand for which it says anything. */
export interface Shown {
  in: (desk: DeskState) => boolean;
  Marks?: OnBoard;
  /** words over the marks */
  Labels?: OnBoard;
  /** points of what it shows on the storey or side at hand: all that is traced is seen with them */
  points?: () => readonly XY[];
}

/** All that a step brings with it. */
export interface StepModule {
  Ledger: FC;
  acts: readonly Act[];
  /** what a click and a drag do while no act is at hand */
  rest?: Act;
  shows?: readonly Shown[];
  /** lenses, cards and the like over the board */
  Over?: FC;
  /** takes a letter that is no act's; whether it did */
  key?(key: string): boolean;
  /** Takes back the last thing that floats; whether there was one. */
  back?(): boolean;
}

interface Registry {
  entries: readonly ActEntry[];
  /** those that are loaded */
  steps: ReadonlyMap<Step | null, StepModule>;
  acts: ReadonlyMap<ActName, Act>;
}

export const useActs = create<Registry>(() => ({ entries: [], steps: new Map(), acts: new Map() }));

export function registerEntries(entries: readonly ActEntry[]): void {
  const stepOf = (e: ActEntry) => STEPS.findIndex(({ step }) => step === e.step) + (e.step === null ? 100 : 0);
  useActs.setState({ entries: [...entries].sort((a, b) => stepOf(a) - stepOf(b) || a.order - b.order) });
}

export function registerStep(step: Step | null, module: StepModule): void {
  const order = (of: Step | null) => (of === null ? STEPS.length : STEPS.findIndex((each) => each.step === of));
  useActs.setState((s) => ({
    // What a later step shows lies over what earlier ones do, whichever was loaded first.
    steps: new Map([...s.steps, [step, module] as const].sort(([a], [b]) => order(a) - order(b))),
    acts: new Map([...s.acts, ...module.acts.flatMap((act) => (act.name === null ? [] : [[act.name, act] as const]))]),
  }));
}

/** Acts of a step that can be done where one is. */
export function entriesOf(step: Step | null, isOnSide: boolean): ActEntry[] {
  return useActs
    .getState()
    .entries.filter((e) => e.step === step && (e.on === undefined || (e.on === "side") === isOnSide));
}

/** The act at hand, or what the step does without one; null while it is being loaded. */
export function actAt({ act, step }: Pick<DeskState, "act" | "step">): Act | null {
  const { acts, steps } = useActs.getState();
  return act === null ? (steps.get(step)?.rest ?? null) : (acts.get(act) ?? null);
}

/** Points of all that is shown, as far as its step is loaded. */
export function pointsShown(): XY[] {
  return [...useActs.getState().steps.values()].flatMap(({ shows = [] }) => shows.flatMap((s) => s.points?.() ?? []));
}

/** Kinds of rows that can be selected, as far as their acts are loaded. */
export function selectables(): (readonly [Kind, Selectable])[] {
  return [...useActs.getState().acts.values()].flatMap(
    (act) => Object.entries(act.selects ?? {}) as [Kind, Selectable][],
  );
}

export function selectableOf(kind: Kind | undefined): Selectable | undefined {
  return selectables().find(([of]) => of === kind)?.[1];
}

export function currentAct(): Act | null {
  return actAt(useDesk.getState());
}

/** The act at hand; redraws when it is another. */
export function useCurrentAct(): Act | null {
  useActs((s) => s.acts);
  return useDesk(actAt);
}
