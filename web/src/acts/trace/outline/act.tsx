import type { Act, Shown } from "../../../board/act";
import { useDesk } from "../../../board/desk";
import { exactSnap } from "../../../board/snap";
import { drawTraced } from "../../../board/traced";
import { isTracing } from "../../isTracing";
import { SideView, sideCorners } from "../../SideView";
import { FacadeMarks } from "../FacadeOpenings";
import { removeRow } from "../removing";
import { cornerDrag, cornerPoints, cornersHere, edgeMiddles, outlineAt } from "./corners";
import { OutlineOptions, OutlineRows } from "./OutlinePanel";
import { Outlines } from "./Outlines";
import { closeOutline, outlinePoint, ringNow } from "./outline";
import { SelectedOutline } from "./SelectedOutline";

/** Faces of a side; floors, ceilings, voids and edges of a storey, corner by corner. */
const act: Act = {
  name: "outline",
  wanted: () => 1,
  click: (click) => void outlinePoint(click),
  snap: exactSnap,
  key(e) {
    if (e.key !== "Enter" || ringNow().length < 2) return false;
    void closeOutline();
    return true;
  },
  words: () => (ringNow().length === 2 ? ["Enter: the rectangle between the two"] : []),
  draws(pen) {
    const { snap, pointer } = useDesk.getState();
    const ring = ringNow();
    const tip = snap?.at ?? pointer;
    if (ring.length === 0) return;
    drawTraced(pen, [...ring, ...(tip ? [tip] : [])], ring);
  },
  Panel: OutlineOptions,
  Rows: { of: OutlineRows, rank: 40 },
  selects: {
    outline: {
      Panel: SelectedOutline,
      remove: (id) => removeRow("outline", id, "Remove an outline"),
      hit: { rank: 45, at: outlineAt },
      handles: cornerPoints,
      pulls: edgeMiddles,
      drag: cornerDrag,
    },
  },
};

export default act;

export const shows: readonly Shown[] = [
  { in: (desk) => desk.side !== null && isTracing(desk), Marks: SideView, points: sideCorners },
  { in: (desk) => desk.side !== null && isTracing(desk), Marks: FacadeMarks },
  { in: isTracing, Marks: Outlines, points: cornersHere },
];
