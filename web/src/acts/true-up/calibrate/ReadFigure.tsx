import { useDesk } from "../../../board/desk";
import { ends, PLUM, Tag } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import { middle } from "../../../geometry/plane";
import { fitMap } from "../../../store/drawings";
import { useProject } from "../../../store/project";
import { pair, useFound } from "../../searches";

/** The figure that is looked at in the ledger, on the drawing. */
export function ReadFigure({ screen }: { screen: Map2 }) {
  const drawing = useDesk((s) => s.drawing);
  const { readings, looked } = useFound();
  const rows = useProject((s) => s.rows);
  const map = fitMap(rows, drawing);
  const figure = readings?.of === drawing ? readings.told.figures.find((f) => f.id === looked) : undefined;
  if (!map || !figure) return null;
  const at = (p: readonly number[]) => apply(screen, apply(map, pair(p)));
  return (
    <g stroke={PLUM} strokeWidth={2} strokeDasharray="7 4" pointerEvents="none">
      <line {...ends(at(figure.a), at(figure.b))} />
      <Tag at={middle(at(figure.a), at(figure.b))} text={figure.text} colour={PLUM} dashed />
    </g>
  );
}
