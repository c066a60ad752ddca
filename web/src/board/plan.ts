import type { Shapes } from "../api/client";
import { wallLines } from "../desk/selectors";
import type { Rows } from "../project/rows";
import { type Size, toScreen, type View } from "./geometry";

const WASH = "rgba(15, 79, 75, 0.34)";
const ROOM = "rgba(15, 79, 75, 0.07)";
const EDGE = "#0f4f4b";
const PAPER = "#fdfcfa";

type Ring = readonly (readonly number[])[];

/** Draws what is traced on a storey: washes with firm edges, so that the ink shows through. */
export function paintPlan(
  ctx: CanvasRenderingContext2D,
  shapes: Shapes,
  rows: Rows,
  selected: string | null,
  view: View,
  size: Size,
  dpr: number,
  alpha: number,
): void {
  const m = toScreen(view, size);
  const at = (p: readonly number[]): [number, number] => [m[0] * (p[0] ?? 0) + m[2], m[4] * (p[1] ?? 0) + m[5]];
  const trace = (ring: Ring) => {
    ring.forEach((p, i) => {
      const [x, y] = at(p);
      if (i === 0) ctx.moveTo(x, y);
      else ctx.lineTo(x, y);
    });
    ctx.closePath();
  };
  ctx.save();
  ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
  ctx.lineJoin = "miter";
  ctx.globalAlpha = alpha;
  for (const room of shapes.rooms) {
    ctx.beginPath();
    trace(room.polygon);
    for (const hole of room.holes) trace(hole);
    ctx.fillStyle = ROOM;
    ctx.fill("evenodd");
  }
  ctx.beginPath();
  for (const outline of shapes.outlines) {
    trace(outline.outer);
    for (const hole of outline.holes) trace(hole);
  }
  ctx.fillStyle = WASH;
  ctx.fill("evenodd");
  ctx.strokeStyle = EDGE;
  ctx.lineWidth = 1.6;
  ctx.stroke();
  paintEvidence(ctx, rows, shapes.id, selected, at, view.k);
  for (const opening of shapes.openings) {
    const row = rows.opening.get(opening.id);
    if (row) paintOpening(ctx, opening.polygon, row, at, trace, view.k);
  }
  ctx.restore();
}

/** Evidence wear: a figure is a full line along the middle, free hand a dotted one; probed or clicked ink has none. */
function paintEvidence(
  ctx: CanvasRenderingContext2D,
  rows: Rows,
  storey: string,
  selected: string | null,
  at: (p: readonly number[]) => [number, number],
  k: number,
): void {
  for (const { wall, from, to } of wallLines(rows, storey)) {
    const chosen = wall.id === selected;
    if (wall.evidence === "ink" && !chosen) continue;
    ctx.beginPath();
    ctx.moveTo(...at(from));
    ctx.lineTo(...at(to));
    ctx.setLineDash(wall.evidence === "free hand" ? [2, 4] : []);
    ctx.strokeStyle = chosen ? "rgba(15, 79, 75, 0.55)" : EDGE;
    ctx.lineWidth = chosen ? Math.max(3, wall.thickness * k) : 1;
    ctx.stroke();
  }
  ctx.setLineDash([]);
}

function paintOpening(
  ctx: CanvasRenderingContext2D,
  polygon: Ring,
  row: { kind: string; width: number; hand: string; swing: string },
  at: (p: readonly number[]) => [number, number],
  trace: (ring: Ring) => void,
  k: number,
): void {
  ctx.beginPath();
  trace(polygon);
  ctx.fillStyle = PAPER;
  ctx.fill();
  const [nearRight, farRight, farLeft, nearLeft] = polygon;
  if (!nearRight || !farRight || !farLeft || !nearLeft) return;
  ctx.strokeStyle = EDGE;
  ctx.lineWidth = 1.4;
  for (const [a, b] of [
    [nearRight, nearLeft],
    [farRight, farLeft],
  ] as const) {
    ctx.beginPath();
    ctx.moveTo(...at(a));
    ctx.lineTo(...at(b));
    ctx.stroke();
  }
  if (row.kind === "window") {
    // Both faces and the pane between them.
    for (const part of [0, 0.5, 1]) {
      const between = (a: readonly number[], b: readonly number[]): [number, number] =>
        at([(a[0] ?? 0) + ((b[0] ?? 0) - (a[0] ?? 0)) * part, (a[1] ?? 0) + ((b[1] ?? 0) - (a[1] ?? 0)) * part]);
      ctx.lineWidth = part === 0.5 ? 0.9 : 1.4;
      ctx.beginPath();
      ctx.moveTo(...between(nearRight, nearLeft));
      ctx.lineTo(...between(farRight, farLeft));
      ctx.stroke();
    }
  }
  if (row.kind !== "door") return;
  const [near, far] = row.swing === "left" ? [nearLeft, farLeft] : [nearRight, farRight];
  const [hinge, latch] = row.hand === "left" ? [at(near), at(far)] : [at(far), at(near)];
  const along = Math.atan2(at(far)[1] - at(near)[1], at(far)[0] - at(near)[0]);
  // Screen y runs down, so "left of the wall" is a quarter turn against the clock.
  const open = along + (row.swing === "left" ? -Math.PI / 2 : Math.PI / 2);
  const closed = Math.atan2(latch[1] - hinge[1], latch[0] - hinge[0]);
  const r = row.width * k;
  ctx.beginPath();
  ctx.moveTo(...hinge);
  ctx.lineTo(hinge[0] + r * Math.cos(open), hinge[1] + r * Math.sin(open));
  ctx.stroke();
  ctx.beginPath();
  const turn = Math.atan2(Math.sin(open - closed), Math.cos(open - closed));
  ctx.arc(hinge[0], hinge[1], r, closed, open, turn < 0);
  ctx.lineWidth = 0.9;
  ctx.stroke();
}
