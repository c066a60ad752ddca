import { api, type Progress, type Schemas, settled } from "../api/client";
import { isSlanted, mapOf } from "../geometry/maps";
import { ask, inProject, useProject } from "./project";
import type { Thing } from "./rows";
import type { Rectified } from "./straightened";
import { isUnderWay, workKey } from "./work";

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
