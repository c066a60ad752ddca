import { type Selectable, selectableOf, useActs } from "../board/act";
import { type DeskState, useDesk } from "../board/desk";
import type { Kind } from "../store/rows";

/** Several things that were drawn freely are told of, and removed, as a line is. */
const kindOf = ({ group, things, selected }: Pick<DeskState, "group" | "things" | "selected">): Kind | undefined =>
  group.length > 0 ? "wall" : things.length > 0 ? "drawnLine" : selected?.type;

/** What can be done with what is selected. */
export function selectableSelected(): Selectable | undefined {
  return selectableOf(kindOf(useDesk.getState()));
}

export function useSelectableSelected(): Selectable | undefined {
  useActs((s) => s.acts);
  return selectableOf(useDesk(kindOf));
}
