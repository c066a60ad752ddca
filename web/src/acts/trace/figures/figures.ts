import { create } from "zustand";
import type { Operation } from "../../../api/client";
import { newId } from "../../../api/ids";
import { clearDraft, drafted, useDesk } from "../../../board/desk";
import { SNAP_PX } from "../../../board/snap";
import type { XY } from "../../../geometry/plane";
import { lengthOf, projectUnit } from "../../../store/lengths";
import { change, say, useProject } from "../../../store/project";
import type { Rows, Thing, WallSide } from "../../../store/rows";
import { pointAlong, type WallLine, wallAt, wallLine } from "../../../store/walls";

/** The centre line of a wall, or one of its faces. */
export interface Face {
  wall: string;
  side: WallSide;
}

/** What a figure tells: how far two faces are apart, how long a wall is where both are its own, or how wide an opening is. */
export interface Span {
  a: Face;
  b: Face;
  opening: string | null;
}

declare module "../../../board/desk" {
  interface Drafts {
    /** what a figure is stated of: two faces, of which the second may still be wanted, or an opening */
    faces: { faces: readonly Face[]; opening?: string };
  }
}

/** What has been pointed at so far, once it is all of it. */
export function spanDrafted(): Span | null {
  const draft = drafted("faces");
  const [a, b] = draft?.faces ?? [];
  return a && b ? { a, b, opening: draft?.opening ?? null } : null;
}

/** Which of the two faces stays where it is. */
export const useHolds = create<{ face: "a" | "b" }>(() => ({ face: "a" }));

/** Nearer to the middle of a wall than this part of its thickness, its centre line is meant. */
export const CENTRE_PART = 0.15;
/** Nearer to its middle than this part of a wall's thickness a click means the opening there, and no face. */
const IN_OPENING = 0.3;

/** The face of a wall that a click means: the one on the side that was clicked. */
export function faceAt(pointer: XY): Face | null {
  const { storey, view } = useDesk.getState();
  const hit = wallAt(useProject.getState().rows, storey, pointer, SNAP_PX / view.k);
  if (!hit) return null;
  const off = hit.side / hit.line.wall.thickness;
  return { wall: hit.line.wall.id, side: Math.abs(off) < CENTRE_PART ? "centre" : off > 0 ? "left" : "right" };
}

/** The opening that a click means: one on whose middle it is. */
export function openingAt(pointer: XY): Thing<"opening"> | null {
  const { storey, view } = useDesk.getState();
  const { rows } = useProject.getState();
  const hit = wallAt(rows, storey, pointer, SNAP_PX / view.k);
  if (!hit || Math.abs(hit.side) > IN_OPENING * hit.line.wall.thickness) return null;
  const isIn = (o: Thing<"opening">) =>
    o.wall === hit.line.wall.id && hit.along >= o.offset && hit.along <= o.offset + o.width;
  return [...rows.opening.values()].find(isIn) ?? null;
}

/** Two clicks on faces open the slip for what the drawing figures between them; two on one wall along it, one on an opening of its width. */
export function figurePoint(pointer: XY): void {
  const figureFaces = drafted("faces")?.faces ?? [];
  const [first] = figureFaces.length > 1 ? [] : figureFaces;
  const opening = first ? null : openingAt(pointer);
  const face = faceAt(pointer);
  if (!face) return;
  useHolds.setState({ face: "a" });
  if (opening) {
    const of: Face = { wall: opening.wall, side: "centre" };
    return useDesk.setState({
      draft: { of: "faces", faces: [of, of], opening: opening.id },
      slip: "",
      slipError: null,
    });
  }
  if (!first) return useDesk.setState({ draft: { of: "faces", faces: [face] }, slip: null, slipError: null });
  const { rows } = useProject.getState();
  const second: Face = first.wall === face.wall ? first : face;
  if (tracedMm(rows, { a: first, b: second, opening: null }) === null) {
    say(
      second === first
        ? "A curved wall has no one length to be figured: state its chord or its rise at the wall."
        : "These two faces do not run the same way: choose two that do.",
    );
    return;
  }
  useDesk.setState({ draft: { of: "faces", faces: [first, second] }, slip: "", slipError: null });
}

/** mm by which a figure may lie beside what is traced over a drawing, or by ± if that is more, to be taken at once. */
const AGREES_MM = 10;

/** Whether a figure says what is traced over the drawing; where there is none to say otherwise, it is how one changes a plan. */
async function agrees(span: Span, text: string): Promise<boolean> {
  const { drawing } = useDesk.getState();
  const { rows } = useProject.getState();
  const now = tracedMm(rows, span);
  const mm = await lengthOf(text).catch(() => null);
  if (drawing === null || now === null || mm === null) return true;
  const per10m = rows.fit.get(drawing)?.plusMinusMmPer10m ?? 0;
  return Math.abs(mm - now) <= Math.max(AGREES_MM, (per10m * now) / 10_000);
}

/**
 * The figure as typed is kept with what was traced there. Where both agree, the wall that is not held moves at once; where they do
 * not, nothing moves before somebody has decided which holds.
 */
export async function stateFigure(text: string): Promise<void> {
  const { drawing } = useDesk.getState();
  const span = spanDrafted();
  if (!span || text.trim() === "") return;
  const { a, b, opening } = span;
  const figure = {
    id: newId(),
    drawing,
    ...(opening === null ? { a: a.wall, aSide: a.side, b: b.wall, bSide: b.side } : { opening }),
    text,
    unit: projectUnit(),
    decided: (await agrees(span, text)) ? "figure" : "open",
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

/** What is traced there now, mm; null between faces that do not run the same way, and along a curve. */
export function tracedMm(rows: Rows, { a, b, opening }: Span): number | null {
  if (opening !== null) return rows.opening.get(opening)?.width ?? null;
  const [p, q] = [wallLine(rows, a.wall), wallLine(rows, b.wall)];
  if (!p || !q || p.wall.rise !== 0 || q.wall.rise !== 0) return null;
  if (a.wall === b.wall) return p.length;
  const [ux, uy] = unit(p);
  const [vx, vy] = unit(q);
  if (Math.abs(ux * vy - uy * vx) > Math.sin(Math.PI / 180)) return null;
  const m = faceMiddle(p, a.side);
  const n = faceMiddle(q, b.side);
  return Math.abs((n[0] - m[0]) * -uy + (n[1] - m[1]) * ux);
}

export function spanOf(figure: Thing<"figure">): Span {
  return {
    a: { wall: figure.a, side: figure.aSide },
    b: { wall: figure.b, side: figure.bSide },
    opening: figure.opening,
  };
}

/** The two ends of the line that shows it: between two faces where both are beside each other. */
export function figureLine(rows: Rows, { a, b, opening }: Span): readonly [XY, XY] | null {
  const [p, q] = [wallLine(rows, a.wall), wallLine(rows, b.wall)];
  if (!p || !q) return null;
  const wide = opening === null ? undefined : rows.opening.get(opening);
  if (wide) return [pointAlong(p, wide.offset), pointAlong(p, wide.offset + wide.width)];
  if (a.wall === b.wall) return [p.from, p.to];
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

/** What it tells, in words. */
export function spanWords(rows: Rows, { a, b, opening }: Span): string {
  if (opening !== null) return `width of ${rows.opening.get(opening)?.number ?? "an opening"}`;
  return a.wall === b.wall ? "along a wall" : "between faces";
}

function unit(line: WallLine): XY {
  return [(line.to[0] - line.from[0]) / line.length, (line.to[1] - line.from[1]) / line.length];
}

function faceMiddle(line: WallLine, side: WallSide): XY {
  const [ux, uy] = unit(line);
  const off = side === "centre" ? 0 : side === "left" ? line.wall.thickness / 2 : -line.wall.thickness / 2;
  return [(line.from[0] + line.to[0]) / 2 - uy * off, (line.from[1] + line.to[1]) / 2 + ux * off];
}
