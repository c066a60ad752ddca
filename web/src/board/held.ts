import { heldSquare, type XY } from "../geometry/plane";
import { useProject } from "../store/project";
import { wallAt } from "../store/walls";
import { useDesk } from "./desk";

/** Directions nearer to the grid's than this are held square, unless Alt is down. */
export const HOLD_RAD = (4 * Math.PI) / 180;
/** How far round a point walls say which grid it belongs to, mm. */
const NEAR_MM = 4000;
/** Walls that run as near to a grid as this run with it. */
const WITH_RAD = (1 * Math.PI) / 180;

/** Which way the storey's wing runs, radians from x; null where it has none. */
export function wingTurn(storey = useDesk.getState().storey): number | null {
  const degrees = useProject.getState().rows.storey.get(storey ?? "")?.wing ?? null;
  return degrees === null ? null : (degrees * Math.PI) / 180;
}

/**
 * Holds a direction square to the grid, or to the grid of the storey's wing: to the nearer of the two, unless the walls round
 * where it begins run with the other one.
 */
export function held(from: XY, to: XY, within = HOLD_RAD): { at: XY; words: string } | null {
  const grid = heldSquare(from, to, within);
  const turn = wingTurn();
  const wing = turn === null ? null : heldSquare(from, to, within, turn);
  if (!grid || !wing || turn === null) return grid ?? wing;
  const near = wallAt(useProject.getState().rows, useDesk.getState().storey, from, NEAR_MM)?.line;
  const along = near ? Math.atan2(near.to[1] - near.from[1], near.to[0] - near.from[0]) : null;
  const runs = (way: number) => along !== null && Math.abs(offQuarter(along - way)) < WITH_RAD;
  if (runs(turn) !== runs(0)) return runs(turn) ? wing : grid;
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
  return Math.abs(offQuarter(angle - turn)) < Math.abs(offQuarter(angle)) ? wing : grid;
}

/** What is left of an angle beside whole right angles, radians in [−π/4, π/4]. */
export function offQuarter(angle: number): number {
  return angle - (Math.PI / 2) * Math.round(angle / (Math.PI / 2));
}
