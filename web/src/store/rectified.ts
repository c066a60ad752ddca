import { api, type Progress, type Schemas, settled } from "../api/client";
import { apply, inverse, isSlanted, type Map2, mapOf, type PageMap } from "../board/geometry";
import { ask, inProject, useProject } from "./project";
import type { Thing } from "./rows";
import { isUnderWay, workKey } from "./work";

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

/** Under which fit, and at which state of the work, a drawing's picture was last looked for. */
type Seen = Map<string, { fit: unknown; work: Progress | undefined }>;

const AGAIN_MS = 1500;

/** Fetches the straightened pictures of all drawings whose fit has perspective, and asks for those that are not there. */
export function startStraightening(): () => void {
  const seen: Seen = new Map();
  let looking = false;
  const look = async () => {
    if (looking) return;
    looking = true;
    try {
      for (const fit of useProject.getState().rows.fit.values()) if (isSlanted(mapOf(fit))) await lookFor(fit, seen);
    } catch {
      // Away: looked for again.
    } finally {
      looking = false;
    }
  };
  const timer = setInterval(() => {
    if (document.visibilityState === "visible") void look();
  }, AGAIN_MS);
  const stop = useProject.subscribe((s, old) => {
    if (s.rows.fit !== old.rows.fit || s.work !== old.work) void look();
  });
  return () => {
    clearInterval(timer);
    stop();
  };
}

async function lookFor(fit: Thing<"fit">, seen: Seen): Promise<void> {
  const { work, role } = useProject.getState();
  const now = work.get(workKey("rectify-drawing", fit.id));
  const before = seen.get(fit.id);
  if (isUnderWay(now) || (before?.fit === fit && before.work === now)) return;
  const params = { path: inProject(fit.id) };
  const { shape, picture } = await settled(api.GET("/api/projects/{project}/drawings/{id}/rectified", { params }));
  if (useProject.getState().rows.fit.get(fit.id) !== fit) return;
  seen.set(fit.id, { fit, work: now });
  if (picture) return keep(fit, shape, picture);
  // What somebody has stopped, or what failed, is not begun again by itself while the fit stays; nor what came to nothing.
  const isNew = before === undefined ? now === undefined || now.state === "done" : before.fit !== fit;
  if (isNew && role !== "read") await ask("rectify-drawing", fit.id);
}

function keep(fit: Thing<"fit">, shape: string, told: NonNullable<Schemas["Rectified"]["picture"]>): void {
  const { width, height, pixelToMm: p } = told;
  const [a = 1, b = 0, c = 0, d = 0, e = -1, f = 0] = p;
  const picture: Rectified = { shape, width, height, pixelToMm: [a, b, c, d, e, f], under: mapOf(fit) };
  useProject.setState((s) => ({ rectified: new Map(s.rectified).set(fit.id, picture) }));
}
