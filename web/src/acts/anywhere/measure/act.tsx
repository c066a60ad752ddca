import type { Act } from "../../../board/act";
import { drafted, useDesk } from "../../../board/desk";
import { HOLD_RAD, held } from "../../../board/held";
import { areaWithPlusMinus, withPlusMinus } from "../../../board/withPlusMinus";
import { distance, middle, ringArea, turnBetween, type XY } from "../../../geometry/plane";
import { inWords } from "../../../ui/measures";

declare module "../../../board/desk" {
  interface Drafts {
    /** points between which is measured, and whether they end there or close a ring */
    measure: { points: readonly XY[]; ends?: "open" | "closed" };
  }
}

const INK = "#1c2a26";
/** A click this near to a point of the line is one on it, px. */
const SAME_PX = 7;

/** Measures anything: lengths that stay on the board until the next, angles between them, the area of a ring. Nothing of it is saved. */
const act: Act = {
  name: "measure",
  click({ pointer, snap }) {
    const { points, ends } = drafted("measure") ?? { points: [] };
    const at = snap?.at ?? pointer;
    const isOn = (p: XY | undefined) => p !== undefined && distance(p, at) < SAME_PX / useDesk.getState().view.k;
    if (ends) return useDesk.setState({ draft: { of: "measure", points: [at] } });
    if (points.length > 2 && isOn(points[0])) {
      return useDesk.setState({ draft: { of: "measure", points, ends: "closed" } });
    }
    if (points.length > 1 && isOn(points.at(-1))) {
      return useDesk.setState({ draft: { of: "measure", points, ends: "open" } });
    }
    useDesk.setState({ draft: { of: "measure", points: [...points, at] } });
  },
  snap(pointer, _reach, free) {
    const { points, ends } = drafted("measure") ?? { points: [] };
    const last = points.at(-1);
    return last && !ends && useDesk.getState().holdSquare && !free ? held(last, pointer, HOLD_RAD / 2) : null;
  },
  words(tip) {
    const { points, ends } = drafted("measure") ?? { points: [] };
    const last = points.at(-1);
    if (!last || ends) return [];
    const mm = distance(last, tip);
    const before = points.at(-2);
    const total = along(points) + mm;
    return [
      withPlusMinus(mm),
      ...(before ? [`${turnBetween(before, last, tip).toFixed(1)}° at the corner`, `${inWords(total)} in all`] : []),
    ];
  },
  draws(pen) {
    const { points, ends } = drafted("measure") ?? { points: [] };
    if (points.length === 0) return;
    const { snap, pointer } = useDesk.getState();
    const tip = ends ? (ends === "closed" ? points[0] : undefined) : (snap?.at ?? pointer);
    const line = [...points, ...(tip ? [tip] : [])];
    if (line.length < 2) return;
    pen.path(
      line.map((p) => pen.at(p)),
      { colour: INK, width: 1.6, dash: [1, 3], round: true },
    );
    const measured = ends === "closed" ? line : points;
    for (const [i, b] of measured.entries()) {
      const a = measured[i - 1];
      if (a) pen.tag(middle(pen.at(a), pen.at(b)), withPlusMinus(distance(a, b)), INK);
    }
    if (ends === "closed") {
      const n = points.length;
      const centre: XY = [points.reduce((s, p) => s + p[0], 0) / n, points.reduce((s, p) => s + p[1], 0) / n];
      pen.tag(pen.at(centre), areaWithPlusMinus(Math.abs(ringArea(points)) / 1e6), INK);
    } else if (ends && points.length > 2) {
      const [x, y] = pen.at(points.at(-1) ?? [0, 0]);
      pen.tag([x, y + 24], `${inWords(along(points))} in all`, INK);
    }
  },
};

function along(points: readonly XY[]): number {
  return points.reduce((sum, p, i) => sum + (i > 0 ? distance(points[i - 1] ?? p, p) : 0), 0);
}

export default act;
