import type { Act, Shown } from "../../../board/act";
import { drafted, useDesk } from "../../../board/desk";
import { TEAL } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { streetParts } from "../../../store/street";
import { drawnSnap } from "../../drawnSnap";
import { isTracing } from "../../isTracing";
import { StreetPanel } from "./StreetPanel";
import { partsNow, rowPoint } from "./street";

/** Sides and photographs in a row, joined at shared corners, with their heights at one zero. */
const act: Act = {
  name: "street",
  click: ({ pointer, free }) => void rowPoint(pointer, free),
  snap: (pointer, reach, free) => (drafted("row") ? drawnSnap(pointer, reach, free) : null),
  words() {
    const row = drafted("row");
    if (!row) return [];
    if (row.asks === "corners") return [row.first ? "and its right one" : "click its left corner"];
    return [row.first ? "and one as high of its neighbour" : "click a place of this side"];
  },
  draws(pen) {
    const { snap, pointer } = useDesk.getState();
    const first = drafted("row")?.first;
    const tip = snap?.at ?? pointer;
    if (first && tip) pen.path([pen.at(first), pen.at(tip)], { colour: TEAL, width: 1.6, dash: [6, 3] });
    if (first) pen.ring(pen.at(first), 3.5, { colour: TEAL, width: 1.6, fill: "#fdfcfa" });
  },
  Panel: StreetPanel,
};

export default act;

export const shows: readonly Shown[] = [
  { in: (desk) => desk.side !== null && isTracing(desk), Marks: Corners, points: streetCorners },
];

/** As far as the row goes, and as high as a house. */
function streetCorners(): XY[] {
  const parts = partsNow();
  const [low, high] = [Math.min(0, ...parts.map((p) => p.by[1])), Math.max(0, ...parts.map((p) => p.by[1]))];
  return parts.length === 0
    ? []
    : [
        [0, low - 500],
        [parts.at(-1)?.right ?? 0, high + 6000],
      ];
}

/** Shared corners, and the names of the sides between them. */
function Corners({ screen }: { screen: Map2 }) {
  const side = useDesk((s) => s.side);
  const parts = useProject((s) => streetParts(s.rows, side));
  const sides = useProject((s) => s.rows.side);
  if (parts.length === 0) return null;
  const edges = [0, ...parts.map((p) => p.right)];
  return (
    <g stroke={TEAL} strokeWidth={1}>
      {edges.map((mm) => {
        const [x] = apply(screen, [mm, 0]);
        return <line key={mm} x1={x} x2={x} y1={-4000} y2={8000} strokeDasharray="2 5" />;
      })}
      {parts.map(({ part, left, right }) => {
        const [x, y] = apply(screen, [(left + right) / 2, Math.min(0, part.rise)]);
        return (
          <text
            key={part.id}
            x={x}
            y={y + 40}
            textAnchor="middle"
            fontSize="12"
            fontWeight="600"
            fill={TEAL}
            stroke="none"
          >
            {sides.get(part.side)?.name}
          </text>
        );
      })}
    </g>
  );
}
