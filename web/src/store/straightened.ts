import { apply, inverse, type Map2, type PageMap } from "../geometry/maps";

/** A straightened picture as it was told, and the fit it was told under. */
export interface Rectified {
  shape: string;
  width: number;
  height: number;
  pixelToMm: Map2;
  under: PageMap;
}

/** Where a straightened picture lies now: under a fit of the same shape exactly, under another nearly, until its own picture is made. */
export function lies(picture: Rectified, now: PageMap): Map2 {
  const middle = [picture.width / 2, picture.height / 2] as const;
  const back = inverse(picture.under);
  const at = (x: number, y: number) => apply(now, apply(back, apply(picture.pixelToMm, [x, y])));
  const [cx, cy] = at(...middle);
  const [w, h] = [picture.width / 4, picture.height / 4];
  const [rx, ry] = at(middle[0] + w, middle[1]);
  const [lx, ly] = at(middle[0] - w, middle[1]);
  const [dx, dy] = at(middle[0], middle[1] + h);
  const [ux, uy] = at(middle[0], middle[1] - h);
  const [a, b, d, e] = [(rx - lx) / (2 * w), (dx - ux) / (2 * h), (ry - ly) / (2 * w), (dy - uy) / (2 * h)];
  return [a, b, cx - a * middle[0] - b * middle[1], d, e, cy - d * middle[0] - e * middle[1]];
}
