import { type PointerEvent as ReactPointerEvent, useEffect, useRef } from "react";
import { apply, inverse } from "../geometry/maps";
import type { XY } from "../geometry/plane";
import { toScreen, zoomAt } from "../geometry/view";
import { useProject } from "../store/project";
import { currentAct, type Drag } from "./act";
import { setView, useDesk } from "./desk";
import { EdgeRules } from "./EdgeRules";
import { lookAway, lookNear, wantsInk } from "./found";
import { useGrid } from "./grid";
import { clickAt } from "./hand";
import { useHandLayer } from "./handLayer";
import { Overlay } from "./Overlay";
import { paintBoard } from "./painting";
import { images } from "./picture";
import { snapAt } from "./snap";

const DRAG_PX = 4;

/** The working surface. The canvas follows the stores by itself; React draws only what floats above it. */
export function Board({ children }: { children?: React.ReactNode }) {
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const hand = useRef<HTMLCanvasElement>(null);
  usePainting(frame, canvas);
  useHandLayer(hand);
  const drag = useRef<{ id: number; start: XY; last: XY; moved: boolean; button: number; does: Drag | null } | null>(
    null,
  );

  const place = (e: { clientX: number; clientY: number }): XY => {
    const box = frame.current?.getBoundingClientRect();
    return [e.clientX - (box?.left ?? 0), e.clientY - (box?.top ?? 0)];
  };
  const model = (at: XY): XY => {
    const { view, size } = useDesk.getState();
    return apply(inverse(toScreen(view, size)), at);
  };

  const onPointerDown = (e: ReactPointerEvent) => {
    if (e.button > 1) return;
    const at = place(e);
    drag.current = {
      id: e.pointerId,
      start: at,
      last: at,
      moved: false,
      button: e.button,
      does: e.button === 0 ? (currentAct()?.drag?.(model(at), e) ?? null) : null,
    };
    e.currentTarget.setPointerCapture(e.pointerId);
    if (e.button === 1) e.preventDefault();
  };
  const onPointerMove = (e: ReactPointerEvent) => {
    const at = place(e);
    const held = drag.current;
    if (held && held.id === e.pointerId) {
      if (Math.hypot(at[0] - held.start[0], at[1] - held.start[1]) > DRAG_PX) held.moved = true;
      if (held.moved && held.does) {
        held.does.move(model(held.start), model(at), e.altKey);
        return;
      }
      if (held.moved) {
        const { view } = useDesk.getState();
        setView({
          ...view,
          x: view.x - (at[0] - held.last[0]) / view.k,
          y: view.y + (at[1] - held.last[1]) / view.k,
        });
        held.last = at;
        return;
      }
    }
    const pointer = model(at);
    const { pointer: before, view, snap: found } = useDesk.getState();
    // Moved by nothing: what was found there still holds.
    if (
      before &&
      found &&
      Math.hypot(before[0] - pointer[0], before[1] - pointer[1]) * view.k < 0.25 &&
      !e.altKey &&
      !e.shiftKey
    )
      return;
    const snap = snapAt(pointer, e.altKey);
    useDesk.setState({ pointer, snap });
    // The ink is asked when the hand rests; Alt holds it off, Shift wants corners only.
    if (!e.altKey && wantsInk(snap)) lookNear(pointer, e.shiftKey);
    else lookAway();
  };
  /** The system has taken the pointer away: nothing was let go of, so nothing is moved. */
  const onPointerCancel = () => {
    if (drag.current?.does) useDesk.setState({ draft: null });
    drag.current = null;
  };
  const onPointerUp = (e: ReactPointerEvent) => {
    const held = drag.current;
    drag.current = null;
    if (held?.moved && held.does) {
      void held.does.drop();
      return;
    }
    if (!held || held.moved || held.button !== 0) return;
    const at = model(place(e));
    const rested = useDesk.getState().pointer;
    // Where it has not moved since the ink was asked, the answer holds.
    const pointer =
      rested && Math.hypot(rested[0] - at[0], rested[1] - at[1]) * useDesk.getState().view.k < 0.5 ? rested : at;
    if (pointer === at) useDesk.setState({ pointer });
    lookAway();
    clickAt(pointer, e.altKey, e.shiftKey);
  };

  useEffect(() => {
    const node = frame.current;
    if (!node) return;
    const onWheel = (e: WheelEvent) => {
      e.preventDefault();
      const { view, size } = useDesk.getState();
      const box = node.getBoundingClientRect();
      const at: XY = [e.clientX - box.left, e.clientY - box.top];
      // Two fingers on a pad pan; a wheel or a pinch zooms at the pointer.
      if (!e.ctrlKey && e.deltaMode === 0 && e.deltaX !== 0) {
        setView({ ...view, x: view.x + e.deltaX / view.k, y: view.y - e.deltaY / view.k });
      } else {
        setView(zoomAt(view, size, at, Math.exp(-e.deltaY * (e.ctrlKey ? 0.01 : 0.0016))));
      }
    };
    node.addEventListener("wheel", onWheel, { passive: false });
    return () => node.removeEventListener("wheel", onWheel);
  }, []);

  const picking = useDesk((s) => s.act !== null);
  return (
    <section className="relative min-w-0 flex-1 overflow-hidden bg-board" aria-label="Board">
      <div className="absolute inset-0 left-6 top-6" ref={frame}>
        <div
          className={`absolute inset-0 touch-none ${picking ? "cursor-crosshair" : "cursor-grab"}`}
          data-testid="board"
          onPointerDown={onPointerDown}
          onPointerMove={onPointerMove}
          onPointerUp={onPointerUp}
          onPointerCancel={onPointerCancel}
          onPointerLeave={() => {
            lookAway();
            useDesk.setState({ pointer: null, snap: null });
          }}
        >
          <canvas ref={canvas} className="absolute inset-0 h-full w-full" aria-hidden="true" />
        </div>
        <Overlay />
        <canvas
          ref={hand}
          className="pointer-events-none absolute inset-0 h-full w-full"
          aria-hidden="true"
          data-testid="hand"
        />
        {children}
      </div>
      <EdgeRules />
    </section>
  );
}

function usePainting(frame: React.RefObject<HTMLDivElement | null>, canvas: React.RefObject<HTMLCanvasElement | null>) {
  useEffect(() => {
    const node = frame.current;
    const target = canvas.current;
    const ctx = target?.getContext("2d", { alpha: false });
    if (!node || !target || !ctx) return;
    let asked = 0;
    const paint = () => {
      asked = 0;
      const { size } = useDesk.getState();
      const dpr = window.devicePixelRatio;
      const [w, h] = [Math.round(size.width * dpr), Math.round(size.height * dpr)];
      if (target.width !== w || target.height !== h) {
        target.width = w;
        target.height = h;
      }
      paintBoard(ctx, dpr, ask);
    };
    const ask = () => {
      if (asked === 0) asked = requestAnimationFrame(paint);
    };
    const watch = new ResizeObserver(() => {
      useDesk.setState({ size: { width: node.clientWidth, height: node.clientHeight } });
    });
    watch.observe(node);
    const stops = [
      useDesk.subscribe((now, old) => {
        const differs = (
          [
            "view",
            "size",
            "drawing",
            "storey",
            "side",
            "act",
            "fading",
            "step",
            "selected",
            "group",
            "through",
            "throughPicture",
          ] as const
        ).some((key) => now[key] !== old[key]);
        if (differs) ask();
      }),
      useProject.subscribe(ask),
      useGrid.subscribe(ask),
      images.onArrival(ask),
    ];
    ask();
    return () => {
      watch.disconnect();
      for (const stop of stops) stop();
      if (asked !== 0) cancelAnimationFrame(asked);
    };
  }, [frame, canvas]);
}
