import { create } from "zustand";
import { api, type Operation, settled } from "../../../api/client";
import { newId } from "../../../api/ids";
import type { Click } from "../../../board/act";
import { clearDraft, drafted, type Snap, useDesk } from "../../../board/desk";
import { inkAt } from "../../../board/found";
import { SNAP_PX } from "../../../board/snap";
import { distance, type XY } from "../../../geometry/plane";
import { change, inProject, say, useProject } from "../../../store/project";
import type { OutlineKind } from "../../../store/rows";

declare module "../../../board/desk" {
  interface Drafts {
    /** corners of the outline being traced */
    outline: { ring: readonly XY[] };
  }
}

/** What an outline on a storey goes round. */
export const useOutlineKind = create<{
  kind: Exclude<OutlineKind, "face">;
  /** of the next roof: degrees, and how far it reaches beyond its walls, mm; common practice, no source */
  pitch: number;
  overhang: number;
}>(() => ({ kind: "slab", pitch: 35, overhang: 500 }));

const NONE: readonly XY[] = [];

export function ringNow(): readonly XY[] {
  return drafted("outline")?.ring ?? NONE;
}

function put(ring: readonly XY[]): void {
  useDesk.setState({ draft: { of: "outline", ring }, snap: null });
}

/** A hand clicks faster than the ink is looked at: corners are put one after the other, and the end waits for them. */
let putting: Promise<void> | null = null;

/** A click while an outline is traced: the next corner, or, on the first one, its end. */
export function outlinePoint({ pointer, free, corners }: Click): Promise<void> {
  const desk = useDesk.getState();
  const seen = desk.pointer === pointer ? desk.snap : null;
  const corner = () => putCorner(pointer, free, corners, seen);
  const mine: Promise<void> = (putting ? putting.then(corner) : corner()).finally(() => {
    if (putting === mine) putting = null;
  });
  putting = mine;
  return mine;
}

async function putCorner(pointer: XY, free: boolean, corners: boolean, seen: Snap | null): Promise<void> {
  const { view } = useDesk.getState();
  const ring = ringNow();
  const [first] = ring;
  if (first && ring.length > 2 && distance(first, pointer) < SNAP_PX / view.k) return saveOutline();
  const corner = free ? null : wallCornerNear(pointer);
  if (corner) return put([...ring, corner]);
  const found = free ? null : (seen ?? (await inkAt(pointer, corners)));
  // Stepped back meanwhile: the corner belongs to nothing any more.
  if (ringNow() !== ring) return;
  put([...ring, found?.at ?? pointer]);
}

/** The corner of a traced wall's face within the reach of a point. */
export function wallCornerNear(p: XY): XY | null {
  const { storey, view } = useDesk.getState();
  const shapes = useProject.getState().derived.get(storey ?? "");
  let best: { at: XY; off: number } | null = null;
  for (const { stretches } of shapes?.walls.values() ?? []) {
    for (const { right, left } of stretches) {
      for (const [x = 0, y = 0] of [...right, ...left]) {
        const off = Math.hypot(x - p[0], y - p[1]);
        if (off < SNAP_PX / view.k && (best === null || off < best.off)) best = { at: [x, y], off };
      }
    }
  }
  return best?.at ?? null;
}

/** What an outline on a storey usually is: mm. Common practice, no source. */
const USUAL: Record<OutlineKind, { name: string; thickness: number | null; top: number | null }> = {
  face: { name: "Face", thickness: null, top: null },
  slab: { name: "Floor", thickness: 200, top: 0 },
  ceiling: { name: "Ceiling", thickness: 30, top: 2500 },
  // Its eaves are as high as the storey unless somebody says otherwise.
  roof: { name: "Roof", thickness: 250, top: null },
  chimney: { name: "Chimney", thickness: null, top: 8000 },
  dormer: { name: "Dormer", thickness: 150, top: 4500 },
  "roof edge": { name: "Roof edge", thickness: 200, top: null },
  kerb: { name: "Kerb", thickness: 150, top: 150 },
  plinth: { name: "Plinth", thickness: 300, top: 0 },
  void: { name: "Void", thickness: null, top: null },
};

/** Saves the outline that was traced, if it has enough corners, as soon as the last of them is put. */
export async function closeOutline(): Promise<void> {
  if (putting) await putting;
  return saveOutline();
}

async function saveOutline(): Promise<void> {
  const { side, storey, drawing } = useDesk.getState();
  const traced = ringNow();
  const ring = traced.length === 2 ? rectangleBetween(traced) : traced;
  const { kind: outlineKind } = useOutlineKind.getState();
  if ((side === null && storey === null) || ring.length < 3) return;
  clearDraft();
  const kind = side === null ? outlineKind : "face";
  const refused = await change("Trace an outline", added(side === null ? { storey } : { side }, kind, [ring], drawing));
  if (refused) put(traced);
}

/** Outlines of a kind with their corners, each named after those that are there already. */
function added(
  place: { storey: string | null } | { side: string | null },
  kind: OutlineKind,
  rings: readonly (readonly XY[])[],
  drawing: string | null,
): Operation[] {
  const { name, thickness, top } = USUAL[kind];
  const where = { storey: null, side: null, ...place };
  const count = [...useProject.getState().rows.outline.values()].filter(
    (o) => o.side === where.side && o.storey === where.storey && o.kind === kind,
  ).length;
  const { pitch, overhang } = useOutlineKind.getState();
  return rings.flatMap((ring, i): Operation[] => {
    const outline = newId();
    const number = count + i + 1;
    return [
      {
        do: "add",
        type: "outline",
        id: outline,
        values: { ...where, kind, thickness, top, name: number === 1 ? name : `${name} ${number}` },
      },
      ...ring.map(
        ([x, y], order): Operation => ({
          do: "add",
          type: "outlineCorner",
          id: newId(),
          values: { outline, drawing, order, x, y, ...(kind === "roof" ? { pitch, overhang } : {}) },
        }),
      ),
    ];
  });
}

/** One act from the enclosed plan: a floor or a roof over all of it, a ceiling in every room. */
export async function outlinesFromWalls(): Promise<void> {
  const { storey } = useDesk.getState();
  const { kind } = useOutlineKind.getState();
  if (storey === null) return;
  const rings = kind === "ceiling" ? roomsOf(storey) : await outerFaces(storey);
  if (rings.length === 0) return say("No walls enclose anything on this storey yet: trace them first.");
  await change(`${USUAL[kind].name} from the walls`, added({ storey }, kind, rings, null));
}

const roomsOf = (storey: string): XY[][] =>
  [...(useProject.getState().derived.get(storey)?.regions.values() ?? [])].map(({ polygon }) =>
    polygon.map(([x = 0, y = 0]): XY => [x, y]),
  );

async function outerFaces(storey: string): Promise<XY[][]> {
  const path = inProject(storey);
  const { rings } = await settled(api.GET("/api/projects/{project}/storeys/{id}/outer", { params: { path } }));
  return rings.map((ring) => ring.map(([x = 0, y = 0]): XY => [x, y]));
}

/** Two opposite corners stand for the rectangle between them, square to the model's axes. */
function rectangleBetween([a, b]: readonly XY[]): readonly XY[] {
  if (!a || !b || Math.abs(a[0] - b[0]) < 1 || Math.abs(a[1] - b[1]) < 1) return NONE;
  const [x1, x2] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
  const [y1, y2] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
  return [
    [x1, y1],
    [x2, y1],
    [x2, y2],
    [x1, y2],
  ];
}
