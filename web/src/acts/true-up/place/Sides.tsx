import { useDesk } from "../../../board/desk";
import { Tag, TEAL } from "../../../board/marks";
import { apply, inverse, type Map2 } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { inWords } from "../../../ui/measures";
import { usePlanCorners } from "./corners";

/** On a plan the lines of its sides; on a side the heights of the storeys and the plan's corners. */
export function Sides({ screen }: { screen: Map2 }) {
  const storey = useDesk((s) => s.storey);
  const step = useDesk((s) => s.step);
  const act = useDesk((s) => s.act);
  if (storey === null) return <Heights screen={screen} />;
  return step === "true-up" && (act === null || act === "place") ? <Lines screen={screen} /> : null;
}

/** A side's line with a tongue toward whoever looks at it, and its name. */
function Lines({ screen }: { screen: Map2 }) {
  const sides = useProject((s) => s.rows.side);
  const size = useDesk((s) => s.size);
  return (
    <g>
      {[...sides.values()].map((side) => {
        if (side.fromX === null || side.fromY === null || side.toX === null || side.toY === null) return null;
        const a = apply(screen, [side.fromX, side.fromY]);
        const b = apply(screen, [side.toX, side.toY]);
        const length = Math.max(1, Math.hypot(b[0] - a[0], b[1] - a[1]));
        // To the right of a → b in the model is where one stands to look at it; on the screen y runs down.
        const out: XY = [-(b[1] - a[1]) / length, (b[0] - a[0]) / length];
        const beside = (p: XY, d: number): XY => [p[0] + out[0] * d, p[1] + out[1] * d];
        const [p, q] = [beside(a, 7), beside(b, 7)];
        const m: XY = [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
        const [tip, left, right] = [
          beside(m, 13),
          [m[0] - ((b[0] - a[0]) / length) * 9, m[1] - ((b[1] - a[1]) / length) * 9],
          [m[0] + ((b[0] - a[0]) / length) * 9, m[1] + ((b[1] - a[1]) / length) * 9],
        ] as const;
        const half = side.name.length * 3.7 + 10;
        const [x, y] = beside(m, Math.abs(out[0]) > 0.7 ? 12 + half : 28);
        // Its name stays on the board while the line does.
        const words: XY = [Math.max(half, Math.min(size.width - half, x)), Math.max(14, Math.min(size.height - 14, y))];
        return (
          <g key={side.id}>
            <polyline
              points={[beside(p, -5), p, q, beside(q, -5)].map((v) => v.join(",")).join(" ")}
              fill="none"
              stroke={TEAL}
              strokeWidth={2}
              strokeDasharray="22 4 5 4"
            />
            <path d={`M${left[0]} ${left[1]}L${tip[0]} ${tip[1]}L${right[0]} ${right[1]}Z`} fill={TEAL} />
            <Tag at={words} text={side.name} colour={TEAL} />
          </g>
        );
      })}
    </g>
  );
}

function Heights({ screen }: { screen: Map2 }) {
  const storeys = useProject((s) => s.rows.storey);
  const side = useDesk((s) => s.side);
  const size = useDesk((s) => s.size);
  const row = useProject((s) => (side === null ? undefined : s.rows.side.get(side)));
  const corners = usePlanCorners(side);
  const left = apply(inverse(screen), [0, 0])[0];
  const right = apply(inverse(screen), [size.width, 0])[0];
  const ground = apply(screen, [0, 0])[1];
  return (
    <g>
      {[...storeys.values()].map((storey) => {
        const [a, b] = [apply(screen, [left, storey.elevation]), apply(screen, [right, storey.elevation])];
        if (a[1] < 0 || a[1] > size.height) return null;
        return (
          <g key={storey.id}>
            <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} stroke="#5a645f" strokeWidth={1} strokeDasharray="2 5" />
            <text x={10} y={a[1] - 5} fontSize="12" fill="#49534e">
              {storey.name} {storey.elevation === 0 ? "±0" : inWords(storey.elevation)}
            </text>
          </g>
        );
      })}
      {row?.fromX !== null &&
        corners.map((along) => {
          const x = apply(screen, [along, 0])[0];
          return (
            <g key={along} stroke={TEAL}>
              <line x1={x} x2={x} y1={0} y2={size.height} strokeWidth={1} strokeDasharray="1 6" opacity={0.8} />
              <path d={`M${x - 6} ${ground + 12}L${x} ${ground}L${x + 6} ${ground + 12}Z`} fill={TEAL} />
            </g>
          );
        })}
    </g>
  );
}
