import { useDesk } from "../../../board/desk";
import { ends, OCHRE, Tag } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { PlacesSeen } from "../../PlacesSeen";
import { notesHere, noteWords } from "./notes";

/** Words on the board, those that are assumed in ochre. */
export function Notes({ screen }: { screen: Map2 }) {
  const selected = useDesk((s) => s.selected);
  const notes = useProject((s) => s.rows.note);
  return (
    <PlacesSeen
      screen={screen}
      of={(place, shown) =>
        notesHere(notes.values(), place).map((n) => {
          const at = apply(shown, [n.x, n.y]);
          const colour = n.assumption ? OCHRE : "#1c2a26";
          return (
            <g key={n.id} stroke={colour}>
              {n.toX !== null && n.toY !== null && <Arrow from={at} to={apply(shown, [n.toX, n.toY])} />}
              <Tag at={at} text={noteWords(n)} colour={colour} dashed={selected?.id === n.id} />
            </g>
          );
        })
      }
    />
  );
}

function Arrow({ from, to }: { from: XY; to: XY }) {
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const barb = (turn: number) => `${to[0] - 11 * Math.cos(angle + turn)},${to[1] - 11 * Math.sin(angle + turn)}`;
  return (
    <>
      <line {...ends(from, to)} strokeWidth={1.4} />
      <polyline points={`${barb(0.42)} ${to.join(",")} ${barb(-0.42)}`} fill="none" strokeWidth={1.4} />
    </>
  );
}
