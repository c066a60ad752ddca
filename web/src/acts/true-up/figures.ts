import type { Operation } from "../../api/client";
import { newId } from "../../api/ids";
import { useDesk } from "../../board/desk";
import { projectUnit } from "../../store/lengths";
import { say, useProject } from "../../store/project";
import { look, type ReadFigure } from "../searches";
import { sendStatement } from "../statements";

/** A figure that was read becomes a known length, or a check length. */
export async function takeFigure(figure: ReadFigure, heldOut: boolean): Promise<void> {
  const { drawing } = useDesk.getState();
  if (drawing === null) return;
  await sendStatement(heldOut ? "Check length" : "Known length", asLength(drawing, figure, heldOut));
  await look("readings", drawing);
}

/** What the drawing says of its scale becomes its stated scale. */
export async function takeScale(drawing: string, statedScale: number | null): Promise<void> {
  await sendStatement("Stated scale", [{ do: "set", type: "drawing", id: drawing, values: { statedScale } }]);
}

/** The drawing is sized by its own figures in one act, which undo takes back as one; what disagrees with the rest is named. */
export async function sizeByFigures(): Promise<void> {
  const { drawing } = useDesk.getState();
  if (drawing === null) return;
  const known = new Set(useProject.getState().rows.knownLength.keys());
  await sendStatement("Sized by its own figures", [{ do: "size", size: { drawing } }]);
  await look("readings", drawing);
  const out = [...useProject.getState().rows.knownLength.values()]
    .filter((l) => !known.has(l.id) && l.drawing === drawing && l.heldOut)
    .map((l) => l.text);
  if (out.length > 0)
    say(`${out.join(" and ")} ${out.length > 1 ? "disagree" : "disagrees"} with the others: held out, as a check.`);
}

function asLength(drawing: string, figure: ReadFigure, heldOut: boolean): Operation[] {
  const [a, b] = [newId(), newId()];
  const pick = (id: string, [x = 0, y = 0]: readonly number[]): Operation => ({
    do: "add",
    type: "pick",
    id,
    values: { drawing, x, y, sigmaPx: figure.sigmaPx },
  });
  return [
    pick(a, figure.a),
    pick(b, figure.b),
    {
      do: "add",
      type: "knownLength",
      id: newId(),
      values: {
        drawing,
        a,
        b,
        c: null,
        text: figure.typed,
        unit: projectUnit(),
        standing: figure.standing,
        ends: "outer face",
        picked: "outer face",
        along: "straight",
        heldOut,
        wholePage: false,
      },
    },
  ];
}
