import { useEffect, useRef } from "react";
import { type Caution, type DeskState, useDesk } from "../desk/desk";
import { setBeside } from "../desk/editing";
import { figureLine, stateFigure } from "../desk/figures";
import { writeNote } from "../desk/notes";
import { grouped } from "../desk/numbers";
import { setDoorWidth } from "../desk/openings";
import { picksWanted, stateWhatIsPicked } from "../desk/picking";
import { nameRoom } from "../desk/rooms";
import { fitMap } from "../desk/selectors";
import { setWallFigure } from "../desk/tracing";
import { Plain } from "../ledger/parts";
import { towardsChange, useProject } from "../store/project";
import { pointAlong, wallLine } from "../store/walls";
import { apply, type Map2, middle, type XY } from "./geometry";
import { LengthOptions } from "./LengthOptions";
import { MeterWaits } from "./MeterWaits";
import { SquareSlip } from "./SquareSlip";

interface Slip {
  /** the hand goes on pointing: the slip is no obstacle to it */
  passes?: boolean;
  at: XY;
  label: string;
  hint: string;
  send: (text: string) => Promise<void>;
}

/** The small field at the line being drawn. While it is open every printable key belongs to it. */
export function FigureSlip({ screen }: { screen: Map2 }) {
  const desk = useDesk();
  const rows = useProject((s) => s.rows);
  const input = useRef<HTMLInputElement>(null);
  const slip = slipFor(desk, rows, screen);
  const open = slip !== null && desk.slip !== null;
  useEffect(() => {
    if (open) input.current?.focus();
  }, [open]);
  if (!slip || desk.slip === null) {
    return desk.act === "square" && desk.picks.length === 2 ? <SquareSlip screen={screen} /> : null;
  }
  const { at, label, hint, send, passes = false } = slip;
  const left = Math.max(8, Math.min(desk.size.width - 310, at[0] - 110));
  const tall = (desk.act === "calibrate" && desk.calibrateBy === "length" ? 168 : 84) + (desk.caution ? 84 : 0);
  // Above the line, so that the strip below it stays free; below where there is no room above.
  const top = at[1] - tall - 24 > 8 ? at[1] - tall - 24 : at[1] + 24;
  return (
    <form
      data-slip
      className={`absolute z-20 w-[300px] rounded-lg border-2 border-plum bg-sheet p-2 shadow-sm ${passes ? "pointer-events-none opacity-90" : ""}`}
      style={{ left, top }}
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
      {desk.act === "calibrate" && desk.calibrateBy === "length" && <LengthOptions />}
      {open && desk.act === "calibrate" && desk.calibrateBy === "length" && <MeterWaits />}
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

function slipFor(desk: DeskState, rows: ReturnType<typeof useProject.getState>["rows"], screen: Map2): Slip | null {
  const at = (p: XY): XY => apply(screen, p);
  const map = fitMap(rows, desk.drawing);
  const { picks } = desk;
  const [a] = picks;
  if (
    a &&
    map &&
    (desk.act === "calibrate" || desk.act === "place" || desk.act === "levels") &&
    picks.length >= picksWanted()
  ) {
    const last = picks.at(-1) ?? a;
    const opposite = picks[desk.calibrateBy === "room" && desk.act === "calibrate" ? 2 : picks.length - 1] ?? last;
    return {
      at: middle(at(apply(map, a.at)), at(apply(map, opposite.at))),
      ...wordsFor(desk),
      send: stateWhatIsPicked,
    };
  }
  const last = desk.chain?.points.at(-1);
  const tip = desk.snap?.at ?? desk.pointer;
  if (last && tip) {
    return {
      at: middle(at(last), at(tip)),
      label: "length",
      passes: true,
      hint: "Enter sets the next corner: 4.2 m, or 4.2 m 30°.",
      send: setWallFigure,
    };
  }
  if (desk.rectangle && tip) {
    return {
      at: middle(at(desk.rectangle), at(tip)),
      label: "sides",
      passes: true,
      hint: "Click the opposite corner, or type both: 3.6 m x 4.2 m.",
      send: setWallFigure,
    };
  }
  const [start, end] = desk.arc;
  if (start && end) {
    return {
      at: middle(at(start), at(end)),
      label: "rise",
      passes: true,
      hint: "Click a point that the arc passes through, or type its rise over the chord.",
      send: setWallFigure,
    };
  }
  if (desk.asked?.kind === "beside") {
    const line = wallLine(rows, desk.asked.wall);
    return line
      ? {
          at: at(pointAlong(line, line.length / 2)),
          label: "clear distance",
          passes: true,
          hint: "Between the two faces; the copy stands on the pointer’s side.",
          send: setBeside,
        }
      : null;
  }
  const [first, second] = desk.figureFaces;
  const figured = first && second ? figureLine(rows, first, second) : null;
  if (figured) {
    return {
      at: middle(at(figured[0]), at(figured[1])),
      label: "figure",
      hint: "What the drawing says between these faces. Enter sets it.",
      send: stateFigure,
    };
  }
  if (desk.noteAt) {
    return {
      at: at(desk.noteAt.at),
      label: "note",
      hint: "Enter writes it. A question mark first makes it an assumption.",
      send: writeNote,
    };
  }
  const door = desk.door;
  if (door) {
    const line = wallLine(rows, door.wall);
    if (!line) return null;
    return {
      at: at(pointAlong(line, door.from)),
      label: "width",
      passes: true,
      hint: "Click the other edge, or type the width; the leaf swings to the pointer’s side.",
      send: setDoorWidth,
    };
  }
  if (desk.roomAt) {
    return {
      at: at(desk.roomAt.at),
      label: "name",
      hint: "Number and name: 3 Tank room. Enter names it.",
      send: nameRoom,
    };
  }
  return null;
}

/** Inside read for outside is mended by saying what the figure runs between; no other figure is. */
export function mends({ code }: Caution): boolean {
  return code.startsWith("factor") || ["count", "written", "digits"].includes(code);
}

function wordsFor(desk: DeskState): { label: string; hint: string } {
  if (desk.act === "levels") {
    return { label: "level", hint: "finished floor 0, sill, head, eaves, ridge; a figure states its height." };
  }
  if (desk.act === "place") {
    if (desk.placing === "side") {
      return { label: "side", hint: "From its left end to its right as you look at it. Enter sets it." };
    }
    return desk.placing === "point"
      ? { label: "lies at", hint: "0 0, 12 m 3.5 m, a crossing B/2; or click what it belongs onto." }
      : { label: "axis", hint: "Its label: 1, 2 or A, B. Enter sets it." };
  }
  if (desk.calibrateBy === "room") return { label: "room", hint: "Width x depth: 3.6 m x 4.2 m. Enter sets it." };
  if (desk.calibrateBy === "count") {
    return { label: "holds", hint: "31c courses, 7u units along; 31c-1j leaves the last joint out. Enter sets it." };
  }
  return { label: "true length", hint: "As written: 13 200, 4.2 m, 9'6+11'. Enter sets it." };
}
