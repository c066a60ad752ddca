import type { Act, Shown } from "../../../board/act";
import { useDesk } from "../../../board/desk";
import { PLUM } from "../../../board/marks";
import { pick, picksNow } from "../../../board/picking";
import { exactSnap } from "../../../board/snap";
import { apply } from "../../../geometry/maps";
import { fitMap } from "../../../store/drawings";
import { useProject } from "../../../store/project";
import { isTracing } from "../../isTracing";
import { LevelRows } from "./LevelRows";
import { Levels } from "./Levels";
import { stateLevel } from "./levels";

const placeOf = () => {
  const map = fitMap(useProject.getState().rows, useDesk.getState().drawing);
  const [p] = picksNow();
  return map && p ? apply(map, p.at) : null;
};

/** Heights on all sides count from one level. */
const isZeroStated = () => [...useProject.getState().rows.levelMark.values()].some((m) => m.text !== "");

/** Heights on a side: what lies there, and its level where that is known. */
const act: Act = {
  name: "levels",
  wanted: () => 1,
  wantsLevel: true,
  click: (click) => pick(click, { wanted: 1, text: isZeroStated() ? "" : "finished floor 0" }),
  snap: exactSnap,
  slip() {
    const at = placeOf();
    const hint = "finished floor 0, sill, head, eaves, ridge; a figure states its height.";
    return at && { at, label: "level", hint, send: stateLevel };
  },
  draws(pen) {
    const at = placeOf();
    if (at) pen.ends([pen.at(at)], 0, PLUM);
  },
  Rows: { of: LevelRows, rank: 10 },
};

export default act;

export const shows: readonly Shown[] = [{ in: isTracing, Marks: Levels }];
