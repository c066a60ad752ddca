import { useEffect, useRef } from "react";
import { apply } from "../geometry/maps";
import type { XY } from "../geometry/plane";
import { type Size, toScreen } from "../geometry/view";
import { useProject } from "../store/project";
import { inWords, said, typedAs } from "../ui/measures";
import { Plain } from "../ui/parts";
import { currentAct, useCurrentAct } from "./act";
import { type Caution, useDesk, useDeskFields } from "./desk";
import { useFrames } from "./frames";
import { enterSlip } from "./hand";

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
    if (!open) return;
    input.current?.focus();
    // What is proposed is typed over, but for the key that opened the slip, and what is begun with a space behind it.
    const text = useDesk.getState().slip ?? "";
    if (text.length > 1 && !text.endsWith(" ")) input.current?.select();
  }, [open]);
  if (!slip || desk.slip === null) return null;
  const { label, hint, More, passes = false } = slip;
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
        void enterSlip(desk.slip ?? "");
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
          className="w-full min-w-0 border-b border-line bg-transparent text-xl font-semibold outline-none"
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
        {desk.slipError === null ? hint : said(desk.slipError)}
      </p>
    </form>
  );
}

/** px between the slip and what it is about */
const GAP_PX = 20;
/** px at the board's foot and head that the lens' strip may take */
const STRIP_PX = 190;

/** Where it hides nothing of what is measured: beside it, above it, or below it, and off the strip with both ends. It follows the hand. */
function put(form: HTMLFormElement | null): void {
  const slip = form ? currentAct()?.slip?.() : null;
  if (!form || !slip) return;
  const { view, size } = useDesk.getState();
  const screen = toScreen(view, size);
  const points = (slip.about ?? [slip.at]).map((p) => apply(screen, p));
  const [x, y] = apply(screen, slip.at);
  const { left, top } = beside(points, [x, y], { width: form.offsetWidth, height: form.offsetHeight }, size);
  form.style.left = `${left}px`;
  form.style.top = `${top}px`;
  const { pointer } = useDesk.getState();
  const [px, py] = pointer ? apply(screen, pointer) : [Number.NaN, Number.NaN];
  const isUnder =
    px > left - GAP_PX &&
    px < left + form.offsetWidth + GAP_PX &&
    py > top - GAP_PX &&
    py < top + form.offsetHeight + GAP_PX;
  // What is no obstacle to the hand is none to the eye either.
  form.style.opacity = slip.passes && isUnder ? "0.2" : "";
}

/**
 * @param points what must not be hidden, screen
 * @param at its middle
 */
export function beside(points: readonly XY[], at: XY, slip: Size, board: Size): { left: number; top: number } {
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const [x1, x2, y1, y2] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const within = (v: number, most: number) => Math.max(8, Math.min(most - 8, v));
  const strip = y2 < board.height - STRIP_PX ? [board.height - STRIP_PX, board.height] : [0, STRIP_PX - 50];
  const [left, top] = [at[0] - slip.width / 3, at[1] - slip.height / 2];
  const places = [
    { left, top: y1 - slip.height - GAP_PX },
    { left, top: y2 + GAP_PX },
    { left: x2 + GAP_PX, top },
    { left: x1 - slip.width - GAP_PX, top },
  ].map((p) => ({ left: within(p.left, board.width - slip.width), top: within(p.top, board.height - slip.height) }));
  const hides = (p: { left: number; top: number }) => {
    const wide = Math.min(p.left + slip.width, x2 + 6) - Math.max(p.left, x1 - 6);
    const high = Math.min(p.top + slip.height, y2 + 6) - Math.max(p.top, y1 - 6);
    const over = Math.min(p.top + slip.height, strip[1] ?? 0) - Math.max(p.top, strip[0] ?? 0);
    return Math.max(0, wide) * Math.max(0, high) * 4 + Math.max(0, over) * slip.width;
  };
  return places.reduce((best, p) => (hides(p) < hides(best) ? p : best));
}

/** A figure that looks like a slip: taken as it would agree, or by a second Enter as it was typed. */
function CautionWords({ caution }: { caution: Caution }) {
  const take = inWords(caution.wouldBeMm);
  return (
    <div role="alert" className="mt-1 border-t border-line pt-1 text-[13px] text-rust">
      {said(caution.message)}
      <div className="mt-1 flex items-center gap-2">
        {mends(caution) && (
          <Plain
            onClick={() =>
              useDesk.setState({
                slip: typedAs(caution.wouldBeMm, 1),
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
