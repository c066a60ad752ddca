import { useDesk } from "../../../board/desk";
import { RUST, Tag, TEAL } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import { distance, middle, type XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { area, inWords } from "../../../ui/measures";
import { legsOf, useBoundary } from "./boundary";

/** Boundaries of the storey: as measured while they are open, adjusted and with their area once they close. */
export function Boundaries({ screen }: { screen: Map2 }) {
  const boundaries = useProject((s) => s.rows.boundary);
  const storey = useDesk((s) => s.storey);
  return (
    <>
      {[...boundaries.values()]
        .filter((b) => b.storey === storey)
        .map((b) => (
          <Outline key={b.id} boundary={b} screen={screen} />
        ))}
    </>
  );
}

function Outline({ boundary, screen }: { boundary: Thing<"boundary">; screen: Map2 }) {
  const answer = useBoundary(boundary);
  const legs = useProject((s) => s.rows.leg);
  const drawn = useDesk((s) => s.act === "boundary");
  const at = (p: readonly number[]): XY => apply(screen, [p[0] ?? 0, p[1] ?? 0]);
  const own = legsOf(legs.values(), boundary.id);
  const begin = at([boundary.x, boundary.y]);
  const path = (answer?.closed ? [...answer.closed.corners, answer.closed.corners[0] ?? []] : (answer?.path ?? [])).map(
    at,
  );
  const end = answer?.path.at(-1);
  const gap = end && !answer?.closed && own.length > 1 ? at(end) : null;
  const corners = answer?.closed?.corners ?? [];
  return (
    <g>
      <polyline
        points={path.map((p) => p.join(",")).join(" ")}
        fill={answer?.closed ? TEAL : "none"}
        fillOpacity={0.06}
        stroke={TEAL}
        strokeWidth={2}
        strokeDasharray={answer?.closed ? "16 5" : "5 4"}
      />
      {gap && (
        <line x1={gap[0]} y1={gap[1]} x2={begin[0]} y2={begin[1]} stroke={RUST} strokeWidth={2} strokeDasharray="2 4" />
      )}
      <path
        transform={`translate(${begin[0]} ${begin[1]})`}
        d="M-6 0L0 -6L6 0L0 6Z"
        fill="#fdfcfa"
        stroke={TEAL}
        strokeWidth={1.8}
      />
      {drawn &&
        own.map((leg, i) => {
          const [p, q] = [path[i], path[i + 1]];
          if (!p || !q || distance(p, q) < 60) return null;
          return <Tag key={leg.id} at={middle(p, q)} text={`${leg.bearing} · ${leg.length}`} colour={TEAL} />;
        })}
      {answer?.closed && (
        <Tag at={centre(corners.map(at))} text={`${boundary.name} ${area(answer.closed.areaM2)}`} colour={TEAL} />
      )}
      {gap && end && (
        <Tag
          at={middle(gap, begin)}
          text={`open by ${inWords(distance([end[0] ?? 0, end[1] ?? 0], [boundary.x, boundary.y]))}`}
          colour={RUST}
        />
      )}
    </g>
  );
}

function centre(points: readonly XY[]): XY {
  const n = Math.max(1, points.length);
  return [points.reduce((sum, p) => sum + p[0], 0) / n, points.reduce((sum, p) => sum + p[1], 0) / n];
}
