import { type PointerEvent, useRef } from "react";
import { useDesk, useDrafted } from "../../../board/desk";
import { apply, inverse, type Map2, type PageMap } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { toScreen } from "../../../geometry/view";
import { fitMap } from "../../../store/drawings";
import { useProject } from "../../../store/project";
import { focusBox, GRIPS, type Grip, moveBox } from "../cutting";

/** The boxes of a page that is being cut, with grips on their edges and corners. */
export function CutOverlay() {
  const cutting = useDrafted("cut");
  const view = useDesk((s) => s.view);
  const size = useDesk((s) => s.size);
  const drawing = useDesk((s) => s.drawing);
  const map = fitMap(
    useProject((s) => s.rows),
    drawing,
  );
  if (!cutting || !map) return null;
  const screen = toScreen(view, size);
  const at = (x: number, y: number): XY => apply(screen, apply(map, [x, y]));
  return (
    <>
      <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
        <title>Proposed cuts</title>
        {cutting.boxes.map((box, i) => {
          const ring = [
            at(box.left, box.top),
            at(box.left + box.width, box.top),
            at(box.left + box.width, box.top + box.height),
            at(box.left, box.top + box.height),
          ];
          const focused = i === cutting.focused;
          const [label = [0, 0]] = [...ring].sort((a, b) => a[1] - b[1] + (a[0] - b[0]) / 1e4);
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: boxes have no name of their own
            <g key={i}>
              <polygon
                points={ring.map((p) => p.join(",")).join(" ")}
                fill={focused ? "rgba(15,79,75,0.10)" : "rgba(15,79,75,0.04)"}
                stroke="#0f4f4b"
                strokeWidth={focused ? 2.4 : 1.4}
                strokeDasharray={focused ? "" : "6 4"}
              />
              <g transform={`translate(${label[0]} ${label[1]})`}>
                <rect y={-22} width={box.name.length * 7.2 + 34} height={20} rx={4} fill="#0f4f4b" />
                <text x={8} y={-7.5} fontSize="13" fontWeight="600" fill="#fff">
                  {i + 1} {box.name}
                </text>
              </g>
            </g>
          );
        })}
      </svg>
      {cutting.boxes.map((box, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: boxes have no name of their own
        <Body key={i} index={i} box={box} map={map} screen={screen} />
      ))}
      {GRIPS.map((grip) => {
        const box = cutting.boxes[cutting.focused];
        if (!box) return null;
        const x = box.left + box.width * (grip.includes("w") ? 0 : grip.includes("e") ? 1 : 0.5);
        const y = box.top + box.height * (grip.includes("n") ? 0 : grip.includes("s") ? 1 : 0.5);
        return (
          <Handle key={grip} index={cutting.focused} grip={grip} at={at(x, y)} toPage={inverse(map)} k={view.k}>
            {`${WORDS[grip]} of ${box.name}`}
          </Handle>
        );
      })}
    </>
  );
}

const WORDS: Record<Exclude<Grip, "all">, string> = {
  n: "Upper edge",
  s: "Lower edge",
  w: "Left edge",
  e: "Right edge",
  nw: "Upper left corner",
  ne: "Upper right corner",
  sw: "Lower left corner",
  se: "Lower right corner",
};

interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
  name: string;
}

/** The middle of a box, by which it is chosen and moved. */
function Body({ index, box, map, screen }: { index: number; box: Box; map: PageMap; screen: Map2 }) {
  const k = useDesk((s) => s.view.k);
  const centre = apply(screen, apply(map, [box.left + box.width / 2, box.top + box.height / 2]));
  return (
    <Handle index={index} grip="all" at={centre} toPage={inverse(map)} k={k}>
      {`Whole box of ${box.name}`}
    </Handle>
  );
}

function Handle(props: { index: number; grip: Grip; at: XY; toPage: PageMap; k: number; children: string }) {
  const last = useRef<XY | null>(null);
  const move = (dx: number, dy: number) => {
    // A move on the screen, in page pixels: y runs up in the model.
    const [a, b] = [apply(props.toPage, [0, 0]), apply(props.toPage, [dx / props.k, -dy / props.k])];
    moveBox(props.index, props.grip, b[0] - a[0], b[1] - a[1]);
  };
  const onPointerMove = (e: PointerEvent) => {
    if (!last.current) return;
    move(e.clientX - last.current[0], e.clientY - last.current[1]);
    last.current = [e.clientX, e.clientY];
  };
  const whole = props.grip === "all";
  return (
    <button
      type="button"
      aria-label={`${props.children}; arrow keys move it`}
      className={
        whole
          ? "absolute size-9 -translate-1/2 cursor-move rounded-full border border-teal bg-sheet/85 text-[15px] font-bold text-teal"
          : "absolute size-3.5 -translate-1/2 rounded-sm border-2 border-teal bg-white"
      }
      style={{ left: props.at[0], top: props.at[1] }}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        last.current = [e.clientX, e.clientY];
        focusBox(props.index);
      }}
      onPointerMove={onPointerMove}
      onPointerUp={() => {
        last.current = null;
      }}
      onKeyDown={(e) => {
        const step = e.shiftKey ? 20 : 2;
        const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[e.key];
        if (!by) return;
        e.preventDefault();
        e.stopPropagation();
        move(by[0] ?? 0, by[1] ?? 0);
      }}
    >
      {whole ? props.index + 1 : ""}
    </button>
  );
}
