import type { Act, Shown } from "../../../board/act";
import { setAct, useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { Boundaries } from "./Boundaries";
import { BoundaryPanel, SelectedLeg } from "./BoundaryPanel";
import { legAt, legPoints } from "./boundary";
import { boundaryPoint } from "./tracing";

/** A site, leg by leg as its bearings and lengths are written. */
const act: Act = {
  name: "boundary",
  click: ({ pointer, snap }) => void boundaryPoint(snap?.at ?? pointer),
  Panel: BoundaryPanel,
  selects: { leg: { Panel: SelectedLeg, hit: { rank: 60, at: legAt } } },
  next(storey) {
    const { rows } = useProject.getState();
    const { act, drawing } = useDesk.getState();
    const isSite = drawing !== null && rows.drawing.get(drawing)?.kind === "site";
    const isBegun = act === "boundary" || [...rows.boundary.values()].some((b) => b.storey === storey);
    const words = "Follow the boundary, leg by leg as it is written";
    return isSite && !isBegun ? { rank: 30, words, go: () => setAct("boundary") } : null;
  },
};

export default act;

export const shows: readonly Shown[] = [{ in: () => true, Marks: Boundaries, points: legPoints }];
