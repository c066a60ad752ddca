import { count, listed } from "../../../ui/numbers";
import type { Proposals, ProposedWall } from "../../searches";
import type { Wanted } from "./proposals";

/** Which of what was found is meant. */
export interface Choice {
  /** walls so thick, mm, are left out */
  without: readonly number[];
  /** no wall less sure than this, 0 to 1 */
  least: number;
  openings: boolean;
  columns: boolean;
}

export const ALL: Choice = { without: [], least: 0, openings: true, columns: true };

/** Walls that differ less than this in thickness are of one, as a part of it. */
const SAME_THICKNESS = 0.12;

/** The thicknesses that occur with the walls that have each, the thinnest first; each told by the one in the middle, mm. */
export function thicknessesOf(walls: readonly ProposedWall[]): { mm: number; walls: readonly ProposedWall[] }[] {
  const groups: ProposedWall[][] = [];
  for (const wall of [...walls].sort((a, b) => a.thickness - b.thickness)) {
    const last = groups.at(-1);
    if (last && wall.thickness < (last[0]?.thickness ?? 0) * (1 + SAME_THICKNESS)) last.push(wall);
    else groups.push([wall]);
  }
  return groups.map((of) => ({ mm: of[of.length >> 1]?.thickness ?? 0, walls: of }));
}

/** What of it is accepted together; nothing that is doubtful. */
export function chosen(told: Proposals, { without, least, openings, columns }: Choice): Required<Wanted> {
  const walls = thicknessesOf(told.walls.filter((w) => w.sure))
    .filter(({ mm }) => !without.includes(mm))
    .flatMap((of) => of.walls.filter((w) => w.confidence >= least));
  const ids = new Set(walls.map((w) => w.id));
  const those = openings ? told.openings.filter((o) => o.sure && ids.has(o.wall)) : [];
  return {
    walls: [...ids],
    openings: those.length > 0,
    inTraced: openings ? told.inTraced.filter((o) => o.confidence >= least).map((o) => o.id) : [],
    columns: columns ? told.columns.filter((c) => c.confidence >= least).map((c) => c.id) : [],
  };
}

export const acceptable = ({ walls, inTraced = [], columns = [] }: Wanted) =>
  walls.length + inTraced.length + columns.length;

/** What there is to accept, in words. */
export function foundWords(told: Proposals): string {
  const { walls, inTraced, columns } = chosen(told, ALL);
  const openings = told.openings.filter((o) => o.sure && walls.includes(o.wall)).length + inTraced.length;
  return listed([
    count(walls.length, "wall"),
    count(openings, "opening"),
    ...(columns.length > 0 ? [count(columns.length, "column")] : []),
  ]);
}

export function wantedWords({ walls, openings, inTraced = [], columns = [] }: Wanted): string {
  return listed([
    ...(walls.length > 0 ? [`${count(walls.length, "wall")}${openings ? " with openings" : ""}`] : []),
    ...(inTraced.length > 0 ? [count(inTraced.length, "opening")] : []),
    ...(columns.length > 0 ? [count(columns.length, "column")] : []),
  ]);
}
