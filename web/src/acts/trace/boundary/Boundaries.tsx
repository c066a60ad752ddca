import { useDesk, useDeskFields } from "../../../board/desk";
import { RUST, Tag, TEAL } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import { distance, middle, middleOfChain, type XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { inOrder, type Thing } from "../../../store/rows";
import { area, onSite } from "../../../ui/measures";
import { boundariesOf, legLines, legsOf, useBoundary, useClearances } from "./boundary";
import { legWords, useBoundaryAtHand } from "./legs";

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
      <NorthSign />
    </>
  );
}

function Outline({ boundary, screen }: { boundary: Thing<"boundary">; screen: Map2 }) {
  const answer = useBoundary(boundary);
  const legs = useProject((s) => s.rows.leg);
  const isAtHand = useDesk((s) => s.act === "boundary" || s.selected?.type === "leg");
  const openLeg = useBoundaryAtHand((s) => s.leg);
  const at = (p: readonly number[]): XY => apply(screen, [p[0] ?? 0, p[1] ?? 0]);
  const own = legsOf(legs.values(), boundary.id);
  const begin = at([boundary.x, boundary.y]);
  const lines = legLines(answer).map((line) => line.map(at));
  const end = answer?.path.at(-1);
  const gap = end && !answer?.closed && own.length > 1 ? at(end) : null;
  return (
    <g>
      <polyline
        points={lines.flatMap((line, i) => (i === 0 ? line : line.slice(1)).map((p) => p.join(","))).join(" ")}
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
      {isAtHand && answer?.closed && <Clearances boundary={boundary} at={at} />}
      {isAtHand &&
        own.map((leg, i) => {
          const line = lines[i] ?? [];
          const [p, q] = [line[0], line.at(-1)];
          if (!p || !q || distance(p, q) < 60) return null;
          return (
            <g key={leg.id}>
              {leg.id === openLeg && (
                <polyline points={line.map((c) => c.join(",")).join(" ")} fill="none" stroke={TEAL} strokeWidth={5} />
              )}
              <Tag at={middleOfChain(line)} text={`${i + 1} · ${legWords(leg)}`} colour={TEAL} />
            </g>
          );
        })}
      {answer?.closed && (
        <Tag at={[begin[0], begin[1] - 24]} text={`${boundary.name} ${area(answer.closed.areaM2)}`} colour={TEAL} />
      )}
      {gap && end && (
        <Tag
          at={middle(gap, begin)}
          text={`open by ${onSite(distance([end[0] ?? 0, end[1] ?? 0], [boundary.x, boundary.y]))}`}
          colour={RUST}
        />
      )}
    </g>
  );
}

/** From the nearest corner or face of the building to each line. */
function Clearances({ boundary, at }: { boundary: Thing<"boundary">; at: (p: readonly number[]) => XY }) {
  return useClearances(boundary).map(({ mm, building, line }) => {
    const [p, q] = [at(building), at(line)];
    return (
      <g key={`${building.join()} ${line.join()}`} stroke={mm === 0 ? RUST : "#1c2a26"}>
        <line x1={p[0]} y1={p[1]} x2={q[0]} y2={q[1]} strokeWidth={1.2} />
        <circle cx={q[0]} cy={q[1]} r={2.5} fill="#fdfcfa" />
        {distance(p, q) > 40 && <Tag at={middle(p, q)} text={onSite(mm)} colour="#1c2a26" />}
      </g>
    );
  });
}

/** Which way north is, in the corner of the board under the switch to 3D, once a boundary says it: on a storey without one, as another's has it. */
function NorthSign() {
  const { storey, size } = useDeskFields("storey", "size");
  const boundaries = useProject((s) => s.rows.boundary);
  const boundary = boundariesOf(boundaries.values(), storey)[0] ?? inOrder(boundaries.values())[0];
  const answer = useBoundary(boundary);
  if (!answer || storey === null || !boundary) return null;
  return (
    <g transform={`translate(${size.width - 34} 108)`}>
      <title>{`North, ${answer.upDegrees.toFixed(1)}° left of up`}</title>
      <g transform={`rotate(${-answer.upDegrees})`} stroke="#1c2a26" strokeWidth={1.4}>
        <line x1={0} y1={20} x2={0} y2={-20} />
        <path d="M0 -20L-7 0L0 -5Z" fill="#1c2a26" />
        <path d="M0 -20L7 0L0 -5Z" fill="#fdfcfa" />
        <text y={-25} textAnchor="middle" fontSize={13} fontWeight={700} stroke="none" fill="#1c2a26">
          N
        </text>
      </g>
    </g>
  );
}
