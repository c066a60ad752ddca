import { drawingsOn } from "../store/drawings";
import { change, useProject } from "../store/project";
import { type Thing, TINTS } from "../store/rows";
import { useDesk, useDeskFields } from "./desk";
import { TINT_COLOURS } from "./ink";
import { chooseDrawing } from "./place";

/** How the drawings of this storey or side show: fade, ink alone, before or behind the tracing, order, hidden. */
export function HowItShows() {
  const { storey, side, drawing } = useDeskFields("storey", "side", "drawing");
  const rows = useProject((s) => s.rows);
  const drawings = drawingsOn(rows, { storey, side }).reverse();
  return (
    <section
      className="absolute bottom-14 left-3 z-10 max-h-[70%] w-[352px] overflow-y-auto rounded-lg border-2 border-ink bg-sheet shadow-sm"
      aria-label="How drawings show"
    >
      {drawings.length === 0 && <p className="p-3 text-[13px] text-quiet">There is no drawing here yet.</p>}
      {drawings.map((d, i) => (
        <Row key={d.id} drawing={d} above={drawings[i - 1]} below={drawings[i + 1]} current={d.id === drawing} />
      ))}
    </section>
  );
}

function Row(props: {
  drawing: Thing<"drawing">;
  above: Thing<"drawing"> | undefined;
  below: Thing<"drawing"> | undefined;
  current: boolean;
}) {
  const { drawing } = props;
  const fading = useDesk((s) => (s.fading?.drawing === drawing.id ? s.fading.fade : null));
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "drawing", id: drawing.id, values }]);
  const swap = (other: Thing<"drawing"> | undefined) => {
    if (!other) return;
    // Drawings from before there was an order may share a number.
    const mine = other.order === drawing.order ? other.order + (other === props.above ? 1 : -1) : other.order;
    void change("Order of drawings", [
      { do: "set", type: "drawing", id: drawing.id, values: { order: Math.max(0, mine) } },
      { do: "set", type: "drawing", id: other.id, values: { order: drawing.order + (mine < 0 ? 1 : 0) } },
    ]);
  };
  const keep = () => {
    if (fading === null) return;
    set("Fade", { fade: fading });
    useDesk.setState({ fading: null });
  };
  const small = "rounded border px-1.5 py-0.5 text-[13px] disabled:opacity-40";
  const flag = (on: boolean) => `${small} ${on ? "border-ink bg-ink text-white" : "border-line bg-white"}`;
  return (
    <fieldset
      className={`border-b border-line px-3 py-2.5 last:border-b-0 ${props.current ? "bg-white" : ""}`}
      aria-label={drawing.name}
    >
      <div className="flex items-center gap-1.5">
        <button
          type="button"
          className={`min-w-0 flex-1 truncate text-left ${props.current ? "font-semibold" : ""}`}
          title={drawing.name}
          onClick={() => chooseDrawing(drawing.id)}
        >
          {drawing.name}
        </button>
        <button
          type="button"
          className={`${small} border-line bg-white`}
          disabled={!props.above}
          onClick={() => swap(props.above)}
        >
          up
        </button>
        <button
          type="button"
          className={`${small} border-line bg-white`}
          disabled={!props.below}
          onClick={() => swap(props.below)}
        >
          down
        </button>
        <button
          type="button"
          className={flag(drawing.hidden)}
          aria-pressed={drawing.hidden}
          onClick={() => set(drawing.hidden ? "Show a drawing" : "Hide a drawing", { hidden: !drawing.hidden })}
        >
          hidden
        </button>
      </div>
      <div className="mt-1.5 flex items-center gap-1.5">
        <label className="flex min-w-0 flex-1 items-center gap-1.5 text-[13px]">
          fade
          <input
            type="range"
            min={0.05}
            max={1}
            step={0.05}
            value={fading ?? drawing.fade}
            className="min-w-0 flex-1 accent-ink"
            aria-label={`Fade of ${drawing.name}`}
            onChange={(e) => useDesk.setState({ fading: { drawing: drawing.id, fade: e.target.valueAsNumber } })}
            onPointerUp={keep}
            onKeyUp={keep}
            onBlur={keep}
          />
        </label>
        <button
          type="button"
          className={flag(drawing.before)}
          aria-pressed={drawing.before}
          onClick={() => set("Before or behind the tracing", { before: !drawing.before })}
        >
          before tracing
        </button>
        <button
          type="button"
          className={flag(drawing.inkOnly)}
          aria-pressed={drawing.inkOnly}
          onClick={() => set("Ink only", { inkOnly: !drawing.inkOnly })}
        >
          ink only
        </button>
      </div>
      {drawing.inkOnly && (
        <fieldset className="mt-1.5 flex items-center gap-1.5 text-[13px]">
          <legend className="sr-only">Tint of the ink of {drawing.name}</legend>
          {TINTS.map((tint) => (
            <button
              key={tint}
              type="button"
              aria-pressed={drawing.tint === tint}
              className={`flex items-center gap-1 rounded border px-1.5 py-0.5 ${drawing.tint === tint ? "border-ink bg-white font-semibold" : "border-line"}`}
              onClick={() => set("Tint", { tint })}
            >
              <span
                className="size-2.5 rounded-full"
                style={{ background: `rgb(${TINT_COLOURS[tint].join(" ")})` }}
                aria-hidden="true"
              />
              {tint}
            </button>
          ))}
        </fieldset>
      )}
    </fieldset>
  );
}
