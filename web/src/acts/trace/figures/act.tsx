import type { Act, Shown } from "../../../board/act";
import { drafted, useDesk } from "../../../board/desk";
import { PLUM } from "../../../board/marks";
import { middle, type XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { inOrder } from "../../../store/rows";
import { wallAt, wallLine } from "../../../store/walls";
import { isTracing } from "../../isTracing";
import { removeRow } from "../removing";
import { FigureOptions } from "./FigureOptions";
import { FigureRows, SelectedFigure } from "./FigurePanel";
import { Figures } from "./Figures";
import { CENTRE_PART, figureLine, figurePoint, openingAt, spanDrafted, stateFigure } from "./figures";

const faces = () => drafted("faces")?.faces ?? [];

/** What the drawing figures between two faces is kept with what is traced there. */
const act: Act = {
  name: "figures",
  click: ({ pointer }) => figurePoint(pointer),
  snap(pointer, reach) {
    const hit = wallAt(useProject.getState().rows, useDesk.getState().storey, pointer, reach);
    if (!hit) return null;
    const opening = faces().length === 1 ? null : openingAt(pointer);
    if (opening) return { at: hit.at, words: `how wide ${opening.number} is` };
    if (faces().length === 1 && faces()[0]?.wall === hit.line.wall.id) return { at: hit.at, words: "along this wall" };
    const off = hit.side / hit.line.wall.thickness;
    const face = Math.abs(off) < CENTRE_PART ? "centre of this wall" : "this face of the wall";
    return { at: hit.at, words: faces().length === 1 ? `to the ${face.replace("this ", "")}` : face };
  },
  slip() {
    const span = spanDrafted();
    const line = span && figureLine(useProject.getState().rows, span);
    const hint = `What the drawing says ${span?.opening ? "of this width" : span && span.a === span.b ? "along this wall" : "between these faces"}. Enter sets it.`;
    return line && { at: middle(...line), about: line, label: "figure", hint, send: stateFigure };
  },
  draws(pen) {
    const { rows } = useProject.getState();
    const [first, second] = faces();
    const span = spanDrafted();
    const line = span && figureLine(rows, span);
    if (line) {
      const [a, b] = [pen.at(line[0]), pen.at(line[1])];
      pen.path([a, b], { colour: PLUM, width: 2.4 });
      pen.tag(middle(a, b), "?", PLUM);
    }
    const wall = first && !second ? wallLine(rows, first.wall) : undefined;
    if (!wall || !first) return;
    const off = first.side === "centre" ? 0 : ((first.side === "left" ? 1 : -1) * wall.wall.thickness) / 2;
    const [ux, uy] = [(wall.to[0] - wall.from[0]) / wall.length, (wall.to[1] - wall.from[1]) / wall.length];
    const beside = ([x, y]: XY): XY => pen.at([x - uy * off, y + ux * off]);
    pen.path([beside(wall.from), beside(wall.to)], { colour: PLUM, width: 3.5 });
  },
  Panel: FigureOptions,
  Rows: { of: FigureRows, rank: 20 },
  selects: { figure: { Panel: SelectedFigure, remove: (id) => removeRow("figure", id) } },
  next(storey) {
    const figures = inOrder(useProject.getState().rows.figure.values());
    const open = figures.find((f) => f.storey === storey && f.decided === "open");
    if (!open) return null;
    const go = () => useDesk.setState({ selected: { type: "figure", id: open.id }, group: [], things: [] });
    return { rank: 50, words: `Decide about ${open.text}`, go };
  },
};

export default act;

export const shows: readonly Shown[] = [{ in: isTracing, Marks: Figures }];
