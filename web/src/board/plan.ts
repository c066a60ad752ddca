import { apply, inverse } from "../geometry/maps";
import { contains, type XY } from "../geometry/plane";
import { type Size, toScreen, type View } from "../geometry/view";
import type { Rows } from "../store/rows";
import type { Derived, WallShape } from "../store/shapes";
import { wallLines } from "../store/walls";
import { paintNumber, paintOpening, trace } from "./planOpenings";

const WASH = "rgba(15, 79, 75, 0.34)";
const ROOM = "rgba(15, 79, 75, 0.07)";
const EDGE = "#0f4f4b";

/** Walls are put together by squares of this side: only those in view are painted, only those that differ made anew. */
const SQUARE_MM = 16_000;
/** A wall thinner than this on the screen is only its wash. */
const THIN_PX = 1.2;

type Box = readonly [number, number, number, number];

/** Walls of one square: their bodies and faces as paths in mm. */
interface Square {
  shapes: readonly WallShape[];
  body: Path2D;
  faces: Path2D;
  box: Box;
}

interface Painted {
  squares: ReadonlyMap<string, Square>;
  rooms: Path2D;
}

const painted = new WeakMap<Derived["walls"], Map<string, Square>>();
const roomPaths = new WeakMap<Derived["regions"], Path2D>();
let latest: { storey: string; squares: ReadonlyMap<string, Square> } | null = null;

export interface Shown {
  selected: readonly string[];
  alpha: number;
}

/** A plan of more walls than this is moved as a picture, and painted anew when the view rests. */
const LARGE = 400;
const REST_MS = 140;
/** So much more than the board is painted into that picture on every side. */
const MARGIN = 0.35;
/** As a picture it serves until it is this much larger or smaller on the screen: it is painted sharply once the view rests. */
const MOST_ZOOM = 8;

interface Layer {
  canvas: HTMLCanvasElement;
  shapes: Derived;
  openings: Rows["opening"];
  walls: Rows["wall"];
  selected: string;
  alpha: number;
  view: View;
  size: Size;
  dpr: number;
}

/** Pictures of a storey's plan at up to three zooms, the latest first: zooming out again finds the earlier one. */
const layers = new Map<string, readonly Layer[]>();
const MOST_LAYERS = 3;
const MOST_STOREYS = 2;
/** Zooms nearer to each other than this factor share a picture. */
const SAME_ZOOM = 1.6;
/** Storeys whose view has come to rest and is to be painted sharply. */
const rested = new Set<string>();
let resting: ReturnType<typeof setTimeout> | undefined;

/** Draws what is traced on a storey; `again` is called when the view has rested and it is to be painted sharply. */
export function paintPlan(
  ctx: CanvasRenderingContext2D,
  shapes: Derived,
  rows: Rows,
  view: View,
  size: Size,
  dpr: number,
  shown: Shown,
  again: () => void,
): void {
  if (shapes.walls.size <= LARGE) return paintSharply(ctx, shapes, rows, view, size, dpr, shown);
  const selected = shown.selected.join();
  let known = (layers.get(shapes.storey) ?? []).filter(
    (l) =>
      l.shapes === shapes &&
      l.openings === rows.opening &&
      l.walls === rows.wall &&
      l.selected === selected &&
      l.alpha === shown.alpha &&
      l.dpr === dpr,
  );
  const off = (l: Layer) => Math.abs(Math.log(l.view.k / view.k));
  let layer = rested.delete(shapes.storey)
    ? known.find((l) => isAt(l, view))
    : known.filter((l) => serves(l, view, size)).sort((a, b) => off(a) - off(b))[0];
  if (!layer) {
    layer = { ...layerOf(shapes, rows, view, size, dpr, shown), selected };
    known = [layer, ...known.filter((l) => off(l) > Math.log(SAME_ZOOM))].slice(0, MOST_LAYERS);
  } else if (!isAt(layer, view)) {
    clearTimeout(resting);
    resting = setTimeout(() => {
      rested.add(shapes.storey);
      again();
    }, REST_MS);
  }
  // Those of the storey at hand and of one seen through it; others are let go.
  layers.delete(shapes.storey);
  layers.set(shapes.storey, known);
  const [oldest] = layers.keys();
  if (layers.size > MOST_STOREYS && oldest !== undefined) layers.delete(oldest);
  drawLayer(ctx, layer, view, size);
}

function isAt({ view }: Layer, { k, x, y }: View): boolean {
  return view.k === k && view.x === x && view.y === y;
}

function serves(layer: Layer, view: View, size: Size): boolean {
  const zoom = view.k / layer.view.k;
  if (zoom > MOST_ZOOM || zoom < 1 / MOST_ZOOM) return false;
  // A little paper may show at the edges until the view rests.
  const most = (pixels: number, seen: number) =>
    Math.max(0, (pixels * (0.5 + MARGIN)) / layer.view.k - (0.5 * seen) / view.k) + (0.2 * seen) / view.k;
  return (
    Math.abs(view.x - layer.view.x) <= most(layer.size.width, size.width) &&
    Math.abs(view.y - layer.view.y) <= most(layer.size.height, size.height)
  );
}

function layerOf(
  shapes: Derived,
  rows: Rows,
  view: View,
  size: Size,
  dpr: number,
  shown: Shown,
): Omit<Layer, "selected"> {
  const canvas = document.createElement("canvas");
  const wide = { width: size.width * (1 + 2 * MARGIN), height: size.height * (1 + 2 * MARGIN) };
  canvas.width = Math.round(wide.width * dpr);
  canvas.height = Math.round(wide.height * dpr);
  const ctx = canvas.getContext("2d");
  if (ctx) paintSharply(ctx, shapes, rows, view, wide, dpr, { ...shown, alpha: 1 });
  return { canvas, shapes, openings: rows.opening, walls: rows.wall, alpha: shown.alpha, view, size, dpr };
}

function drawLayer(ctx: CanvasRenderingContext2D, layer: Layer, view: View, size: Size): void {
  const zoom = view.k / layer.view.k;
  const { canvas, dpr } = layer;
  // Where the board's corner lies in the picture, and how much of it is seen.
  const left = canvas.width / 2 + dpr * ((view.x - layer.view.x) * layer.view.k - size.width / 2 / zoom);
  const top = canvas.height / 2 + dpr * ((layer.view.y - view.y) * layer.view.k - size.height / 2 / zoom);
  const [x1, y1] = [Math.max(0, left), Math.max(0, top)];
  const x2 = Math.min(canvas.width, left + (dpr * size.width) / zoom);
  const y2 = Math.min(canvas.height, top + (dpr * size.height) / zoom);
  if (x2 <= x1 || y2 <= y1) return;
  ctx.save();
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.globalAlpha = layer.alpha;
  // Only while it moves is it not at its own size, and then every frame counts.
  ctx.imageSmoothingEnabled = false;
  ctx.drawImage(
    canvas,
    x1,
    y1,
    x2 - x1,
    y2 - y1,
    (x1 - left) * zoom,
    (y1 - top) * zoom,
    (x2 - x1) * zoom,
    (y2 - y1) * zoom,
  );
  ctx.restore();
}

/** Washes with firm edges, so that the ink shows through. */
function paintSharply(
  ctx: CanvasRenderingContext2D,
  shapes: Derived,
  rows: Rows,
  view: View,
  size: Size,
  dpr: number,
  { selected, alpha }: Shown,
): void {
  const { squares, rooms } = pathsOf(shapes);
  const m = toScreen(view, size);
  const back = inverse(m);
  const [x1, y2] = apply(back, [0, 0]);
  const [x2, y1] = apply(back, [size.width, size.height]);
  const seen: Box = [x1, y1, x2, y2];
  ctx.save();
  // In mm: paths need no new points for another view, and a pixel is 1/k of them.
  ctx.setTransform(dpr * m[0], 0, 0, dpr * m[4], dpr * m[2], dpr * m[5]);
  const px = 1 / view.k;
  ctx.lineJoin = "miter";
  ctx.globalAlpha = alpha;
  ctx.fillStyle = ROOM;
  ctx.fill(rooms, "evenodd");
  const inView = [...squares.values()].filter(({ box }) => touch(box, seen));
  ctx.fillStyle = WASH;
  for (const { body } of inView) ctx.fill(body, "nonzero");
  ctx.strokeStyle = EDGE;
  ctx.lineWidth = 1.6 * px;
  for (const { faces, shapes: all } of inView) {
    if (thickest(all) * view.k > THIN_PX) ctx.stroke(faces);
  }
  paintEvidence(ctx, rows, shapes.storey, selected, view.k, seen);
  for (const { shapes: all } of inView) {
    for (const shape of all) {
      for (const opening of shape.openings) {
        const row = rows.opening.get(opening.id);
        if (row) paintOpening(ctx, opening.polygon, row, view.k);
      }
    }
  }
  ctx.restore();
  ctx.save();
  ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
  ctx.globalAlpha = alpha;
  const isInside = (at: XY) => [...shapes.regions.values()].some((region) => contains(region.polygon, at));
  for (const { shapes: all } of inView) {
    for (const { openings } of all) {
      for (const { id, polygon } of openings) {
        const row = rows.opening.get(id);
        if (row) paintNumber(ctx, polygon, row, m, view.k, isInside);
      }
    }
  }
  ctx.restore();
}

function pathsOf(shapes: Derived): Painted {
  let squares = painted.get(shapes.walls);
  if (!squares) {
    squares = squaresOf(shapes);
    painted.set(shapes.walls, squares);
    latest = { storey: shapes.storey, squares };
  }
  let rooms = roomPaths.get(shapes.regions);
  if (!rooms) {
    rooms = new Path2D();
    for (const region of shapes.regions.values()) {
      for (const ring of [region.polygon, ...region.holes]) trace(rooms, ring, true);
    }
    roomPaths.set(shapes.regions, rooms);
  }
  return { squares, rooms };
}

function squaresOf(shapes: Derived): Map<string, Square> {
  const inSquare = new Map<string, WallShape[]>();
  for (const shape of shapes.walls.values()) {
    const [x = 0, y = 0] = shape.stretches[0]?.from ?? [];
    const key = `${Math.floor(x / SQUARE_MM)},${Math.floor(y / SQUARE_MM)}`;
    const list = inSquare.get(key);
    if (list) list.push(shape);
    else inSquare.set(key, [shape]);
  }
  const before = latest?.storey === shapes.storey ? latest.squares : undefined;
  const squares = new Map<string, Square>();
  for (const [key, all] of inSquare) {
    const old = before?.get(key);
    const same = old && old.shapes.length === all.length && old.shapes.every((s, i) => s === all[i]);
    squares.set(key, same ? old : squareOf(all));
  }
  return squares;
}

function squareOf(shapes: readonly WallShape[]): Square {
  const body = new Path2D();
  const faces = new Path2D();
  const box: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { stretches } of shapes) {
    for (const { from, right, to, left } of stretches) {
      const ring = [from, ...right, to, ...left];
      trace(body, ring, true);
      trace(faces, right, false);
      trace(faces, left, false);
      for (const [x = 0, y = 0] of ring) {
        box[0] = Math.min(box[0], x);
        box[1] = Math.min(box[1], y);
        box[2] = Math.max(box[2], x);
        box[3] = Math.max(box[3], y);
      }
    }
  }
  return { shapes, body, faces, box };
}

function touch(a: Box, b: Box): boolean {
  return a[0] <= b[2] && a[2] >= b[0] && a[1] <= b[3] && a[3] >= b[1];
}

/** Thickness of the thickest of some walls, about. */
function thickest(shapes: readonly WallShape[]): number {
  let most = 0;
  for (const { stretches } of shapes) {
    const [stretch] = stretches;
    const [x1 = 0, y1 = 0] = stretch?.from ?? [];
    const [x2 = 0, y2 = 0] = stretch?.right[0] ?? [];
    most = Math.max(most, 2 * Math.hypot(x2 - x1, y2 - y1));
  }
  return most;
}

/** Evidence wear: a figure is a full line along the middle, free hand a dotted one; probed or clicked ink has none. */
function paintEvidence(
  ctx: CanvasRenderingContext2D,
  rows: Rows,
  storey: string,
  selected: readonly string[],
  k: number,
  seen: Box,
): void {
  const chosen = new Set(selected);
  const figure = new Path2D();
  const free = new Path2D();
  for (const { wall, chain } of wallLines(rows, storey)) {
    const [[x = 0, y = 0] = []] = chain;
    const isChosen = chosen.has(wall.id);
    if (isChosen) {
      const path = new Path2D();
      trace(path, chain, false);
      ctx.strokeStyle = "rgba(15, 79, 75, 0.55)";
      ctx.lineWidth = Math.max(3 / k, wall.thickness);
      ctx.stroke(path);
    } else if (wall.evidence !== "ink" && wall.thickness * k > THIN_PX && x > seen[0] - 1e5 && y > seen[1] - 1e5) {
      trace(wall.evidence === "figure" ? figure : free, chain, false);
    }
  }
  ctx.strokeStyle = EDGE;
  ctx.lineWidth = 1 / k;
  ctx.stroke(figure);
  ctx.setLineDash([2 / k, 4 / k]);
  ctx.stroke(free);
  ctx.setLineDash([]);
}
