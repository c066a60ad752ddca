/** What a sheet's picture says of what is on it: where its views lie, and where their figures stand; mm of paper. */
export interface OnSheet {
  width: number;
  height: number;
  views: readonly ShownView[];
  /** letters of names that sheets are not printed with, each once */
  leftOut: string;
}

export interface ShownView {
  id: string;
  box: Box;
  figures: readonly ShownFigure[];
}

/** A figure of a dimension, and the chain that it belongs to. */
export interface ShownFigure {
  key: string;
  chain: string;
  words: string;
  box: Box;
}

/** left, top, right, bottom */
export type Box = readonly [number, number, number, number];

/** Letters are about so wide, parts of their size; capitals so high. */
const WIDE = 0.58;
const HIGH = 0.72;

/** `below.openings.1a2b` is a figure of `below.openings`; a chain inside has one name more. */
export function chainOf(key: string): string {
  const parts = key.split(".");
  return parts.slice(0, parts[0] === "inside" ? 3 : 2).join(".");
}

export function readSheet(svg: string): OnSheet | null {
  const root = new DOMParser().parseFromString(svg, "image/svg+xml").documentElement;
  const [, , width, height] = numbers(root.getAttribute("viewBox"));
  if (width === undefined || height === undefined) return null;
  const views = [...root.querySelectorAll("[data-view]")].flatMap((group): ShownView[] => {
    const [left, top, right, bottom] = numbers(group.getAttribute("data-box"));
    if (left === undefined || top === undefined || right === undefined || bottom === undefined) return [];
    const figures = together([...group.querySelectorAll("text[data-key]")].map(figure));
    return [{ id: group.getAttribute("data-view") ?? "", box: [left, top, right, bottom], figures }];
  });
  const without = [...root.querySelectorAll("[data-left-out]")].flatMap((t) => [
    ...(t.getAttribute("data-left-out") ?? ""),
  ]);
  return { width, height, views, leftOut: [...new Set(without)].join("") };
}

/** Lines of one thing are one: a room's name and its area. */
function together(figures: readonly ShownFigure[]): ShownFigure[] {
  const byKey = new Map<string, ShownFigure>();
  for (const next of figures) {
    const known = byKey.get(next.key);
    const [a, b] = [known?.box ?? next.box, next.box];
    const box: Box = [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[2], b[2]), Math.max(a[3], b[3])];
    byKey.set(next.key, { ...next, words: known ? `${known.words}, ${next.words}` : next.words, box });
  }
  return [...byKey.values()];
}

/** Whether it is a figure of a chain, and no stamp, number or level. */
export const isOfChain = (key: string) => /^(below|above|left|right|inside)\./.test(key);

function figure(text: Element): ShownFigure {
  const number = (name: string) => Number(text.getAttribute(name) ?? 0);
  const [x, y, size] = [number("x"), number("y"), number("font-size")];
  const words = text.textContent ?? "";
  const key = text.getAttribute("data-key") ?? "";
  const [half, high] = [(words.length * size * WIDE) / 2, size * HIGH];
  const upright = (text.getAttribute("transform") ?? "").startsWith("rotate(-90");
  // Words of a level begin where they stand; all others stand about their middle.
  const from = text.getAttribute("text-anchor") === "middle" ? x - half : x;
  const box: Box = upright ? [x - high, y - half, x, y + half] : [from, y - high, from + 2 * half, y];
  return { key, chain: chainOf(key), words, box };
}

const numbers = (text: string | null) => (text === null || text === "" ? [] : text.split(/[\s,]+/).map(Number));

/** What of a model a view shows, mm: its lower left corner and its upper right one; none of either for all of it. */
export interface Window {
  fromX?: number | null;
  fromY?: number | null;
  toX?: number | null;
  toY?: number | null;
}

export function windowOf({ fromX, fromY, toX, toY }: Window): string {
  return [fromX, fromY, toX, toY].some((v) => v == null) ? "" : `${fromX} ${fromY} – ${toX} ${toY}`;
}

/** As it is typed: two corners, or nothing; null for anything else. */
export function readWindow(text: string): Window | null {
  if (text.trim() === "") return { fromX: null, fromY: null, toX: null, toY: null };
  const typed = (text.replace(/[−‒]/g, "-").match(/-?\d+(?:[.]\d+)?/g) ?? []).map(Number);
  const [fromX, fromY, toX, toY] = typed;
  if (typed.length !== 4 || fromX === undefined || fromY === undefined || toX === undefined || toY === undefined)
    return null;
  return toX > fromX && toY > fromY ? { fromX, fromY, toX, toY } : null;
}

/** Where a view is put that is dragged: held to others, and what it is held to. */
export interface Held {
  dx: number;
  dy: number;
  /** lines across the sheet at which it stands level with another, mm */
  x: number | null;
  y: number | null;
}

/** Zeros of views that are drawn to scale, and corners of what is not: where something can stand level. */
export interface Anchor {
  x: number;
  y: number;
}

/**
 * A drag that is held level with another view where it comes so near: one floor stands over the other, ground at ground.
 *
 * @param near mm of paper
 */
export function held(moved: Anchor, others: readonly Anchor[], dx: number, dy: number, near: number): Held {
  const to = (axis: "x" | "y", d: number) => {
    let best: number | null = null;
    for (const other of others) {
      const off = Math.abs(moved[axis] + d - other[axis]);
      if (off < near && (best === null || off < Math.abs(moved[axis] + d - best))) best = other[axis];
    }
    return best;
  };
  const [x, y] = [to("x", dx), to("y", dy)];
  return { dx: x === null ? dx : x - moved.x, dy: y === null ? dy : y - moved.y, x, y };
}
