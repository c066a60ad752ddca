import type { ReactNode } from "react";
import { useDeskFields } from "../board/desk";
import { apply, composed, type Map2 } from "../geometry/maps";
import type { Place } from "../store/drawings";
import { useProject } from "../store/project";
import { streetParts } from "../store/street";

/** What is drawn of the storey or side at hand, and in a row of sides what is drawn of each, where it stands and as far as it goes. */
export function PlacesSeen({ screen, of }: { screen: Map2; of: (place: Place, screen: Map2) => ReactNode }) {
  const { storey, side } = useDeskFields("storey", "side");
  const parts = useProject((s) => streetParts(s.rows, side));
  return (
    <>
      {parts.map(({ part, left, right, by }) => {
        const [x1] = apply(screen, [left, 0]);
        const [x2] = apply(screen, [right, 0]);
        return (
          <g key={part.id} clipPath={`url(#part-${part.id})`}>
            <clipPath id={`part-${part.id}`}>
              <rect x={x1} y={-20_000} width={Math.max(0, x2 - x1)} height={40_000} />
            </clipPath>
            {of({ storey: null, side: part.side }, composed(screen, [1, 0, by[0], 0, 1, by[1]]))}
          </g>
        );
      })}
      {of({ storey, side }, screen)}
    </>
  );
}
