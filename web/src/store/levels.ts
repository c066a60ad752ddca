import type { FitReport } from "../api/client";
import type { Rows, Thing } from "./rows";

/** What is drawn and measured agrees within this at least, mm. */
export const LEAST_MM = 2;

/** Whether two heights are the same as far as a level on a side is known. */
export function agree(a: number, b: number, level: FitReport["levels"][number]): boolean {
  return Math.abs(a - b) <= Math.max(LEAST_MM, level.plusMinusMm ?? 0);
}

/** Which side a storey's floor was taken from, if any says the same; what none says was typed. */
export function sideOfFloor(rows: Rows, fits: ReadonlyMap<string, FitReport>, storey: Thing<"storey">): string | null {
  for (const report of fits.values()) {
    const side = rows.side.get(rows.drawing.get(report.drawing)?.side ?? "");
    for (const level of side ? report.levels : []) {
      const isKnown = level.statedMm !== null || level.plusMinusMm !== null;
      const isFloor = rows.levelMark.get(level.id)?.kind === "finished floor";
      if (isKnown && isFloor && agree(level.statedMm ?? level.heightMm, storey.elevation, level))
        return side?.name ?? null;
    }
  }
  return null;
}
