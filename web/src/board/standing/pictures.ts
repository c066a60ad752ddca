import { CanvasTexture, SRGBColorSpace } from "three";
import { apply } from "../../geometry/maps";
import type { XY } from "../../geometry/plane";
import { drawingsOn, pictureOf } from "../../store/drawings";
import { useProject } from "../../store/project";
import { paintPicture } from "../picture";
import type { Place3 } from "./camera";
import type { Standing } from "./scene";

/** The longer side of what a picture is painted on, pixels. */
const LARGEST = 2048;

/** The drawings that show on a storey lie on its floor, those of a side stand on its line. */
export function standingPictures(storeys: readonly string[]): Standing[] {
  const { rows } = useProject.getState();
  const standing: Standing[] = [];
  for (const storey of storeys) {
    const level = rows.storey.get(storey)?.elevation ?? 0;
    for (const { id, hidden, fade, kind } of drawingsOn(rows, { storey, side: null })) {
      if (hidden || kind === "detail") continue;
      const painted = paintedDrawing(id, fade);
      if (!painted) continue;
      const [x1, y1, x2, y2] = painted.box;
      const at = (x: number, y: number): Place3 => [x, y, level + 5];
      standing.push({ ...painted, corners: [at(x1, y1), at(x2, y1), at(x2, y2), at(x1, y2)] });
    }
  }
  for (const side of rows.side.values()) {
    const { fromX, fromY, toX, toY } = side;
    if (fromX === null || fromY === null || toX === null || toY === null) continue;
    const length = Math.max(1, Math.hypot(toX - fromX, toY - fromY));
    const [ux, uy] = [(toX - fromX) / length, (toY - fromY) / length];
    for (const { id, hidden, fade } of drawingsOn(rows, { storey: null, side: side.id })) {
      // What is not trued yet has no size to stand by.
      const painted = hidden || (rows.fit.get(id)?.isGuess ?? true) ? null : paintedDrawing(id, fade);
      if (!painted) continue;
      const [x1, y1, x2, y2] = painted.box;
      const at = (along: number, height: number): Place3 => [fromX + along * ux, fromY + along * uy, height];
      standing.push({ ...painted, corners: [at(x1, y1), at(x2, y1), at(x2, y2), at(x1, y2)] });
    }
  }
  return standing;
}

/** A drawing as the board shows it, in the box round it, model millimetres. */
function paintedDrawing(drawing: string, fade: number) {
  const picture = pictureOf(useProject.getState(), drawing);
  if (!picture) return null;
  const { left, top, width, height } = picture.crop;
  const corners: XY[] = [
    [left, top],
    [left + width, top],
    [left + width, top + height],
    [left, top + height],
  ];
  const placed = corners.map((c) => apply(picture.pixelToMm, c));
  const xs = placed.map((p) => p[0]);
  const ys = placed.map((p) => p[1]);
  const box = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] as const;
  const [across, up] = [box[2] - box[0], box[3] - box[1]];
  if (!(across > 0 && up > 0)) return null;
  const k = LARGEST / Math.max(across, up);
  const size = { width: Math.max(1, Math.round(across * k)), height: Math.max(1, Math.round(up * k)) };
  const canvas = document.createElement("canvas");
  canvas.width = size.width;
  canvas.height = size.height;
  const ctx = canvas.getContext("2d");
  if (!ctx) return null;
  const view = { x: (box[0] + box[2]) / 2, y: (box[1] + box[3]) / 2, k };
  paintPicture(ctx, picture, view, size, 1, { alpha: 1, ink: null, covers: true });
  const texture = new CanvasTexture(canvas);
  texture.colorSpace = SRGBColorSpace;
  texture.anisotropy = 4;
  return { box, texture, alpha: fade };
}
