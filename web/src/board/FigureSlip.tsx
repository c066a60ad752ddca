import { useEffect, useRef } from "react";
import { gridTurn, nameRoom, setChainLength, setDoorWidth, setGridLine, setKnownLength } from "../desk/acts";
import { type DeskState, useDesk, useDeskFields } from "../desk/desk";
import { fitMap, wallLines } from "../desk/selectors";
import { useProject } from "../project/store";
import { apply, distance, type Map2, middle, type XY } from "./geometry";

interface Slip {
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
    return desk.act === "square" && desk.ends.length === 2 ? <SquareSlip screen={screen} /> : null;
  }
  const { at, label, hint, send } = slip;
  const left = Math.max(8, Math.min(desk.size.width - 310, at[0] - 110));
  const tall = desk.act === "calibrate" ? 132 : 84;
  // Above the line, so that the strip below it stays free; below where there is no room above.
  const top = at[1] - tall - 24 > 8 ? at[1] - tall - 24 : at[1] + 24;
  return (
    <form
      className="absolute z-20 w-[300px] rounded-lg border-2 border-plum bg-sheet p-2 shadow-sm"
      style={{ left, top }}
      onSubmit={(e) => {
        e.preventDefault();
        void send(desk.slip ?? "");
      }}
    >
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
          onChange={(e) => useDesk.setState({ slip: e.target.value, slipError: null })}
        />
      </label>
      {desk.act === "calibrate" && <LengthOptions />}
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

function LengthOptions() {
  const desk = useDeskFields("endsAt", "standing", "heldOut");
  const select = "rounded border border-line bg-white px-1 py-0.5 text-xs";
  return (
    <div className="mt-1 flex flex-wrap items-center gap-1.5">
      <select
        className={select}
        aria-label="between"
        value={desk.endsAt}
        onChange={(e) => useDesk.setState({ endsAt: e.target.value })}
      >
        {["outer face", "inner face", "axis", "centre"].map((v) => (
          <option key={v}>{v}</option>
        ))}
      </select>
      <select
        className={select}
        aria-label="known as"
        value={desk.standing}
        onChange={(e) => useDesk.setState({ standing: e.target.value })}
      >
        {["figured", "taped", "known from elsewhere", "estimated"].map((v) => (
          <option key={v}>{v}</option>
        ))}
      </select>
      <label className="flex items-center gap-1 text-xs">
        <input
          type="checkbox"
          checked={desk.heldOut}
          onChange={(e) => useDesk.setState({ heldOut: e.target.checked })}
        />
        check only
      </label>
    </div>
  );
}

function SquareSlip({ screen }: { screen: Map2 }) {
  const desk = useDesk();
  const map = fitMap(
    useProject((s) => s.rows),
    desk.drawing,
  );
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => button.current?.focus(), []);
  const turn = gridTurn();
  const [a, b] = desk.ends;
  if (!turn || !map || !a || !b) return null;
  const at = middle(apply(screen, apply(map, a)), apply(screen, apply(map, b)));
  return (
    <div
      className="absolute z-20 rounded-lg border-2 border-teal bg-sheet p-2 shadow-sm"
      style={{ left: Math.max(8, at[0] - 130), top: at[1] > 120 ? at[1] - 100 : at[1] + 24 }}
    >
      <p className="text-sm">
        This line runs with <b>{turn.axis}</b>: the picture turns{" "}
        <b>
          {Math.abs(turn.degrees).toFixed(2)}° {turn.degrees >= 0 ? "left" : "right"}
        </b>
        .
      </p>
      <button
        ref={button}
        type="button"
        className="mt-1.5 rounded border border-zest-edge bg-zest px-2 py-1 text-sm font-semibold"
        onClick={() => void setGridLine()}
      >
        Square by this line <kbd>↵</kbd>
      </button>
    </div>
  );
}

function slipFor(desk: DeskState, rows: ReturnType<typeof useProject.getState>["rows"], screen: Map2): Slip | null {
  const at = (p: XY): XY => apply(screen, p);
  const map = fitMap(rows, desk.drawing);
  const [a, b] = desk.ends;
  if (desk.act === "calibrate" && a && b && map) {
    return {
      at: middle(at(apply(map, a)), at(apply(map, b))),
      label: "true length",
      hint: "As written: 13 200, 4.2 m, 9'6+11'. Enter sets it.",
      send: setKnownLength,
    };
  }
  const last = desk.chain?.points.at(-1);
  const tip = desk.snap?.at ?? desk.pointer;
  if (last && tip) {
    return {
      at: middle(at(last), at(tip)),
      label: "length",
      hint: "Enter sets the next corner: 4.2 m, or 4.2 m 30°.",
      send: setChainLength,
    };
  }
  const door = desk.door;
  if (door) {
    const line = wallLines(rows, desk.storey).find((l) => l.wall.id === door.wall);
    if (!line) return null;
    const t = door.from / distance(line.from, line.to);
    return {
      at: at([line.from[0] + (line.to[0] - line.from[0]) * t, line.from[1] + (line.to[1] - line.from[1]) * t]),
      label: "width",
      hint: "Click the other edge, or type the width; the leaf swings to the pointer’s side.",
      send: setDoorWidth,
    };
  }
  if (desk.roomAt) {
    return { at: at(desk.roomAt.at), label: "name", hint: "Enter names the room.", send: nameRoom };
  }
  return null;
}
