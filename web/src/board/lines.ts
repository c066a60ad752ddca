import type { XY } from "../geometry/plane";
import { projectId } from "../store/project";

/** x, y to x, y, px; then the number of its pen, which nothing here asks for, and how far an arc rises over its chord */
type Line = readonly [number, number, number, number, ...number[]];

/** Exact lines of a page in page pixels, kept by square cells so that the nearest is found at once. */
export class ExactLines {
  private readonly cells = new Map<string, Line[]>();

  constructor(
    lines: readonly Line[],
    private readonly cell = 64,
  ) {
    for (const line of lines) {
      const [x1, y1, x2, y2, , rise] = line;
      if (!rise) this.add(line);
      // Of an arc its ends are exact; nothing lies on its chord.
      else for (const [x, y] of [[x1, y1] as const, [x2, y2] as const]) this.add([x, y, x, y]);
    }
  }

  /** The nearest line end within reach, else the nearest point of a line. */
  nearest([x, y]: XY, reach: number): { at: XY; isEnd: boolean } | null {
    let end: { at: XY; off: number } | null = null;
    let on: { at: XY; off: number } | null = null;
    for (const [x1, y1, x2, y2] of this.near(x, y, reach)) {
      for (const at of [
        [x1, y1],
        [x2, y2],
      ] as const) {
        const off = Math.hypot(at[0] - x, at[1] - y);
        if (off <= reach && (end === null || off < end.off)) end = { at, off };
      }
      const length = (x2 - x1) ** 2 + (y2 - y1) ** 2;
      if (length === 0) continue;
      const t = Math.max(0, Math.min(1, ((x - x1) * (x2 - x1) + (y - y1) * (y2 - y1)) / length));
      const at: XY = [x1 + t * (x2 - x1), y1 + t * (y2 - y1)];
      const off = Math.hypot(at[0] - x, at[1] - y);
      if (off <= reach && (on === null || off < on.off)) on = { at, off };
    }
    if (end) return { at: end.at, isEnd: true };
    return on && { at: on.at, isEnd: false };
  }

  private add(line: Line): void {
    const [x1, y1, x2, y2] = line;
    const steps = Math.max(1, Math.ceil(Math.hypot(x2 - x1, y2 - y1) / this.cell) * 2);
    let last = "";
    for (let i = 0; i <= steps; i++) {
      const key = this.key(x1 + ((x2 - x1) * i) / steps, y1 + ((y2 - y1) * i) / steps);
      if (key === last) continue;
      last = key;
      const cell = this.cells.get(key);
      if (cell) cell.push(line);
      else this.cells.set(key, [line]);
    }
  }

  private *near(x: number, y: number, reach: number): Iterable<Line> {
    // A line may cut a corner between two of the points by which it was put in.
    const wide = reach + this.cell / 2;
    for (let v = Math.floor((y - wide) / this.cell); v <= Math.floor((y + wide) / this.cell); v++) {
      for (let u = Math.floor((x - wide) / this.cell); u <= Math.floor((x + wide) / this.cell); u++) {
        yield* this.cells.get(`${u},${v}`) ?? [];
      }
    }
  }

  private key(x: number, y: number): string {
    return `${Math.floor(x / this.cell)},${Math.floor(y / this.cell)}`;
  }
}

const known = new Map<string, ExactLines | "asked">();

/** The exact lines of a page that has some; fetched once, null until they are there. */
export function linesOf(page: string): ExactLines | null {
  const found = known.get(page);
  if (found === undefined) {
    known.set(page, "asked");
    void fetch(`/api/projects/${projectId()}/pages/${page}/lines`)
      .then((answer) => (answer.ok ? (answer.json() as Promise<Line[]>) : []))
      .then(
        (lines) => known.set(page, new ExactLines(lines)),
        () => known.delete(page),
      );
  }
  return found instanceof ExactLines ? found : null;
}
