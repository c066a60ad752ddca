import { drawingsOn } from "../store/drawings";
import { useProject } from "../store/project";
import { ruleStep, yardstick } from "../ui/measures";
import { count } from "../ui/numbers";
import { currentAct, useActs } from "./act";
import { setAct, useDesk, useDeskFields } from "./desk";
import { HowItShows } from "./HowItShows";
import { showOther } from "./place";
import { showTraced, showWholePage } from "./views";

/** Along the board's foot: the yardstick, and how the pictures show. */
export function BoardFoot() {
  const desk = useDeskFields("view", "act", "showsOpen", "storey", "side", "draft", "step");
  const { view, act, showsOpen, storey, side } = desk;
  // What is being traced is not covered: the foot gives way until it is done.
  const givesWay = desk.step === "trace" && desk.draft !== null;
  const here = useProject((s) => drawingsOn(s.rows, { storey, side }).length);
  const shown = useProject((s) => drawingsOn(s.rows, { storey, side }).filter((d) => !d.hidden).length);
  const useful = useActs((s) => s.entries).filter((e) => e.step === null);
  const step = ruleStep(view.k, 40);
  const words = yardstick(step);
  const box = "flex h-8 items-center gap-1.5 rounded-lg border border-line bg-sheet px-2.5 text-[13px]";
  return (
    <>
      {showsOpen && !currentAct()?.onPage?.() && <HowItShows />}
      <div
        className={`pointer-events-none absolute bottom-3 left-3 z-10 flex flex-wrap gap-1.5 transition-opacity ${givesWay ? "opacity-25" : "[&>*]:pointer-events-auto"}`}
      >
        <div className={box} role="img" aria-label={`This bar is ${words} long`}>
          <svg width={step * view.k + 2} height="10" aria-hidden="true">
            <title>yardstick</title>
            <path d={`M1 0V10M1 5H${step * view.k + 1}M${step * view.k + 1} 0V10`} stroke="#1c2a26" fill="none" />
          </svg>
          {words}
        </div>
        {here > 0 && (
          <button
            type="button"
            className={`${box} ${showsOpen ? "border-ink bg-white font-semibold" : ""}`}
            aria-expanded={showsOpen}
            aria-label="How drawings show"
            onClick={() => useDesk.setState({ showsOpen: !showsOpen })}
          >
            <span>
              {shown === here ? count(here, "drawing") : `${shown} of ${here}`}
              <span className="max-xl:hidden"> shown</span>
            </span>
            <kbd>H</kbd>
          </button>
        )}
        {useful.map((entry) => (
          <button
            key={entry.act}
            type="button"
            className={`${box} ${act === entry.act ? "border-ink bg-white font-semibold" : ""}`}
            aria-pressed={act === entry.act}
            onClick={() => setAct(act === entry.act ? null : entry.act)}
          >
            {entry.label.toLowerCase()} <kbd>{entry.key}</kbd>
          </button>
        ))}
        {here > 0 && (
          <button type="button" className={box} onClick={showWholePage}>
            <span>
              whole<span className="max-xl:sr-only"> drawing</span>
            </span>
            <kbd>F</kbd>
          </button>
        )}
        {side !== null && here > 1 && (
          <button type="button" className={box} onClick={() => void showOther()}>
            other drawing <kbd>Y</kbd>
          </button>
        )}
        <button type="button" className={box} onClick={showTraced}>
          all traced <kbd>T</kbd>
        </button>
      </div>
    </>
  );
}
