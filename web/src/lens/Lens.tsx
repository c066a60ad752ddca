import { useEffect, useRef } from "react";
import { apply, scaleOf, type XY } from "../board/geometry";
import { images, paintPicture } from "../board/picture";
import { nudgeEnd } from "../desk/acts";
import { useDesk } from "../desk/desk";
import { fitMap, pictureOf } from "../desk/selectors";
import { useProject } from "../project/store";

/** Screen pixels per page pixel in a lens. */
export const MAGNIFICATION = 8;
const QUARTER = 0.25;

/** The picture round a point, eight times as large, with a crosshair at the very point. */
function Magnified({ at, width, height, colour }: { at: XY | null; width: number; height: number; colour: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const project = useProject();
  const drawing = useDesk((s) => s.drawing);
  useEffect(() => {
    const ctx = canvas.current?.getContext("2d");
    const picture = pictureOf(project, drawing);
    if (!ctx || !picture || !at) return;
    const dpr = window.devicePixelRatio;
    const paint = () => {
      ctx.canvas.width = Math.round(width * dpr);
      ctx.canvas.height = Math.round(height * dpr);
      ctx.setTransform(1, 0, 0, 1, 0, 0);
      ctx.fillStyle = "#fdfcfa";
      ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height);
      const [x, y] = apply(picture.pixelToMm, at);
      paintPicture(ctx, picture, { x, y, k: MAGNIFICATION / scaleOf(picture.pixelToMm) }, { width, height }, dpr, {
        alpha: 1,
        ink: null,
        covers: true,
      });
      ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
      ctx.strokeStyle = colour;
      ctx.lineWidth = 1.4;
      const [cx, cy] = [width / 2, height / 2];
      for (const [x1, y1, x2, y2] of [
        [cx - 34, cy, cx - 6, cy],
        [cx + 6, cy, cx + 34, cy],
        [cx, cy - 34, cx, cy - 6],
        [cx, cy + 6, cx, cy + 34],
      ] as const) {
        ctx.beginPath();
        ctx.moveTo(x1, y1);
        ctx.lineTo(x2, y2);
        ctx.stroke();
      }
      ctx.beginPath();
      ctx.arc(cx, cy, 2, 0, 7);
      ctx.stroke();
    };
    paint();
    return images.onArrival(paint);
  }, [at, width, height, colour, project, drawing]);
  return <canvas ref={canvas} style={{ width, height }} aria-hidden="true" />;
}

/** Follows the pointer while a point is wanted. */
export function Lens() {
  const act = useDesk((s) => s.act);
  const ends = useDesk((s) => s.ends);
  const pointer = useDesk((s) => s.snap?.at ?? s.pointer);
  const view = useDesk((s) => s.view);
  const size = useDesk((s) => s.size);
  const drawing = useDesk((s) => s.drawing);
  const map = fitMap(
    useProject((s) => s.rows),
    drawing,
  );
  const wanted = (act === "calibrate" || act === "square") && ends.length < 2;
  if (!wanted || !pointer || !map) return null;
  const d = map[0] * map[4] - map[1] * map[3];
  const [dx, dy] = [pointer[0] - map[2], pointer[1] - map[5]];
  const px: XY = [(map[4] * dx - map[1] * dy) / d, (map[0] * dy - map[3] * dx) / d];
  const x = size.width / 2 + (pointer[0] - view.x) * view.k;
  const y = size.height / 2 - (pointer[1] - view.y) * view.k;
  const side = 148;
  // Beside the pointer, on whichever side has room; never over it.
  const left = x + 28 + side > size.width ? x - 28 - side : x + 28;
  const top = y - 28 - side < 0 ? y + 28 : y - 28 - side;
  return (
    <div
      className="pointer-events-none absolute z-10 overflow-hidden rounded-full border-2 border-ink shadow-sm"
      style={{ left, top, width: side, height: side }}
    >
      <Magnified at={px} width={side} height={side} colour="#6d2a63" />
    </div>
  );
}

/** Both ends of a length enlarged, the middle left out as a drafter's break line does. */
export function BrokenLineLens() {
  const ends = useDesk((s) => s.ends);
  const act = useDesk((s) => s.act);
  const size = useDesk((s) => s.size);
  const view = useDesk((s) => s.view);
  const drawing = useDesk((s) => s.drawing);
  const focused = useDesk((s) => s.focusedEnd);
  const map = fitMap(
    useProject((s) => s.rows),
    drawing,
  );
  const [a, b] = ends;
  if ((act !== "calibrate" && act !== "square") || !a || !b || !map) return null;
  const width = Math.min(560, size.width - 40);
  const half = Math.floor(width / 2) - 8;
  const height = 118;
  // At the bottom, or at the top when an end lies below it.
  const lowest = Math.max(...[a, b].map((p) => size.height / 2 - (apply(map, p)[1] - view.y) * view.k));
  const low = lowest < size.height - height - 76;
  return (
    <div
      className="absolute left-1/2 z-10 flex -translate-x-1/2 overflow-hidden rounded-lg border-2 border-ink bg-board shadow-sm"
      style={low ? { bottom: 60, width } : { top: 12, width }}
    >
      <End index={0} at={a} width={half} height={height} focused={focused === 0} />
      <svg width="16" height={height} viewBox="0 0 16 118" aria-hidden="true" className="shrink-0 bg-sheet">
        <title>break line</title>
        <path d="M8 0V44L2 54L14 64L8 74V118" fill="none" stroke="#1c2a26" strokeWidth="1.6" />
      </svg>
      <End index={1} at={b} width={half} height={height} focused={focused === 1} />
    </div>
  );
}

function End(props: { index: 0 | 1; at: XY; width: number; height: number; focused: boolean }) {
  const name = props.index === 0 ? "A" : "B";
  const onKeyDown = (e: React.KeyboardEvent) => {
    const step = e.shiftKey ? 1 : QUARTER;
    const move = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[e.key];
    if (!move) return;
    e.preventDefault();
    e.stopPropagation();
    useDesk.setState({ focusedEnd: props.index });
    nudgeEnd(move[0] ?? 0, move[1] ?? 0);
  };
  return (
    <button
      type="button"
      className={`relative block cursor-default p-0 outline-offset-[-3px] ${props.focused ? "shadow-[inset_0_-4px_0_var(--color-plum)]" : ""}`}
      aria-label={`End ${name} at ${props.at[0].toFixed(2)}, ${props.at[1].toFixed(2)} px; arrow keys move it by a quarter pixel`}
      onKeyDown={onKeyDown}
      onFocus={() => useDesk.setState({ focusedEnd: props.index })}
    >
      <Magnified at={props.at} width={props.width} height={props.height} colour="#6d2a63" />
      <span className="absolute bottom-1.5 left-2 rounded bg-sheet/90 px-1.5 text-xs font-semibold">
        end {name} · arrows move ¼ px
      </span>
    </button>
  );
}
