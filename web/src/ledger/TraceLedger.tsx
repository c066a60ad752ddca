import { useState } from "react";
import { setAct, setView, useDesk, useDeskFields } from "../desk/desk";
import { copyWalls, outerWalls, selectedWalls, storeysInOrder } from "../desk/editing";
import { area, grouped, tenths } from "../desk/numbers";
import { usualSizes } from "../desk/openings";
import { MENDS, mendOverlap } from "../desk/overlaps";
import { mendLeak } from "../desk/rooms";
import { inOrder, openRooms } from "../desk/selectors";
import { useReadings } from "../jobs/look";
import { count } from "../steps/status";
import { useProject } from "../store/project";
import type { Derived } from "../store/shapes";
import { wallLines } from "../store/walls";
import { BoundaryPanel } from "./BoundaryPanel";
import { SelectedOpening } from "./OpeningPanel";
import { Head, Link, NextThing, OneOf, Plain } from "./parts";
import { ReadingsPanel } from "./ReadingsPanel";
import { SideLedger } from "./SideLedger";
import { FigureRows, Holds, SelectedFigure } from "./trace/FigurePanel";
import { InkPanel } from "./trace/InkPanel";
import { NoteRows, SelectedNote } from "./trace/NotePanel";
import { OutlineOptions, OutlineRows } from "./trace/OutlinePanel";
import { RoomOptions, SelectedColumn, SelectedDivider, SelectedRoom } from "./trace/RoomPanel";
import { RoomsTable } from "./trace/RoomsTable";
import { SelectedWalls } from "./trace/SelectedWalls";
import { SelectRow } from "./trace/SelectRow";
import { SettlePanel } from "./trace/SettlePanel";
import { WallOptions } from "./trace/WallOptions";

/** Rows of a kind beyond this many are told by their number until they are asked for. */
const MOST_ROWS = 60;

export function TraceLedger() {
  const desk = useDeskFields("storey", "side", "drawing", "act", "selected", "group");
  const { rows, derived, fits } = useProject();
  const told = useReadings(desk.act === "rooms" ? desk.drawing : null);
  const shapes = desk.storey === null ? undefined : derived.get(desk.storey);
  const lines = wallLines(rows, desk.storey);
  const guess = desk.drawing !== null && fits.get(desk.drawing)?.plusMinusMmPer10m == null;
  if (desk.storey === null) {
    return desk.side === null ? null : <SideLedger side={desk.side} />;
  }
  const regions = [...(shapes?.regions.values() ?? [])];
  const unnamed = regions.filter((r) => r.id === null).length;
  const [leak] = shapes?.leaks ?? [];
  const overlap = shapes?.findings.find((f) => f.mend !== null);
  const open = inOrder(rows.figure.values()).find((f) => f.storey === desk.storey && f.decided === "open");
  const next = leak
    ? { words: `Close the leak: ${grouped(leak.gapMm)} mm are open`, go: () => void mendLeak(leak) }
    : overlap?.mend
      ? {
          words: `Two walls lie on each other: ${MENDS[overlap.mend].toLowerCase()}`,
          go: () => void mendOverlap(overlap),
        }
      : lines.length === 0
        ? desk.act === "ink"
          ? null
          : { words: "Find the walls in the ink, or trace the outer ones first", go: () => setAct("ink") }
        : unnamed > 0
          ? { words: `Name ${count(unnamed, "room")}`, go: () => setAct("rooms") }
          : open
            ? {
                words: `Decide about ${open.text}`,
                go: () => useDesk.setState({ selected: { type: "figure", id: open.id }, group: [] }),
              }
            : null;
  const walls = selectedWalls();
  return (
    <>
      <Head
        title={`${count(lines.length, "wall")}, ${count(regions.length, "room")}`}
        next={next && <NextThing onClick={next.go}>{next.words}</NextThing>}
      >
        {guess
          ? "The drawing is not trued up yet: what is traced now is carried along when it is."
          : !shapes || regions.length === 0
            ? "Nothing is enclosed yet."
            : `${area(shapes.areas.netFloorM2)} net floor area, ${area(shapes.areas.grossFloorM2)} gross.`}
      </Head>
      <div className="min-h-0 flex-1 overflow-y-auto">
        {desk.act === "ink" && desk.drawing !== null && <InkPanel drawing={desk.drawing} />}
        {desk.act === "settle" && <SettlePanel storey={desk.storey} />}
        {desk.act === "walls" && <WallOptions />}
        {desk.act === "openings" && <OpeningOptions />}
        {desk.act === "rooms" && <RoomOptions />}
        {desk.act === "rooms" && desk.drawing !== null && (
          <ReadingsPanel drawing={desk.drawing} told={told} of="rooms" />
        )}
        {desk.act === "rooms" && <RoomsTable storey={desk.storey} />}
        {desk.act === "figures" && <FigureOptions />}
        {desk.act === "outline" && <OutlineOptions />}
        {desk.act === "boundary" && <BoundaryPanel storey={desk.storey} />}
        {desk.selected?.type === "opening" && <SelectedOpening id={desk.selected.id} />}
        {desk.selected?.type === "room" && <SelectedRoom key={desk.selected.id} id={desk.selected.id} />}
        {desk.selected?.type === "column" && <SelectedColumn id={desk.selected.id} />}
        {desk.selected?.type === "divider" && <SelectedDivider id={desk.selected.id} />}
        {desk.selected?.type === "figure" && <SelectedFigure key={desk.selected.id} id={desk.selected.id} />}
        {desk.selected?.type === "note" && <SelectedNote key={desk.selected.id} id={desk.selected.id} />}
        {walls.length > 0 && <SelectedWalls ids={walls} />}
        {lines.length === 0 && <FromBelow storey={desk.storey} />}
        {shapes && <RoomRows shapes={shapes} />}
        <FigureRows storey={desk.storey} />
        <OpeningRows storey={desk.storey} />
        <OutlineRows storey={desk.storey} />
        <NoteRows storey={desk.storey} />
        <WallRows storey={desk.storey} />
      </div>
      <footer className="border-t border-line px-4 py-2.5 text-[13px] text-quiet">
        Net areas to inner faces. Lengths along centre lines, mm. Shift and drag selects walls.
      </footer>
    </>
  );
}

function RoomRows({ shapes }: { shapes: Derived }) {
  const rows = useProject((s) => s.rows);
  const named = [...shapes.regions.values()].flatMap((region) => {
    const room = region.id === null ? undefined : rows.room.get(region.id);
    return room ? [{ room, region }] : [];
  });
  named.sort((a, b) => a.room.number.localeCompare(b.room.number, undefined, { numeric: true }));
  return (
    <>
      {named.map(({ room, region }) => (
        <SelectRow key={room.id} type="room" id={room.id}>
          <span>
            <span className="text-quiet">{room.number} </span>
            <span className="font-semibold">{room.name}</span>
          </span>
          <span>{area(region.netAreaM2)}</span>
        </SelectRow>
      ))}
      {openRooms(rows, shapes).map((room) => {
        const leak = shapes.leaks.find((l) => l.room === room.id);
        return (
          <div key={room.id} className="flex items-baseline justify-between border-b border-line px-4 py-2 text-rust">
            <button
              type="button"
              className="font-semibold underline"
              onClick={() => {
                useDesk.setState({ selected: { type: "room", id: room.id }, group: [] });
                lookAt(leak?.neck[0] ?? [room.x, room.y]);
              }}
            >
              {room.number} {room.name}
            </button>
            <span className="text-[13px]">
              {leak
                ? `${grouped(leak.gapMm)} mm open`
                : shapes.unplaced.has(room.id)
                  ? "no walls round it"
                  : "named twice"}
            </span>
          </div>
        );
      })}
    </>
  );
}

function OpeningRows({ storey }: { storey: string }) {
  const rows = useProject((s) => s.rows);
  const here = inOrder(rows.opening.values()).filter((o) => rows.wall.get(o.wall)?.storey === storey);
  return (
    <Some of={here} words="doors and windows">
      {(opening) => (
        <SelectRow key={opening.id} type="opening" id={opening.id}>
          <span className="font-semibold">{opening.number}</span>
          <span className="text-[13px] text-quiet">
            {opening.kind} · {grouped(opening.width)} wide
            {opening.sill > 0 && `, sill ${grouped(opening.sill)}`}
          </span>
        </SelectRow>
      )}
    </Some>
  );
}

function WallRows({ storey }: { storey: string }) {
  const rows = useProject((s) => s.rows);
  const lines = wallLines(rows, storey).map((line, i) => ({ ...line, i }));
  return (
    <Some of={lines} words="walls">
      {({ wall, length, i }) => (
        <SelectRow key={wall.id} type="wall" id={wall.id} slim>
          <span>
            Wall {i + 1}{" "}
            <span className="text-[13px] text-quiet">
              · {tenths(wall.thickness)} · {wall.evidence}
            </span>
          </span>
          <span>{grouped(length)}</span>
        </SelectRow>
      )}
    </Some>
  );
}

function Some<T>({
  of,
  words,
  children,
}: {
  of: readonly T[];
  words: string;
  children: (thing: T) => React.ReactNode;
}) {
  const [all, setAll] = useState(false);
  const shown = all || of.length <= MOST_ROWS ? of : of.slice(0, MOST_ROWS);
  return (
    <>
      {shown.map(children)}
      {shown.length < of.length && (
        <p className="border-b border-line px-4 py-2">
          <Link onClick={() => setAll(true)}>
            all {grouped(of.length)} {words}
          </Link>
        </p>
      )}
    </>
  );
}

/** An empty storey begins with the walls of one below or above it. */
function FromBelow({ storey }: { storey: string }) {
  const rows = useProject((s) => s.rows);
  const others = storeysInOrder().filter((s) => s.id !== storey && wallLines(rows, s.id).length > 0);
  if (others.length === 0) return null;
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Walls of another storey">
      {others.map((s) => (
        <div key={s.id} className="flex items-center justify-between gap-2 py-0.5">
          <span>Copy from {s.name}</span>
          <span className="flex gap-1.5">
            <Plain
              onClick={() => {
                const outer = outerWalls(s.id);
                void copyWalls(s.id, storey, (id) => outer.has(id));
              }}
            >
              outer walls
            </Plain>
            <Plain onClick={() => void copyWalls(s.id, storey, () => true)}>all walls</Plain>
          </span>
        </div>
      ))}
    </section>
  );
}

function lookAt(p: readonly number[]): void {
  const { view } = useDesk.getState();
  setView({ x: p[0] ?? 0, y: p[1] ?? 0, k: Math.max(view.k, 0.12) });
}

/** What is clicked in this act, and which face stays. */
function FigureOptions() {
  const faces = useDesk((s) => s.figureFaces);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Figures">
      <p className="text-quiet">
        {faces.length === 0
          ? "Click the face that the drawing figures from, then the one it figures to."
          : faces.length === 1
            ? "Now the face that it figures to."
            : "Type what the drawing says; the face that does not stay is moved."}
      </p>
      {faces.length === 2 && <Holds />}
    </section>
  );
}

/** What a click in a wall makes: as the ink shows it, or what is chosen. */
function OpeningOptions() {
  const { openingKind: kind, openingLeaf } = useDeskFields("openingKind", "openingLeaf");
  const door = useDesk((s) => s.door);
  const sizes = usualSizes(kind === "as drawn" ? "door" : kind).slice(0, 4);
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
      {(kind === "door" || kind === "as drawn") && (
        <div className="mt-2">
          <OneOf
            label="Doors have"
            value={openingLeaf}
            of={[
              ["single", "one leaf"],
              ["double", "two leaves"],
              ["sliding", "sliding"],
            ]}
            set={(leaf) => useDesk.setState({ openingLeaf: leaf })}
          />
        </div>
      )}
      <p className="mt-2 text-quiet">
        Click in the middle of a gap: width, kind and swing are taken from the ink. At an edge, the first of two clicks,
        or type the width. Alt holds the ink off.
      </p>
      {door && sizes.length > 0 && (
        <div className="mt-2 flex flex-wrap items-center gap-1.5">
          <span className="text-quiet">usual here</span>
          {sizes.map((s) => (
            <Plain
              key={`${s.width} ${s.sill} ${s.height}`}
              onClick={() => useDesk.setState({ slip: String(Math.round(s.width)) })}
            >
              {Math.round(s.width)}
            </Plain>
          ))}
        </div>
      )}
    </section>
  );
}
