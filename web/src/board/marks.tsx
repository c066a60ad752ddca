import type { XY } from "../geometry/plane";
import { TAG_HEIGHT, tagWidth } from "./tags";

export const PLUM = "#6d2a63";
export const OCHRE = "#855400";
export const RUST = "#9c3414";
export const TEAL = "#0f4f4b";

export function ends(a: XY, b: XY) {
  return { x1: a[0], y1: a[1], x2: b[0], y2: b[1] };
}

export function Tag({ at, text, colour, dashed = false }: { at: XY; text: string; colour: string; dashed?: boolean }) {
  const width = tagWidth(text);
  return (
    <g transform={`translate(${at[0]} ${at[1]})`}>
      <rect
        x={-width / 2}
        y={-TAG_HEIGHT / 2}
        width={width}
        height={TAG_HEIGHT}
        rx={4}
        fill="#faf8f3"
        stroke={colour}
        strokeWidth={1.4}
        {...(dashed ? { strokeDasharray: "3 2" } : {})}
      />
      <text textAnchor="middle" dy="4.5" fontSize="13" fontWeight="600" fill={colour} stroke="none">
        {text}
      </text>
    </g>
  );
}

/** A stated line: end marks are short bars across it with a ring at the very pick. */
export function StatedLine({ a, b, colour, dash }: { a: XY; b: XY; colour: string; dash?: string }) {
  const angle = (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI;
  return (
    <g stroke={colour} fill="none">
      <line {...ends(a, b)} strokeWidth={2.2} {...(dash ? { strokeDasharray: dash } : {})} />
      {[a, b].map((p, i) => (
        <EndMark key={i === 0 ? "a" : "b"} at={p} angle={angle} />
      ))}
    </g>
  );
}

function EndMark({ at, angle }: { at: XY; angle: number }) {
  return (
    <g transform={`translate(${at[0]} ${at[1]}) rotate(${angle})`}>
      <line x1={0} x2={0} y1={-9} y2={-4} strokeWidth={2} />
      <line x1={0} x2={0} y1={4} y2={9} strokeWidth={2} />
      <circle r={3.5} strokeWidth={1.6} fill="#fdfcfa" />
    </g>
  );
}
