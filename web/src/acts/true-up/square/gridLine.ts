import { newId } from "../../../api/ids";
import { useDesk } from "../../../board/desk";
import { allFound, picksNow } from "../../../board/picking";
import { apply } from "../../../geometry/maps";
import { distance } from "../../../geometry/plane";
import { fitMap } from "../../../store/drawings";
import { useProject } from "../../../store/project";
import { addPick, sendStatement } from "../../statements";
import { turnTo } from "../squaring";

export async function setGridLine(by: { axis: "x" | "y" } | { bearing: number }): Promise<void> {
  await allFound();
  const { drawing } = useDesk.getState();
  const [a, b] = picksNow();
  if (drawing === null || !a || !b) return;
  const [idA, idB] = [newId(), newId()];
  const bearing = "bearing" in by ? by.bearing : null;
  const axis = "axis" in by ? by.axis : (gridTurn()?.axis ?? "x");
  await sendStatement("Grid line", [
    addPick(idA, drawing, a),
    addPick(idB, drawing, b),
    { do: "add", type: "gridPick", id: newId(), values: { drawing, a: idA, b: idB, axis, bearing, hand: "picked" } },
  ]);
}

/** Which way the picked line runs and by how much the picture will turn, counter-clockwise positive. */
export function gridTurn(): { axis: "x" | "y"; degrees: number } | null {
  const { drawing } = useDesk.getState();
  const map = fitMap(useProject.getState().rows, drawing);
  const [a, b] = picksNow();
  if (!map || !a || !b || distance(a.at, b.at) === 0) return null;
  const [p, q] = [apply(map, a.at), apply(map, b.at)];
  const angle = (Math.atan2(q[1] - p[1], q[0] - p[0]) * 180) / Math.PI;
  const axis = Math.abs((((angle % 180) + 180) % 180) - 90) < 45 ? "y" : "x";
  return { axis, degrees: turnTo(angle, axis === "y" ? 90 : 0) };
}
