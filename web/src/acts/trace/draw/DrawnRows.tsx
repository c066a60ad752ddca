import type { Place } from "../../../store/drawings";
import { cornersIn, dimensionLine, here } from "../../../store/drawn";
import { useProject } from "../../../store/project";
import { inOrder, type Thing } from "../../../store/rows";
import { inWords } from "../../../ui/measures";
import { count } from "../../../ui/numbers";
import { SelectRow } from "../../SelectRow";
import { Some } from "../Some";

/** What a line is called that has no name. */
export function lineName({ name, closed, line }: Thing<"drawnLine">): string {
  if (name !== "") return name;
  const corners = cornersIn(line);
  if (closed && corners.length === 2 && corners.every((c) => c.rise !== 0)) return "Circle";
  return closed ? `Shape of ${count(corners.length, "corner")}` : `Line of ${count(corners.length - 1, "part")}`;
}

/** Lines, dimensions and mouldings of the storey or side. */
export function DrawnRows(place: Place) {
  const lines = useProject((s) => s.rows.drawnLine);
  const dimensions = useProject((s) => s.rows.dimension);
  const sweeps = useProject((s) => s.rows.sweep);
  return (
    <>
      {inOrder(sweeps.values())
        .filter((s) => s.storey === place.storey)
        .map((s) => (
          <SelectRow key={s.id} type="sweep" id={s.id}>
            <span className="font-semibold">{s.name}</span>
            <span className="text-[13px] text-quiet">moulding</span>
          </SelectRow>
        ))}
      <Some of={here(lines.values(), place)} words="lines">
        {(line) => (
          <SelectRow key={line.id} type="drawnLine" id={line.id} slim>
            <span>{lineName(line)}</span>
            <span className="text-[13px] text-quiet">{line.kind}</span>
          </SelectRow>
        )}
      </Some>
      <Some of={here(dimensions.values(), place)} words="dimensions">
        {(d) => (
          <SelectRow key={d.id} type="dimension" id={d.id} slim>
            <span>Dimension</span>
            <span>{inWords(dimensionLine(d).mm)}</span>
          </SelectRow>
        )}
      </Some>
    </>
  );
}
