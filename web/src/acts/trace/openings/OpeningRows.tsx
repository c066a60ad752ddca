import type { Place } from "../../../store/drawings";
import { useProject } from "../../../store/project";
import { inOrder } from "../../../store/rows";
import { written } from "../../../ui/measures";
import { SelectRow } from "../../SelectRow";
import { Some } from "../Some";

/** Doors and windows of a storey with their sizes. */
export function OpeningRows({ storey }: Place) {
  const rows = useProject((s) => s.rows);
  const here = inOrder(rows.opening.values()).filter((o) => rows.wall.get(o.wall)?.storey === storey);
  return (
    <Some of={here} words="doors and windows">
      {(opening) => (
        <SelectRow key={opening.id} type="opening" id={opening.id}>
          <span className="font-semibold">{opening.number}</span>
          <span className="text-[13px] text-quiet">
            {opening.kind} · {written(opening.width)} wide
            {opening.sill > 0 && `, sill ${written(opening.sill)}`}
          </span>
        </SelectRow>
      )}
    </Some>
  );
}
