import type { XY } from "../geometry/plane";
import { currentAct, useActs } from "./act";
import { clearDraft, useDesk } from "./desk";
import { snapAt } from "./snap";

/** A click on the board, at a model point. */
export function clickAt(pointer: XY, free: boolean, corners = false): void {
  currentAct()?.click({ pointer, snap: snapAt(pointer, free), free, corners });
}

/** One step back; nothing that was saved is lost by it. */
export function stepBack(): void {
  const desk = useDesk.getState();
  const typing = currentAct()?.slip?.();
  if (desk.slip !== null && desk.slip !== "") {
    return useDesk.setState({ slip: typing && !typing.passes ? "" : null, slipError: null, caution: null });
  }
  // What floats goes first, the last that came.
  for (const module of useActs.getState().steps.values()) if (module.back?.()) return;
  if (desk.showsOpen) return useDesk.setState({ showsOpen: false });
  if (desk.draft) return clearDraft();
  if (desk.act) return useDesk.setState({ act: null, snap: null });
  useDesk.setState({ selected: null, group: [] });
}
