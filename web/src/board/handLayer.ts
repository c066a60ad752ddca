import type { RefObject } from "react";
import { toScreen } from "../geometry/view";
import { currentAct } from "./act";
import { drafted, useDesk } from "./desk";
import { useFrames } from "./frames";
import { RUST, TEAL } from "./marks";
import { Pen } from "./pen";

/** What the hand is making and what it holds to, on a canvas of its own over everything that is there. */
export function useHandLayer(canvas: RefObject<HTMLCanvasElement | null>): void {
  useFrames(() => {
    const target = canvas.current;
    const ctx = target?.getContext("2d");
    if (!target || !ctx) return;
    const { view, size, snap } = useDesk.getState();
    const dpr = window.devicePixelRatio;
    const [w, h] = [Math.round(size.width * dpr), Math.round(size.height * dpr)];
    if (target.width !== w || target.height !== h) {
      target.width = w;
      target.height = h;
    }
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    // In two parts: a canvas that is cleared as a whole and not drawn upon after that goes on showing what it did in some browsers.
    ctx.clearRect(0, 0, w, h >> 1);
    ctx.clearRect(0, h >> 1, w, h);
    ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
    const act = currentAct();
    if (act?.onPage?.()) return;
    const pen = new Pen(ctx, toScreen(view, size), view.k);
    act?.draws?.(pen);
    const area = drafted("area");
    if (area) {
      const [a, b] = [pen.at(area.from), pen.at(area.to)];
      const colour = area.takeAway ? RUST : TEAL;
      pen.path([a, [b[0], a[1]], b, [a[0], b[1]]], { colour, width: 1, dash: [5, 3], fill: `${colour}14` });
    }
    if (snap) pen.ring(pen.at(snap.at), 5, { colour: TEAL, width: 2 });
  });
}
