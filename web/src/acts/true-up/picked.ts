import { drafted, useDesk } from "../../board/desk";
import { PLUM } from "../../board/marks";
import type { Pen } from "../../board/pen";
import { apply } from "../../geometry/maps";
import type { XY } from "../../geometry/plane";
import { fitMap } from "../../store/drawings";
import { useProject } from "../../store/project";

/** Where the next point would be put, on the screen. */
export function tipOnScreen(pen: Pen): XY | null {
  const { snap, pointer } = useDesk.getState();
  const tip = snap?.at ?? pointer;
  return tip && pen.at(tip);
}

/** Picks of a line or length being stated, where it would go on to, and the joints counted on it. */
export function drawPickedLine(pen: Pen, wanted: number, colour: string): void {
  const draft = drafted("picks");
  const map = fitMap(useProject.getState().rows, useDesk.getState().drawing);
  if (!draft || !map) return;
  const at = (p: XY): XY => pen.at(apply(map, p));
  const points = draft.picks.map((p) => at(p.at));
  const next = points.length < wanted ? tipOnScreen(pen) : null;
  const [a] = points;
  const b = points[1] ?? next;
  const c = points[2] ?? (points.length === 2 ? next : null);
  if (!a || !b) return;
  pen.stated(a, b, colour);
  if (wanted === 3 && c && points.length > 1) pen.stated(foot(c, a, b), c, colour);
  const angle = Math.atan2(b[1] - a[1], b[0] - a[0]);
  draft.ticks.forEach((tick, i) => {
    drawTick(pen, at(tick), angle, i + 1, draft.ticks.length);
  });
}

/** A joint on the line, numbered every fifth and at the end. */
function drawTick(pen: Pen, [x, y]: XY, angle: number, number: number, of: number): void {
  const told = number === 1 || number === of || number % 5 === 0;
  const [ux, uy] = [-Math.sin(angle), Math.cos(angle)];
  const off = (d: number): XY => [x + d * ux, y + d * uy];
  pen.path([off(-4), off(told ? 12 : 7)], { colour: PLUM, width: told ? 1.8 : 1 });
  if (told) pen.words(off(18), String(number), PLUM);
}

/** Foot of the perpendicular from a point on a line. */
export function foot(p: XY, a: XY, b: XY): XY {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const t = ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / Math.max(1e-9, dx * dx + dy * dy);
  return [a[0] + t * dx, a[1] + t * dy];
}
