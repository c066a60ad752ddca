import { create } from "zustand";
import { api, settled } from "../../../api/client";
import { newId } from "../../../api/ids";
import type { Click, Drag } from "../../../board/act";
import { clearDraft, type DeskState, drafted, useDesk } from "../../../board/desk";
import { inkIsReady } from "../../../board/found";
import { read, sendDraft } from "../../../board/slip";
import { SNAP_PX, wallUnder } from "../../../board/snap";
import type { XY } from "../../../geometry/plane";
import { nextOpeningNumber } from "../../../store/openings";
import { change, inProject, useProject } from "../../../store/project";
import { heightsOf, type OpeningKind } from "../../../store/usual";
import { nearestOnLine, pointAlong, wallLine } from "../../../store/walls";
import { typedAs } from "../../../ui/measures";

declare module "../../../board/desk" {
  interface Drafts {
    /** the first edge of an opening: how far along which wall, whether the ink shows no gap there, and the width that was asked about */
    jamb: { wall: string; from: number; noGap?: boolean; asked?: number };
  }
}

/** What a click in a wall makes. */
export const useOpeningOptions = create<{
  kind: "as drawn" | "door" | "window" | "opening";
  leaf: "single" | "double" | "sliding";
}>(() => ({ kind: "as drawn", leaf: "single" }));

/** One click in the middle of a gap takes the opening as the ink shows it; at an edge, the first of two. */
export function openingAt({ pointer, free }: Click): void {
  const { view, drawing } = useDesk.getState();
  const door = drafted("jamb");
  if (door === null) {
    const hit = wallUnder(pointer, SNAP_PX / view.k);
    if (!hit) return;
    useDesk.setState({ draft: { of: "jamb", wall: hit.id, from: hit.along }, slip: "", slipError: null });
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
  const { draft } = useDesk.getState();
  const gap = await gapIn(drawing, wall, pointer);
  const now = useDesk.getState();
  if (now.draft !== draft || now.slip !== "") return;
  if (!gap) {
    if (draft?.of === "jamb") useDesk.setState({ draft: { ...draft, noGap: true } });
    return;
  }
  const { kind } = useOpeningOptions.getState();
  const of = kind === "as drawn" ? gap.kind : kind;
  if (await asks(of, { wall, from: gap.offset }, gap.width, draft)) return;
  await addOpening(wall, of, gap.offset, gap.width, leafOf(gap));
}

type Gap = NonNullable<Awaited<ReturnType<typeof gapIn>>>;

const leafOf = (gap: Gap) =>
  ({ hand: gap.leafAt === "far" ? "right" : "left", swing: gap.leafSide ?? "left" }) as const;

/** An unusual width is asked about first; Enter has it so. */
async function asks(
  kind: OpeningKind,
  jamb: { wall: string; from: number },
  width: number,
  before: DeskState["draft"],
): Promise<boolean> {
  const { leaf } = useOpeningOptions.getState();
  if (kind !== "door") return false;
  try {
    const { doubt } = await settled(
      api.GET("/api/opening-width", { params: { query: { kind, leaf, width: Math.round(width) } } }),
    );
    const now = useDesk.getState().draft;
    // Where the hand has gone on, it is told where everything else that is unusual is told.
    if (doubt === null || (now !== null && now !== before)) return false;
    useDesk.setState({
      draft: { of: "jamb", ...jamb, asked: Math.round(width) },
      slip: typedAs(width),
      slipError: `${doubt} Enter has it so; or type what it is.`,
    });
    return true;
  } catch {
    return false; // away: nothing can be asked
  }
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
  const door = drafted("jamb");
  const line = wallLine(useProject.getState().rows, door?.wall);
  return line ? nearestOnLine(pointer, line).along : null;
}

/** A typed width runs from the clicked edge toward the pointer. */
export async function setDoorWidth(text: string): Promise<void> {
  const { pointer } = useDesk.getState();
  const door = drafted("jamb");
  if (door === null) return;
  const width = await read(text);
  if (width === null) return;
  const toward = pointer ? alongDoorWall(pointer) : null;
  await byHand(door.wall, toward !== null && toward < door.from ? door.from - width : door.from, width, pointer);
}

/** As the ink shows it where its edges are those of a drawn gap; otherwise the leaf swings to the side on which the pointer is. */
async function byHand(wall: string, offset: number, width: number, pointer: XY | null): Promise<void> {
  const { kind: wanted } = useOpeningOptions.getState();
  const { drawing, draft } = useDesk.getState();
  const line = wallLine(useProject.getState().rows, wall);
  if (!line) return;
  clearDraft();
  const mid = pointAlong(line, offset + width / 2);
  const gap = drawing !== null && inkIsReady(drawing) ? await gapIn(drawing, wall, mid) : null;
  const drawn = gap && Math.abs(gap.offset - offset) + Math.abs(gap.width - width) < SAME_GAP * width ? gap : null;
  const kind = wanted === "as drawn" ? (drawn?.kind ?? "door") : wanted;
  const asked = draft?.of === "jamb" ? draft.asked : undefined;
  const isAsked = asked !== undefined && Math.abs(asked - width) < 2; // as it was written, rounded
  if (!isAsked && (await asks(kind, { wall, from: offset }, width, null))) return;
  const swing = !pointer || nearestOnLine(pointer, line).side >= 0 ? "left" : "right";
  const leaf = drawn?.leafAt ? leafOf(drawn) : ({ hand: "left", swing } as const);
  await addOpening(wall, kind, offset, width, leaf, draft);
}

/** Edges that were clicked are those of a drawn gap where they are this near to them, as a part of the width. */
const SAME_GAP = 0.35;

const TITLES: Record<OpeningKind, string> = { door: "Door", window: "Window", opening: "Opening" };

async function addOpening(
  wall: string,
  kind: OpeningKind,
  offset: number,
  width: number,
  leaf: { hand: "left" | "right"; swing: "left" | "right" },
  before = useDesk.getState().draft,
): Promise<void> {
  const { sill, height } = heightsOf(kind, width);
  const number = nextOpeningNumber(kind);
  await sendDraft(
    TITLES[kind],
    [
      {
        do: "add",
        type: "opening",
        id: newId(),
        values: { wall, kind, offset, width, sill, height, ...leaf, number, leaf: useOpeningOptions.getState().leaf },
      },
    ],
    before,
  );
}

export function removeOpening(id: string): void {
  const number = useProject.getState().rows.opening.get(id)?.number ?? "an opening";
  useDesk.setState({ selected: null });
  void change(`Remove ${number}`, [{ do: "remove", type: "opening", id }]);
}

/** A drag of a selected opening along its wall, or of one of its jambs. */
export function openingDrag(id: string, at: XY, reach: number): Drag | null {
  const { rows } = useProject.getState();
  const opening = rows.opening.get(id);
  const line = wallLine(rows, opening?.wall);
  if (!opening || !line) return null;
  const { offset, width, number } = opening;
  const end = offset + width;
  const on = nearestOnLine(at, line);
  if (on.off > line.wall.thickness / 2 + reach) return null;
  const held = on.along - offset;
  const jamb = Math.abs(held) < reach ? "near" : Math.abs(on.along - end) < reach ? "far" : null;
  if (jamb === null && (held <= 0 || held >= width)) return null;
  let now = { offset, width };
  return {
    move(_from, to) {
      const { along } = nearestOnLine(to, line);
      const near = Math.max(0, Math.min(end - LEAST_MM, along));
      if (jamb === "near") now = { offset: near, width: end - near };
      else if (jamb === "far")
        now = { offset, width: Math.max(LEAST_MM, Math.min(line.length - offset, along - offset)) };
      else now = { offset: Math.max(0, Math.min(line.length - width, along - held)), width };
      const ends = [pointAlong(line, now.offset), pointAlong(line, now.offset + now.width)] as const;
      useDesk.setState({ draft: { of: "moved", lines: [ends], told: true } });
    },
    async drop() {
      useDesk.setState({ draft: null });
      await change(`${jamb === null ? "Move" : "Width of"} ${number}`, [
        { do: "set", type: "opening", id, values: now },
      ]);
    },
  };
}

/** An opening is dragged no narrower, mm. */
const LEAST_MM = 50;
