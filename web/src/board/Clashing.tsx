import { apply, type Map2 } from "../geometry/maps";
import { wallsOf } from "../store/expected";
import { useProject } from "../store/project";
import { RUST } from "./marks";

/** Walls as own edits would have them that met somebody else's: dashed, over what is there. */
export function Clashing({ screen, storey }: { screen: Map2; storey: string | null }) {
  const clashes = useProject((s) => s.clashes);
  const rows = useProject((s) => s.rows);
  return clashes.flatMap(({ edit }) =>
    wallsOf(rows, edit)
      .filter((line) => line.wall.storey === storey)
      .map((line) => {
        const points = line.chain.map((p) => apply(screen, p).join()).join(" ");
        return (
          <polyline
            key={`${edit.id} ${line.wall.id}`}
            points={points}
            fill="none"
            stroke={RUST}
            strokeWidth={2.5}
            strokeDasharray="7 5"
            data-testid="clashing"
          />
        );
      }),
  );
}
