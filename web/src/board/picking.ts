import { apply, inverse } from "../geometry/maps";
import { fitMap, mmPerPixel } from "../store/drawings";
import { useProject } from "../store/project";
import type { Click } from "./act";
import { drafted, type Picked, useDesk } from "./desk";
import { inkAt, inkIsReady } from "./found";
import { snapAt } from "./snap";

/** Refinements under way, by the place of the pick in the draft: what is stated waits for them. */
let refining: Promise<void>[] = [];

/** What an act wants of its picks. */
export interface Picking {
  wanted: number;
  /** what stands in the slip when all are there; null where there is none */
  text: string | null;
  /** when all are there and the ink has answered for each */
  done?: () => Promise<void>;
}

const NONE: readonly Picked[] = [];

/** Picks that stand so far. */
export function picksNow(): readonly Picked[] {
  return drafted("picks")?.picks ?? NONE;
}

/** A click where a point is wanted: it is put on what the ink or the file shows there, unless held off. */
export function pick({ pointer, free, corners }: Click, { wanted, text, done }: Picking): void {
  const desk = useDesk.getState();
  const map = fitMap(useProject.getState().rows, desk.drawing);
  if (!map) return;
  let picks = picksNow();
  if (picks.length >= wanted) {
    // A click elsewhere begins again; a figure half typed is not thrown away by it.
    if (text !== null && desk.slip !== "" && desk.slip !== null) return;
    picks = [];
  }
  if (picks.length === 0) refining = [];
  const known = !free && desk.pointer === pointer ? desk.snap : null;
  const exact = snapAt(pointer, free);
  const held = exact ?? known;
  const index = picks.length;
  const next: Picked = {
    at: apply(inverse(map), held?.at ?? pointer),
    sigmaPx: held?.sigmaPx ?? handSigma(),
    words: held?.words ?? (free ? "by hand" : "…"),
    thicknessPx: held?.thicknessPx ?? null,
  };
  const all = [...picks, next];
  const complete = all.length === wanted;
  useDesk.setState({
    draft: { of: "picks", picks: all, focused: complete ? wanted - 1 : 0, ticks: [] },
    slip: complete ? text : null,
    slipError: null,
    caution: null,
    snap: null,
  });
  if (!free && held?.sigmaPx === undefined) refining.push(refine(index, next, pointer, corners));
  if (complete && done) void allFound().then(done);
}

async function refine(index: number, raw: Picked, pointer: Click["pointer"], corners: boolean): Promise<void> {
  // Asked and answered under the fit there was at the click: a newer one may come in between.
  const map = fitMap(useProject.getState().rows, useDesk.getState().drawing);
  const found = await inkAt(pointer, corners);
  const draft = drafted("picks");
  // Nudged, taken back or begun anew meanwhile: the hand's own word counts.
  if (draft?.picks[index] !== raw || !map) return;
  const put: Picked = found
    ? {
        at: apply(inverse(map), found.at),
        sigmaPx: found.sigmaPx ?? raw.sigmaPx,
        words: found.words,
        thicknessPx: found.thicknessPx ?? null,
      }
    : { ...raw, words: inkIsReady() ? "nothing found, by hand" : "by hand, the page is still being read" };
  useDesk.setState({ draft: { ...draft, picks: draft.picks.map((p, i) => (i === index ? put : p)) } });
}

/** Moves the focused pick of the draft, page pixels. */
export function nudgeEnd(dx: number, dy: number): void {
  const draft = drafted("picks");
  if (!draft) return;
  const moved = Math.min(draft.focused, draft.picks.length - 1);
  const nudged = (p: Picked): Picked => ({
    at: [p.at[0] + dx, p.at[1] + dy],
    sigmaPx: NUDGED_PX,
    words: "nudged",
    thicknessPx: p.thicknessPx,
  });
  useDesk.setState({ draft: { ...draft, picks: draft.picks.map((p, i) => (i === moved ? nudged(p) : p)) } });
}

export function focusEnd(focused: number): void {
  const draft = drafted("picks");
  if (draft) useDesk.setState({ draft: { ...draft, focused } });
}

/** Looked at eight times as large, an end is held this well, page pixels. */
export const NUDGED_PX = 0.35;

/** How well a hand points without the ink's help, at the present zoom. */
function handSigma(): number {
  const { drawing, view } = useDesk.getState();
  const zoom = view.k * mmPerPixel(useProject.getState().rows, drawing);
  return Math.max(0.35, Math.min(4, 0.5 / zoom));
}

/** Waits until the ink has answered for every pick of the draft. */
export async function allFound(): Promise<void> {
  await Promise.all(refining);
}
