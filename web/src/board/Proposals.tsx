import { useDeskFields } from "../desk/desk";
import { pair, useInk } from "../desk/ink";
import { grouped, sureness } from "../desk/numbers";
import { fitMap } from "../desk/selectors";
import { useProject } from "../store/project";
import { apply, type Map2, middle, type XY } from "./geometry";
import { ends, PLUM, RUST, Tag, TEAL } from "./marks";

const PENCIL = "#4b5560";

/** What waits to be accepted: proposed walls as pencil lines, figures that were read, and where settling would move corners. */
export function Proposals({ screen }: { screen: Map2 }) {
  const { act, drawing, storey } = useDeskFields("act", "drawing", "storey");
  if (drawing === null) return null;
  return (
    <>
      {act === "ink" && <Walls screen={screen} drawing={drawing} />}
      {act === "calibrate" && <Figures screen={screen} drawing={drawing} />}
      {act === "settle" && storey !== null && <Moves screen={screen} storey={storey} />}
    </>
  );
}

function Walls({ screen, drawing }: { screen: Map2; drawing: string }) {
  const { proposals, looked } = useInk();
  if (proposals?.of !== drawing) return null;
  const { walls, openings, columns } = proposals.told;
  return (
    <g fill="none" stroke={PENCIL} pointerEvents="none" data-proposals={walls.length}>
      {walls.map((w) => {
        const [a, b] = [pair(w.from), pair(w.to)];
        const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
        const [nx, ny] = [(-(b[1] - a[1]) / length) * (w.thickness / 2), ((b[0] - a[0]) / length) * (w.thickness / 2)];
        const at = (p: XY, s: number): XY => apply(screen, [p[0] + s * nx, p[1] + s * ny]);
        const dash = w.sure ? "9 3" : "2 4";
        const strong = looked === w.id;
        const along = (t: number): XY => [a[0] + ((b[0] - a[0]) * t) / length, a[1] + ((b[1] - a[1]) * t) / length];
        return (
          <g key={w.id} strokeWidth={strong ? 2.6 : 1.5}>
            <polygon
              points={[at(a, 1), at(b, 1), at(b, -1), at(a, -1)].map((p) => p.join(",")).join(" ")}
              fill={strong ? "rgba(75, 85, 96, 0.28)" : w.sure ? "rgba(75, 85, 96, 0.12)" : "none"}
              strokeDasharray={dash}
            />
            {openings
              .filter((o) => o.wall === w.id && o.sure)
              .map((o) => {
                const [p, q] = [along(o.offset), along(o.offset + o.width)];
                return (
                  <g key={o.id}>
                    <line {...ends(at(p, 1.25), at(p, -1.25))} />
                    <line {...ends(at(q, 1.25), at(q, -1.25))} />
                    {o.kind !== "opening" && (
                      <line {...ends(apply(screen, p), apply(screen, q))} strokeWidth={o.kind === "door" ? 3.2 : 1} />
                    )}
                  </g>
                );
              })}
            {strong && (
              <Tag
                at={middle(apply(screen, a), apply(screen, b))}
                text={`${grouped(w.thickness)} ±${w.plusMinusMm.toFixed(1)}, ${sureness(w.confidence)}`}
                colour={PENCIL}
              />
            )}
          </g>
        );
      })}
      {columns.map((c) => {
        const [p, q] = [
          apply(screen, [c.x - c.width / 2, c.y + c.depth / 2]),
          apply(screen, [c.x + c.width / 2, c.y - c.depth / 2]),
        ];
        return <rect key={c.id} x={p[0]} y={p[1]} width={q[0] - p[0]} height={q[1] - p[1]} strokeDasharray="9 3" />;
      })}
    </g>
  );
}

function Figures({ screen, drawing }: { screen: Map2; drawing: string }) {
  const { readings, looked } = useInk();
  const rows = useProject((s) => s.rows);
  const map = fitMap(rows, drawing);
  const figure = readings?.of === drawing ? readings.told.figures.find((f) => f.id === looked) : undefined;
  if (!map || !figure) return null;
  const at = (p: readonly number[]) => apply(screen, apply(map, pair(p)));
  return (
    <g stroke={PLUM} strokeWidth={2} strokeDasharray="7 4" pointerEvents="none">
      <line {...ends(at(figure.a), at(figure.b))} />
      <Tag at={middle(at(figure.a), at(figure.b))} text={figure.text} colour={PLUM} dashed />
    </g>
  );
}

/** Corners where they would go; enlarged, since moves are small. */
function Moves({ screen, storey }: { screen: Map2; storey: string }) {
  const settled = useInk((s) => s.settled);
  const nodes = useProject((s) => s.rows.node);
  if (settled?.of !== storey) return null;
  const { moves, farthest } = settled.told;
  return (
    <g pointerEvents="none">
      {moves.map((m) => {
        const node = nodes.get(m.node);
        if (!node) return null;
        const from = apply(screen, [node.x, node.y]);
        const angle = Math.atan2(-(m.y - node.y), m.x - node.x);
        const reach = 8 + 2.2 * Math.min(16, m.byMm);
        const to: XY = [from[0] + reach * Math.cos(angle), from[1] + reach * Math.sin(angle)];
        const colour = m.node === farthest ? RUST : TEAL;
        return (
          <g key={m.node} stroke={colour} strokeWidth={1.8} fill="none">
            <circle cx={from[0]} cy={from[1]} r={3} />
            <line {...ends(from, to)} />
            {m.node === farthest && <Tag at={[to[0], to[1] - 16]} text={`${m.byMm.toFixed(1)} mm`} colour={RUST} />}
          </g>
        );
      })}
    </g>
  );
}
