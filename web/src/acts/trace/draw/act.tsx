import type { Act, Shown } from "../../../board/act";
import { drafted, useDesk } from "../../../board/desk";
import { drawTraced } from "../../../board/traced";
import { distance, type XY } from "../../../geometry/plane";
import { dimensionLine, stretchesOf } from "../../../store/drawn";
import { arcChain, riseThrough } from "../../../store/walls";
import { inWords, written } from "../../../ui/measures";
import { removeThings } from "../../arranging";
import { isTracing } from "../../isTracing";
import { removeRow } from "../removing";
import { Drawn, drawnPoints } from "./Drawn";
import { DimensionPanel, LinePanel } from "./DrawnPanels";
import { DrawnRows } from "./DrawnRows";
import { DrawOptions } from "./DrawOptions";
import {
  cornersNow,
  dimensionTo,
  drawInk,
  drawPoint,
  drawSlip,
  drawSnap,
  endLine,
  lastPoint,
  takeBack,
  useDrawOptions,
} from "./draw";
import { dimensionDrag, dimensionEnds, dimensionUnder, lineCorners, lineDrag, lineMiddles, lineUnder } from "./editing";
import { SweepPanel } from "./SweepPanel";
import { Sweeps, sweepUnder } from "./Sweeps";

const tip = () => useDesk.getState().snap?.at ?? useDesk.getState().pointer;

/** Lines, arcs, closed shapes and dimensions on whatever is at hand, and bodies that a shape makes along a path. */
const act: Act = {
  name: "draw",
  wanted: () => (useDrawOptions.getState().ink ? 1 : 0),
  click: drawPoint,
  snap: drawSnap,
  asksInk: (snap) => useDrawOptions.getState().ink && !snap?.closes,
  takesInk: drawInk,
  slip: () => drawSlip(tip()),
  words(to) {
    const from = lastPoint();
    if (!from || drafted("dimension")?.to) return [];
    const { shape } = useDrawOptions.getState();
    if (shape === "rectangle") {
      return [`${written(Math.abs(to[0] - from[0]))} × ${inWords(Math.abs(to[1] - from[1]))}`];
    }
    if (shape === "circle") return [`radius ${inWords(distance(from, to))}`];
    return drafted("line")?.arcTo ? ["a place that it passes through"] : [inWords(distance(from, to))];
  },
  key(e) {
    if (e.key === "Backspace") return takeBack();
    if (e.key !== "Enter" || cornersNow().length < 2) return false;
    void endLine(e.shiftKey);
    return true;
  },
  draws(pen) {
    const to = tip();
    const corners = cornersNow();
    const from = drafted("shape")?.from;
    const dimension = drafted("dimension");
    const last = corners.at(-1);
    if (last) {
      const arcTo = drafted("line")?.arcTo;
      const drawn = stretchesOf(corners, false).flat();
      const more = arcTo ? arcChain(last.at, arcTo, to ? riseThrough(last.at, to, arcTo) : 0) : to ? [last.at, to] : [];
      const line = [...drawn, ...(drawn.length > 0 ? more : [last.at, ...more])];
      drawTraced(pen, line, [...corners.map((c) => c.at), ...(arcTo ? [arcTo] : [])]);
    }
    if (from && to) drawTraced(pen, shapeTo(from, to), [from]);
    if (dimension && to) {
      if (dimension.to === null) return drawTraced(pen, [dimension.from, to], [dimension.from]);
      const { from: a, to: b } = dimensionLine(dimensionTo(dimension.from, dimension.to, to));
      drawTraced(pen, [dimension.from, a, b, dimension.to], [dimension.from, dimension.to]);
    }
  },
  Panel: DrawOptions,
  Rows: { of: DrawnRows, rank: 70 },
  selects: {
    drawnLine: {
      Panel: LinePanel,
      remove: () => void removeThings(),
      hit: { rank: 10, at: lineUnder },
      handles: lineCorners,
      pulls: lineMiddles,
      drag: lineDrag,
    },
    dimension: {
      Panel: DimensionPanel,
      remove: (id) => removeRow("dimension", id),
      hit: { rank: 8, at: dimensionUnder },
      handles: dimensionEnds,
      drag: dimensionDrag,
    },
    sweep: {
      Panel: SweepPanel,
      remove: (id) => removeRow("sweep", id, "Remove a moulding"),
      hit: { rank: 33, at: sweepUnder },
    },
  },
};

/** A rectangle to its opposite corner, or a circle through a place. */
function shapeTo(from: XY, to: XY): XY[] {
  if (useDrawOptions.getState().shape === "rectangle") return [from, [to[0], from[1]], to, [from[0], to[1]], from];
  const radius = distance(from, to);
  return Array.from({ length: 65 }, (_, i): XY => {
    const angle = (i / 32) * Math.PI;
    return [from[0] + radius * Math.cos(angle), from[1] + radius * Math.sin(angle)];
  });
}

export default act;

export const shows: readonly Shown[] = [
  { in: isTracing, Marks: Drawn, points: drawnPoints },
  { in: (desk) => desk.side === null && isTracing(desk), Marks: Sweeps },
];
