import { setAct, useDesk, useDeskFields } from "../desk/desk";
import { showTraced, showWholePage } from "../desk/keys";
import { change } from "../project/store";
import { roundStep } from "./geometry";

/** Along the board's foot: the yardstick, and how the picture shows. */
export function BoardFoot() {
  const { view, fade, drawing, act } = useDeskFields("view", "fade", "drawing", "act");
  const step = roundStep(view.k, 60);
  const words = step >= 1000 ? `${step / 1000} m` : step >= 10 ? `${step / 10} cm` : `${step} mm`;
  const box = "flex h-8 items-center gap-2 rounded-lg border border-line bg-sheet px-3 text-[13px]";
  const keep = () => {
    if (drawing) void change("Fade", [{ do: "set", type: "drawing", id: drawing, values: { fade } }]);
  };
  return (
    <div className="pointer-events-none absolute bottom-3 left-3 z-10 flex flex-wrap gap-2 [&>*]:pointer-events-auto">
      <div className={box} role="img" aria-label={`This bar is ${words} long`}>
        <svg width={step * view.k + 2} height="10" aria-hidden="true">
          <title>yardstick</title>
          <path d={`M1 0V10M1 5H${step * view.k + 1}M${step * view.k + 1} 0V10`} stroke="#1c2a26" fill="none" />
        </svg>
        {words}
      </div>
      <label className={box}>
        fade
        <input
          type="range"
          min={0}
          max={1}
          step={0.05}
          value={fade}
          className="w-24 accent-ink"
          onChange={(e) => useDesk.setState({ fade: e.target.valueAsNumber })}
          onPointerUp={keep}
          onKeyUp={keep}
        />
      </label>
      <button
        type="button"
        className={`${box} ${act === "measure" ? "border-ink bg-white font-semibold" : ""}`}
        aria-pressed={act === "measure"}
        onClick={() => setAct(act === "measure" ? null : "measure")}
      >
        measure <kbd>M</kbd>
      </button>
      <button type="button" className={box} onClick={showWholePage}>
        whole page <kbd>F</kbd>
      </button>
      <button type="button" className={box} onClick={showTraced}>
        what is traced <kbd>T</kbd>
      </button>
    </div>
  );
}
