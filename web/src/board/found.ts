import type { Schemas } from "../api/client";
import { api, settled } from "../api/client";
import { apply, inverse, type PageMap } from "../geometry/maps";
import type { XY } from "../geometry/plane";
import { fitMap, mmPerPixel } from "../store/drawings";
import { inProject, useProject } from "../store/project";
import { picturesAre } from "../store/work";
import { currentAct } from "./act";
import { type Snap, useDesk } from "./desk";

/** Screen pixels that a hand is off by; the ink is looked at that far round the pointer, and no further than the lens shows. */
const HAND_PX = 3.4;
const LEAST_PX = 5;
/** The server looks no further than this, page pixels. */
const MOST_PX = 34;
/** A direction is told over this far to either side, mm. */
const LEVEL_MM = 50;
/** ms of rest before the ink is asked about */
const REST = 35;

/** How far round the pointer the ink is looked at, page pixels. */
export function reachPx(drawing = useDesk.getState().drawing): number {
  const { view } = useDesk.getState();
  const zoom = view.k * mmPerPixel(useProject.getState().rows, drawing);
  return Math.max(LEAST_PX, Math.min(MOST_PX, HAND_PX / zoom));
}

let timer: ReturnType<typeof setTimeout> | undefined;
let asking: AbortController | null = null;

/** When the pointer rests where a point is wanted, says what is there. An older question is called off. */
export function lookNear(pointer: XY, corners: boolean): void {
  clearTimeout(timer);
  asking?.abort();
  timer = setTimeout(async () => {
    asking = new AbortController();
    const found = await inkAt(pointer, corners, asking.signal);
    // Where the pointer has gone on meanwhile, the answer is of no use.
    if (!found || useDesk.getState().pointer !== pointer) return;
    const act = currentAct();
    const snap = act?.takesInk ? act.takesInk(found, pointer) : found;
    if (snap) useDesk.setState({ snap });
  }, REST);
}

/** Whether the ink is asked about a point where nothing surer was found. */
export function wantsInk(snap: Snap | null): boolean {
  const act = currentAct();
  return snap?.sigmaPx === undefined && (act?.wanted !== undefined || (act?.asksInk?.(snap) ?? false));
}

export function lookAway(): void {
  clearTimeout(timer);
  asking?.abort();
}

/** Whether the ink of a drawing, the one at hand, can be looked at. */
export function inkIsReady(drawing = useDesk.getState().drawing): boolean {
  const project = useProject.getState();
  return picturesAre(project, project.rows.drawing.get(drawing ?? "")?.page ?? "") === "ready";
}

/** What the ink shows near a model point: the corner, column, line or face that a pick there means. */
export async function inkAt(
  pointer: XY,
  corners: boolean,
  signal?: AbortSignal,
  drawing = useDesk.getState().drawing,
): Promise<Snap | null> {
  const { rows, pages } = useProject.getState();
  const map = fitMap(rows, drawing);
  const row = drawing === null ? undefined : rows.drawing.get(drawing);
  if (!map || !row || !inkIsReady(drawing)) return null;
  const [x, y] = apply(inverse(map), pointer);
  try {
    const { found } = await settled(
      api.GET("/api/projects/{project}/pages/{id}/found", {
        params: {
          path: inProject(row.page),
          query: {
            x,
            y,
            reach: reachPx(drawing),
            // A guess tells pens from walls as well: it takes the paper's own size.
            mmPerPixel: mmPerPixel(rows, drawing),
            ...(corners ? { only: "corners" as const } : {}),
            ...(currentAct()?.wantsLevel ? { along: levelOnPage(map, pointer) } : {}),
          },
        },
        ...(signal ? { signal } : {}),
      }),
    );
    if (!found) return null;
    return {
      at: apply(map, [found.x, found.y]),
      words: wordsFor(found, row.kind === "site", pages.get(row.page)?.made?.isScene ?? false),
      kind: found.kind,
      sigmaPx: found.sigmaPx,
      thicknessPx: found.thicknessPx,
      ...(found.alongDegrees === null ? {} : { along: alongOf(map, [found.x, found.y], found.alongDegrees) }),
    };
  } catch {
    return null; // called off, or away: the hand's own place serves
  }
}

/** Which way level runs on the page near a point of the model, degrees counter-clockwise as seen. */
function levelOnPage(map: PageMap, [x, y]: XY): number {
  const back = inverse(map);
  const [from, to] = [apply(back, [x - LEVEL_MM, y]), apply(back, [x + LEVEL_MM, y])];
  return (Math.atan2(from[1] - to[1], to[0] - from[0]) * 180) / Math.PI;
}

/** A direction of the page, counter-clockwise as seen, as one of the model. */
function alongOf(map: PageMap, at: XY, degrees: number): number {
  const [dx, dy] = [Math.cos((degrees * Math.PI) / 180), -Math.sin((degrees * Math.PI) / 180)];
  const [from, to] = [apply(map, at), apply(map, [at[0] + dx, at[1] + dy])];
  return Math.atan2(to[1] - from[1], to[0] - from[0]);
}

/** On a site no mark is a column, and no edge a wall's. */
const ON_SITE = { "column centre": "middle of the mark", "wall face": "edge" } as const;

function wordsFor({ kind }: Schemas["Found"], isSite: boolean, isScene: boolean): string {
  if (isScene) return `${kind === "wall face" ? "edge" : kind}, on the photograph`;
  const words =
    kind === "line" ? "middle of a line" : isSite && kind in ON_SITE ? ON_SITE[kind as keyof typeof ON_SITE] : kind;
  return `${words}, on the scan`;
}
