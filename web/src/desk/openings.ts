import { api, settled } from "../api/client";
import { newId } from "../api/ids";
import type { XY } from "../board/geometry";
import { change, inProject, useProject } from "../store/project";
import type { Values } from "../store/rows";
import { nearestOnLine, wallLine } from "../store/walls";
import { useDesk } from "./desk";
import { read, sendDraft } from "./draft";
import { inkIsReady } from "./found";
import { inOrder } from "./selectors";
import { SNAP_PX, wallUnder } from "./snap";

/** One click in the middle of a gap takes the opening as the ink shows it; at an edge, the first of two. */
export function openingAt(pointer: XY, free: boolean): void {
  const { door, view, drawing } = useDesk.getState();
  if (door === null) {
    const hit = wallUnder(pointer, SNAP_PX / view.k);
    if (!hit) return;
    useDesk.setState({ door: { wall: hit.id, from: hit.along, to: null }, slip: "", slipError: null });
    if (!free && drawing !== null && inkIsReady(drawing)) void openingByInk(hit.id, pointer, drawing);
    return;
  }
  const along = alongDoorWall(pointer);
  if (along !== null && Math.abs(along - door.from) > 1) {
    void byHand(door.wall, Math.min(door.from, along), Math.abs(along - door.from), pointer);
  }
}

/** The hand is not kept waiting: where it has clicked the other edge or typed a width meanwhile, that counts. */
async function openingByInk(wall: string, pointer: XY, drawing: string): Promise<void> {
  const { door } = useDesk.getState();
  const gap = await gapIn(drawing, wall, pointer);
  const now = useDesk.getState();
  if (!gap || now.door !== door || now.slip !== "") return;
  await addOpening(wall, now.openingKind === "as drawn" ? gap.kind : now.openingKind, gap.offset, gap.width, {
    hand: gap.leafAt === "far" ? "right" : "left",
    swing: gap.leafSide ?? "left",
  });
}

/** What the ink of a drawing shows in a wall; null where it cannot be asked or shows nothing. */
async function gapIn(drawing: string, wall: string, [x, y]: XY) {
  try {
    const params = { path: inProject(drawing), query: { wall, x, y } };
    return (await settled(api.GET("/api/projects/{project}/drawings/{id}/gap", { params }))).found;
  } catch {
    return null; // away: its edges can be clicked
  }
}

export function alongDoorWall(pointer: XY): number | null {
  const { door } = useDesk.getState();
  const line = wallLine(useProject.getState().rows, door?.wall);
  return line ? nearestOnLine(pointer, line).along : null;
}

/** A typed width runs from the clicked edge toward the pointer. */
export async function setDoorWidth(text: string): Promise<void> {
  const { door, pointer } = useDesk.getState();
  if (door === null) return;
  const width = await read(text);
  if (width === null) return;
  const toward = pointer ? alongDoorWall(pointer) : null;
  await byHand(door.wall, toward !== null && toward < door.from ? door.from - width : door.from, width, pointer);
}

async function byHand(wall: string, offset: number, width: number, pointer: XY | null): Promise<void> {
  const { openingKind } = useDesk.getState();
  const line = wallLine(useProject.getState().rows, wall);
  // The leaf swings to the side on which the pointer is.
  const left = !line || !pointer || nearestOnLine(pointer, line).side >= 0;
  const kind = openingKind === "as drawn" ? "door" : openingKind;
  await addOpening(wall, kind, offset, width, { hand: "left", swing: left ? "left" : "right" });
}

type OpeningKind = Values["opening"]["kind"];

/** Usual heights, mm, until the project has some of its own: common practice, no source. */
const USUAL: Record<OpeningKind, { letter: string; title: string; sill: number; height: number }> = {
  door: { letter: "D", title: "Door", sill: 0, height: 2040 },
  window: { letter: "W", title: "Window", sill: 900, height: 1200 },
  opening: { letter: "O", title: "Opening", sill: 0, height: 2100 },
};

/** Widths differ by less than this where they mean one size, mm. */
const SAME_SIZE_MM = 15;

/** The project's usual sizes of a kind: those that occur, the most frequent first. */
export function usualSizes(kind: OpeningKind): { width: number; sill: number; height: number | null; count: number }[] {
  const sizes: { width: number; sill: number; height: number | null; count: number }[] = [];
  for (const o of inOrder(useProject.getState().rows.opening.values())) {
    if (o.kind !== kind) continue;
    const known = sizes.find(
      (s) => Math.abs(s.width - o.width) < SAME_SIZE_MM && s.sill === o.sill && s.height === o.height,
    );
    if (known) known.count++;
    else sizes.push({ width: o.width, sill: o.sill, height: o.height, count: 1 });
  }
  return sizes.sort((a, b) => b.count - a.count);
}

/** Sill and height of the project's most usual opening of this kind and width, or of the kind. */
function heightsFor(kind: OpeningKind, width: number): { sill: number; height: number | null } {
  const sizes = usualSizes(kind);
  const usual = sizes.find((s) => Math.abs(s.width - width) < SAME_SIZE_MM) ?? sizes[0];
  return usual ?? { sill: USUAL[kind].sill, height: USUAL[kind].height };
}

async function addOpening(
  wall: string,
  kind: OpeningKind,
  offset: number,
  width: number,
  leaf: { hand: "left" | "right"; swing: "left" | "right" },
): Promise<void> {
  const { letter, title } = USUAL[kind];
  const { sill, height } = heightsFor(kind, width);
  const taken = [...useProject.getState().rows.opening.values()].map((o) => o.number);
  let n = 1;
  while (taken.includes(`${letter}${String(n).padStart(2, "0")}`)) n++;
  const number = `${letter}${String(n).padStart(2, "0")}`;
  await sendDraft(title, [
    {
      do: "add",
      type: "opening",
      id: newId(),
      values: { wall, kind, offset, width, sill, height, ...leaf, number, leaf: useDesk.getState().openingLeaf },
    },
  ]);
}

export function removeOpening(id: string): void {
  const number = useProject.getState().rows.opening.get(id)?.number ?? "an opening";
  useDesk.setState({ selected: null });
  void change(`Remove ${number}`, [{ do: "remove", type: "opening", id }]);
}
