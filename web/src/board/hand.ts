import type { XY } from "../geometry/plane";
import { towardsChange } from "../store/project";
import { currentAct, useActs } from "./act";
import { clearDraft, NOTHING_SELECTED, useDesk } from "./desk";
import { allFound } from "./picking";
import { snapAt } from "./snap";

/** A click on the board, at a model point. */
export function clickAt(pointer: XY, free: boolean, corners = false): void {
  currentAct()?.click({ pointer, snap: snapAt(pointer, free), free, corners });
}

/** Enter in the slip: what is typed is sent once the ink has answered for all that is picked. Until it is read nothing is said to be saved. */
export function enterSlip(text: string): Promise<void> {
  const send = currentAct()?.slip?.()?.send;
  return send
    ? towardsChange(async () => {
        await allFound();
        await send(text);
      })
    : Promise.resolve();
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
  useDesk.setState(NOTHING_SELECTED);
}
