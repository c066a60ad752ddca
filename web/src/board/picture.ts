import { apply, composed, inverse, type Map2, type Size, scaleOf, toScreen, type View } from "./geometry";

const TILE = 256;
const MOST_KEPT = 600;

export interface Picture {
  page: string;
  width: number;
  height: number;
  ready: boolean;
  hasPreview: boolean;
  pixelToMm: Map2;
}

/** Images by address, loaded once; the least recently used go when there are many. */
class Images {
  private readonly kept = new Map<string, HTMLImageElement>();
  private readonly listeners = new Set<() => void>();

  get(address: string): HTMLImageElement | null {
    let image = this.kept.get(address);
    if (image === undefined) {
      image = new Image();
      image.onload = () => {
        for (const listener of this.listeners) listener();
      };
      image.src = address;
    }
    this.kept.delete(address);
    this.kept.set(address, image);
    if (this.kept.size > MOST_KEPT) {
      const oldest = this.kept.keys().next().value;
      if (oldest !== undefined) this.kept.delete(oldest);
    }
    return image.complete && image.naturalWidth > 0 ? image : null;
  }

  onArrival(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }
}

export const images = new Images();

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
  alpha: number,
): void {
  const screen = toScreen(view, size);
  const map = composed(screen, picture.pixelToMm);
  const zoom = scaleOf(map) * dpr;
  ctx.save();
  ctx.setTransform(dpr * map[0], dpr * map[3], dpr * map[1], dpr * map[4], dpr * map[2], dpr * map[5]);
  ctx.globalAlpha = alpha;
  ctx.beginPath();
  ctx.rect(0, 0, picture.width, picture.height);
  ctx.clip();
  ctx.imageSmoothingEnabled = zoom < 1.2;
  ctx.imageSmoothingQuality = "high";
  const highest = highestLevel(picture.width, picture.height);
  if (picture.ready) {
    paintTiles(ctx, picture, inverse(map), size, highest, levelFor(zoom, highest), 0.75 / zoom);
  } else if (picture.hasPreview) {
    const preview = images.get(`/api/pages/${picture.page}/preview`);
    if (preview) ctx.drawImage(preview, 0, 0, picture.width, picture.height);
  }
  ctx.restore();
}

function paintTiles(
  ctx: CanvasRenderingContext2D,
  picture: Picture,
  toPage: Map2,
  size: Size,
  highest: number,
  level: number,
  seam: number,
): void {
  const corners = [
    apply(toPage, [0, 0]),
    apply(toPage, [size.width, 0]),
    apply(toPage, [size.width, size.height]),
    apply(toPage, [0, size.height]),
  ];
  const side = TILE * 2 ** (highest - level);
  const clamp = (v: number, most: number) => Math.max(0, Math.min(Math.ceil(most / side) - 1, Math.floor(v / side)));
  const x1 = clamp(Math.min(...corners.map((c) => c[0])), picture.width);
  const x2 = clamp(Math.max(...corners.map((c) => c[0])), picture.width);
  const y1 = clamp(Math.min(...corners.map((c) => c[1])), picture.height);
  const y2 = clamp(Math.max(...corners.map((c) => c[1])), picture.height);
  for (let y = y1; y <= y2; y++) {
    for (let x = x1; x <= x2; x++) {
      paintTile(ctx, picture, level, x, y, side, seam);
    }
  }
}

function paintTile(
  ctx: CanvasRenderingContext2D,
  picture: Picture,
  level: number,
  x: number,
  y: number,
  side: number,
  seam: number,
): void {
  for (let up = 0; up <= level; up++) {
    const image = images.get(`/api/pages/${picture.page}/tiles/${level - up}/${y >> up}/${x >> up}`);
    if (!image) {
      // The coarse tile is on its way too, and serves the whole neighbourhood until then.
      if (up < 3) continue;
      return;
    }
    const part = TILE >> up;
    const sx = (x % 2 ** up) * part;
    const sy = (y % 2 ** up) * part;
    // Part of a device pixel of overlap hides the seams of a turned or shrunk picture.
    ctx.drawImage(image, sx, sy, part, part, x * side, y * side, side + seam, side + seam);
    return;
  }
}
