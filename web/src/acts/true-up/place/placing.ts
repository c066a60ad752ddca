import { create } from "zustand";
import type { Operation, Refused } from "../../../api/client";
import { newId } from "../../../api/ids";
import { type Picked, useDesk } from "../../../board/desk";
import { inkAt } from "../../../board/found";
import { allFound, picksNow } from "../../../board/picking";
import { sendDraft } from "../../../board/slip";
import { SNAP_PX } from "../../../board/snap";
import { apply } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { drawingsOn, drawingsThrough, fitMap, mmPerPixel } from "../../../store/drawings";
import { twoLengths } from "../../../store/lengths";
import { useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { crossings, type Known, nearestKnown, shownThrough } from "../../known";
import { addPick, sendStatement } from "../../statements";
import { useShown } from "../../useStairs";
import { nearestCorners, planCorners } from "./sides";

/** What the next pick states. */
export const usePlacing = create<{ placing: "point" | "axis x" | "axis y" | "side" | "section" }>(() => ({
  placing: "point",
}));

/** A second click in Place, instead of a figure: the point picked goes onto a traced corner, or onto what another drawing shows there. */
export async function placeOnto(pointer: XY, free: boolean): Promise<void> {
  await allFound();
  const { drawing } = useDesk.getState();
  const [p] = picksNow();
  if (drawing === null || !p) return;
  const onto = free
    ? null
    : (ontoHere(pointer) ?? (await planCorner(pointer, p.at)) ?? (await otherDrawing(pointer, drawing)));
  if (!onto) {
    return useDesk.setState({
      slipError: "Nothing to place it onto there: point at a traced corner or another drawing, or type where it lies.",
    });
  }
  await sendPlace(drawing, p, onto);
}

/** The point picked on a side goes onto a corner of the plan; its height stays. */
export async function placeAlong(along: number): Promise<void> {
  await allFound();
  const { drawing } = useDesk.getState();
  const map = fitMap(useProject.getState().rows, drawing);
  const [p] = picksNow();
  if (drawing === null || !p || !map) return;
  await sendPlace(drawing, p, { at: [along, apply(map, p.at)[1]], words: "corner of the plan" });
}

async function sendPlace(drawing: string, p: Picked, onto: { at: XY; words: string }): Promise<void> {
  const id = newId();
  await sendStatement(
    "Place onto a point",
    [
      addPick(id, drawing, p),
      {
        do: "add",
        type: "controlPoint",
        id: newId(),
        values: { drawing, pick: id, x: onto.at[0], y: onto.at[1], text: onto.words },
      },
    ],
    "",
  );
}

/** What a point may be put onto here, the nearest within reach: also corners of what is traced over other drawings, for over this one they would move with it. */
export function ontoHere(pointer: XY): { at: XY; words: string } | null {
  const { storey, view, drawing } = useDesk.getState();
  const corners: Known[] = [];
  for (const node of useProject.getState().rows.node.values()) {
    if (node.storey === storey && node.drawing !== drawing) corners.push([[node.x, node.y], "traced corner"]);
  }
  return nearestKnown(pointer, SNAP_PX / view.k, [...corners, ...treads(drawing), ...shownThrough(), ...crossings()]);
}

/** Corners of the treads of stairs that the storey shares with the one below, or that were traced over other drawings of it. */
function treads(drawing: string | null): Known[] {
  const { stair } = useProject.getState().rows;
  return useShown
    .getState()
    .stairs.filter((s) => drawing === null || stair.get(s.id)?.drawing !== drawing)
    .flatMap((s) =>
      s.rings
        .flat()
        .map(([x = 0, y = 0]): Known => [[x, y], s.goesUp ? "tread of a stair" : "tread of the stair below"]),
    );
}

/** On a side, the plan's corner whose upright is under the pointer; the height stays. */
async function planCorner(pointer: XY, pickAt: XY): Promise<{ at: XY; words: string } | null> {
  const { side, view, drawing } = useDesk.getState();
  const map = fitMap(useProject.getState().rows, drawing);
  const corners = side === null ? null : await planCorners(side);
  if (!corners || !map || corners.length === 0) return null;
  const off = (along: number) => Math.abs(along - pointer[0]);
  const along = nearestCorners(corners).reduce((best, x) => (off(x) < off(best) ? x : best), Number.POSITIVE_INFINITY);
  return off(along) * view.k > SNAP_PX ? null : { at: [along, apply(map, pickAt)[1]], words: "corner of the plan" };
}

/** What the topmost other drawing that shows here has under the pointer. */
async function otherDrawing(pointer: XY, drawing: string): Promise<{ at: XY; words: string } | null> {
  const { storey, side, through, throughPicture } = useDesk.getState();
  const { rows } = useProject.getState();
  const others = [
    ...(throughPicture && through !== null ? drawingsThrough(rows, through) : []),
    ...drawingsOn(rows, { storey, side }).filter((d) => d.id !== drawing && !d.hidden),
  ];
  for (const other of others.reverse()) {
    const found = await inkAt(pointer, true, undefined, other.id);
    if (found) return { at: found.at, words: `corner of ${other.name}`.slice(0, 60) };
  }
  return null;
}

/** How far one nudge goes: a pixel of the page, a millimetre, ten. */
export type NudgeStep = "1 px" | "1 mm" | "10 mm";

export function nudgeMm(step: NudgeStep): number {
  return step === "1 px"
    ? mmPerPixel(useProject.getState().rows, useDesk.getState().drawing)
    : step === "1 mm"
      ? 1
      : 10;
}

/** Moves the drawing without turning or scaling it: its placed points go along, or its middle becomes one. */
export async function nudgePlace(dx: number, dy: number): Promise<void> {
  const { drawing } = useDesk.getState();
  const { rows } = useProject.getState();
  const map = fitMap(rows, drawing);
  const row = drawing === null ? undefined : rows.drawing.get(drawing);
  if (!map || !row) return;
  const placed = [...rows.controlPoint.values()].filter((c) => c.drawing === row.id);
  const operations: Operation[] = placed.map((c) => ({
    do: "set",
    type: "controlPoint",
    id: c.id,
    values: { x: c.x + dx, y: c.y + dy },
  }));
  if (placed.length === 0) {
    const middle: XY = [row.left + row.width / 2, row.top + row.height / 2];
    const [x, y] = apply(map, middle);
    const id = newId();
    operations.push(addPick(id, row.id, { at: middle, sigmaPx: 0.05, words: "", thicknessPx: null }), {
      do: "add",
      type: "controlPoint",
      id: newId(),
      values: { drawing: row.id, pick: id, x: x + dx, y: y + dy, text: "nudged" },
    });
  }
  await sendStatement("Nudge the drawing", operations);
}

/** A place as typed: a crossing of the setting-out grid, `origin`, or two coordinates. */
export async function statePlace(text: string): Promise<void> {
  const { drawing } = useDesk.getState();
  const { placing } = usePlacing.getState();
  const { rows } = useProject.getState();
  const map = fitMap(rows, drawing);
  const [p] = picksNow();
  if (drawing === null || !p || !map) return;
  const label = text.trim();
  if (placing !== "point") {
    if (label === "") return useDesk.setState({ slipError: "An axis needs a label: 1, A." });
    const along = placing === "axis x" ? "x" : "y";
    const at = apply(map, p.at)[along === "x" ? 0 : 1];
    return sendDraft("Axis of the grid", [{ do: "add", type: "gridAxis", id: newId(), values: { along, at, label } }]);
  }
  const isOrigin = label === "" || label.toLowerCase() === "origin";
  const crossing = isOrigin ? ([0, 0] as const) : crossingNamed(label, [...rows.gridAxis.values()]);
  const at = crossing ?? (await twoLengths(label).catch((refused: Refused) => refused.message));
  if (typeof at === "string") {
    return useDesk.setState({ slipError: `${at} A crossing of the grid is written B/2.` });
  }
  const id = newId();
  await sendStatement(
    "Place a point",
    [
      addPick(id, drawing, p),
      {
        do: "add",
        type: "controlPoint",
        id: newId(),
        values: { drawing, pick: id, x: at[0], y: at[1], text: label === "" ? "origin" : label },
      },
    ],
    text,
  );
}

/** `B/2`, `2 B`: one axis along x and one along y, in either order. */
export function crossingNamed(text: string, axes: readonly Thing<"gridAxis">[]): XY | null {
  const names = text.split(/[\s/,·-]+/).filter((n) => n !== "");
  if (names.length !== 2) return null;
  const find = (along: "x" | "y", name: string) =>
    axes.find((a) => a.along === along && a.label.toLowerCase() === name.toLowerCase());
  const [one = "", two = ""] = names;
  const x = find("x", one) ?? find("x", two);
  const y = find("y", two) ?? find("y", one);
  return x && y ? [x.at, y.at] : null;
}
