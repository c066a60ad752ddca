import { useDesk } from "../../../board/desk";
import { ends, RUST, Tag, TEAL } from "../../../board/marks";
import { tagWidth } from "../../../board/tags";
import { apply, type Map2 } from "../../../geometry/maps";
import { middle } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { count } from "../../../ui/numbers";
import { sidesOf } from "../heldSides";

/** Which sides of a photograph are held by what is stated, on the photograph. */
export function HeldSides({ screen }: { screen: Map2 }) {
  const drawing = useDesk((s) => s.drawing);
  const size = useDesk((s) => s.size);
  const rows = useProject((s) => s.rows);
  if (drawing === null || rows.drawing.get(drawing)?.model !== "perspective") return null;
  return (
    <g data-testid="held-sides">
      {sidesOf(rows, drawing).map(({ name, ends: [a, b], heldBy }) => {
        const [p, q] = [apply(screen, a), apply(screen, b)];
        const text = heldBy > 0 ? `held by ${count(heldBy, "line")}` : "nothing holds this side";
        const [x, y] = middle(p, q);
        // Words stay on the board where the side itself reaches beyond it.
        const room = tagWidth(text) / 2 + 6;
        const at = [
          Math.max(room, Math.min(size.width - room, x)),
          Math.max(20, Math.min(size.height - 60, y)),
        ] as const;
        const colour = heldBy > 0 ? TEAL : RUST;
        return (
          <g key={name} stroke={colour} strokeWidth={heldBy > 0 ? 3 : 2} strokeDasharray={heldBy > 0 ? "none" : "3 6"}>
            <line {...ends(p, q)} />
            <Tag at={at} text={text} colour={colour} />
          </g>
        );
      })}
    </g>
  );
}
