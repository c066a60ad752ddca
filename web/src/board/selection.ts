import { useDesk } from "./desk";

/** Walls that are selected: one, or a group. */
export function selectedWalls(): readonly string[] {
  const { selected, group } = useDesk.getState();
  return group.length > 0 ? group : selected?.type === "wall" ? [selected.id] : [];
}

/** Adds a wall to those that are selected, or takes it away again. */
export function toggleWall(id: string): void {
  const before = selectedWalls();
  selectWalls(before.includes(id) ? before.filter((one) => one !== id) : [...before, id]);
}

export function selectWalls(ids: readonly string[]): void {
  const [only] = ids;
  useDesk.setState({
    selected: only !== undefined && ids.length === 1 ? { type: "wall", id: only } : null,
    group: ids.length > 1 ? ids : [],
    things: [],
  });
}
