import { apply } from "../geometry/maps";
import { toScreen, type View } from "../geometry/view";
import { drawingsOn, drawingsThrough, type Place, pageWhole, pictureOf } from "../store/drawings";
import { useProject } from "../store/project";
import { streetParts } from "../store/street";
import { currentAct } from "./act";
import { useDesk } from "./desk";
import { paintGrid } from "./grid";
import { linesOf } from "./lines";
import { paintPicture } from "./picture";
import { paintPlan } from "./plan";
import { selectedWalls } from "./selection";

/**
 * Paints what is there on the storey or side at hand: pictures, and the plan. The canvas is in CSS pixels of the board times `dpr`.
 *
 * @param ask has it painted once more, when there is more to be seen
 */
export function paintBoard(ctx: CanvasRenderingContext2D, dpr: number, ask: () => void): void {
  const desk = useDesk.getState();
  const { view, size, storey, step, through } = desk;
  const project = useProject.getState();
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.fillStyle = "#fdfcfa";
  ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height);
  if (currentAct()?.onPage?.()) {
    const page = pageWhole(project, desk.drawing);
    if (page) paintPicture(ctx, page, view, size, dpr, { alpha: 1, ink: null, covers: true });
    return;
  }
  const paintOf = (place: Place, at: View, before: boolean) => {
    for (const drawing of drawingsOn(project.rows, place).filter((d) => !d.hidden)) {
      const picture = drawing.before === before ? pictureOf(project, drawing.id) : null;
      // Its exact lines are there before they are wanted.
      if (picture?.made?.lines) linesOf(picture.page);
      const alpha = desk.fading?.drawing === drawing.id ? desk.fading.fade : drawing.fade;
      if (picture) {
        // Before the tracing its paper lets the tracing show through; behind it, it covers older drawings.
        const ink = drawing.inkOnly ? drawing.tint : null;
        paintPicture(ctx, picture, at, size, dpr, { alpha, ink, covers: !before });
      }
    }
  };
  const parts = streetParts(project.rows, desk.side);
  const paint = (before: boolean) => {
    paintOf(desk, view, before);
    // In a row each side shows as far as it goes, where it stands.
    for (const { part, left, right, by } of parts) {
      const [x1] = apply(toScreen(view, size), [left, 0]);
      const [x2] = apply(toScreen(view, size), [right, 0]);
      ctx.save();
      ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
      ctx.beginPath();
      ctx.rect(x1, 0, x2 - x1, size.height);
      ctx.clip();
      paintOf({ storey: null, side: part.side }, { ...view, x: view.x - by[0], y: view.y - by[1] }, before);
      ctx.restore();
    }
  };
  paint(false);
  const isThrough = through !== null && through !== storey && storey !== null;
  // The ink of another storey's drawings, in a colour of its own.
  for (const drawing of isThrough && desk.throughPicture ? drawingsThrough(project.rows, through) : []) {
    const picture = pictureOf(project, drawing.id);
    if (picture) paintPicture(ctx, picture, view, size, dpr, { alpha: 0.6, ink: "plum", covers: false });
  }
  // Until tracing begins the picture speaks and the tracing stands back.
  const early = step === "bring-in" || step === "true-up";
  const shapes = storey === null ? undefined : project.derived.get(storey);
  const below = isThrough ? project.derived.get(through) : undefined;
  if (below) paintPlan(ctx, below, project.rows, view, size, dpr, { selected: [], alpha: 0.22 }, ask);
  if (shapes) {
    const look = { selected: selectedWalls(), alpha: early ? 0.35 : 1 };
    paintPlan(ctx, shapes, project.rows, view, size, dpr, look, ask);
  }
  paint(true);
  ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
  if (storey !== null) paintGrid(ctx, view, size);
}
