import { useDeskFields } from "../board/desk";
import { TEAL } from "../board/marks";
import { apply, type Map2 } from "../geometry/maps";
import { distance, type XY } from "../geometry/plane";
import { useStairs } from "./useStairs";

/** Numbers stand on treads that are drawn so large, px. */
const NUMBER_PX = 14;

/** Which way one place lies from another, as long as one. */
function unit(from: XY | undefined, to: XY | undefined): XY {
  if (!from || !to) return [1, 0];
  const length = Math.max(1e-9, distance(from, to));
  return [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
}

/** Stairs as a plan shows them: dashed over the cut, an arrow upwards; those that arrive from below through the open floor. */
export function Stairs({ screen }: { screen: Map2 }) {
  const { storey, selected, view } = useDeskFields("storey", "selected", "view");
  const { stairs } = useStairs(storey);
  const at = ([x = 0, y = 0]: readonly number[]) => apply(screen, [x, y]);
  const line = (points: readonly (readonly number[])[]) => points.map((p) => at(p).join(",")).join(" ");
  return (
    <>
      {stairs.map((s) => {
        const width = selected?.id === s.id ? 2 : 1;
        const way = s.way.map(at);
        const [tip, before] = [way.at(-1), way.at(-2)];
        const foot = way[0];
        const turn = tip && before ? (Math.atan2(tip[1] - before[1], tip[0] - before[0]) * 180) / Math.PI : 0;
        // Its words stand before the end at which one comes to it: the foot below, the head above.
        const end = s.goesUp ? foot : tip;
        const ahead = s.goesUp ? unit(foot, way[1]) : unit(tip, before);
        const isLarge = s.goingMm * view.k > NUMBER_PX;
        return (
          <g key={`${s.id}${s.goesUp}`} stroke={TEAL} fill="none" strokeWidth={width}>
            {s.goesUp &&
              s.rings.map((ring, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: treads have no other name
                <polygon key={i} points={line(ring)} fill="#fdfcfa" fillOpacity={0.75} stroke="none" />
              ))}
            {s.seen.map((l) => (
              <polyline key={`s${l}`} points={line(l)} />
            ))}
            {s.beyond.map((l) => (
              <polyline key={`b${l}`} points={line(l)} strokeDasharray="5 4" />
            ))}
            {s.cut && <polyline points={line(s.cut)} strokeWidth={width + 1} />}
            <polyline points={way.map((p) => p.join(",")).join(" ")} strokeWidth={0.8} />
            {tip && (
              <path
                d="M0 0 L-9 -3.5 L-9 3.5 Z"
                transform={`translate(${tip}) rotate(${turn})`}
                fill={TEAL}
                stroke="none"
              />
            )}
            {foot && <circle cx={foot[0]} cy={foot[1]} r={2.5} fill={TEAL} stroke="none" />}
            {end && (
              <text
                x={end[0] - 8 * ahead[0]}
                y={end[1] - 8 * ahead[1] + 4}
                textAnchor={ahead[0] > 0.5 ? "end" : ahead[0] < -0.5 ? "start" : "middle"}
                className="fill-teal text-[11px] font-semibold"
                stroke="none"
              >
                {s.words}
              </text>
            )}
            {isLarge &&
              s.goesUp &&
              s.numbers.map((n) => {
                const [x, y] = at(n.at);
                return (
                  <text
                    key={n.number}
                    x={x}
                    y={y - 3}
                    className="fill-teal text-[10px]"
                    stroke="none"
                    textAnchor="middle"
                  >
                    {n.number}
                  </text>
                );
              })}
          </g>
        );
      })}
    </>
  );
}
