import { type Act, type Click, selectables } from "../board/act";
import { areaDrag } from "../board/area";
import { drafted, useDesk } from "../board/desk";
import { TEAL } from "../board/marks";
import { selectedWalls, selectWalls, toggleWall } from "../board/selection";
import { wallUnder } from "../board/snap";
import { distance, middle, type XY } from "../geometry/plane";
import { useProject } from "../store/project";
import { boxOf, wallLines } from "../store/walls";
import { written } from "../ui/measures";
import { askedNow, askedPoint, askedSlip, askedWords } from "./asked";
import { selectableSelected } from "./selected";

/** Screen pixels within which something is taken hold of, and within which a thing is meant. */
const HANDLE_PX = 9;
const HIT_PX = 4;

/** With nothing in hand a click selects, and a drag moves what is selected or selects an area. */
export const select: Act = {
  name: null,
  click: (click) => (askedNow() ? askedPoint(click.pointer) : selectAt(click)),
  drag(at, { shiftKey }) {
    const { storey, view, selected } = useDesk.getState();
    if (shiftKey) return storey === null ? null : areaDrag(selectWithin);
    if (useProject.getState().role === "read") return null;
    const [group] = selectedWalls();
    const id = group ?? selected?.id;
    return (id && selectableSelected()?.drag?.(id, at, HANDLE_PX / view.k)) || null;
  },
  slip: askedSlip,
  words: askedWords,
  draws(pen) {
    const moved = drafted("moved");
    for (const [a, b] of moved?.lines ?? []) {
      const [p, q] = [pen.at(a), pen.at(b)];
      pen.path([p, q], { colour: TEAL, width: 2, dash: [6, 3] });
      if (moved?.told) pen.tag(middle(p, q), written(distance(a, b)), TEAL);
    }
    const { selected, group } = useDesk.getState();
    if (moved || !selected || group.length > 0) return;
    if (useProject.getState().role === "read") return;
    const { pulls, handles } = selectableSelected() ?? {};
    for (const p of pulls?.(selected.id) ?? []) pen.ring(pen.at(p), 2.5, { colour: TEAL, width: 1.4, fill: "#fdfcfa" });
    for (const p of handles?.(selected.id) ?? []) pen.ring(pen.at(p), 5, { colour: TEAL, width: 2, fill: "#fdfcfa" });
  },
};

/** Selects what lies there; with Shift a wall is added to those that are, or taken away again. */
export function selectAt({ pointer, corners: add }: Pick<Click, "pointer" | "corners">): void {
  const reach = HIT_PX / useDesk.getState().view.k;
  if (add) {
    const hit = wallUnder(pointer, reach);
    return hit ? toggleWall(hit.id) : undefined;
  }
  const byRank = selectables()
    .flatMap(([type, { hit }]) => (hit ? [{ type, ...hit }] : []))
    .sort((a, b) => a.rank - b.rank);
  for (const { type, at } of byRank) {
    const id = at(pointer, reach);
    if (id !== null) return useDesk.setState({ selected: { type, id }, group: [] });
  }
  useDesk.setState({ selected: null, group: [] });
}

/** Walls that lie wholly within a rectangle are selected: added to what is, or taken away. */
export function selectWithin(a: XY, b: XY, takeAway: boolean): void {
  const { storey } = useDesk.getState();
  const [x1, x2] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
  const [y1, y2] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
  const inside = wallLines(useProject.getState().rows, storey)
    .filter((line) => {
      const box = boxOf(line);
      return box[0] >= x1 && box[1] >= y1 && box[2] <= x2 && box[3] <= y2;
    })
    .map((line) => line.wall.id);
  const before = selectedWalls();
  selectWalls(takeAway ? before.filter((id) => !inside.includes(id)) : [...new Set([...before, ...inside])]);
}
