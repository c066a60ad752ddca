import { useEffect, useRef } from "react";
import { useProject } from "../store/project";
import { onRule, ruleStep, ruleUnit } from "../ui/measures";
import { useDesk } from "./desk";

const WIDE = 24;

/** The rulers along the board, in metres once the drawing is trued, in guessed metres before. */
export function EdgeRules() {
  const top = useRef<HTMLCanvasElement>(null);
  const left = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    let asked = 0;
    const paint = () => {
      asked = 0;
      const { view, size } = useDesk.getState();
      rule(top.current, size.width, view.x, view.k, false);
      rule(left.current, size.height, view.y, view.k, true);
    };
    const ask = () => {
      if (asked === 0) asked = requestAnimationFrame(paint);
    };
    const stop = useDesk.subscribe((now, old) => {
      if (now.view !== old.view || now.size !== old.size) ask();
    });
    ask();
    return () => {
      stop();
      cancelAnimationFrame(asked);
    };
  }, []);
  const guess = useProject((p) => {
    const { drawing } = useDesk.getState();
    return drawing !== null && (p.rows.fit.get(drawing)?.isGuess ?? true);
  });
  return (
    <div aria-hidden="true" className="pointer-events-none">
      <canvas ref={top} className="absolute left-6 right-0 top-0 h-6 border-b border-line bg-sheet" />
      <canvas ref={left} className="absolute bottom-0 left-0 top-6 w-6 border-r border-line bg-sheet" />
      <div className="absolute left-0 top-0 flex size-6 items-center justify-center border-b border-r border-line bg-sheet text-[11px] text-quiet">
        {guess ? `${ruleUnit()}?` : ruleUnit()}
      </div>
    </div>
  );
}

function rule(canvas: HTMLCanvasElement | null, long: number, middleMm: number, k: number, upright: boolean): void {
  const ctx = canvas?.getContext("2d");
  if (!canvas || !ctx) return;
  const dpr = window.devicePixelRatio;
  const [w, h] = upright ? [WIDE, long] : [long, WIDE];
  const [width, height] = [Math.round(w * dpr), Math.round(h * dpr)];
  // A canvas that is given its size anew takes new memory: too dear for every frame.
  if (canvas.width !== width || canvas.height !== height) {
    canvas.style.width = `${w}px`;
    canvas.style.height = `${h}px`;
    canvas.width = width;
    canvas.height = height;
  }
  ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
  ctx.clearRect(0, 0, w, h);
  ctx.strokeStyle = "#a49c88";
  ctx.fillStyle = "#5a645f";
  ctx.font = "11px 'Public Sans Variable', sans-serif";
  ctx.textAlign = "center";
  ctx.textBaseline = "middle";
  const step = ruleStep(k, 46);
  const first = Math.ceil((middleMm - long / 2 / k) / step);
  const last = Math.floor((middleMm + long / 2 / k) / step);
  for (let i = first; i <= last; i++) {
    const along = long / 2 + (upright ? -1 : 1) * (i * step - middleMm) * k;
    ctx.beginPath();
    if (upright) {
      ctx.moveTo(WIDE - 6, along);
      ctx.lineTo(WIDE, along);
    } else {
      ctx.moveTo(along, WIDE - 6);
      ctx.lineTo(along, WIDE);
    }
    ctx.stroke();
    const label = onRule(i * step, step);
    if (upright) {
      ctx.save();
      ctx.translate(9, along);
      ctx.rotate(-Math.PI / 2);
      ctx.fillText(label, 0, 0);
      ctx.restore();
    } else {
      ctx.fillText(label, along, 9);
    }
  }
}
