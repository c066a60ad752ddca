import { create } from "zustand";
import { apply } from "../geometry/maps";
import type { XY } from "../geometry/plane";
import { type Size, toScreen, type View } from "../geometry/view";

/** A regular grid of this browser's own: what is drawn over the board, and what corners hold to if that is wanted. */
export interface Grid {
  /** mm; 0 for none */
  spacing: number;
  origin: XY;
  holds: boolean;
}

export const useGrid = create<Grid>(() => ({ spacing: 0, origin: [0, 0], holds: false }));

/** Lines that would stand closer on the screen than this are not all drawn, px. */
const LEAST_PX = 12;

/** The crossing nearest to a point, where corners hold to the grid. */
export function onGrid([x, y]: XY): XY | null {
  const { spacing, origin, holds } = useGrid.getState();
  if (!holds || spacing <= 0) return null;
  const to = (v: number, from: number) => from + Math.round((v - from) / spacing) * spacing;
  return [to(x, origin[0]), to(y, origin[1])];
}

/** Draws it over the whole board, in CSS pixels; where its lines would run together, every second, fourth … of them. */
export function paintGrid(ctx: CanvasRenderingContext2D, view: View, size: Size): void {
  const { spacing, origin } = useGrid.getState();
  if (spacing <= 0) return;
  let step = spacing;
  while (step * view.k < LEAST_PX) step *= 2;
  const screen = toScreen(view, size);
  const [x0, y0] = apply(screen, origin);
  const px = step * view.k;
  ctx.save();
  ctx.strokeStyle = "#49534e";
  ctx.globalAlpha = 0.28;
  ctx.lineWidth = 1;
  ctx.beginPath();
  for (let x = x0 - Math.floor(x0 / px) * px; x < size.width; x += px) {
    ctx.moveTo(Math.round(x) + 0.5, 0);
    ctx.lineTo(Math.round(x) + 0.5, size.height);
  }
  for (let y = y0 - Math.floor(y0 / px) * px; y < size.height; y += px) {
    ctx.moveTo(0, Math.round(y) + 0.5);
    ctx.lineTo(size.width, Math.round(y) + 0.5);
  }
  ctx.stroke();
  ctx.restore();
}
