import { type KeyboardEvent, type PointerEvent as ReactPointerEvent, useEffect, useRef, useState } from "react";
import { useDesk } from "../../board/desk";
import { change, useProject } from "../../store/project";
import { type Box, type Held, held, isOfChain, type OnSheet, type ShownFigure, type ShownView } from "./onSheet";
import { isToScale, mark, nameOf, takeView, useSheetPicture, useSheets, viewsOf } from "./sheets";

/** How far one goes closer, and in which steps. */
const CLOSEST = 16;
const STEP = 1.25;
/** A press that moves less is a click, px. */
const CLICK_PX = 4;
/** So near to standing level a view is held, mm of paper. */
const LEVEL_MM = 2;

/** The sheet over the board, as it prints: looked at closely, and its views and dimensions moved. */
export function SheetOver() {
  const sheet = useSheets((s) => s.sheet);
  const isHere = useDesk((s) => s.step === "hand-over");
  const there = useProject((s) => (sheet === null ? undefined : s.rows.printSheet.get(sheet)));
  return isHere && sheet !== null && there ? <Large key={sheet} sheet={sheet} /> : null;
}

/** What is dragged: the whole sheet under the eye, a view, or a figure of it. */
interface Drag {
  what: "sheet" | "view" | "figure";
  /** the view that was pressed, which comes to hand if nothing is dragged */
  pressed: string | null;
  at: [number, number];
  from: [number, number];
  far: boolean;
}

function Large({ sheet }: { sheet: string }) {
  const { address, on, refused } = useSheetPicture(sheet);
  const rows = useProject((s) => s.rows);
  const reads = useProject((s) => s.role === "read");
  const { view: inHand, figure } = useSheets();
  const frame = useRef<HTMLElement>(null);
  const [eye, setEye] = useState({ x: 0, y: 0, times: 1 });
  const [drag, setDrag] = useState<Drag | null>(null);
  const [off, setOff] = useState<Held | null>(null);
  // What was let go stays where it was put until the sheet is drawn anew.
  useEffect(() => {
    if (on) setOff(null);
  }, [on]);
  const views = viewsOf(rows, sheet);
  const row = views.find((v) => v.id === inHand);
  const shown = on?.views.find((v) => v.id === inHand);
  const toMm = () => {
    const box = frame.current?.querySelector("[data-paper]")?.getBoundingClientRect();
    return on && box && box.width > 0 ? on.width / box.width : 1;
  };
  const zoom = (by: number, cx = 0, cy = 0) =>
    setEye((e) => {
      const times = Math.max(1, Math.min(CLOSEST, e.times * by));
      const k = times / e.times;
      return times === 1 ? { x: 0, y: 0, times } : { x: cx - k * (cx - e.x), y: cy - k * (cy - e.y), times };
    });
  // Heard where it is and no further: the board listens outside React, and would go closer as well.
  useEffect(() => {
    const at = frame.current;
    const onWheel = (e: WheelEvent) => {
      e.stopPropagation();
      e.preventDefault();
      const box = (at as HTMLElement).getBoundingClientRect();
      zoom(e.deltaY < 0 ? STEP : 1 / STEP, e.clientX - box.left - box.width / 2, e.clientY - box.top - box.height / 2);
    };
    at?.addEventListener("wheel", onWheel, { passive: false });
    return () => at?.removeEventListener("wheel", onWheel);
  });
  const begin =
    (what: Drag["what"], pressed: string | null = null) =>
    (e: ReactPointerEvent) => {
      e.stopPropagation();
      frame.current?.setPointerCapture?.(e.pointerId);
      setDrag({ what, pressed, at: [e.clientX, e.clientY], from: [e.clientX, e.clientY], far: false });
    };
  const onMove = (e: ReactPointerEvent) => {
    if (!drag) return;
    const [fx, fy] = drag.from;
    const far = drag.far || Math.hypot(e.clientX - fx, e.clientY - fy) > CLICK_PX;
    if (drag.what === "sheet") {
      setEye((v) => ({ ...v, x: v.x + e.clientX - drag.at[0], y: v.y + e.clientY - drag.at[1] }));
    } else if (far && row) {
      const [dx, dy] = [(e.clientX - fx) * toMm(), (e.clientY - fy) * toMm()];
      const others = views.filter((v) => v.id !== row.id && isToScale(v.kind) === isToScale(row.kind));
      setOff(drag.what === "view" ? held(row, others, dx, dy, LEVEL_MM) : { dx, dy, x: null, y: null });
    }
    setDrag({ ...drag, at: [e.clientX, e.clientY], far });
  };
  const onUp = () => {
    if (drag?.far && off && row && drag.what === "view") moveView(row, off.dx, off.dy);
    if (drag?.far && off && row && drag.what === "figure" && figure !== null)
      moveFigure(row.id, figure, off.dx, off.dy);
    if (drag && !drag.far && drag.what === "sheet") takeView(drag.pressed);
    setDrag(null);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const step = e.shiftKey ? 10 : 1;
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (e.key === "+" || e.key === "-") zoom(e.key === "+" ? STEP : 1 / STEP);
    else if (way && row && !reads) {
      const [dx, dy] = [(way[0] ?? 0) * step, (way[1] ?? 0) * step];
      if (figure === null) moveView(row, dx, dy);
      else moveFigure(row.id, figure, dx, dy);
    } else if ((e.key === "Delete" || e.key === "Backspace") && row && figure !== null && !reads) {
      useSheets.setState({ figure: null });
      void mark(row.id, figure, { hidden: true }, "Leave a dimension out");
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const button = "rounded-lg border border-line bg-sheet px-3 py-1.5 text-[13px]";
  return (
    <section
      ref={frame}
      className="absolute -top-6 right-0 bottom-0 -left-6 z-30 overflow-hidden bg-stone"
      aria-label="The sheet as it prints"
      onPointerDown={begin("sheet")}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onKeyDown={onKeyDown}
    >
      {refused && <p className="absolute inset-x-0 top-1/3 p-8 text-center text-rust">{refused}</p>}
      {on && on.leftOut !== "" && (
        <p className="absolute inset-x-0 top-0 z-10 border-b border-line bg-sheet px-4 py-1.5 text-[13px] text-rust">
          Sheets have no letters for <bdi className="font-semibold text-ink">{on.leftOut}</bdi>: names are printed
          without them. Write them otherwise where they must be read.
        </p>
      )}
      {address && on && (
        <div
          data-paper
          className="absolute inset-0 m-auto max-h-[92%] max-w-[94%] bg-white shadow"
          style={{
            aspectRatio: `${on.width} / ${on.height}`,
            transform: `translate(${eye.x}px, ${eye.y}px) scale(${eye.times})`,
          }}
        >
          <img src={address} alt="The sheet as it prints" draggable={false} className="pointer-events-none size-full" />
          <svg className="absolute inset-0 size-full" viewBox={`0 0 ${on.width} ${on.height}`}>
            <title>Views of the sheet</title>
            {on.views.map((v) => (
              <Frame
                key={v.id}
                view={v}
                name={nameOfShown(v)}
                isInHand={v.id === inHand}
                begin={v.id === inHand && !reads ? begin("view", v.id) : begin("sheet", v.id)}
              />
            ))}
            {shown?.figures.map((f) => (
              <Figure key={f.key} figure={f} isInHand={f.key === figure} begin={reads ? undefined : begin("figure")} />
            ))}
            {off && shown && <Ghost on={on} box={ghostOf(shown, figure)} off={off} />}
          </svg>
        </div>
      )}
      <div className="absolute bottom-3 left-3 flex gap-1.5" onPointerDown={(e) => e.stopPropagation()}>
        <button type="button" className={button} onClick={() => zoom(STEP * STEP)}>
          closer
        </button>
        <button type="button" className={button} onClick={() => zoom(1 / STEP / STEP)}>
          further
        </button>
        <button type="button" className={button} onClick={() => setEye({ x: 0, y: 0, times: 1 })}>
          all of it
        </button>
      </div>
    </section>
  );

  function nameOfShown(v: ShownView): string {
    const of = rows.sheetView.get(v.id);
    return of ? nameOf(rows, of) : "View";
  }
}

function moveView(row: { id: string; x: number; y: number }, dx: number, dy: number): void {
  const values = { x: Math.round((row.x + dx) * 100) / 100, y: Math.round((row.y + dy) * 100) / 100 };
  void change("Move a view", [{ do: "set", type: "sheetView", id: row.id, values }]);
}

function moveFigure(view: string, of: string, dx: number, dy: number): void {
  const known = [...useProject.getState().rows.viewMark.values()].find((m) => m.view === view && m.of === of);
  const round = (mm: number) => Math.round(mm * 100) / 100;
  void mark(
    view,
    of,
    { dx: round((known?.dx ?? 0) + dx), dy: round((known?.dy ?? 0) + dy), hidden: false },
    "Move a dimension",
  );
}

const ghostOf = (view: ShownView, figure: string | null): Box =>
  view.figures.find((f) => f.key === figure)?.box ?? view.box;

const sides = ([left, top, right, bottom]: Box) => ({ x: left, y: top, width: right - left, height: bottom - top });

/** So far outside what it shows a view's frame runs, mm of paper. */
const ROUND_MM = 2;
const round = ([left, top, right, bottom]: Box): Box => [
  left - ROUND_MM,
  top - ROUND_MM,
  right + ROUND_MM,
  bottom + ROUND_MM,
];

/** A view's place on the sheet: pressed it comes to hand, in hand it is dragged. */
function Frame(props: { view: ShownView; name: string; isInHand: boolean; begin: (e: ReactPointerEvent) => void }) {
  const { view, name, isInHand, begin } = props;
  const take = () => takeView(view.id);
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button has no place in a drawing
    <rect
      {...sides(round(view.box))}
      role="button"
      tabIndex={0}
      aria-label={name}
      aria-pressed={isInHand}
      className={`cursor-pointer fill-transparent outline-none ${isInHand ? "stroke-teal" : "stroke-transparent hover:stroke-quiet focus-visible:stroke-teal"}`}
      strokeWidth={0.6}
      strokeDasharray={isInHand ? undefined : "2 2"}
      onPointerDown={begin}
      onClick={take}
      onKeyDown={(e) => {
        if (e.key === "Enter") take();
      }}
    />
  );
}

/** A figure of the view in hand. */
function Figure(props: {
  figure: ShownFigure;
  isInHand: boolean;
  begin: ((e: ReactPointerEvent) => void) | undefined;
}) {
  const { figure, isInHand, begin } = props;
  const take = () => useSheets.setState({ figure: figure.key });
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button has no place in a drawing
    <rect
      {...sides(figure.box)}
      role="button"
      tabIndex={0}
      aria-label={isOfChain(figure.key) ? `Dimension ${figure.words}` : figure.words}
      aria-pressed={isInHand}
      className={`cursor-move outline-none ${isInHand ? "fill-zest/40 stroke-teal" : "fill-transparent hover:fill-zest/30 focus-visible:stroke-teal"}`}
      strokeWidth={0.3}
      onPointerDown={(e) => {
        take();
        begin?.(e);
      }}
      onFocus={take}
      onClick={(e) => e.stopPropagation()}
    />
  );
}

/** Where what is dragged will stand, and what it stands level with. */
function Ghost({ on, box, off }: { on: OnSheet; box: Box; off: Held }) {
  return (
    <g className="pointer-events-none fill-none stroke-teal" strokeWidth={0.5}>
      <rect {...sides(box)} transform={`translate(${off.dx} ${off.dy})`} strokeDasharray="2 1.5" />
      {off.x !== null && <line x1={off.x} y1={0} x2={off.x} y2={on.height} strokeWidth={0.25} />}
      {off.y !== null && <line x1={0} y1={off.y} x2={on.width} y2={off.y} strokeWidth={0.25} />}
    </g>
  );
}
