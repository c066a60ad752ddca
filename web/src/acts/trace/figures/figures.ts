import { create } from "zustand";
import type { Operation } from "../../../api/client";
import { newId } from "../../../api/ids";
import { clearDraft, drafted, useDesk } from "../../../board/desk";
import { SNAP_PX } from "../../../board/snap";
import type { XY } from "../../../geometry/plane";
import { projectUnit } from "../../../store/lengths";
import { change, say, useProject } from "../../../store/project";
import type { Rows, Thing, WallSide } from "../../../store/rows";
import { type WallLine, wallAt, wallLine } from "../../../store/walls";

/** The centre line of a wall, or one of its faces. */
export interface Face {
  wall: string;
  side: WallSide;
}

declare module "../../../board/desk" {
  interface Drafts {
    /** faces between which a figure is stated */
    faces: { faces: readonly Face[] };
  }
}

/** Which of the two faces stays where it is. */
export const useHolds = create<{ face: "a" | "b" }>(() => ({ face: "a" }));

/** Nearer to the middle of a wall than this part of its thickness, its centre line is meant. */
export const CENTRE_PART = 0.15;

/** The face of a wall that a click means: the one on the side that was clicked. */
export function faceAt(pointer: XY): Face | null {
  const { storey, view } = useDesk.getState();
  const hit = wallAt(useProject.getState().rows, storey, pointer, SNAP_PX / view.k);
  if (!hit) return null;
  const off = hit.side / hit.line.wall.thickness;
  return { wall: hit.line.wall.id, side: Math.abs(off) < CENTRE_PART ? "centre" : off > 0 ? "left" : "right" };
}

/** Two clicks on faces open the slip for what the drawing figures between them. */
export function figurePoint(pointer: XY): void {
  const figureFaces = drafted("faces")?.faces ?? [];
  const face = faceAt(pointer);
  if (!face) return;
  const [first] = figureFaces;
  if (!first || figureFaces.length > 1)
    return useDesk.setState({ draft: { of: "faces", faces: [face] }, slip: null, slipError: null });
  if (first.wall === face.wall) return;
  const { rows } = useProject.getState();
  if (apartMm(rows, first, face) === null) {
    say("These two faces do not run the same way: choose two that do.");
    return;
  }
  useHolds.setState({ face: "a" });
  useDesk.setState({ draft: { of: "faces", faces: [first, face] }, slip: "", slipError: null });
}

/** The figure as typed: the wall that is not held moves, and the figure is kept with what was traced there. */
export async function stateFigure(text: string): Promise<void> {
  const { drawing } = useDesk.getState();
  const [a, b] = drafted("faces")?.faces ?? [];
  if (!a || !b || text.trim() === "") return;
  const figure = {
    id: newId(),
    drawing,
    a: a.wall,
    aSide: a.side,
    b: b.wall,
    bSide: b.side,
    text,
    unit: projectUnit(),
    decided: "figure",
    moves: useHolds.getState().face === "a" ? "b" : "a",
  } as const;
  const refused = await change(`Figure ${text}`, [{ do: "figure", figure }]);
  if (refused) {
    useDesk.setState({ slipError: refused.message });
    say(null);
    return;
  }
  clearDraft();
  useDesk.setState({ selected: { type: "figure", id: figure.id } });
}

export async function decide(
  id: string,
  values: {
    decided?: "figure" | "ink" | "site" | "open";
    siteText?: string;
    reason?: string;
    text?: string;
    moves?: "a" | "b";
  },
): Promise<void> {
  await change("Decide a figure", [{ do: "figure", figure: { id, unit: projectUnit(), ...values } } as Operation]);
}

/** What is traced between two faces now, mm; null where they do not run the same way. */
export function apartMm(rows: Rows, a: Face, b: Face): number | null {
  const [p, q] = [wallLine(rows, a.wall), wallLine(rows, b.wall)];
  if (!p || !q || p.wall.rise !== 0 || q.wall.rise !== 0) return null;
  const [ux, uy] = unit(p);
  const [vx, vy] = unit(q);
  if (Math.abs(ux * vy - uy * vx) > Math.sin(Math.PI / 180)) return null;
  const m = faceMiddle(p, a.side);
  const n = faceMiddle(q, b.side);
  return Math.abs((n[0] - m[0]) * -uy + (n[1] - m[1]) * ux);
}

export function facesOf(figure: Thing<"figure">): readonly [Face, Face] {
  return [
    { wall: figure.a, side: figure.aSide },
    { wall: figure.b, side: figure.bSide },
  ];
}

/** The two ends of the line that shows the distance between two faces, where both are beside each other. */
export function figureLine(rows: Rows, a: Face, b: Face): readonly [XY, XY] | null {
  const [p, q] = [wallLine(rows, a.wall), wallLine(rows, b.wall)];
  if (!p || !q) return null;
  const [ux, uy] = unit(p);
  const on = (point: XY) => (point[0] - p.from[0]) * ux + (point[1] - p.from[1]) * uy;
  // Where both walls are beside each other, in the middle of that.
  const [q1, q2] = [on(q.from), on(q.to)];
  const from = Math.max(0, Math.min(q1, q2));
  const to = Math.min(p.length, Math.max(q1, q2));
  const along = (from + to) / 2;
  const m = faceMiddle(p, a.side);
  const base: XY = [p.from[0] + ux * along, p.from[1] + uy * along];
  const off = (m[0] - p.from[0]) * -uy + (m[1] - p.from[1]) * ux;
  const n = faceMiddle(q, b.side);
  const far = (n[0] - p.from[0]) * -uy + (n[1] - p.from[1]) * ux;
  return [
    [base[0] - uy * off, base[1] + ux * off],
    [base[0] - uy * far, base[1] + ux * far],
  ];
}

function unit(line: WallLine): XY {
  return [(line.to[0] - line.from[0]) / line.length, (line.to[1] - line.from[1]) / line.length];
}

function faceMiddle(line: WallLine, side: WallSide): XY {
  const [ux, uy] = unit(line);
  const off = side === "centre" ? 0 : side === "left" ? line.wall.thickness / 2 : -line.wall.thickness / 2;
  return [(line.from[0] + line.to[0]) / 2 - uy * off, (line.from[1] + line.to[1]) / 2 + ux * off];
}
