import type { Schemas } from "../api/client";
import type { Tint } from "../store/rows";

type Made = Schemas["Made"];

/** Colours of ink on the board, red, green, blue. */
export const TINT_COLOURS: Record<Tint, readonly [number, number, number]> = {
  ink: [28, 42, 38],
  teal: [15, 79, 75],
  plum: [109, 42, 99],
  ochre: [133, 84, 0],
  rust: [156, 52, 20],
};

const MOST_KEPT = 400;
/** Of the way from paper to full ink, what is still paper, and what is ink without doubt. */
const PAPER_SHARE = 0.14;
const INK_SHARE = 0.75;

const kept = new Map<string, HTMLCanvasElement>();
const levels = new Map<string, Uint8Array>();

/** A tile with clear paper: its ink alone in one colour, as dark as it stands off the paper round it. */
export function inkOf(
  address: string,
  image: HTMLImageElement,
  made: Made,
  tint: Tint,
  place: { left: number; top: number; side: number },
): HTMLCanvasElement {
  const key = `${tint} ${address}`;
  let canvas = kept.get(key);
  if (canvas === undefined) {
    canvas = document.createElement("canvas");
    canvas.width = image.naturalWidth;
    canvas.height = image.naturalHeight;
    const ctx = canvas.getContext("2d", { willReadFrequently: true });
    if (ctx) {
      ctx.drawImage(image, 0, 0);
      const pixels = ctx.getImageData(0, 0, canvas.width, canvas.height);
      clearPaper(pixels.data, canvas.width, canvas.height, made, tint, place);
      ctx.putImageData(pixels, 0, 0);
    }
  }
  kept.delete(key);
  kept.set(key, canvas);
  if (kept.size > MOST_KEPT) {
    const oldest = kept.keys().next().value;
    if (oldest !== undefined) kept.delete(oldest);
  }
  return canvas;
}

/** Turns pixels into ink of one colour, in place. `place` is where they lie on the page, page pixels. */
export function clearPaper(
  data: Uint8ClampedArray,
  width: number,
  height: number,
  made: Made,
  tint: Tint,
  place: { left: number; top: number; side: number },
): void {
  const [red, green, blue] = TINT_COLOURS[tint];
  const paper = levelsOf(made);
  const { cell, columns, rows } = made.paper;
  const scale = place.side / 256 / cell;
  const low = PAPER_SHARE * made.contrast;
  const span = (INK_SHARE - PAPER_SHARE) * made.contrast;
  for (let y = 0; y < height; y++) {
    const v = Math.max(0, Math.min(rows - 1, place.top / cell + (y + 0.5) * scale - 0.5));
    const row = Math.min(rows - 2, Math.floor(v));
    const fv = rows > 1 ? v - row : 0;
    for (let x = 0; x < width; x++) {
      const u = Math.max(0, Math.min(columns - 1, place.left / cell + (x + 0.5) * scale - 0.5));
      const column = Math.max(0, Math.min(columns - 2, Math.floor(u)));
      const fu = columns > 1 ? u - column : 0;
      const i = Math.max(0, row) * columns + column;
      const upper = (paper[i] ?? 255) * (1 - fu) + (paper[i + 1] ?? paper[i] ?? 255) * fu;
      const lower = (paper[i + columns] ?? upper) * (1 - fu) + (paper[i + columns + 1] ?? upper) * fu;
      const level = upper + (lower - upper) * fv;
      const at = 4 * (y * width + x);
      const grey = 0.299 * (data[at] ?? 0) + 0.587 * (data[at + 1] ?? 0) + 0.114 * (data[at + 2] ?? 0);
      const off = level - (made.lightOnDark ? 255 - grey : grey);
      data[at] = red;
      data[at + 1] = green;
      data[at + 2] = blue;
      data[at + 3] = (255 * (off - low)) / span;
    }
  }
}

function levelsOf(made: Made): Uint8Array {
  const coded = made.paper.levels;
  let found = levels.get(coded);
  if (found === undefined) {
    found = Uint8Array.from(atob(coded), (c) => c.charCodeAt(0));
    levels.set(coded, found);
  }
  return found;
}
