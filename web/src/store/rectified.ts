import { api, type Schemas, settled } from "../api/client";
import { apply, inverse, isSlanted, type Map2, mapOf, type PageMap } from "../board/geometry";
import { inProject, useProject } from "./project";

const POLL_MS = 400;

export type Straightening = Schemas["Rectified"];

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

/** Fits whose picture was told of for good: made, stopped or failed. */
const settledFits = new Map<string, unknown>();

/** Keeps asking for the straightened pictures of all drawings whose fit has perspective, until each is there. */
export function startStraightening(): () => void {
  let asking = false;
  const ask = async () => {
    if (asking) return;
    asking = true;
    try {
      for (const fit of useProject.getState().rows.fit.values()) {
        const map = mapOf(fit);
        if (!isSlanted(map) || settledFits.get(fit.id) === fit) continue;
        // What somebody has stopped, or what failed, is not begun again by itself while the fit stays.
        const answer = await settled(
          api.POST("/api/projects/{project}/drawings/{id}/rectified", { params: { path: inProject(fit.id) } }),
        );
        if (answer.state !== "waiting" && answer.state !== "working") settledFits.set(fit.id, fit);
        if (useProject.getState().rows.fit.get(fit.id) === fit) keep(fit.id, answer, map);
      }
    } catch {
      // Away: asked again.
    } finally {
      asking = false;
    }
  };
  const timer = setInterval(() => {
    if (document.visibilityState === "visible") void ask();
  }, POLL_MS);
  const stop = useProject.subscribe((s, old) => {
    if (s.rows.fit !== old.rows.fit) void ask();
  });
  return () => {
    clearInterval(timer);
    stop();
  };
}

function keep(drawing: string, answer: Straightening, under: PageMap): void {
  useProject.setState((s) => {
    const straightening = new Map(s.straightening).set(drawing, answer);
    if (!answer.picture) return { straightening };
    const { width, height, pixelToMm: p } = answer.picture;
    const [a = 1, b = 0, c = 0, d = 0, e = -1, f = 0] = p;
    const picture: Rectified = { shape: answer.shape, width, height, pixelToMm: [a, b, c, d, e, f], under };
    return { straightening, rectified: new Map(s.rectified).set(drawing, picture) };
  });
}

export async function stopStraightening(drawing: string): Promise<void> {
  const params = { path: inProject(drawing) };
  const answer = await settled(api.POST("/api/projects/{project}/drawings/{id}/rectified/stop", { params }));
  useProject.setState((s) => ({ straightening: new Map(s.straightening).set(drawing, answer) }));
}

/** Begins again what was stopped or has failed: it is asked about anew. */
export function straightenAfterAll(drawing: string): void {
  settledFits.delete(drawing);
}
