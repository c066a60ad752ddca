import type { Act, Shown } from "../../../board/act";
import { useDesk } from "../../../board/desk";
import { TEAL } from "../../../board/marks";
import { useProject } from "../../../store/project";
import { isTracing } from "../../isTracing";
import { removeRow } from "../removing";
import { ObjectOptions, ObjectRows, SelectedObject } from "./ObjectPanel";
import { Objects } from "./Objects";
import { objectAt, objectDrag, onObject, putObject, QUARTER, turnedBy, useNextObject } from "./objects";

/** Things of true size that stand in rooms. */
const act: Act = {
  name: "objects",
  click: ({ pointer }) => void putObject(pointer),
  key(e) {
    if (e.key !== " ") return false;
    useNextObject.setState(({ degrees }) => ({ degrees: turnedBy(degrees, QUARTER) }));
    return true;
  },
  words: () => ["click puts it down", "Space: a quarter turn"],
  draws(pen) {
    const { pointer } = useDesk.getState();
    const { size, degrees } = useNextObject.getState();
    if (!pointer) return;
    const [w, d] = [size.width / 2, size.depth / 2];
    const at = { x: pointer[0], y: pointer[1], degrees };
    const corner = (u: number, v: number) => pen.at(onObject(at, [u, v]));
    const ring = [corner(-w, -d), corner(w, -d), corner(w, d), corner(-w, d), corner(-w, -d)];
    pen.path(ring, { colour: TEAL, width: 1.4, dash: [5, 3] });
    pen.path([corner(-w / 4, -d), corner(w / 4, -d)], { colour: TEAL, width: 3 });
  },
  Panel: ObjectOptions,
  Rows: { of: ObjectRows, rank: 55 },
  selects: {
    object: {
      Panel: SelectedObject,
      remove: (id) => removeRow("object", id, `Remove a ${useProject.getState().rows.object.get(id)?.kind ?? "thing"}`),
      hit: { rank: 30, at: objectAt },
      handles: (id) => {
        const o = useProject.getState().rows.object.get(id);
        return o ? [[o.x, o.y]] : [];
      },
      drag: objectDrag,
    },
  },
};

export default act;

export const shows: readonly Shown[] = [{ in: isTracing, Marks: Objects }];
