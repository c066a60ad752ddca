import { distance } from "../board/geometry";
import { removeWall } from "../desk/acts";
import { setAct, setView, useDesk, useDeskFields } from "../desk/desk";
import { area, grouped } from "../desk/numbers";
import { inOrder, openRooms, wallLines } from "../desk/selectors";
import { wallUnder } from "../desk/snap";
import { change, useProject } from "../project/store";
import { count } from "../steps/status";
import { BoundaryPanel } from "./BoundaryPanel";
import { SelectedOpening } from "./OpeningPanel";
import { Head, NextThing, OneOf, Plain } from "./parts";
import { SideLedger } from "./SideLedger";

const THICKNESSES = [300, 200, 120, 100];

export function TraceLedger() {
  const desk = useDeskFields("storey", "side", "drawing", "act", "selected");
  const { rows, derived, fits } = useProject();
  const shapes = desk.storey === null ? undefined : derived.get(desk.storey);
  const lines = wallLines(rows, desk.storey);
  const guess = desk.drawing !== null && fits.get(desk.drawing)?.plusMinusMmPer10m == null;
  if (desk.storey === null) {
    return desk.side === null ? null : <SideLedger side={desk.side} />;
  }
  const unnamed = shapes?.rooms.filter((r) => r.id === null).length ?? 0;
  const [leak] = shapes?.leaks ?? [];
  const next = leak
    ? { words: `Close the leak: ${grouped(leak.gapMm)} mm`, go: () => lookAt(leak.neck[0] ?? [0, 0]) }
    : lines.length === 0
      ? { words: "Trace the outer walls first, straight through the doorways", go: () => setAct("walls") }
      : unnamed > 0
        ? { words: `Name ${count(unnamed, "room")}`, go: () => setAct("rooms") }
        : null;
  return (
    <>
      <Head
        title={`${count(lines.length, "wall")}, ${count(shapes?.rooms.length ?? 0, "room")}`}
        next={next && <NextThing onClick={next.go}>{next.words}</NextThing>}
      >
        {guess
          ? "The drawing is not trued up yet: what is traced now is carried along when it is."
          : !shapes || shapes.rooms.length === 0
            ? "Nothing is enclosed yet."
            : `${area(shapes?.areas.netFloorM2 ?? 0)} net floor area, ${area(shapes?.areas.grossFloorM2 ?? 0)} gross.`}
      </Head>
      {desk.act === "walls" && <WallOptions />}
      {desk.act === "openings" && <OpeningOptions />}
      {desk.act === "boundary" && <BoundaryPanel storey={desk.storey} />}
      {desk.selected?.type === "opening" && <SelectedOpening id={desk.selected.id} />}
      {desk.selected?.type === "wall" && <SelectedWall id={desk.selected.id} />}
      <div className="min-h-0 flex-1 overflow-y-auto">
        {shapes?.rooms
          .filter((r) => r.id !== null)
          .map((room) => (
            <div key={room.id} className="flex items-baseline justify-between border-b border-line px-4 py-2.5">
              <span className="font-semibold">{room.name}</span>
              <span>
                {area(room.netAreaM2)}{" "}
                <Plain
                  danger
                  onClick={() => void change("Remove a name", [{ do: "remove", type: "room", id: room.id ?? "" }])}
                >
                  Remove
                </Plain>
              </span>
            </div>
          ))}
        {shapes &&
          openRooms(rows, shapes).map((room) => (
            <div
              key={room.id}
              className="flex items-baseline justify-between border-b border-line px-4 py-2.5 text-rust"
            >
              <span className="font-semibold">{room.name}</span>
              <span>
                does not close{" "}
                <Plain
                  danger
                  onClick={() => void change("Remove a name", [{ do: "remove", type: "room", id: room.id }])}
                >
                  Remove
                </Plain>
              </span>
            </div>
          ))}
        {inOrder(rows.opening.values())
          .filter((o) => lines.some((l) => l.wall.id === o.wall))
          .map((opening) => (
            <button
              key={opening.id}
              type="button"
              className={`flex w-full items-baseline justify-between border-b border-line px-4 py-2 text-left ${desk.selected?.id === opening.id ? "bg-white" : ""}`}
              aria-pressed={desk.selected?.id === opening.id}
              onClick={() => useDesk.setState({ selected: { type: "opening", id: opening.id } })}
            >
              <span className="font-semibold">{opening.number}</span>
              <span className="text-[13px] text-quiet">
                {opening.kind} · {grouped(opening.width)} wide
                {opening.sill > 0 && `, sill ${grouped(opening.sill)}`}
              </span>
            </button>
          ))}
        {lines.map(({ wall, from, to }, i) => (
          <button
            key={wall.id}
            type="button"
            className={`flex w-full items-baseline justify-between border-b border-line px-4 py-2 text-left ${desk.selected?.id === wall.id ? "bg-white" : ""}`}
            onClick={() => useDesk.setState({ selected: { type: "wall", id: wall.id } })}
          >
            <span>
              Wall {i + 1}{" "}
              <span className="text-[13px] text-quiet">
                · {wall.thickness} · {wall.evidence}
              </span>
            </span>
            <span>{grouped(distance(from, to))}</span>
          </button>
        ))}
      </div>
      <footer className="border-t border-line px-4 py-3 text-[13px] text-quiet">
        Net areas to inner faces. Lengths along centre lines, mm.
      </footer>
    </>
  );
}

function lookAt(p: readonly number[]): void {
  const { view } = useDesk.getState();
  setView({ x: p[0] ?? 0, y: p[1] ?? 0, k: Math.max(view.k, 0.2) });
  const wall = wallUnder([p[0] ?? 0, p[1] ?? 0], 50);
  useDesk.setState({ selected: wall ? { type: "wall", id: wall.id } : null });
}

/** What a click in a wall makes: as the ink shows it, or what is chosen. */
function OpeningOptions() {
  const kind = useDesk((s) => s.openingKind);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Openings">
      <OneOf
        label="A click makes"
        value={kind}
        of={[
          ["as drawn", "as drawn"],
          ["door", "a door"],
          ["window", "a window"],
          ["opening", "an opening"],
        ]}
        set={(openingKind) => useDesk.setState({ openingKind })}
      />
      <p className="mt-2 text-quiet">
        Click in the middle of a gap: width, kind and swing are taken from the ink. At an edge, the first of two clicks,
        or type the width. Alt holds the ink off.
      </p>
    </section>
  );
}

function WallOptions() {
  const { thickness, line, holdSquare } = useDeskFields("thickness", "line", "holdSquare");
  return (
    <div className="border-b border-line bg-white px-4 py-3">
      <label className="flex items-center justify-between">
        <span className="font-semibold">Thickness</span>
        <span>
          <input
            className="w-20 rounded border border-line px-2 py-1 text-right text-lg font-semibold"
            type="number"
            min={1}
            max={5000}
            value={thickness}
            onChange={(e) => {
              const mm = e.target.valueAsNumber;
              if (mm > 0 && mm <= 5000) useDesk.setState({ thickness: mm });
            }}
          />{" "}
          mm
        </span>
      </label>
      <div className="mt-2 flex gap-1.5">
        {THICKNESSES.map((mm) => (
          <Plain key={mm} onClick={() => useDesk.setState({ thickness: mm })}>
            {mm}
          </Plain>
        ))}
      </div>
      <fieldset className="mt-2 flex items-center gap-3 text-[13px]">
        <legend className="sr-only">Line that is traced</legend>
        {(["left", "centre", "right"] as const).map((l) => (
          <label key={l} className="flex items-center gap-1">
            <input type="radio" name="line" checked={line === l} onChange={() => useDesk.setState({ line: l })} />
            {l === "centre" ? "centre" : `${l} face`}
          </label>
        ))}
        <kbd>X</kbd>
      </fieldset>
      <label className="mt-1 flex items-center gap-1.5 text-[13px]">
        <input
          type="checkbox"
          checked={holdSquare}
          onChange={(e) => useDesk.setState({ holdSquare: e.target.checked })}
        />
        hold square <kbd>Q</kbd>
      </label>
    </div>
  );
}

function SelectedWall({ id }: { id: string }) {
  const rows = useProject((s) => s.rows);
  const storey = useDesk((s) => s.storey);
  const found = wallLines(rows, storey).find((l) => l.wall.id === id);
  if (!found) return null;
  const { wall, from, to } = found;
  return (
    <div className="border-b border-line bg-white px-4 py-3">
      <div className="flex items-baseline justify-between text-teal">
        <span className="text-lg font-bold">Wall, {wall.thickness}</span>
        <span className="text-lg font-semibold">{grouped(distance(from, to), 1)}</span>
      </div>
      <div className="text-[13px] text-quiet">
        traced along its {wall.line === "centre" ? "centre" : `${wall.line} face`} · rests on {wall.evidence}
      </div>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        {THICKNESSES.map((mm) => (
          <Plain
            key={mm}
            onClick={() =>
              void change("Thickness", [{ do: "set", type: "wall", id: wall.id, values: { thickness: mm } }])
            }
          >
            {mm}
          </Plain>
        ))}
        <Plain danger onClick={() => void removeWall(wall.id)}>
          Remove
        </Plain>
      </div>
    </div>
  );
}
