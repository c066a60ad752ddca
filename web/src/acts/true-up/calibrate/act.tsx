import type { Act } from "../../../board/act";
import { drafted, useDesk, useDrafted } from "../../../board/desk";
import { HOLD_RAD } from "../../../board/held";
import { BrokenLineLens } from "../../../board/Lens";
import { OCHRE, PLUM } from "../../../board/marks";
import type { Pen } from "../../../board/pen";
import { focusEnd, nudgeEnd, pick, picksNow } from "../../../board/picking";
import { exactSnap } from "../../../board/snap";
import { apply } from "../../../geometry/maps";
import { heldSquare, middle, type XY } from "../../../geometry/plane";
import { fitMap } from "../../../store/drawings";
import { inkOffGrid } from "../../../store/fits";
import { useProject } from "../../../store/project";
import { useNextLength } from "../../nextLength";
import { drawPickedLine, tipOnScreen } from "../picked";
import { CalibratePanel } from "./CalibratePanel";
import { CountOptions } from "./CountOptions";
import { picksWanted, stateWhatIsPicked, whenAllFound } from "./calibrate";
import { FiguresRead } from "./FiguresRead";
import { ghostRing } from "./ghost";
import { LengthOptions } from "./LengthOptions";
import { MeterWaits } from "./MeterWaits";
import { ReadFigure } from "./ReadFigure";

const WORDS = {
  length: { label: "true length", hint: "As written: 13 200, 4.2 m, 9'6+11'. Enter sets it." },
  room: { label: "room", hint: "Width x depth: 3.6 m x 4.2 m. Enter sets it." },
  count: { label: "holds", hint: "31c courses, 7u units along; 31c-1j leaves the last joint out. Enter sets it." },
};

/** The drawing's size by what is known on it: a length, a room's width and depth, a count of courses or units. */
const act: Act = {
  name: "calibrate",
  wanted: picksWanted,
  click(click) {
    const { by, ghost } = useNextLength.getState();
    const text = by === "room" && ghost.mm ? `${ghost.width} x ${ghost.depth}` : "";
    pick(click, { wanted: picksWanted(), text, done: whenAllFound });
  },
  snap: (pointer, reach, free) => exactSnap(pointer, reach, free) ?? squareSnap(pointer, free),
  slip() {
    const picks = picksNow();
    const map = fitMap(useProject.getState().rows, useDesk.getState().drawing);
    const { by } = useNextLength.getState();
    const [a, b, c] = picks;
    const far = by === "room" ? c : (c ?? b);
    if (!map || !a || !far || picks.length < picksWanted()) return null;
    return {
      at: middle(apply(map, a.at), apply(map, far.at)),
      about: picks.map((p) => apply(map, p.at)),
      ...WORDS[by],
      send: stateWhatIsPicked,
      ...(by === "length" ? { More } : by === "count" ? { More: CountOptions } : {}),
    };
  },
  draws: (pen) =>
    useNextLength.getState().by === "room" ? drawRoom(pen) : drawPickedLine(pen, picksWanted(), colour()),
  Over: Strip,
  Panel() {
    return (
      <>
        <CalibratePanel />
        <FiguresRead />
      </>
    );
  },
};

export default act;

export const shows = [{ in: (desk: { act: unknown }) => desk.act === "calibrate", Marks: ReadFigure }];

function More() {
  return (
    <>
      <LengthOptions />
      <MeterWaits />
    </>
  );
}

/** Both ends enlarged and level, as soon as there are two. */
function Strip() {
  const draft = useDrafted("picks");
  const by = useNextLength((s) => s.by);
  const [a, b] = draft?.picks ?? [];
  if (!draft || !a || !b || by === "room") return null;
  const focused = Math.min(draft.focused, 1);
  return <BrokenLineLens ends={{ picks: [a, b], focused, focus: focusEnd, nudge: nudgeEnd }} />;
}

const colour = () => (useNextLength.getState().heldOut ? OCHRE : PLUM);

/** In line with the first pick along the drawing's own grid, which until it is squared is the grid of its ink. */
function squareSnap(pointer: XY, free: boolean) {
  const { drawing, holdSquare } = useDesk.getState();
  const picks = picksNow();
  const project = useProject.getState();
  const map = fitMap(project.rows, drawing);
  const from = picks.at(-1);
  if (free || !holdSquare || useNextLength.getState().by === "room" || !from || picks.length > 1 || !map) return null;
  const [x, y] = apply(map, from.at);
  const turn = inkOffGrid(project, drawing);
  if (turn === null) return null;
  const rad = (turn * Math.PI) / 180;
  const [c, s] = [Math.cos(rad), Math.sin(rad)];
  const [dx, dy] = [pointer[0] - x, pointer[1] - y];
  const held = heldSquare([0, 0], [c * dx + s * dy, c * dy - s * dx], HOLD_RAD / 4);
  if (!held || held.words === "at 45°") return null;
  const [u, v] = held.at;
  return { at: [x + c * u - s * v, y + s * u + c * v] as XY, words: held.words };
}

/**
 * The room being picked, and a rectangle of typed true size laid over the picture: round the pointer, from the first corner picked, or
 * along the side picked. It lies with the drawing's own grid, which until it is squared is the grid of its ink.
 */
function drawRoom(pen: Pen): void {
  const { drawing, snap, pointer } = useDesk.getState();
  const project = useProject.getState();
  const map = fitMap(project.rows, drawing);
  if (!map) return;
  const picks = (drafted("picks")?.picks ?? []).map((p) => apply(map, p.at));
  const { ghost } = useNextLength.getState();
  const [a, b, c] = picks;
  const off = ((inkOffGrid(project, drawing) ?? 0) * Math.PI) / 180;
  const ring = ghost.mm && ghostRing(ghost.mm, { a, b, beyond: c ?? snap?.at ?? pointer }, off);
  const look = { colour: PLUM, width: 2.2, dash: [12, 4], fill: `${PLUM}1a` };
  if (ring)
    pen.path(
      ring.map((p) => pen.at(p)),
      look,
    );
  const tip = picks.length < picksWanted() ? tipOnScreen(pen) : null;
  const line = [...picks.map((p) => pen.at(p)), ...(tip ? [tip] : [])];
  const [first] = line;
  if (first && line.length > 1) pen.path([...line, first], { colour: colour(), width: 1.6, dash: [3, 3] });
  for (const p of picks) pen.ring(pen.at(p), 4, { colour: colour(), width: 1.8, fill: "#fdfcfa" });
}
