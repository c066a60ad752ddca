import { useProjectFields } from "../../store/project";

/** Below this the ink tells its direction too weakly to be offered as the thing to do. */
const SURE = 0.25;

/** What the ink says of the turn: by how much, which way, and how sure. */
export function useInkSkew(drawing: string) {
  const project = useProjectFields("rows", "pages", "fits");
  const row = project.rows.drawing.get(drawing);
  const skew = row && project.pages.get(row.page)?.made?.skew;
  const report = project.fits.get(drawing);
  if (!skew || !report) return null;
  // Of the four directions a grid has, the one nearest to how the drawing lies now.
  const present = -report.rotationDegrees;
  const degrees = skew.degrees + 90 * Math.round((present - skew.degrees) / 90);
  return {
    degrees,
    sigmaDegrees: skew.sigmaDegrees,
    /** turn still to be given, counter-clockwise */
    turn: -degrees - report.rotationDegrees,
    sure: skew.confidence >= SURE,
    confidence: skew.confidence,
    stated: [...project.rows.gridPick.values()].some((g) => g.drawing === drawing && g.hand === "ink"),
  };
}

export function turnWords(degrees: number): string {
  return `${Math.abs(degrees).toFixed(2)}° ${degrees >= 0 ? "left" : "right"}`;
}
