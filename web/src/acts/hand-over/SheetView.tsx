import { type PointerEvent as ReactPointerEvent, useRef, useState } from "react";
import { useDesk } from "../../board/desk";
import { useSheet, useSheetPicture } from "./SheetCard";

/** How far one goes closer, and in which steps. */
const CLOSEST = 12;
const STEP = 1.4;

/** The sheet over the board, as it prints: drawn closer with the wheel or + and −, moved by hand. */
export function SheetView() {
  const large = useSheet((s) => s.large);
  const storey = useDesk((s) => (s.step === "hand-over" ? s.storey : null));
  return large && storey !== null ? <Large storey={storey} /> : null;
}

function Large({ storey }: { storey: string }) {
  const { address, refused } = useSheetPicture(storey);
  const [view, setView] = useState({ x: 0, y: 0, times: 1 });
  const held = useRef<{ x: number; y: number } | null>(null);
  const close = () => useSheet.setState({ large: false });
  const zoom = (by: number) =>
    setView((v) => {
      const times = Math.max(1, Math.min(CLOSEST, v.times * by));
      return times === 1 ? { x: 0, y: 0, times } : { x: (v.x * times) / v.times, y: (v.y * times) / v.times, times };
    });
  const onMove = (e: ReactPointerEvent) => {
    const from = held.current;
    if (!from) return;
    held.current = { x: e.clientX, y: e.clientY };
    setView((v) => ({ ...v, x: v.x + e.clientX - from.x, y: v.y + e.clientY - from.y }));
  };
  if (refused || !address) return null;
  const box = "rounded-lg border border-line bg-sheet px-3 py-1.5 text-[13px]";
  return (
    <section
      className="absolute inset-0 z-20 overflow-hidden bg-stone"
      aria-label="The sheet as it prints"
      onPointerDown={(e) => {
        held.current = { x: e.clientX, y: e.clientY };
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={onMove}
      onPointerUp={() => {
        held.current = null;
      }}
      onWheel={(e) => zoom(e.deltaY < 0 ? STEP : 1 / STEP)}
    >
      <img
        src={address}
        alt="The sheet as it prints"
        draggable={false}
        className="pointer-events-none absolute inset-0 m-auto max-h-[92%] max-w-[94%] bg-white shadow"
        style={{ transform: `translate(${view.x}px, ${view.y}px) scale(${view.times})` }}
      />
      <div className="absolute bottom-3 left-3 flex gap-1.5" onPointerDown={(e) => e.stopPropagation()}>
        <button type="button" className={box} onClick={() => zoom(STEP)}>
          closer
        </button>
        <button type="button" className={box} onClick={() => zoom(1 / STEP)}>
          further
        </button>
        <button type="button" className={box} onClick={close}>
          back to the board
        </button>
      </div>
    </section>
  );
}
