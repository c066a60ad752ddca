import { apply } from "../../geometry/maps";
import { middle, type XY } from "../../geometry/plane";
import { fitMap } from "../../store/drawings";
import type { Rows } from "../../store/rows";

/** A side of a drawing as it is seen, model points, and how many statements run along it. */
export interface Side {
  name: "top" | "bottom" | "left" | "right";
  ends: readonly [XY, XY];
  heldBy: number;
}

/** A statement holds a side where it runs along it for at least this part of it, in that half of the drawing. */
const LEAST_PART = 0.15;
const MIDDLE = 0.06;

/** Which sides of a photograph are held by what is stated: lines that run with the grid, lengths and rectangles. */
export function sidesOf(rows: Rows, drawing: string): Side[] {
  const row = rows.drawing.get(drawing);
  const map = fitMap(rows, drawing);
  if (!row || !map) return [];
  const { left, top, width, height } = row;
  const place = (id: string): XY | null => {
    const pick = rows.pick.get(id);
    return pick ? [(pick.x - left) / width, (pick.y - top) / height] : null;
  };
  const own = <T extends { drawing: string }>(all: Iterable<T>) => [...all].filter((one) => one.drawing === drawing);
  const pairs: (readonly [string, string])[] = [
    ...own(rows.gridPick.values()).map((g) => [g.a, g.b] as const),
    ...own(rows.knownLength.values())
      .filter((l) => !l.heldOut)
      .map((l) => [l.a, l.b] as const),
    ...own(rows.rectangle.values()).flatMap(
      ({ a, b, c, d }) =>
        [
          [a, b],
          [b, c],
          [c, d],
          [d, a],
        ] as const,
    ),
  ];
  const held = { upper: 0, lower: 0, first: 0, last: 0 };
  for (const [a, b] of pairs) {
    const [p, q] = [place(a), place(b)];
    if (!p || !q) continue;
    const [along, up] = [Math.abs(q[0] - p[0]) * width, Math.abs(q[1] - p[1]) * height];
    const [x, y] = middle(p, q);
    if (along > up && along > LEAST_PART * width) {
      if (y < 0.5 - MIDDLE) held.upper++;
      else if (y > 0.5 + MIDDLE) held.lower++;
    } else if (up > along && up > LEAST_PART * height) {
      if (x < 0.5 - MIDDLE) held.first++;
      else if (x > 0.5 + MIDDLE) held.last++;
    }
  }
  const at = (x: number, y: number): XY => apply(map, [left + x * width, top + y * height]);
  const edges = [
    { ends: [at(0, 0), at(1, 0)] as const, heldBy: held.upper },
    { ends: [at(1, 1), at(0, 1)] as const, heldBy: held.lower },
    { ends: [at(0, 1), at(0, 0)] as const, heldBy: held.first },
    { ends: [at(1, 0), at(1, 1)] as const, heldBy: held.last },
  ];
  const centre = at(0.5, 0.5);
  // Named as they are seen, whichever way the page lies.
  return edges.map(({ ends, heldBy }) => {
    const [x, y] = middle(...ends);
    const [dx, dy] = [x - centre[0], y - centre[1]];
    const name = Math.abs(dx) > Math.abs(dy) ? (dx < 0 ? "left" : "right") : dy > 0 ? "top" : "bottom";
    return { name, ends, heldBy };
  });
}

/** What is left to the others, in words; null where every side is held. */
export function unheldWords(sides: readonly Side[]): string | null {
  const open = sides.filter((s) => s.heldBy === 0).map((s) => s.name);
  if (open.length === 0) return null;
  const where = open.length === 1 ? `its ${open[0]}` : `its ${open.slice(0, -1).join(", ")} and ${open.at(-1)}`;
  return `Nothing that is stated runs along ${where}: a line that should be level or plumb there, or a length, would say how it leans.`;
}
