import { useDeskFields } from "../../../board/desk";
import { TEAL } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import { useProject } from "../../../store/project";
import { dividerChain } from "./dividers";

/** Lines that bound rooms where there is no wall. */
export function Dividers({ screen }: { screen: Map2 }) {
  const { storey, selected } = useDeskFields("storey", "selected");
  const dividers = useProject((s) => s.rows.divider);
  return (
    <>
      {[...dividers.values()]
        .filter((d) => d.storey === storey)
        .map((d) => (
          <polyline
            key={d.id}
            points={dividerChain(d)
              .map((p) => apply(screen, p).join(","))
              .join(" ")}
            fill="none"
            stroke={TEAL}
            strokeWidth={selected?.id === d.id ? 4 : 1.6}
            strokeDasharray="9 4 2 4"
          />
        ))}
    </>
  );
}
