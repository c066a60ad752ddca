import type { Schemas } from "../api/client";
import { api, settled } from "../api/client";
import { apply, inverse, type XY } from "../board/geometry";
import { inProject, useProject } from "../store/project";
import { picturesAre } from "../store/work";
import { type Snap, useDesk } from "./desk";
import { fitMap, mmPerPixel } from "./selectors";
import { inkForWall } from "./snap";

/** Screen pixels that a hand is off by; the ink is looked at that far round the pointer, and no further than the lens shows. */
const HAND_PX = 3.4;
const LEAST_PX = 5;
/** The server looks no further than this, page pixels. */
const MOST_PX = 34;
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
    const snap = await inkAt(pointer, corners, asking.signal);
    // Where the pointer has gone on meanwhile, the answer is of no use.
    if (!snap || useDesk.getState().pointer !== pointer) return;
    const { act, line, snap: now } = useDesk.getState();
    if (act === "rooms" && snap.kind !== "column centre") return;
    if (act !== "walls") return useDesk.setState({ snap });
    // A face lies half a thickness beside the centre line that is traced.
    if (line === "centre" && snap.kind !== "line" && snap.kind !== "column centre") return;
    const found = inkForWall(snap, pointer);
    const wall = now?.wall;
    useDesk.setState({
      snap: wall === undefined ? found : { ...found, wall, words: `joins this wall, ${found.words}` },
    });
  }, REST);
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
  const { rows } = useProject.getState();
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
          },
        },
        ...(signal ? { signal } : {}),
      }),
    );
    if (!found) return null;
    return {
      at: apply(map, [found.x, found.y]),
      words: wordsFor(found),
      kind: found.kind,
      sigmaPx: found.sigmaPx,
      thicknessPx: found.thicknessPx,
    };
  } catch {
    return null; // called off, or away: the hand's own place serves
  }
}

function wordsFor(found: Schemas["Found"]): string {
  return found.kind === "line" ? "middle of a line, on the scan" : `${found.kind}, on the scan`;
}
