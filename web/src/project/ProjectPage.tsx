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
import { TraceLedger } from "../ledger/TraceLedger";
import { TrueUpLedger } from "../ledger/TrueUpLedger";
import { BrokenLineLens, Lens } from "../lens/Lens";
import { CutOverlay } from "../sources/CutOverlay";
import { MatchPoints } from "../sources/MatchPoints";
import { useWaysIn } from "../sources/useWaysIn";
import { StepRail } from "../steps/StepRail";
import { KeyList } from "../ui/KeyList";
import { startStraightening } from "./rectified";
import { closeProject, openProject, startPolling, useProject } from "./store";
import { TopBar } from "./TopBar";

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
  useKeys();
  const over = useWaysIn();
  useEffect(() => {
    openProject(props.id).then(begin, (refused: Refused) => setError(refused.message));
    const stops = [startPolling(), startStraightening()];
    return () => {
      for (const stop of stops) stop();
      closeProject();
    };
  }, [props.id]);
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
  const Ledger = LEDGERS[step];
  return (
    <div className="flex h-full flex-col">
      <TopBar account={props.account} onSignedOut={props.onSignedOut} />
      <Trouble />
      <div className="flex min-h-0 flex-1">
        <StepRail />
        <Board>
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
          <Ledger />
        </aside>
      </div>
      <KeyList />
    </div>
  );
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

/** Trouble stands here in words until the next action; lost connections stay until they are found again. */
function Trouble() {
  const { away, signedOut, trouble, waiting } = useProject();
  const lost = signedOut
    ? `You are signed out. ${waiting > 0 ? "Unsaved changes are kept; sign" : "Sign"} in again in another window and they go on.`
    : away
      ? `The server cannot be reached. ${waiting > 0 ? `${waiting} unsaved ${waiting === 1 ? "change is" : "changes are"} kept and sent when it is back.` : "Waiting for it."}`
      : null;
  const words = [trouble, lost].filter((w) => w !== null).join(" ");
  if (words === "") return null;
  return (
    <p
      role="alert"
      className="absolute inset-x-0 top-[46px] z-30 border-y border-rust bg-[#f8ebe4] px-4 py-1.5 text-[14px] font-medium text-rust"
    >
      {words}
    </p>
  );
}
