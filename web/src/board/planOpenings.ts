import { apply, inverse, type Map2 } from "../geometry/maps";
import type { XY } from "../geometry/plane";

const EDGE = "#0f4f4b";
const PAPER = "#fdfcfa";
/** Doors and windows smaller than this are only their gap. */
const SMALL_PX = 3;
/** An opening at least this wide on the screen has its number beside it, this far from its face, px. */
const NUMBERED_PX = 30;
const NUMBER_PX = 9;

type Ring = readonly (readonly number[])[];

export function trace(path: Path2D, ring: Ring, closed: boolean): void {
  ring.forEach(([x = 0, y = 0], i) => {
    if (i === 0) path.moveTo(x, y);
    else path.lineTo(x, y);
  });
  if (closed) path.closePath();
}

interface OpeningLook {
  kind: string;
  width: number;
  hand: string;
  swing: string;
  leaf: string;
  number: string;
}

/** In mm, y up. */
export function paintOpening(ctx: CanvasRenderingContext2D, polygon: Ring, row: OpeningLook, k: number): void {
  const cut = new Path2D();
  trace(cut, polygon, true);
  ctx.fillStyle = PAPER;
  ctx.fill(cut);
  const n = polygon.length / 2;
  const [nearRight, farRight, farLeft, nearLeft] = [polygon[0], polygon[n - 1], polygon[n], polygon.at(-1)];
  if (!nearRight || !farRight || !farLeft || !nearLeft) return;
  const px = 1 / k;
  ctx.strokeStyle = EDGE;
  ctx.lineWidth = 1.4 * px;
  const lines = new Path2D();
  trace(lines, [nearRight, nearLeft], false);
  trace(lines, [farRight, farLeft], false);
  ctx.stroke(lines);
  if (row.width * k < SMALL_PX) return;
  if (row.kind === "window") {
    // Both faces and the pane between them.
    const right = polygon.slice(0, n);
    const left = polygon.slice(n).reverse();
    for (const part of [0, 0.5, 1]) {
      const pane = new Path2D();
      trace(
        pane,
        right.map((p, i) => between(p, left[i] ?? p, part)),
        false,
      );
      ctx.lineWidth = (part === 0.5 ? 0.9 : 1.4) * px;
      ctx.stroke(pane);
    }
  }
  if (row.kind !== "door") return;
  const [near, far] = row.swing === "left" ? [nearLeft, farLeft] : [nearRight, farRight];
  if (row.leaf === "sliding") {
    const [otherNear, otherFar] = row.swing === "left" ? [nearRight, farRight] : [nearLeft, farLeft];
    paintSliding(ctx, row, [near, far, otherNear, otherFar], px);
    return;
  }
  const hinges = row.leaf === "double" ? ["left", "right"] : [row.hand];
  for (const hand of hinges) {
    const [hinge, latch] = hand === "left" ? [near, far] : [far, near];
    paintLeaf(ctx, hinge, latch, row.leaf === "double" ? row.width / 2 : row.width, hand === row.swing, px);
  }
}

function between(a: readonly number[], b: readonly number[], part: number): readonly number[] {
  return [(a[0] ?? 0) + ((b[0] ?? 0) - (a[0] ?? 0)) * part, (a[1] ?? 0) + ((b[1] ?? 0) - (a[1] ?? 0)) * part];
}

/** A leaf that slides along the face it swings to, half pushed open. */
function paintSliding(
  ctx: CanvasRenderingContext2D,
  row: OpeningLook,
  [near, far, otherNear, otherFar]: readonly [
    readonly number[],
    readonly number[],
    readonly number[],
    readonly number[],
  ],
  px: number,
): void {
  const [start, end] = row.hand === "left" ? [near, far] : [far, near];
  const across: readonly number[] = row.hand === "left" ? otherNear : otherFar;
  const off = [((start[0] ?? 0) - (across[0] ?? 0)) * 0.25, ((start[1] ?? 0) - (across[1] ?? 0)) * 0.25];
  const path = new Path2D();
  trace(
    path,
    [-0.5, 0.5].map((part) => {
      const [x = 0, y = 0] = between(start, end, part);
      return [x + (off[0] ?? 0), y + (off[1] ?? 0)];
    }),
    false,
  );
  ctx.lineWidth = 2.4 * px;
  ctx.stroke(path);
}

/** @param clockwise whether the leaf turns clockwise, y up, from shut to open */
function paintLeaf(
  ctx: CanvasRenderingContext2D,
  hinge: readonly number[],
  latch: readonly number[],
  width: number,
  counter: boolean,
  px: number,
): void {
  const [x = 0, y = 0] = hinge;
  const shut = Math.atan2((latch[1] ?? 0) - y, (latch[0] ?? 0) - x);
  const open = shut + (counter ? Math.PI / 2 : -Math.PI / 2);
  const leaf = new Path2D();
  leaf.moveTo(x, y);
  leaf.lineTo(x + width * Math.cos(open), y + width * Math.sin(open));
  ctx.lineWidth = 1.4 * px;
  ctx.stroke(leaf);
  const swing = new Path2D();
  swing.arc(x, y, width, shut, open, !counter);
  ctx.lineWidth = 0.9 * px;
  ctx.stroke(swing);
}

/**
 * The number of an opening stands beside it: a door's where its leaf does not swing, any other's outside where one side is.
 *
 * @param isInside whether a place of the model lies in a room
 */
export function paintNumber(
  ctx: CanvasRenderingContext2D,
  polygon: Ring,
  row: OpeningLook,
  screen: Map2,
  k: number,
  isInside: (at: XY) => boolean,
): void {
  if (row.width * k < NUMBERED_PX) return;
  ctx.font = '600 11px "Public Sans Variable", sans-serif';
  const half = polygon.length / 2;
  const middleOf = (ring: Ring): XY => {
    const points = ring.map(([x = 0, y = 0]) => apply(screen, [x, y]));
    return [points.reduce((s, p) => s + p[0], 0) / points.length, points.reduce((s, p) => s + p[1], 0) / points.length];
  };
  const [right, left] = [middleOf(polygon.slice(0, half)), middleOf(polygon.slice(half))];
  const inModel = (p: XY, from: XY): XY => apply(inverse(screen), [2 * p[0] - from[0], 2 * p[1] - from[1]]);
  const isRight =
    row.kind === "door" ? row.swing === "left" : isInside(inModel(left, right)) && !isInside(inModel(right, left));
  const [on, off] = isRight ? [right, left] : [left, right];
  const wide = Math.hypot(on[0] - off[0], on[1] - off[1]) || 1;
  const beside = NUMBER_PX + (ctx.measureText(row.number).width / 2) * (Math.abs(on[0] - off[0]) / wide);
  const at: XY = [on[0] + ((on[0] - off[0]) / wide) * beside, on[1] + ((on[1] - off[1]) / wide) * beside];
  ctx.textAlign = "center";
  ctx.textBaseline = "middle";
  ctx.strokeStyle = PAPER;
  ctx.lineWidth = 3;
  ctx.strokeText(row.number, at[0], at[1]);
  ctx.fillStyle = EDGE;
  ctx.fillText(row.number, at[0], at[1]);
}
