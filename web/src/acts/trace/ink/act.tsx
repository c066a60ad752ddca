import type { Act, Shown } from "../../../board/act";
import { areaDrag } from "../../../board/area";
import { setAct, useDesk } from "../../../board/desk";
import { ask, useProject } from "../../../store/project";
import { wallLines } from "../../../store/walls";
import { workKey } from "../../../store/work";
import { InkPanel } from "./InkPanel";
import { Proposals } from "./Proposals";
import { acceptWithin, inkPoint } from "./proposals";

/** Walls as the ink has them: one by a click, some by an area, or all that were found. */
const act: Act = {
  name: "ink",
  click: ({ pointer }) => void inkPoint(pointer),
  drag: (_at, { shiftKey }) => (shiftKey ? areaDrag((from, to, takeAway) => acceptWithin(from, to, takeAway)) : null),
  Panel: InkPanel,
  next(storey) {
    const { rows } = useProject.getState();
    const { act, drawing } = useDesk.getState();
    const kind = drawing === null ? undefined : rows.drawing.get(drawing)?.kind;
    const isSite = kind === "site" || [...rows.boundary.values()].some((b) => b.storey === storey);
    if (kind === undefined || isSite || act === "ink" || wallLines(rows, storey).length > 0) return null;
    const go = () => {
      setAct("ink");
      const isAsked = useProject.getState().work.has(workKey("find-walls", drawing ?? ""));
      if (drawing !== null && !isAsked) void ask("find-walls", drawing);
    };
    return { rank: 30, words: "Find the walls in the ink", go };
  },
};

export default act;

export const shows: readonly Shown[] = [{ in: (desk) => desk.act === "ink", Marks: Proposals }];
