import { type Selectable, selectableOf, useActs } from "../board/act";
import { type DeskState, useDesk } from "../board/desk";
import type { Kind } from "../store/rows";

const kindOf = ({ group, selected }: Pick<DeskState, "group" | "selected">): Kind | undefined =>
  group.length > 0 ? "wall" : selected?.type;

/** What can be done with what is selected. */
export function selectableSelected(): Selectable | undefined {
  return selectableOf(kindOf(useDesk.getState()));
}

export function useSelectableSelected(): Selectable | undefined {
  useActs((s) => s.acts);
  return selectableOf(useDesk(kindOf));
}
