import { type Act, type Click, selectableOf, selectables } from "../board/act";
import { areaDrag } from "../board/area";
import { drafted, NOTHING_SELECTED, useDesk } from "../board/desk";
import { TEAL } from "../board/marks";
import { selectedWalls, selectWalls, toggleWall } from "../board/selection";
import { wallUnder } from "../board/snap";
import { distance, middle, type XY } from "../geometry/plane";
import type { Place } from "../store/drawings";
import { here } from "../store/drawn";
import { useProject } from "../store/project";
import { boxOf, wallLines } from "../store/walls";
import { written } from "../ui/measures";
import {
  ARRANGEABLE,
  placesAsked,
  placesPoint,
  placesSnap,
  placesWords,
  pointsOf,
  type Thing,
  thingsChosen,
} from "./arranging";
import { askedNow, askedPoint, askedSlip, askedWords } from "./asked";
import { selectableSelected } from "./selected";

/** Screen pixels within which something is taken hold of, and within which a thing is meant. */
const HANDLE_PX = 9;
const HIT_PX = 4;

/** With nothing in hand a click selects, and a drag moves what is selected or selects an area. */
export const select: Act = {
  name: null,
  click(click) {
    if (askedNow()) return askedPoint(click.pointer);
    return placesAsked() ? placesPoint(click.snap?.at ?? click.pointer) : selectAt(click);
  },
  snap: placesSnap,
  drag(at, { shiftKey }) {
    const { view, selected, things } = useDesk.getState();
    if (placesAsked()) return null;
    if (shiftKey) return areaDrag(selectWithin);
    if (useProject.getState().role === "read") return null;
    const [group] = selectedWalls();
    const id = group ?? things[0]?.id ?? selected?.id;
    return (id && selectableSelected()?.drag?.(id, at, HANDLE_PX / view.k)) || null;
  },
  slip: askedSlip,
  words: () => [...askedWords(), ...placesWords()],
  draws(pen) {
    const moved = drafted("moved");
    for (const [a, b] of moved?.lines ?? []) {
      const [p, q] = [pen.at(a), pen.at(b)];
      pen.path([p, q], { colour: TEAL, width: 2, dash: [6, 3] });
      if (moved?.told) pen.tag(middle(p, q), written(distance(a, b)), TEAL);
    }
    const arrange = placesAsked();
    const tip = useDesk.getState().snap?.at ?? useDesk.getState().pointer;
    if (arrange?.from && tip)
      pen.path([pen.at(arrange.from), pen.at(tip)], { colour: TEAL, width: 1.6, dash: [24, 4, 2, 4] });
    const { selected, group } = useDesk.getState();
    if (moved || !selected || group.length > 0) return;
    if (useProject.getState().role === "read") return;
    const { pulls, handles } = selectableSelected() ?? {};
    for (const p of pulls?.(selected.id) ?? []) pen.ring(pen.at(p), 2.5, { colour: TEAL, width: 1.4, fill: "#fdfcfa" });
    for (const p of handles?.(selected.id) ?? []) pen.ring(pen.at(p), 5, { colour: TEAL, width: 2, fill: "#fdfcfa" });
  },
};

/** Selects what lies there; with Shift it is added to what is, or taken away again: a wall to walls, what was drawn to that. */
export function selectAt({ pointer, corners: add }: Pick<Click, "pointer" | "corners">): void {
  const reach = HIT_PX / useDesk.getState().view.k;
  if (add) {
    const thing = thingAt(pointer, reach);
    if (thing) return toggleThing(thing);
    const hit = wallUnder(pointer, reach);
    return hit ? toggleWall(hit.id) : undefined;
  }
  const byRank = selectables()
    .flatMap(([type, { hit }]) => (hit ? [{ type, ...hit }] : []))
    .sort((a, b) => a.rank - b.rank);
  for (const { type, at } of byRank) {
    const id = at(pointer, reach);
    if (id !== null) return useDesk.setState({ selected: { type, id }, group: [], things: [] });
  }
  useDesk.setState(NOTHING_SELECTED);
}

/** What was drawn freely and lies there. */
function thingAt(pointer: XY, reach: number): Thing | null {
  for (const type of ARRANGEABLE) {
    const id = selectableOf(type)?.hit?.at(pointer, reach) ?? null;
    if (id !== null) return { type, id };
  }
  return null;
}

function toggleThing(thing: Thing): void {
  const before = thingsChosen();
  const without = before.filter(({ id }) => id !== thing.id);
  selectThings(without.length < before.length ? without : [...before, thing]);
}

function selectThings(things: readonly Thing[]): void {
  const [only] = things;
  useDesk.setState({
    ...NOTHING_SELECTED,
    ...(only && things.length === 1 ? { selected: { type: only.type, id: only.id } } : { things }),
  });
}

/**
 * Walls that lie wholly within a rectangle are selected, or where there are none what was drawn freely: added to what is, or taken
 * away.
 */
export function selectWithin(a: XY, b: XY, takeAway: boolean): void {
  const { storey, side } = useDesk.getState();
  const [x1, x2] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
  const [y1, y2] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
  const inside = wallLines(useProject.getState().rows, storey)
    .filter((line) => {
      const box = boxOf(line);
      return box[0] >= x1 && box[1] >= y1 && box[2] <= x2 && box[3] <= y2;
    })
    .map((line) => line.wall.id);
  if (inside.length === 0) {
    const { rows } = useProject.getState();
    const things = ARRANGEABLE.flatMap((type): Thing[] =>
      here([...(rows[type] as ReadonlyMap<string, Place & { id: string }>).values()], { storey, side }).map(
        ({ id }) => ({ type, id }),
      ),
    ).filter((thing) => pointsOf(thing).every(([x, y]) => x >= x1 && x <= x2 && y >= y1 && y <= y2));
    const chosen = thingsChosen().filter(({ id }) => !things.some((t) => t.id === id));
    return things.length === 0 ? undefined : selectThings(takeAway ? chosen : [...chosen, ...things]);
  }
  const before = selectedWalls();
  selectWalls(takeAway ? before.filter((id) => !inside.includes(id)) : [...new Set([...before, ...inside])]);
}
