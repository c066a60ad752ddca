import { useDesk } from "../../../board/desk";
import { ends, RUST, Tag, TEAL } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { fineInWords } from "../../../ui/measures";
import { useSettling } from "./settling";

/** Corners where they would go; enlarged, since moves are small. */
export function Moves({ screen }: { screen: Map2 }) {
  const storey = useDesk((s) => s.storey);
  const settled = useSettling();
  const nodes = useProject((s) => s.rows.node);
  if (settled.of === null || settled.of !== storey) return null;
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
            {m.node === farthest && <Tag at={[to[0], to[1] - 16]} text={fineInWords(m.byMm, 1)} colour={RUST} />}
          </g>
        );
      })}
    </g>
  );
}
