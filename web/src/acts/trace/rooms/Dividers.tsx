import { useDeskFields } from "../../../board/desk";
import { ends, TEAL } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import { useProject } from "../../../store/project";

/** Lines that bound rooms where there is no wall. */
export function Dividers({ screen }: { screen: Map2 }) {
  const { storey, selected } = useDeskFields("storey", "selected");
  const dividers = useProject((s) => s.rows.divider);
  return (
    <>
      {[...dividers.values()]
        .filter((d) => d.storey === storey)
        .map((d) => (
          <line
            key={d.id}
            {...ends(apply(screen, [d.x1, d.y1]), apply(screen, [d.x2, d.y2]))}
            stroke={TEAL}
            strokeWidth={selected?.id === d.id ? 4 : 1.6}
            strokeDasharray="9 4 2 4"
          />
        ))}
    </>
  );
}
