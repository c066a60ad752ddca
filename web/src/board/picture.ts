import { api } from "../api/client";
import { apply, composed, inverse, type Map2, scaleOf } from "../geometry/maps";
import { type Size, toScreen, type View } from "../geometry/view";
import type { Picture } from "../store/drawings";
import { inProject, projectId } from "../store/project";
import type { Tint } from "../store/rows";
import { inkOf } from "./ink";

const TILE = 256;
const MOST_KEPT = 600;

/** How a picture shows. */
export interface Look {
  alpha: number;
  /** only its ink, in this tint; null for the picture as it is */
  ink: Tint | null;
  /** whether its paper covers what lies below: fading then fades it to blank paper */
  covers: boolean;
}

const BLANK_PAPER = "#fdfcfa";

interface Kept {
  image: HTMLImageElement;
  /** how often in a row it did not come */
  failures: number;
  /** when it is worth asking again, ms; null where it is there or on its way */
  again: number | null;
}

const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 20_000;

/** Images by address, loaded once; the least recently used go when there are many. What does not come is asked for again. */
export class Images {
  private readonly kept = new Map<string, Kept>();
  private readonly listeners = new Set<() => void>();

  /** @param onLost told when it did not come a second time: perhaps it is not there any more */
  get(address: string, onLost: () => void = () => {}): HTMLImageElement | null {
    let kept = this.kept.get(address);
    if (kept === undefined) kept = this.load(address, 0, onLost);
    else if (kept.again !== null && Date.now() >= kept.again) kept = this.load(address, kept.failures, onLost);
    this.kept.delete(address);
    this.kept.set(address, kept);
    if (this.kept.size > MOST_KEPT) {
      const oldest = this.kept.keys().next().value;
      if (oldest !== undefined) this.kept.delete(oldest);
    }
    return kept.image.complete && kept.image.naturalWidth > 0 ? kept.image : null;
  }

  /** How many are on their way. */
  coming(): number {
    return [...this.kept.values()].filter(({ image, again }) => again === null && !image.complete).length;
  }

  onArrival(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  private load(address: string, failures: number, onLost: () => void): Kept {
    const kept: Kept = { image: new Image(), failures, again: null };
    kept.image.onload = () => this.tell();
    kept.image.onerror = () => {
      const pause = Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** kept.failures++);
      kept.again = Date.now() + pause;
      if (kept.failures === 2) onLost();
      // Whoever still wants it then asks for it.
      setTimeout(() => this.tell(), pause);
    };
    kept.image.src = address;
    return kept;
  }

  private tell(): void {
    for (const listener of this.listeners) listener();
  }
}

export const images = new Images();

const ASKED_MS = 60_000;
const asked = new Map<string, number>();

/** Has the pictures of a page made again, should they be missing; once a minute. */
function askForPictures(page: string): void {
  if (Date.now() - (asked.get(page) ?? 0) < ASKED_MS) return;
  asked.set(page, Date.now());
  void api.POST("/api/projects/{project}/pages/{id}/pictures", { params: { path: inProject(page) } }).catch(() => {});
}

export function highestLevel(width: number, height: number): number {
  let level = 0;
  while (Math.max(width, height) / 2 ** level > TILE) level++;
  return level;
}

/** The level whose pixels come nearest to the screen's from above, 0 … highest. */
export function levelFor(zoom: number, highest: number): number {
  return Math.max(0, Math.min(highest, highest + Math.ceil(Math.log2(zoom) - 0.3)));
}

/**
 * Draws a page as it lies under a view. Where a tile has not arrived, coarser ones stand in; beyond 1 : 1 pixels are
 * shown crisp. The context is in CSS pixels times `dpr`.
 */
export function paintPicture(
  ctx: CanvasRenderingContext2D,
  picture: Picture,
  view: View,
  size: Size,
  dpr: number,
  look: Look,
): void {
  const screen = toScreen(view, size);
  const map = composed(screen, picture.pixelToMm);
  const zoom = scaleOf(map) * dpr;
  ctx.save();
  ctx.setTransform(dpr * map[0], dpr * map[3], dpr * map[1], dpr * map[4], dpr * map[2], dpr * map[5]);
  ctx.beginPath();
  const { crop } = picture;
  ctx.rect(crop.left, crop.top, crop.width, crop.height);
  ctx.clip();
  if (look.covers && look.ink === null && (picture.ready || picture.hasPreview)) {
    ctx.fillStyle = BLANK_PAPER;
    ctx.fillRect(crop.left, crop.top, crop.width, crop.height);
  }
  ctx.globalAlpha = look.alpha;
  ctx.imageSmoothingEnabled = zoom < 1.2;
  // Levels are at most half as large again as the screen shows them; finer filters would be worked out anew for each frame.
  ctx.imageSmoothingQuality = "low";
  const highest = highestLevel(picture.width, picture.height);
  if (picture.ready) {
    paintTiles(ctx, picture, inverse(map), size, highest, levelFor(zoom, highest), look.ink);
  } else if (picture.hasPreview) {
    const preview = images.get(`/api/projects/${projectId()}/pages/${picture.page}/preview`);
    if (preview) ctx.drawImage(preview, 0, 0, picture.width, picture.height);
  }
  ctx.restore();
}

interface Range {
  level: number;
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

/** A tile that has not arrived. */
interface Missing {
  x: number;
  y: number;
  /** by how many levels what stands in for it is coarser; more than there are where nothing does */
  up: number;
}

/** Tiles of one page put together once, so that turning and zooming moves a single picture without seams. */
interface Sheet extends Range {
  canvas: HTMLCanvasElement;
  missing: Missing[];
  /** how many images had arrived when the missing ones were looked for */
  asOf: number;
}

/** The sheets of each canvas: a lens that shows another part of a page must not take the board's. */
const sheets = new WeakMap<HTMLCanvasElement, Map<string, Sheet>>();
const MOST_SHEETS = 6;
/** Tiles kept round what is seen on a board, so that panning needs no new sheet at once; a lens shows less than one. */
const MARGIN = 1;
let arrivals = 0;

images.onArrival(() => {
  arrivals++;
});

function paintTiles(
  ctx: CanvasRenderingContext2D,
  picture: Picture,
  toPage: Map2,
  size: Size,
  highest: number,
  level: number,
  ink: Tint | null,
): void {
  const side = TILE * 2 ** (highest - level);
  const seen = tilesSeen(picture, toPage, size, side);
  if (seen.x2 < seen.x1 || seen.y2 < seen.y1) return;
  const key = `${picture.tiles} ${ink ?? ""}`;
  const own = sheets.get(ctx.canvas) ?? new Map<string, Sheet>();
  sheets.set(ctx.canvas, own);
  let sheet = own.get(key);
  if (!sheet || sheet.level !== level || !covers(sheet, seen)) {
    sheet = blank(picture, { level, ...seen }, side, Math.max(size.width, size.height) > TILE ? MARGIN : 0);
  }
  if (sheet.asOf !== arrivals && sheet.missing.length > 0) fill(sheet, picture, side, ink);
  own.delete(key);
  own.set(key, sheet);
  const oldest = own.keys().next().value;
  if (own.size > MOST_SHEETS && oldest !== undefined) own.delete(oldest);
  const scale = side / TILE;
  ctx.drawImage(
    sheet.canvas,
    sheet.x1 * side,
    sheet.y1 * side,
    sheet.canvas.width * scale,
    sheet.canvas.height * scale,
  );
}

function covers(sheet: Range, seen: Omit<Range, "level">): boolean {
  return sheet.x1 <= seen.x1 && sheet.y1 <= seen.y1 && sheet.x2 >= seen.x2 && sheet.y2 >= seen.y2;
}

/** The tiles of the drawing that lie on the board, first to last. */
function tilesSeen(picture: Picture, toPage: Map2, size: Size, side: number): Omit<Range, "level"> {
  const corners = [
    apply(toPage, [0, 0]),
    apply(toPage, [size.width, 0]),
    apply(toPage, [size.width, size.height]),
    apply(toPage, [0, size.height]),
  ];
  const { crop } = picture;
  const xs = corners.map((c) => c[0]);
  const ys = corners.map((c) => c[1]);
  const right = Math.min(picture.width, crop.left + crop.width);
  const bottom = Math.min(picture.height, crop.top + crop.height);
  return {
    x1: Math.floor(Math.max(crop.left, Math.min(...xs)) / side),
    y1: Math.floor(Math.max(crop.top, Math.min(...ys)) / side),
    x2: Math.ceil(Math.min(right, Math.max(...xs)) / side) - 1,
    y2: Math.ceil(Math.min(bottom, Math.max(...ys)) / side) - 1,
  };
}

function blank(picture: Picture, seen: Range, side: number, margin: number): Sheet {
  const last = (pixels: number) => Math.ceil(pixels / side) - 1;
  const range = {
    level: seen.level,
    x1: Math.max(0, seen.x1 - margin),
    y1: Math.max(0, seen.y1 - margin),
    x2: Math.min(last(picture.width), seen.x2 + margin),
    y2: Math.min(last(picture.height), seen.y2 + margin),
  };
  const canvas = document.createElement("canvas");
  canvas.width = (range.x2 - range.x1 + 1) * TILE;
  canvas.height = (range.y2 - range.y1 + 1) * TILE;
  const missing: Missing[] = [];
  for (let y = range.y1; y <= range.y2; y++) {
    for (let x = range.x1; x <= range.x2; x++) missing.push({ x, y, up: range.level + 1 });
  }
  return { ...range, canvas, missing, asOf: -1 };
}

/** Paints the tiles that have arrived; coarser ones stand in for the others. */
function fill(sheet: Sheet, picture: Picture, side: number, ink: Tint | null): void {
  const ctx = sheet.canvas.getContext("2d");
  if (!ctx) return;
  for (const tile of sheet.missing) paintTile(ctx, sheet, picture, tile, side, ink);
  sheet.missing = sheet.missing.filter((tile) => tile.up > 0);
  sheet.asOf = arrivals;
}

/** Where a tile lies on the page, of a straightened picture roughly: how bright paper is changes slowly over it. */
function onPage(picture: Picture, place: { left: number; top: number; side: number }) {
  const { crop, cutFrom } = picture;
  if (crop === cutFrom) return place;
  const factor = cutFrom.width / crop.width;
  return {
    left: cutFrom.left + place.left * factor,
    top: cutFrom.top + (place.top * cutFrom.height) / crop.height,
    side: place.side * factor,
  };
}

/** Paints the tile, or what comes nearest to it of what has arrived, unless that is painted already. */
function paintTile(
  ctx: CanvasRenderingContext2D,
  sheet: Sheet,
  picture: Picture,
  tile: Missing,
  side: number,
  ink: Tint | null,
): void {
  const { x, y } = tile;
  for (let up = 0; up < Math.min(tile.up, sheet.level + 1); up++) {
    const address = `${picture.tiles}/${sheet.level - up}/${y >> up}/${x >> up}`;
    const loaded = images.get(address, () => askForPictures(picture.page));
    if (!loaded) {
      // The coarse tile is on its way too, and serves the whole neighbourhood until then.
      if (up < 3) continue;
      return;
    }
    const place = onPage(picture, { left: (x >> up) * (side << up), top: (y >> up) * (side << up), side: side << up });
    const image = ink && picture.made ? inkOf(address, loaded, picture.made, ink, place) : loaded;
    const part = TILE >> up;
    const [left, top] = [(x - sheet.x1) * TILE, (y - sheet.y1) * TILE];
    ctx.clearRect(left, top, TILE, TILE);
    ctx.drawImage(image, (x % 2 ** up) * part, (y % 2 ** up) * part, part, part, left, top, TILE, TILE);
    tile.up = up;
    return;
  }
}
