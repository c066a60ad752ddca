import type { FitReport } from "../api/client";
import type { ProjectState } from "./project";

/** Whether nothing has tested how long things are the other way: a copy that came out stretched would not show. */
export function isTestedOneWayOnly(fit: FitReport): boolean {
  return fit.untested !== null || fit.advice.some((a) => a.code === "other-direction");
}

/** ± over 10 m the way that was tested, and which axis that is; null where it holds both ways. */
export function testedPlusMinus(fit: FitReport): { mm: number | null; along: "x" | "y" | null } {
  if (fit.untested === null || !fit.plusMinusAlong) return { mm: fit.plusMinusMmPer10m, along: null };
  const along = fit.untested === "x" ? "y" : "x";
  return { mm: fit.plusMinusAlong[along], along };
}

/** confidence of a skew below which it is not held to */
const SURE = 0.15;

/** By how many degrees the drawing's own grid runs off the model's: none once it is squared; null where the ink does not tell. */
export function inkOffGrid(project: ProjectState, drawing: string | null): number | null {
  const report = drawing === null ? undefined : project.fits.get(drawing);
  if (report?.determined.turn) return 0;
  const page = drawing === null ? undefined : project.rows.drawing.get(drawing)?.page;
  const skew = page === undefined ? undefined : project.pages.get(page)?.made?.skew;
  if (!report || !skew || skew.confidence < SURE) return null;
  // As the drawing lies now: its own direction on the page, and the turn given to the page.
  const off = skew.degrees + report.rotationDegrees;
  return off - 90 * Math.round(off / 90);
}
