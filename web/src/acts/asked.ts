import type { Operation, Schemas } from "../api/client";
import { newId } from "../api/ids";
import type { Slip } from "../board/act";
import { clearDraft, drafted, useDesk } from "../board/desk";
import { read } from "../board/slip";
import { SNAP_PX, wallUnder } from "../board/snap";
import { distance, nearestOn, type XY } from "../geometry/plane";
import { change, useProject } from "../store/project";
import { nearestOnLine, pointAlong, wallLine } from "../store/walls";

declare module "../board/desk" {
  interface Drafts {
    /** what is done to a selected wall, waiting for a place on it, another wall or a distance */
    asked: { kind: Asked; wall: string };
  }
}

export type Asked = "split" | "join" | "end" | "beside";

/** What is waited for, in words. */
const WAITS: Record<Asked, string> = {
  split: "click where it is cut",
  join: "click the wall that goes straight on",
  end: "click the wall to end at",
  beside: "on this side, at the distance typed",
};

export const askedNow = () => drafted("asked");

/** Waits for what is asked, or no more if it was waited for already. The act at hand rests meanwhile. */
export function ask(kind: Asked, wall: string): void {
  const before = askedNow();
  clearDraft();
  if (before?.kind === kind && before.wall === wall) return;
  useDesk.setState({ act: null, draft: { of: "asked", kind, wall }, slip: kind === "beside" ? "" : null });
}

export function askedWords(): readonly string[] {
  const asked = askedNow();
  return asked ? [WAITS[asked.kind]] : [];
}

export function askedSlip(): Slip | null {
  const asked = askedNow();
  const line = asked?.kind === "beside" ? wallLine(useProject.getState().rows, asked.wall) : undefined;
  if (!line) return null;
  return {
    at: pointAlong(line, line.length / 2),
    label: "clear distance",
    passes: true,
    hint: "Between the two faces; the copy stands on the pointer’s side.",
    send: setBeside,
  };
}

/** A click on the board after an act of a selected wall has asked for a place or another wall. */
export function askedPoint(pointer: XY): void {
  const { view } = useDesk.getState();
  const asked = askedNow();
  if (!asked) return;
  const { rows } = useProject.getState();
  const wall = wallLine(rows, asked.wall);
  if (!wall) return clearDraft();
  const hit = wallUnder(pointer, SNAP_PX / view.k, asked.kind === "split" ? [] : [asked.wall]);
  if (asked.kind === "beside") return; // its distance is typed
  if (!hit) return;
  clearDraft();
  if (asked.kind === "split") {
    const along = atCrossing(hit) ?? hit.along;
    const rework = { kind: "split", wall: hit.id, along, node: newId(), newWall: newId() } as const;
    return void change("Split a wall", [{ do: "rework", rework }]);
  }
  if (asked.kind === "join") {
    const rework = { kind: "join", wall: asked.wall, other: hit.id } as const;
    return void change("Make one wall of two", [{ do: "rework", rework }]);
  }
  const host = wallLine(rows, hit.id);
  const meet = host ? crossing(wall, host) : null;
  const atStart = meet !== null && distance(meet, wall.from) < distance(meet, wall.to);
  const rework = { kind: "end", wall: asked.wall, other: hit.id, atStart, node: newId() } as const;
  void change("End at a wall", [{ do: "rework", rework } satisfies Operation]);
}

/** A copy beside the wall, on the pointer's side, at a typed clear distance between the two. */
export async function setBeside(text: string): Promise<void> {
  const { pointer } = useDesk.getState();
  const asked = askedNow();
  const line = wallLine(useProject.getState().rows, asked?.wall);
  if (!asked || !line) return;
  const clear = await read(text);
  if (clear === null) return;
  const left = pointer === null || nearestOnLine(pointer, line).side >= 0 ? 1 : -1;
  const rework: Schemas["Rework"] = {
    kind: "beside",
    wall: asked.wall,
    left: left * (clear + line.wall.thickness),
    node: newId(),
    secondNode: newId(),
    newWall: newId(),
  };
  clearDraft();
  await change("Copy beside", [{ do: "rework", rework }]);
}

/** How far along a wall the one lies that meets it under the pointer: it is split on that one's line, not beside it. */
function atCrossing({ id, along }: { id: string; along: number }): number | null {
  const { rows } = useProject.getState();
  const wall = wallLine(rows, id);
  if (!wall || wall.chain.length > 2) return null; // on an arc the place is as it was clicked
  for (const other of rows.wall.keys()) {
    const line = other === id ? null : wallLine(rows, other);
    const meet = line?.wall.storey === wall.wall.storey ? crossing(wall, line) : null;
    if (!line || !meet) continue;
    const on = nearestOn(meet, wall.from, wall.to);
    const isMet = on.off < 1 && nearestOn(meet, line.from, line.to).off <= wall.wall.thickness / 2 + 1;
    if (isMet && Math.abs(on.along - along) <= line.wall.thickness / 2) return on.along;
  }
  return null;
}

function crossing(a: { from: XY; to: XY }, b: { from: XY; to: XY }): XY | null {
  const [ux, uy] = [a.to[0] - a.from[0], a.to[1] - a.from[1]];
  const [vx, vy] = [b.to[0] - b.from[0], b.to[1] - b.from[1]];
  const cross = ux * vy - uy * vx;
  if (cross === 0) return null;
  const s = ((b.from[0] - a.from[0]) * vy - (b.from[1] - a.from[1]) * vx) / cross;
  return [a.from[0] + s * ux, a.from[1] + s * uy];
}
