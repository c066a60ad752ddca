import type { Operation } from "../api/client";
import type { View } from "../geometry/view";
import { drawingsOn, type Place } from "../store/drawings";
import { change, prefer, projectId, useProject } from "../store/project";
import { entriesOf, useActs } from "./act";
import { clearDraft, NOTHING_SELECTED, type Step, setAct, setView, useDesk } from "./desk";
import { showTraced, showWholePage } from "./views";

/** Where one left a project: the place and step, and how each place was looked at. */
export interface Left extends Place {
  step: Step;
  drawing: string | null;
  views: Record<string, Seen>;
}

/** How a place was looked at, and under which fit: under another one the picture lies elsewhere. */
interface Seen {
  view: View;
  fit: number;
}

const leftAt = (project: string) => `plinth.left.${project}`;
const nameOf = ({ storey, side }: Place) => storey ?? side ?? "";

let views: Record<string, Seen> = {};

const fitOf = (drawing: string | null) => useProject.getState().rows.fit.get(drawing ?? "")?.revision ?? 0;

/** Remembers how the place at hand is looked at, where it is one of this project. */
function remember(): void {
  const { storey, side, drawing, view } = useDesk.getState();
  const { rows } = useProject.getState();
  if (!rows.storey.has(storey ?? "") && !rows.side.has(side ?? "")) return;
  views = { ...views, [nameOf({ storey, side })]: { view, fit: fitOf(drawing) } };
}

/** Where the project at hand was left, if anything of it is known here. */
export function whereLeft(): Left | null {
  try {
    const left = JSON.parse(localStorage.getItem(leftAt(projectId())) ?? "null") as Left | null;
    views = left?.views ?? {};
    return left;
  } catch {
    return null; // written by something else, or storage is closed: begun afresh
  }
}

/** Keeps where one is, for when the project is opened again. */
export function keepLeft(): void {
  const { storey, side, step, drawing } = useDesk.getState();
  const id = projectId();
  if (id === "" || (storey === null && side === null)) return;
  remember();
  try {
    localStorage.setItem(leftAt(id), JSON.stringify({ storey, side, step, drawing, views } satisfies Left));
  } catch {
    // Storage is full or closed: nothing of the work is lost by it.
  }
}

/** Goes to a storey or side as it was looked at last; its topmost drawing that shows becomes the one worked on. */
export function choosePlace(place: Place): void {
  remember();
  const drawings = drawingsOn(useProject.getState().rows, place);
  const drawing = drawings.findLast((d) => !d.hidden) ?? drawings[0];
  if (place.storey !== null) prefer(place.storey);
  clearDraft();
  useDesk.setState({
    ...place,
    drawing: drawing?.id ?? null,
    ...NOTHING_SELECTED,
  });
  // What cannot be done there is put down.
  const { act, step } = useDesk.getState();
  const isKnown = useActs.getState().entries.some((e) => e.act === act);
  if (isKnown && !entriesOf(step, place.side !== null).some((e) => e.act === act)) setAct(null);
  const known = views[nameOf(place)];
  if (known && known.fit === fitOf(drawing?.id ?? null)) setView(known.view);
  else showPlace();
}

/** All that is traced here once the picture is trued, else the whole picture. */
export function showPlace(): void {
  const { drawing, side } = useDesk.getState();
  // On a side where no drawing lies, what stands there is all there is; storeys lie on each other.
  if (drawing === null && side !== null) return showTraced();
  const guess = drawing === null || (useProject.getState().rows.fit.get(drawing)?.isGuess ?? true);
  (guess ? showWholePage : showTraced)();
}

/** Makes a drawing the one worked on, where it is, and shows it if it was hidden. */
export function chooseDrawing(id: string): void {
  const drawing = useProject.getState().rows.drawing.get(id);
  if (!drawing) return;
  if (drawing.hidden) {
    void change("Show a drawing", [{ do: "set", type: "drawing", id, values: { hidden: false } }]);
  }
  clearDraft();
  useDesk.setState({
    storey: drawing.storey,
    side: drawing.side,
    drawing: id,
    ...NOTHING_SELECTED,
  });
}

/** One drawing of a side for another: the next one shows, and the one that did is put away. */
export async function showOther(): Promise<void> {
  const { side, drawing } = useDesk.getState();
  if (side === null) return;
  const all = drawingsOn(useProject.getState().rows, { storey: null, side });
  const next = all[(all.findIndex((d) => d.id === drawing) + 1) % all.length];
  if (!next || next.id === drawing) return;
  clearDraft();
  useDesk.setState({ drawing: next.id });
  await change(
    `Show ${next.name}`,
    all
      .filter((d) => d.hidden !== (d.id !== next.id))
      .map((d): Operation => ({ do: "set", type: "drawing", id: d.id, values: { hidden: d.id !== next.id } })),
  );
}
