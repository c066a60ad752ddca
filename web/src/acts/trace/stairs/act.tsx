import type { Act, Shown } from "../../../board/act";
import { useDesk } from "../../../board/desk";
import { drawTraced } from "../../../board/traced";
import { distance } from "../../../geometry/plane";
import { inWords } from "../../../ui/measures";
import { isTracing } from "../../isTracing";
import { Stairs } from "../../Stairs";
import { removeRow } from "../removing";
import { SelectedStair, StairOptions, StairRows } from "./StairPanel";
import { endStair, inBox, linePoints, pointsNow, stairAt, stairDrag, stairPoint, useNextStair } from "./stairs";

/** Stairs that go up from a storey: along a line, round a bend, or riser by riser as they are drawn. */
const act: Act = {
  name: "stairs",
  wanted: () => 1,
  click: (click) => void stairPoint(click),
  key(e) {
    if (e.key !== "Enter" || pointsNow().length < 2) return false;
    void endStair();
    return true;
  },
  words(to) {
    const points = pointsNow();
    const last = points.at(-1);
    const { way } = useNextStair.getState();
    if (way === "risers")
      return [points.length % 2 === 0 ? `riser ${points.length / 2 + 1}, one end` : "its other end"];
    if (way === "box" && !last) return ["the corner at which it begins"];
    return last ? [inWords(distance(last, to))] : ["the first riser's middle"];
  },
  draws(pen) {
    const { snap, pointer } = useDesk.getState();
    const points = pointsNow();
    const tip = snap?.at ?? pointer;
    const all = [...points, ...(tip ? [tip] : [])];
    const { way, width } = useNextStair.getState();
    const [from, to] = all;
    if (way === "box" && from && to) return drawTraced(pen, inBox(from, to, width).line, points);
    if (way !== "risers") return drawTraced(pen, all, points);
    for (let i = 0; i < points.length; i += 2) drawTraced(pen, all.slice(i, i + 2), points.slice(i, i + 2));
  },
  Panel: StairOptions,
  Rows: { of: StairRows, rank: 50 },
  selects: {
    stair: {
      Panel: SelectedStair,
      remove: (id) => removeRow("stair", id, "Remove a stair"),
      hit: { rank: 40, at: stairAt },
      handles: linePoints,
      drag: stairDrag,
    },
  },
};

export default act;

export const shows: readonly Shown[] = [{ in: isTracing, Marks: Stairs }];
