import type { Operation } from "../../../api/client";
import { newId } from "../../../api/ids";
import { clearDraft, drafted, useDesk } from "../../../board/desk";
import { inkAt } from "../../../board/found";
import { affineAt, apply } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { drawingsOn, fitMap } from "../../../store/drawings";
import { change, say, useProject } from "../../../store/project";
import { inOrder, type Rows, type Thing } from "../../../store/rows";
import { partAt, type StandingPart, streetParts } from "../../../store/street";
import { drawnSnap } from "../../drawnSnap";

declare module "../../../board/desk" {
  interface Drafts {
    /** corners of a part that are pointed at, or two places of equal height of which the first one's part is lifted */
    row: { asks: "corners" | "level"; part: string; first: XY | null };
  }
}

export const partsNow = (): readonly StandingPart[] => streetParts(useProject.getState().rows, useDesk.getState().side);

/** How far a side goes: from corner to corner of its line, else as far as its pictures. */
export function reachOf(rows: Rows, side: Thing<"side">): readonly [number, number] {
  const { fromX, fromY, toX, toY } = side;
  if (fromX !== null && fromY !== null && toX !== null && toY !== null) {
    return [0, Math.hypot(toX - fromX, toY - fromY)];
  }
  const xs = drawingsOn(rows, { storey: null, side: side.id }).flatMap((d) => {
    const map = fitMap(rows, d.id);
    if (!map) return [];
    const corners: XY[] = [
      [d.left, d.top],
      [d.left + d.width, d.top],
      [d.left, d.top + d.height],
      [d.left + d.width, d.top + d.height],
    ];
    // Far from its middle a slanted picture may reach anywhere.
    const flat = affineAt(map, [d.left + d.width / 2, d.top + d.height / 2]);
    return corners.map((c) => apply(flat, c)[0]);
  });
  return xs.length === 0 ? [0, 5000] : [Math.min(...xs), Math.max(...xs)];
}

/** Puts a side at the right end of the row. */
export function addPart(side: string): Promise<unknown> {
  const { rows } = useProject.getState();
  const { side: street } = useDesk.getState();
  const row = rows.side.get(side);
  if (street === null || !row) return Promise.resolve(null);
  return change(`Put ${row.name} into the row`, [added(rows, street, row, (partsNow().at(-1)?.part.order ?? -1) + 1)]);
}

function added(rows: Rows, street: string, side: Thing<"side">, order: number): Operation {
  const [fromX, toX] = reachOf(rows, side);
  return {
    do: "add",
    type: "streetPart",
    id: newId(),
    values: { street, side: side.id, order, fromX, toX, rise: 0 },
  };
}

/** All sides of the building that have a line, one round the corner from the other. */
export function addAll(): Promise<unknown> {
  const { rows } = useProject.getState();
  const { side: street } = useDesk.getState();
  const sides = inOrder(rows.side.values()).filter((s) => s.fromX !== null && !s.cut);
  if (street === null || sides.length === 0) return Promise.resolve(null);
  return change(
    "Put all sides in a row",
    sides.map((side, order) => added(rows, street, side, order)),
  );
}

/** One place further to the left or to the right. */
export function movePart(part: Thing<"streetPart">, by: -1 | 1): void {
  const parts = partsNow().map((p) => p.part);
  const at = parts.findIndex((p) => p.id === part.id);
  const other = parts[at + by];
  if (!other) return;
  const reordered = parts.map((p) => (p.id === part.id ? other : p.id === other.id ? part : p));
  void change(
    "Change the order of a row",
    reordered.map(({ id }, order) => ({ do: "set" as const, type: "streetPart" as const, id, values: { order } })),
  );
}

/** Waits for two places, or no more where it was waiting for them. */
export function askRow(asks: "corners" | "level", part: string): void {
  const before = drafted("row");
  clearDraft();
  if (before?.asks !== asks || before.part !== part)
    useDesk.setState({ draft: { of: "row", asks, part, first: null } });
}

/** What the ink of a part's picture shows at a place of the row, else what is drawn there, else the place. */
async function placeAt(pointer: XY, free: boolean, onLevel: boolean): Promise<XY> {
  const { rows } = useProject.getState();
  const { view, snap } = useDesk.getState();
  const exact = snap ?? drawnSnap(pointer, 9 / view.k, free);
  if (exact || free) return exact?.at ?? pointer;
  const part = partAt(partsNow(), pointer[0]);
  const drawing = part && drawingsOn(rows, { storey: null, side: part.part.side }).findLast((d) => !d.hidden);
  if (!part || !drawing) return pointer;
  const found = await inkAt([pointer[0] - part.by[0], pointer[1] - part.by[1]], !onLevel, undefined, drawing.id);
  return found ? [found.at[0] + part.by[0], found.at[1] + part.by[1]] : pointer;
}

/** The first and the second place of what is asked. */
export async function rowPoint(pointer: XY, free: boolean): Promise<void> {
  const asked = drafted("row");
  const at = asked ? await placeAt(pointer, free, asked.asks === "level") : pointer;
  const now = drafted("row");
  if (!now || now !== asked) return;
  if (!now.first) return useDesk.setState({ draft: { ...now, first: at } });
  clearDraft();
  const standing = partsNow().find((p) => p.part.id === now.part);
  if (!standing) return;
  const { part, by } = standing;
  if (now.asks === "corners") {
    const [a, b] = [now.first[0] - by[0], at[0] - by[0]];
    const values = { fromX: Math.min(a, b), toX: Math.max(a, b) };
    await change("Corners of a side in a row", [{ do: "set", type: "streetPart", id: part.id, values }]);
    return;
  }
  const inPart = (p: XY) => partAt(partsNow(), p[0])?.part.id === part.id;
  if (inPart(now.first) === inPart(at)) {
    return say("Click a place of this side and one of a neighbour that is as high.");
  }
  const [own, other] = inPart(now.first) ? [now.first, at] : [at, now.first];
  const rise = part.rise + other[1] - own[1];
  await change("Heights of a row at one zero", [{ do: "set", type: "streetPart", id: part.id, values: { rise } }]);
}
