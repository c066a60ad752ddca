import { useEffect, useRef } from "react";
import { apply } from "../geometry/maps";
import { toScreen } from "../geometry/view";
import { towardsChange, useProject } from "../store/project";
import { grouped } from "../ui/numbers";
import { Plain } from "../ui/parts";
import { currentAct, useCurrentAct } from "./act";
import { type Caution, useDesk, useDeskFields } from "./desk";
import { useFrames } from "./frames";

/** The small field at the line being drawn. While it is open every printable key belongs to it. */
export function FigureSlip() {
  const act = useCurrentAct();
  const desk = useDeskFields("slip", "slipError", "caution", "draft");
  useProject((s) => s.rows);
  const input = useRef<HTMLInputElement>(null);
  const form = useRef<HTMLFormElement>(null);
  const slip = desk.slip === null ? null : (act?.slip?.() ?? null);
  useFrames(() => put(form.current));
  const open = slip !== null;
  useEffect(() => {
    if (open) input.current?.focus();
  }, [open]);
  if (!slip || desk.slip === null) return null;
  const { label, hint, send, More, passes = false } = slip;
  return (
    <form
      ref={(node) => {
        form.current = node;
        put(node);
      }}
      data-slip
      className={`absolute z-20 w-[300px] rounded-lg border-2 border-plum bg-sheet p-2 shadow-sm ${passes ? "pointer-events-none opacity-90" : ""}`}
      onSubmit={(e) => {
        e.preventDefault();
        // Until it is read nothing is said to be saved.
        void towardsChange(() => send(desk.slip ?? ""));
      }}
    >
      {/* With more than one field in it Enter sends a form only where there is something to send it by. */}
      <button type="submit" className="hidden">
        Set it
      </button>
      <label className="flex items-baseline gap-2">
        <span className="text-xs whitespace-nowrap text-quiet">{label}</span>
        <input
          ref={input}
          className="w-full min-w-0 bg-transparent text-xl font-semibold outline-none"
          value={desk.slip}
          autoComplete="off"
          spellCheck={false}
          aria-invalid={desk.slipError !== null}
          aria-describedby="slip-words"
          onChange={(e) => useDesk.setState({ slip: e.target.value, slipError: null, caution: null })}
        />
      </label>
      {More && <More />}
      {desk.caution && <CautionWords caution={desk.caution} />}
      <p
        id="slip-words"
        className={`mt-1 text-xs ${desk.slipError ? "text-rust" : "text-quiet"}`}
        role={desk.slipError ? "alert" : undefined}
      >
        {desk.slipError ?? hint}
      </p>
    </form>
  );
}

/** Above the line that it is about, so that the strip below stays free; below where there is no room above. It follows the hand. */
function put(form: HTMLFormElement | null): void {
  const slip = form ? currentAct()?.slip?.() : null;
  if (!form || !slip) return;
  const { view, size } = useDesk.getState();
  const [x, y] = apply(toScreen(view, size), slip.at);
  const above = y - form.offsetHeight - GAP_PX;
  form.style.left = `${Math.max(8, Math.min(size.width - form.offsetWidth - 10, x - 110))}px`;
  form.style.top = `${above > 8 ? above : y + GAP_PX}px`;
}

/** px between the slip and its line */
const GAP_PX = 24;

/** A figure that looks like a slip: taken as it would agree, or by a second Enter as it was typed. */
function CautionWords({ caution }: { caution: Caution }) {
  const take = `${grouped(caution.wouldBeMm)} mm`;
  return (
    <div role="alert" className="mt-1 border-t border-line pt-1 text-[13px] text-rust">
      {caution.message}
      <div className="mt-1 flex items-center gap-2">
        {mends(caution) && (
          <Plain
            onClick={() =>
              useDesk.setState({
                slip: `${Math.round(caution.wouldBeMm * 10) / 10} mm`,
                caution: null,
                slipError: null,
              })
            }
          >
            Write {take}
          </Plain>
        )}
        <span className="text-quiet">
          <kbd>↵</kbd> again takes it as typed
        </span>
      </div>
    </div>
  );
}

/** Inside read for outside is mended by saying what the figure runs between; no other figure is. */
export function mends({ code }: Caution): boolean {
  return code.startsWith("factor") || ["count", "written", "digits"].includes(code);
}
