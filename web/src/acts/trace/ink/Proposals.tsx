import { useDesk } from "../../../board/desk";
import { ends, Tag } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import { middle, type XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { pointAlong, wallLine } from "../../../store/walls";
import { fine, written } from "../../../ui/measures";
import { sureness } from "../../../ui/numbers";
import { pair, useFound } from "../../searches";

const PENCIL = "#4b5560";

/** Proposed walls as pencil lines, with their openings and columns, and openings in traced walls. */
export function Proposals({ screen }: { screen: Map2 }) {
  const drawing = useDesk((s) => s.drawing);
  const { proposals, looked } = useFound();
  const rows = useProject((s) => s.rows);
  if (!proposals || proposals.of !== drawing) return null;
  const { walls, openings, inTraced, columns } = proposals.told;
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
                text={`${written(w.thickness)} ±${fine(w.plusMinusMm, 1)}, ${sureness(w.confidence)}`}
                colour={PENCIL}
              />
            )}
          </g>
        );
      })}
      {inTraced.map((o) => {
        const line = wallLine(rows, o.wall);
        if (!line) return null;
        const [p, q] = [pointAlong(line, o.offset), pointAlong(line, o.offset + o.width)];
        const [nx, ny] = [
          (-(q[1] - p[1]) / o.width) * line.wall.thickness * 0.7,
          ((q[0] - p[0]) / o.width) * line.wall.thickness * 0.7,
        ];
        const at = (of: XY, s: number): XY => apply(screen, [of[0] + s * nx, of[1] + s * ny]);
        const strong = looked === o.id;
        return (
          <g key={o.id} strokeWidth={strong ? 2.6 : 1.5} data-in-traced={o.id}>
            <polygon
              points={[at(p, 1), at(q, 1), at(q, -1), at(p, -1)].map((c) => c.join(",")).join(" ")}
              fill={strong ? "rgba(253, 252, 250, 0.9)" : "rgba(253, 252, 250, 0.7)"}
              strokeDasharray="9 3"
            />
            {strong && (
              <Tag
                at={middle(apply(screen, p), apply(screen, q))}
                text={`${o.kind} ${written(o.width)}, ${sureness(o.confidence)}`}
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
