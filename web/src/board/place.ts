import type { Operation } from "../api/client";
import { drawingsOn, type Place } from "../store/drawings";
import { change, prefer, useProject } from "../store/project";
import { clearDraft, useDesk } from "./desk";

/** Goes to a storey or side; its topmost drawing that shows becomes the one worked on. */
export function choosePlace(place: Place): void {
  const drawings = drawingsOn(useProject.getState().rows, place);
  const drawing = drawings.findLast((d) => !d.hidden) ?? drawings[0];
  if (place.storey !== null) prefer(place.storey);
  clearDraft();
  useDesk.setState({
    ...place,
    drawing: drawing?.id ?? null,
    selected: null,
  });
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
    selected: null,
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
