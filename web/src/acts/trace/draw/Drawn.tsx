import { useDesk } from "../../../board/desk";
import { ends, TEAL } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { chainOf, dimensionLine, here, type LineKind } from "../../../store/drawn";
import { useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { inWords } from "../../../ui/measures";
import { PlacesSeen } from "../../PlacesSeen";

const INK = "#1c2a26";
/** Narrow and wide lines on the board, px: one to two, by ISO 128-2. */
const NARROW_PX = 1.2;
const WIDE_PX = 2.4;

/** Dashes in widths of the line as the core draws them (ISO 128-2). */
export const DASHES: Record<LineKind, readonly number[]> = {
  "continuous wide": [],
  "continuous narrow": [],
  dashed: [12, 3],
  "long-dashed dotted": [24, 3, 0.5, 3],
  "long-dashed dotted wide": [24, 3, 0.5, 3],
  "long-dashed double-dotted": [24, 3, 0.5, 3, 0.5, 3],
  dotted: [0.5, 3],
};

export const isWide = (kind: LineKind) => kind === "continuous wide" || kind === "long-dashed dotted wide";

/** Points of all that is drawn on the storey or side at hand. */
export function drawnPoints(): XY[] {
  const { rows } = useProject.getState();
  return here(rows.drawnLine.values(), useDesk.getState()).flatMap(chainOf);
}

/** Lines, shapes and dimensions that were drawn on the storey or side at hand. */
export function Drawn({ screen }: { screen: Map2 }) {
  const lines = useProject((s) => s.rows.drawnLine);
  const dimensions = useProject((s) => s.rows.dimension);
  return (
    <g data-testid="drawn">
      <defs>
        {[45, 135].map((turn) => (
          <pattern
            key={turn}
            id={`hatch-${turn}`}
            width={7}
            height={7}
            patternUnits="userSpaceOnUse"
            patternTransform={`rotate(${-turn})`}
          >
            <line x1={0} x2={7} y1={3.5} y2={3.5} stroke={INK} strokeWidth={0.8} />
          </pattern>
        ))}
      </defs>
      <PlacesSeen
        screen={screen}
        of={(place, at) => (
          <>
            {here(lines.values(), place).map((line) => (
              <DrawnLine key={line.id} line={line} screen={at} />
            ))}
            {here(dimensions.values(), place).map((d) => (
              <DrawnDimension key={d.id} dimension={d} screen={at} />
            ))}
          </>
        )}
      />
    </g>
  );
}

function useIsChosen(id: string): boolean {
  return useDesk((s) => s.selected?.id === id || s.things.some((t) => t.id === id));
}

function DrawnLine({ line, screen }: { line: Thing<"drawnLine">; screen: Map2 }) {
  const selected = useIsChosen(line.id);
  const path = chainOf(line)
    .map((p) =>
      apply(screen, p)
        .map((c) => c.toFixed(1))
        .join(" "),
    )
    .join("L");
  const d = `M${path}${line.closed ? "Z" : ""}`;
  const width = isWide(line.kind) ? WIDE_PX : NARROW_PX;
  const dash = DASHES[line.kind].map((part) => part * width).join(" ");
  const hatches = line.fill === "hatched" ? [45] : line.fill === "cross-hatched" ? [45, 135] : [];
  return (
    <g>
      {line.fill === "solid" && <path d={d} fill={INK} fillOpacity={0.22} />}
      {hatches.map((turn) => (
        <path key={turn} d={d} fill={`url(#hatch-${turn})`} />
      ))}
      {selected && <path d={d} fill="none" stroke={TEAL} strokeWidth={width + 4} strokeOpacity={0.3} />}
      <path
        d={d}
        fill="none"
        stroke={selected ? TEAL : INK}
        strokeWidth={width}
        strokeLinejoin="round"
        {...(dash === "" ? {} : { strokeDasharray: dash, strokeLinecap: "butt" })}
      />
    </g>
  );
}

/** By ISO 129-1: its line between two that lead there, oblique strokes at its ends, and the figure over it. */
function DrawnDimension({ dimension, screen }: { dimension: Thing<"dimension">; screen: Map2 }) {
  const selected = useIsChosen(dimension.id);
  const { from, to, mm } = dimensionLine(dimension);
  const [a, b] = [apply(screen, from), apply(screen, to)];
  const [p, q] = [apply(screen, [dimension.x1, dimension.y1]), apply(screen, [dimension.x2, dimension.y2])];
  const length = Math.max(1e-6, Math.hypot(b[0] - a[0], b[1] - a[1]));
  const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const turn = (Math.atan2(uy, ux) * 180) / Math.PI;
  // It reads from below or from the right.
  const upright = turn > 90 || turn <= -90 ? turn + 180 : turn;
  const colour = selected ? TEAL : INK;
  return (
    <g stroke={colour} strokeWidth={selected ? 1.6 : 1} fill="none">
      <line {...ends(beyond(p, a, 4), beyond(a, p, -5))} strokeWidth={0.7} />
      <line {...ends(beyond(q, b, 4), beyond(b, q, -5))} strokeWidth={0.7} />
      <line {...ends(a, b)} />
      {[a, b].map(([x, y], i) => (
        <line
          key={i === 0 ? "a" : "b"}
          x1={x - 4 * (ux - uy)}
          y1={y - 4 * (uy + ux)}
          x2={x + 4 * (ux - uy)}
          y2={y + 4 * (uy + ux)}
          strokeWidth={1.6}
        />
      ))}
      <g transform={`translate(${(a[0] + b[0]) / 2} ${(a[1] + b[1]) / 2}) rotate(${upright})`}>
        <text
          y={-5}
          textAnchor="middle"
          fontSize="12.5"
          fontWeight="600"
          fill={colour}
          stroke="#fdfcfa"
          strokeWidth={3}
          paintOrder="stroke"
        >
          {inWords(mm)}
        </text>
      </g>
    </g>
  );
}

/** From a place so many px towards another, or back from it; no further than that lies. */
function beyond(from: XY, towards: XY, px: number): XY {
  const length = Math.hypot(towards[0] - from[0], towards[1] - from[1]);
  if (length < 1e-6) return from;
  const part = Math.min(1, px / length);
  return [from[0] + part * (towards[0] - from[0]), from[1] + part * (towards[1] - from[1])];
}
