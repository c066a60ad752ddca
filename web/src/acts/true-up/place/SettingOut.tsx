import { useDeskFields } from "../../../board/desk";
import { TEAL } from "../../../board/marks";
import { apply, inverse, type Map2 } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";

/** Axes of the setting-out grid over the whole board with their labels, and the columns of the storey. */
export function SettingOut({ screen }: { screen: Map2 }) {
  const { gridAxis, column } = useProject((s) => s.rows);
  const { storey, size, selected } = useDeskFields("storey", "size", "selected");
  if (storey === null || (gridAxis.size === 0 && column.size === 0)) return null;
  const [x1, y1] = apply(inverse(screen), [0, 0]);
  const [x2, y2] = apply(inverse(screen), [size.width, size.height]);
  return (
    <g>
      {[...gridAxis.values()].map((axis) => {
        const [p, q]: [XY, XY] =
          axis.along === "x"
            ? [apply(screen, [axis.at, y1]), apply(screen, [axis.at, y2])]
            : [apply(screen, [x1, axis.at]), apply(screen, [x2, axis.at])];
        const at: XY = axis.along === "x" ? [p[0], 16] : [18, p[1]];
        return (
          <g key={axis.id}>
            <line
              x1={p[0]}
              y1={p[1]}
              x2={q[0]}
              y2={q[1]}
              stroke={TEAL}
              strokeWidth={1}
              strokeDasharray="14 4 3 4"
              opacity={0.7}
            />
            <path
              transform={`translate(${at[0]} ${at[1]})`}
              d="M-12 -10H12L16 0L12 10H-12L-16 0Z"
              fill="#faf8f3"
              stroke={TEAL}
            />
            <text x={at[0]} y={at[1] + 4.5} textAnchor="middle" fontSize="12" fontWeight="700" fill={TEAL}>
              {axis.label}
            </text>
          </g>
        );
      })}
      {[...column.values()]
        .filter((c) => c.storey === storey)
        .map((c) => {
          const [x, y] = apply(screen, [c.x, c.y]);
          const [w, h] = [c.width * Math.abs(screen[0]), c.depth * Math.abs(screen[4])];
          const look = { fill: TEAL, fillOpacity: 0.34, stroke: TEAL, strokeWidth: selected?.id === c.id ? 3 : 1.4 };
          return c.round ? (
            <ellipse key={c.id} cx={x} cy={y} rx={w / 2} ry={h / 2} {...look} />
          ) : (
            <rect key={c.id} x={x - w / 2} y={y - h / 2} width={w} height={h} {...look} />
          );
        })}
    </g>
  );
}
