import { useDesk } from "../board/desk";
import { distance, type XY } from "../geometry/plane";
import { useProject } from "../store/project";

/** A place that somebody has stated or traced, and what it is: surer than the ink beside it. */
export type Known = readonly [at: XY, words: string];

/** Points that were placed of the drawings of this storey. */
export function placedPoints(): Known[] {
  const { storey } = useDesk.getState();
  const { rows } = useProject.getState();
  return [...rows.controlPoint.values()].flatMap((c): Known[] =>
    storey !== null && rows.drawing.get(c.drawing)?.storey === storey
      ? [[[c.x, c.y], `the placed point ${c.text}`.trimEnd()]]
      : [],
  );
}

/** Crossings of the setting-out grid. */
export function crossings(): Known[] {
  const axes = [...useProject.getState().rows.gridAxis.values()];
  const across = axes.filter((a) => a.along === "y");
  return axes
    .filter((a) => a.along === "x")
    .flatMap((up) => across.map((a): Known => [[up.at, a.at], `${up.label}/${a.label}`]));
}

/** Corners of walls and columns of the storey that shows through. */
export function shownThrough(): Known[] {
  const { storey, through } = useDesk.getState();
  const { rows, derived } = useProject.getState();
  const name = storey === null || through === null || through === storey ? null : rows.storey.get(through)?.name;
  if (!name || through === null) return [];
  const known: Known[] = [];
  for (const { stretches } of derived.get(through)?.walls.values() ?? []) {
    for (const [x = 0, y = 0] of stretches.flatMap(({ right, left }) => [...right, ...left])) {
      known.push([[x, y], `corner of ${name}`]);
    }
  }
  for (const { storey: on, x, y, width, depth } of rows.column.values()) {
    if (on !== through) continue;
    known.push([[x, y], `column of ${name}`]);
    for (const [dx, dy] of [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ] as const) {
      known.push([[x + (dx * width) / 2, y + (dy * depth) / 2], `corner of a column of ${name}`]);
    }
  }
  return known;
}

/** The nearest of them within reach, mm. */
export function nearestKnown(pointer: XY, reach: number, known: readonly Known[]): { at: XY; words: string } | null {
  let best: { at: XY; words: string; off: number } | null = null;
  for (const [at, words] of known) {
    const off = distance(at, pointer);
    if (off <= reach && (best === null || off < best.off)) best = { at, words, off };
  }
  return best && { at: best.at, words: best.words };
}
