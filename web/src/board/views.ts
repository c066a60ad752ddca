import { apply } from "../geometry/maps";
import type { XY } from "../geometry/plane";
import { viewOf } from "../geometry/view";
import { type Picture, pageWhole, pictureOf } from "../store/drawings";
import { useProject } from "../store/project";
import { currentAct, pointsShown } from "./act";
import { setView, useDesk } from "./desk";

/** The drawing that is worked on, filling the board; while its page is being cut, the page. */
export function showWholePage(): void {
  const { drawing } = useDesk.getState();
  const project = useProject.getState();
  showPicture(currentAct()?.onPage?.() ? pageWhole(project, drawing) : pictureOf(project, drawing));
}

/** The whole page under the drawing that is worked on. */
export function showPage(): void {
  showPicture(pageWhole(useProject.getState(), useDesk.getState().drawing));
}

function showPicture(picture: Picture | null): void {
  const { size } = useDesk.getState();
  if (!picture) return;
  const { left, top, width, height } = picture.crop;
  const corners: XY[] = [
    [left, top],
    [left + width, top],
    [left + width, top + height],
    [left, top + height],
  ];
  const view = viewOf(
    corners.map((c) => apply(picture.pixelToMm, c)),
    size,
    12,
  );
  if (view) setView(view);
}

/** All that is traced on the storey or side at hand, filling the board. */
export function showTraced(): void {
  const { storey, size } = useDesk.getState();
  const shapes = storey === null ? undefined : useProject.getState().derived.get(storey);
  const points = pointsShown();
  for (const { stretches } of shapes?.walls.values() ?? []) {
    for (const { right, left } of stretches) {
      for (const p of [...right, ...left]) points.push([p[0] ?? 0, p[1] ?? 0]);
    }
  }
  const view = viewOf(points, size);
  if (view) setView(view);
  else showWholePage();
}

/** Looks at a place, near enough to see what is there. */
export function lookAt([x = 0, y = 0]: readonly number[]): void {
  setView({ x, y, k: Math.max(useDesk.getState().view.k, NEAR_K) });
}

/** Screen pixels per mm at which a wall shows its faces. */
const NEAR_K = 0.12;
