import { useEffect, useState } from "react";
import type { Account, Refused } from "../api/client";
import { Board } from "../board/Board";
import { BoardFoot } from "../board/BoardFoot";
import { choosePlace } from "../desk/acts";
import { goTo, useDesk } from "../desk/desk";
import { showTraced, showWholePage, useKeys } from "../desk/keys";
import { inOrder } from "../desk/selectors";
import { BringInLedger } from "../ledger/BringInLedger";
import { HandOverLedger } from "../ledger/HandOverLedger";
import { ProveLedger } from "../ledger/ProveLedger";
import { Head } from "../ledger/parts";
import { TraceLedger } from "../ledger/TraceLedger";
import { TrueUpLedger } from "../ledger/TrueUpLedger";
import { BrokenLineLens, Lens } from "../lens/Lens";
import { CutOverlay } from "../sources/CutOverlay";
import { MatchPoints } from "../sources/MatchPoints";
import { useWaysIn } from "../sources/useWaysIn";
import { StepRail } from "../steps/StepRail";
import { closeProject, openProject, startPolling, useProject } from "../store/project";
import { startStraightening } from "../store/rectified";
import { KeyList } from "../ui/KeyList";
import { Clashes } from "./Clashes";
import { TopBar } from "./TopBar";
import { Trouble } from "./Trouble";

const LEDGERS = {
  "bring-in": BringInLedger,
  "true-up": TrueUpLedger,
  trace: TraceLedger,
  prove: ProveLedger,
  "hand-over": HandOverLedger,
};

export function ProjectPage(props: { id: string; account: Account; onSignedOut: () => void }) {
  const [error, setError] = useState<string | null>(null);
  const open = useProject((s) => s.id === props.id);
  const step = useDesk((s) => s.step);
  const storey = useDesk((s) => s.storey);
  const isComing = useProject((s) => storey !== null && s.missing.has(storey));
  const { id: account } = props.account;
  useKeys();
  const over = useWaysIn();
  useEffect(() => {
    openProject(props.id, account).then(begin, (refused: Refused) => setError(refused.message));
    const stops = [startPolling(), startStraightening()];
    return () => {
      for (const stop of stops) stop();
      closeProject();
    };
  }, [props.id, account]);
  if (error) {
    return (
      <main className="p-10">
        <h1 className="text-xl font-bold">This project cannot be opened</h1>
        <p className="text-rust">{error}</p>
        <a className="underline" href="#/">
          All projects
        </a>
      </main>
    );
  }
  if (!open) return null;
  const Ledger = isComing && step !== "bring-in" && step !== "true-up" ? Coming : LEDGERS[step];
  return (
    <div className="flex h-full flex-col">
      <TopBar account={props.account} onSignedOut={props.onSignedOut} />
      <div className="flex min-h-0 flex-1">
        <StepRail />
        <Board>
          <Trouble />
          <CutOverlay />
          <Lens />
          <BrokenLineLens />
          <BoardFoot />
          <MatchPoints />
          {over && (
            <div className="pointer-events-none absolute inset-3 z-30 flex items-center justify-center rounded-xl border-4 border-dashed border-ink bg-sheet/80 text-2xl font-bold">
              Let go to bring it in
            </div>
          )}
        </Board>
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

/** In the place of what would be said of a storey before it is known. */
function Coming() {
  return <Head title="This storey is loading">Its walls and rooms are on their way.</Head>;
}

/** Opens where the work stands: on the step that comes next, with the picture in view. */
function begin(): void {
  const { rows } = useProject.getState();
  const [storey] = inOrder(rows.storey.values());
  if (storey) choosePlace({ storey: storey.id, side: null });
  const { drawing } = useDesk.getState();
  const guess = drawing === null || (rows.fit.get(drawing)?.isGuess ?? true);
  if (rows.page.size === 0) goTo("bring-in");
  else if (guess) goTo("true-up");
  else goTo("trace");
  // Once the board knows its size.
  requestAnimationFrame(() => requestAnimationFrame(guess ? showWholePage : showTraced));
}
