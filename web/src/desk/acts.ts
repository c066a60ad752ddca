import type { Operation } from "../api/client";
import type { XY } from "../board/geometry";
import { boundaryPoint } from "../site/tracing";
import { change, prefer, useProject } from "../store/project";
import { NOTHING_DRAFTED, useDesk } from "./desk";
import { askedPoint, selectAt } from "./editing";
import { outlinePoint } from "./elevation";
import { figurePoint } from "./figures";
import { inkPoint } from "./ink";
import { notePoint } from "./notes";
import { openingAt } from "./openings";
import { pick } from "./picking";
import { roomPoint } from "./rooms";
import { drawingsOn, type Place } from "./selectors";
import { snapAt } from "./snap";
import { wallPoint } from "./tracing";

/** A click on the board, at a model point. */
export function clickAt(pointer: XY, free: boolean, corners = false): void {
  const desk = useDesk.getState();
  const snap = snapAt(pointer, free);
  const at = snap?.at ?? pointer;
  if (desk.asked) return askedPoint(pointer);
  switch (desk.act) {
    case "calibrate":
    case "square":
    case "place":
    case "levels":
      return pick(pointer, free, corners);
    case "outline":
      return void outlinePoint(pointer, free, corners);
    case "ink":
      return void inkPoint(pointer);
    case "walls":
      return wallPoint(pointer, free);
    case "openings":
      return openingAt(pointer, free);
    case "rooms":
      return roomPoint(pointer, at, free);
    case "figures":
      return figurePoint(pointer);
    case "notes":
      return notePoint(at);
    case "boundary":
      return void boundaryPoint(at);
    case "measure":
      return useDesk.setState({ measured: [...desk.measured, at] });
    default:
      return selectAt(pointer, corners);
  }
}

/** One step back; nothing that was saved is lost by it. */
export function stepBack(): void {
  const desk = useDesk.getState();
  if (desk.slip !== null && desk.slip !== "")
    return useDesk.setState({ slip: desk.picks.length > 0 || desk.door ? "" : null, slipError: null, caution: null });
  if (desk.pendingSlip) return useDesk.setState({ pendingSlip: null });
  if (desk.pendingFit) return useDesk.setState({ pendingFit: null });
  if (desk.audit) return useDesk.setState({ audit: null });
  if (desk.asked) return useDesk.setState({ asked: null, slip: null, slipError: null });
  const drafting =
    desk.picks.length > 0 ||
    desk.chain ||
    desk.door ||
    desk.roomAt ||
    desk.measured.length > 0 ||
    desk.ring.length > 0 ||
    desk.arc.length > 0 ||
    desk.rectangle ||
    desk.divider ||
    desk.figureFaces.length > 0 ||
    desk.noteAt;
  if (drafting) return useDesk.setState(structuredClone(NOTHING_DRAFTED));
  if (desk.act) return useDesk.setState({ act: null, snap: null });
  useDesk.setState({ selected: null, group: [] });
}

/** Goes to a storey or side; its topmost drawing that shows becomes the one worked on. */
export function choosePlace(place: Place): void {
  const drawings = drawingsOn(useProject.getState().rows, place);
  const drawing = drawings.findLast((d) => !d.hidden) ?? drawings[0];
  if (place.storey !== null) prefer(place.storey);
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
