import { useEffect, useState } from "react";
import { loadSteps, registerActs } from "../../acts";
import { useWaysIn } from "../../acts/bring-in/useWaysIn";
import type { Account, Refused } from "../../api/client";
import { useActs } from "../../board/act";
import { Board } from "../../board/Board";
import { BoardFoot } from "../../board/BoardFoot";
import { goTo, useDesk } from "../../board/desk";
import { Faces } from "../../board/Faces";
import { useKeys } from "../../board/keys";
import { Lens } from "../../board/Lens";
import { choosePlace, keepLeft, showPlace, whereLeft } from "../../board/place";
import { showTraced } from "../../board/views";
import { drawingsOn, type Place } from "../../store/drawings";
import { closeProject, openProject, startPolling, useProject } from "../../store/project";
import { startStraightening } from "../../store/rectified";
import { inOrder } from "../../store/rows";
import { showIn } from "../../ui/measures";
import { Head } from "../../ui/parts";
import { Clashes } from "./Clashes";
import { KeyList } from "./KeyList";
import { StepRail } from "./StepRail";
import { TopBar } from "./TopBar";
import { Trouble } from "./Trouble";
import { usePresence } from "./usePresence";

registerActs();

export function ProjectPage(props: { id: string; account: Account; onSignedOut: () => void }) {
  const [error, setError] = useState<string | null>(null);
  const open = useProject((s) => s.id === props.id);
  const step = useDesk((s) => s.step);
  const storey = useDesk((s) => s.storey);
  const isComing = useProject((s) => storey !== null && s.missing.has(storey));
  const { id: account } = props.account;
  const steps = useActs((s) => s.steps);
  const shows = useProject((s) => [...s.rows.project.values()][0]?.shows ?? "mm");
  const areas = useProject((s) => [...s.rows.project.values()][0]?.areas);
  showIn(shows, areas);
  useKeys();
  usePresence(open ? props.id : null);
  useEffect(() => {
    void loadSteps(step);
  }, [step]);
  const over = useWaysIn();
  useEffect(() => {
    openProject(props.id, account).then(begin, (refused: Refused) => setError(refused.message));
    const stops = [startPolling(), startStraightening()];
    window.addEventListener("pagehide", keepLeft);
    return () => {
      window.removeEventListener("pagehide", keepLeft);
      keepLeft();
      for (const stop of stops) stop();
      closeProject();
    };
  }, [props.id, account]);
  if (error) {
    return (
      <main className="flex h-full items-center justify-center">
        <div className="w-[420px] rounded-xl border border-line bg-sheet p-8">
          <h1 className="text-xl font-bold">This project cannot be opened</h1>
          <p className="mt-2 text-rust">{error}</p>
          <p className="mt-2 text-quiet">
            It may lie in the bin, or have been shared with another account than the one you are signed in with:{" "}
            {props.account.name}.
          </p>
          <a className="mt-5 inline-block rounded-lg border border-zest-edge bg-zest px-4 py-2 font-semibold" href="#/">
            All projects
          </a>
        </div>
      </main>
    );
  }
  if (!open) return null;
  const Ledger = isComing && step !== "bring-in" && step !== "true-up" ? Coming : (steps.get(step)?.Ledger ?? Loading);
  return (
    // In another unit everything is written anew.
    <div key={`${shows} ${areas}`} className="flex h-full flex-col overflow-hidden">
      <TopBar account={props.account} onSignedOut={props.onSignedOut} />
      <div className="flex min-h-0 flex-1">
        <StepRail />
        <Faces>
          <Board>
            <Trouble />
            <Lens />
            {[...steps].map(([of, { Over }]) => Over && <Over key={of} />)}
            <BoardFoot />
            {over && (
              <div className="pointer-events-none absolute inset-3 z-30 flex items-center justify-center rounded-xl border-4 border-dashed border-ink bg-sheet/80 text-2xl font-bold">
                Let go to bring it in
              </div>
            )}
          </Board>
        </Faces>
        <aside
          className="flex w-[322px] shrink-0 flex-col border-l border-line bg-sheet max-[1100px]:w-[264px]"
          aria-label="Ledger"
        >
          <Clashes />
          <Ledger />
        </aside>
      </div>
      <KeyList />
    </div>
  );
}

/** In the place of a step whose code is on its way. */
function Loading() {
  return null;
}

/** In the place of what would be said of a storey before it is known. */
function Coming() {
  return <Head title="This storey is loading">Its walls and rooms are on their way.</Head>;
}

/** Opens where one left it, or where the work stands: on the step that comes next, with the picture in view. */
function begin(): void {
  const { rows } = useProject.getState();
  const left = whereLeft();
  const places: Place[] = [
    ...inOrder(rows.storey.values()).map(({ id }) => ({ storey: id, side: null })),
    ...inOrder(rows.side.values()).map(({ id }) => ({ storey: null, side: id })),
  ];
  const isDrawnOn = (place: Place) => drawingsOn(rows, place).length > 0;
  const isTracedOn = ({ storey }: Place) =>
    storey !== null && [...rows.node.values()].some((node) => node.storey === storey);
  // A plan that stands without a picture comes before the picture of a side.
  const first =
    places.find((place) => place.storey !== null && isDrawnOn(place)) ??
    places.find(isTracedOn) ??
    places.find(isDrawnOn) ??
    places[0];
  const isThere = left !== null && (rows.storey.has(left.storey ?? "") || rows.side.has(left.side ?? ""));
  choosePlace(isThere ? left : (first ?? { storey: null, side: null }));
  if (isThere && rows.drawing.has(left.drawing ?? "")) useDesk.setState({ drawing: left.drawing });
  const { drawing } = useDesk.getState();
  const isTrue = drawing === null ? rows.wall.size > 0 : rows.fit.get(drawing)?.isGuess === false;
  const begun = isTrue ? "trace" : rows.page.size === 0 ? "bring-in" : "true-up";
  goTo(isThere ? left.step : begun);
  // Once the board knows its size.
  const show = drawing === null ? showTraced : showPlace;
  if (!isThere) requestAnimationFrame(() => requestAnimationFrame(show));
}
