import { useEffect, useRef } from "react";
import { affineAt, apply, inverse, type Map2, type PageMap, scaleOf } from "../geometry/maps";
import type { XY } from "../geometry/plane";
import { fitMap, pictureOf } from "../store/drawings";
import { useProject } from "../store/project";
import { currentAct } from "./act";
import { drafted, type Picked, useDesk, useDeskFields } from "./desk";
import { reachPx } from "./found";
import { useFrames } from "./frames";
import { images, paintPicture } from "./picture";

/** Screen pixels per page pixel in a lens, as long as it shows as far as the ink is looked at. */
export const MAGNIFICATION = 8;
const QUARTER = 0.25;

/** What is shown of the picture: the very point in the middle, marked. */
interface Enlarged {
  at: XY;
  width: number;
  height: number;
  colour: string;
  magnification: number;
  /** radians by which it is turned, counter-clockwise: a strip shows its length level */
  turn?: number;
  mark?: "cross" | "tick";
}

/** Paints the picture of the drawing at hand round a point of its page, enlarged. */
function paintEnlarged(ctx: CanvasRenderingContext2D, shown: Enlarged): void {
  const { at, width, height, colour, magnification, turn = 0, mark = "cross" } = shown;
  const project = useProject.getState();
  const { drawing } = useDesk.getState();
  const whole = pictureOf(project, drawing, at);
  const map = fitMap(project.rows, drawing);
  if (!whole || !map) return;
  const picture = { ...whole, pixelToMm: turned(whole.pixelToMm, turn) };
  const dpr = window.devicePixelRatio;
  ctx.canvas.width = Math.round(width * dpr);
  ctx.canvas.height = Math.round(height * dpr);
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.fillStyle = "#fdfcfa";
  ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height);
  const [x, y] = apply(turned([1, 0, 0, 0, 1, 0], turn), apply(map, at));
  paintPicture(ctx, picture, { x, y, k: magnification / scaleOf(picture.pixelToMm) }, { width, height }, dpr, {
    alpha: 1,
    ink: null,
    covers: true,
  });
  ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
  ctx.strokeStyle = colour;
  ctx.lineWidth = 1.4;
  const [cx, cy] = [width / 2, height / 2];
  const lines: readonly (readonly [number, number, number, number])[] =
    mark === "tick"
      ? [[cx, 0, cx, height]]
      : [
          [cx - 34, cy, cx - 6, cy],
          [cx + 6, cy, cx + 34, cy],
          [cx, cy - 34, cx, cy - 6],
          [cx, cy + 6, cx, cy + 34],
        ];
  for (const [x1, y1, x2, y2] of lines) {
    ctx.beginPath();
    ctx.moveTo(x1, y1);
    ctx.lineTo(x2, y2);
    ctx.stroke();
  }
  if (mark === "cross") {
    ctx.beginPath();
    ctx.arc(cx, cy, 2, 0, 7);
    ctx.stroke();
  }
}

/** The picture round a point, enlarged, with a crosshair at the very point. */
export function Magnified(props: Enlarged) {
  const { at, width, height, colour, magnification, turn = 0, mark = "cross" } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  // Painted again when the picture or its fit is another.
  const fit = useProject((s) => s.rows.fit);
  const pages = useProject((s) => s.pages);
  const rectified = useProject((s) => s.rectified);
  const drawing = useDesk((s) => s.drawing);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is painted follows from them
  useEffect(() => {
    const ctx = canvas.current?.getContext("2d");
    if (!ctx) return;
    const paint = () => paintEnlarged(ctx, { at, width, height, colour, magnification, turn, mark });
    paint();
    return images.onArrival(paint);
  }, [at, width, height, colour, magnification, turn, mark, fit, pages, rectified, drawing]);
  return <canvas ref={canvas} className="block" style={{ width, height }} aria-hidden="true" />;
}

function turned(m: Map2, rad: number): Map2 {
  const [c, s] = [Math.cos(rad), Math.sin(rad)];
  return [
    c * m[0] - s * m[3],
    c * m[1] - s * m[4],
    c * m[2] - s * m[5],
    s * m[0] + c * m[3],
    s * m[1] + c * m[4],
    s * m[2] + c * m[5],
  ];
}

/** By how much the line between two picks is turned to show level, first pick at the left. */
export function levelling(map: PageMap, a: XY, b: XY): number {
  const [p, q] = [apply(map, a), apply(map, b)];
  return -Math.atan2(q[1] - p[1], q[0] - p[0]);
}

/** Side of the lens on the screen, px. */
const LENS_PX = 148;

/** Follows the pointer while a point is wanted. */
export function Lens() {
  const glass = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  useFrames(
    () => {
      const node = glass.current;
      const ctx = canvas.current?.getContext("2d");
      if (!node || !ctx) return;
      const { snap, pointer, view, size, drawing } = useDesk.getState();
      const act = currentAct();
      const at = snap?.at ?? pointer;
      const isWanted = act?.wanted !== undefined && (drafted("picks")?.picks.length ?? 0) < act.wanted();
      const map = at && isWanted ? fitMap(useProject.getState().rows, drawing) : null;
      node.hidden = !map || !pointer;
      if (!at || !pointer || !map) return;
      const x = size.width / 2 + (pointer[0] - view.x) * view.k;
      const y = size.height / 2 - (pointer[1] - view.y) * view.k;
      // Beside the pointer, on whichever side has room; never over it.
      node.style.left = `${x + 28 + LENS_PX > size.width ? x - 28 - LENS_PX : x + 28}px`;
      node.style.top = `${y - 28 - LENS_PX < 0 ? y + 28 : y - 28 - LENS_PX}px`;
      const magnification = Math.min(MAGNIFICATION, LENS_PX / 2 / (reachPx() * 1.1));
      const page = apply(inverse(map), at);
      paintEnlarged(ctx, { at: page, width: LENS_PX, height: LENS_PX, colour: "#6d2a63", magnification });
    },
    (ask) => images.onArrival(ask),
  );
  return (
    <div
      ref={glass}
      hidden
      className="pointer-events-none absolute z-10 overflow-hidden rounded-full border-2 border-ink shadow-sm"
      style={{ width: LENS_PX, height: LENS_PX }}
      data-testid="lens"
    >
      <canvas ref={canvas} className="block" style={{ width: LENS_PX, height: LENS_PX }} aria-hidden="true" />
    </div>
  );
}

/** The ends of a length, and what moves and chooses them. */
export interface Ends {
  picks: readonly [Picked, Picked];
  focused: number;
  focus: (end: 0 | 1) => void;
  /** moves the end that is chosen, page pixels */
  nudge: (dx: number, dy: number) => void;
}

/** Both ends of a length enlarged and level, the middle left out as a drafter's break line does. */
export function BrokenLineLens({ ends }: { ends: Ends }) {
  const { size, view, drawing } = useDeskFields("size", "view", "drawing");
  const rows = useProject((s) => s.rows);
  const map = fitMap(rows, drawing);
  const [a, b] = ends.picks;
  if (!map) return null;
  const width = Math.min(560, size.width - 40);
  const half = Math.floor(width / 2) - 8;
  const height = 118;
  // At the bottom, or at the top when an end lies below it.
  const lowest = Math.max(...[a, b].map((p) => size.height / 2 - (apply(map, p.at)[1] - view.y) * view.k));
  const low = lowest < size.height - height - 76;
  const shared = { ends, width: half, height, turn: levelling(map, a.at, b.at), map };
  return (
    <div
      className="absolute left-1/2 z-10 -translate-x-1/2 overflow-hidden rounded-lg border-2 border-ink bg-board shadow-sm"
      style={low ? { bottom: 60, width } : { top: 12, width }}
      data-testid="broken-line-lens"
    >
      <div className="flex">
        <End index={0} {...shared} />
        <svg width="16" height={height} viewBox="0 0 16 118" aria-hidden="true" className="shrink-0 bg-sheet">
          <title>break line</title>
          <path d="M8 0V44L2 54L14 64L8 74V118" fill="none" stroke="#1c2a26" strokeWidth="1.6" />
        </svg>
        <End index={1} {...shared} />
      </div>
    </div>
  );
}

function End(props: { index: 0 | 1; ends: Ends; width: number; height: number; turn: number; map: PageMap }) {
  const { index, ends } = props;
  const name = index === 0 ? "A" : "B";
  const { at, words } = ends.picks[index];
  const onKeyDown = (e: React.KeyboardEvent) => {
    const step = e.shiftKey ? 1 : QUARTER;
    const move = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[e.key];
    if (!move) return;
    e.preventDefault();
    e.stopPropagation();
    ends.focus(index);
    // As seen in the strip, so back through its turn and the page's.
    const [u, v] = [move[0] ?? 0, -(move[1] ?? 0)];
    const [c, s] = [Math.cos(-props.turn), Math.sin(-props.turn)];
    const flat = affineAt(props.map, at);
    const k = scaleOf(flat);
    const back = inverse(flat);
    const [x0, y0] = apply(back, [0, 0]);
    const [x1, y1] = apply(back, [k * (c * u - s * v), k * (s * u + c * v)]);
    ends.nudge(x1 - x0, y1 - y0);
  };
  return (
    <button
      type="button"
      className={`relative block cursor-default p-0 outline-offset-[-3px] ${ends.focused === index ? "shadow-[inset_0_-4px_0_var(--color-plum)]" : ""}`}
      aria-label={`End ${name} at ${at[0].toFixed(2)}, ${at[1].toFixed(2)} px, ${words}; arrow keys move it by a quarter pixel`}
      onKeyDown={onKeyDown}
      onFocus={() => ends.focus(index)}
    >
      <Magnified
        at={at}
        width={props.width}
        height={props.height}
        colour="#6d2a63"
        magnification={MAGNIFICATION}
        turn={props.turn}
      />
      <span className="absolute top-1.5 left-2 rounded bg-sheet/90 px-1.5 text-xs font-semibold">
        end {name} · {words}
      </span>
      {index === 0 && (
        <span className="absolute bottom-1.5 left-2 rounded bg-sheet/90 px-1.5 text-xs">arrows move it ¼ px</span>
      )}
    </button>
  );
}
