import type { Operation } from "../../api/client";
import { newId } from "../../api/ids";
import { type Picked, useDesk } from "../../board/desk";
import type { XY } from "../../geometry/plane";
import { useProject } from "../../store/project";
import { addPick, removal, sendStatement } from "../statements";

/** By how much a line at an angle must turn to run in a direction, whichever way round is nearer. */
export function turnTo(angle: number, direction: number): number {
  return -(((((angle - direction + 90) % 180) + 180) % 180) - 90);
}

/**
 * The drawing's x direction on its page is known without picks, from the ink or as typed: stated as a line through its middle.
 *
 * @param degrees of the drawing's x axis on the page, counter-clockwise as seen
 */
export function squareBy(degrees: number, sigmaDegrees: number, hand: "ink" | "typed"): Promise<void> {
  const { drawing } = useDesk.getState();
  const row = drawing === null ? undefined : useProject.getState().rows.drawing.get(drawing);
  if (drawing === null || !row) return Promise.resolve();
  const half = Math.min(row.width, row.height) / 2;
  const [cx, cy] = [row.left + row.width / 2, row.top + row.height / 2];
  const rad = (degrees * Math.PI) / 180;
  const [dx, dy] = [half * Math.cos(rad), -half * Math.sin(rad)];
  // Two ends that scatter by s turn the line between them by √2 s over its length.
  const sigmaPx = Math.max(0.001, (sigmaDegrees * Math.PI * half * Math.SQRT2) / 180);
  const end = (at: XY): Picked => ({ at, sigmaPx, words: "", thicknessPx: null });
  const [idA, idB] = [newId(), newId()];
  return sendStatement(hand === "ink" ? "Square by the ink" : "Turn the drawing", [
    ...ofHands([hand], row.id),
    addPick(idA, drawing, end([cx - dx, cy - dy])),
    addPick(idB, drawing, end([cx + dx, cy + dy])),
    { do: "add", type: "gridPick", id: newId(), values: { drawing, a: idA, b: idB, axis: "x", bearing: null, hand } },
  ]);
}

/** A photograph is straightened by its own lines: those that converge say how it leans. One length then gives its size. */
export function straightenByInk(): Promise<void> {
  const { drawing } = useDesk.getState();
  if (drawing === null) return Promise.resolve();
  return sendStatement("Straighten by its lines", [{ do: "straighten", straighten: { drawing } }]);
}

/** What its lines said of its slant is taken back with the straightening. */
export function leaveAsTaken(drawing: string): Promise<void> {
  const values = { model: "similar" as const, ownFactor: null };
  // One line of the ink squares a drawing, several straighten a photograph.
  const several = [...useProject.getState().rows.gridPick.values()].filter(
    (g) => g.drawing === drawing && g.hand === "ink",
  );
  return sendStatement("True proportions", [
    ...(several.length > 1 ? ofHands(["ink"], drawing) : []),
    { do: "set", type: "drawing", id: drawing, values },
  ]);
}

/** Operations that take back what an earlier one of the same kind stated. */
function ofHands(hands: readonly string[], drawing: string): Operation[] {
  return [...useProject.getState().rows.gridPick.values()]
    .filter((g) => g.drawing === drawing && hands.includes(g.hand))
    .flatMap((g) => removal("gridPick", g.id, [g.a, g.b]));
}
