import { useDesk } from "../../../board/desk";
import { Tag } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import { middle, type XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { besideCourse, pointAlong, wallLine } from "../../../store/walls";
import { fine, written } from "../../../ui/measures";
import { sureness } from "../../../ui/numbers";
import { useFound } from "../../searches";
import { proposedCourse } from "./proposals";

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
        const course = proposedCourse(w);
        /** Places beside the centre line, so many half thicknesses to its left. */
        const beside = (from: number, to: number, s: number): XY[] =>
          besideCourse(course, from, to, (s * w.thickness) / 2).map((p) => apply(screen, p));
        const dash = w.sure ? "9 3" : "2 4";
        const strong = looked === w.id;
        return (
          <g key={w.id} strokeWidth={strong ? 2.6 : 1.5}>
            <polygon
              points={[...beside(0, course.length, 1), ...beside(0, course.length, -1).reverse()]
                .map((p) => p.join(","))
                .join(" ")}
              fill={strong ? "rgba(75, 85, 96, 0.28)" : w.sure ? "rgba(75, 85, 96, 0.12)" : "none"}
              strokeDasharray={dash}
            />
            {openings
              .filter((o) => o.wall === w.id && o.sure)
              .map((o) => {
                const [p, q] = [o.offset, o.offset + o.width];
                const jamb = (t: number) =>
                  [1.25, -1.25].flatMap((s) => beside(t, t, s).slice(0, 1)).map((at) => at.join(","));
                return (
                  <g key={o.id}>
                    <polyline points={jamb(p).join(" ")} />
                    <polyline points={jamb(q).join(" ")} />
                    {o.kind !== "opening" && (
                      <polyline
                        points={beside(p, q, 0)
                          .map((at) => at.join(","))
                          .join(" ")}
                        strokeWidth={o.kind === "door" ? 3.2 : 1}
                      />
                    )}
                  </g>
                );
              })}
            {strong && (
              <Tag
                at={apply(screen, pointAlong(course, course.length / 2))}
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
