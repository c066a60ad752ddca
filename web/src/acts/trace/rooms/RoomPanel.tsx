import { clearDraft, useDeskFields } from "../../../board/desk";
import { sidesOf, typed, typedPlace } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import { area, typedAs, written } from "../../../ui/measures";
import { Field, OneOf, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { Elsewhere } from "../Elsewhere";
import { removeRow } from "../removing";
import { setDividerLength } from "./dividers";
import { highInWords, isCovered, underStairsInWords, useHeights } from "./heights";
import { numberAndName, useRoomOptions } from "./rooms";

/** Names by a click, lines that bound rooms where there is no wall, or columns in them. */
export function RoomOptions() {
  const { mode, columnSize, columnRound } = useRoomOptions();
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Rooms">
      <OneOf
        label="A click"
        value={mode}
        of={[
          ["name", "names a room"],
          ["divider", "draws a divider"],
          ["column", "sets a column"],
        ]}
        set={(of) => {
          useRoomOptions.setState({ mode: of });
          clearDraft();
        }}
      />
      <p className="mt-2 text-quiet">
        {mode === "name"
          ? "Click a room and type what it is called, such as 3 Tank room. The number goes up by itself."
          : mode === "divider"
            ? "From wall to wall where rooms meet without one. It has no thickness."
            : "Its centre is taken from the ink near the click. What it stands on is no floor area."}
      </p>
      {mode === "column" && (
        <div className="mt-2 flex items-end gap-2">
          <div className="w-32">
            <Field
              label="width × depth"
              value={columnSize}
              onChange={(text) => useRoomOptions.setState({ columnSize: text })}
            />
          </div>
          <Plain pressed={columnRound} onClick={() => useRoomOptions.setState({ columnRound: !columnRound })}>
            Round
          </Plain>
        </div>
      )}
    </section>
  );
}

export function SelectedColumn({ id }: { id: string }) {
  const column = useProject((s) => s.rows.column.get(id));
  if (!column) return null;
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "column", id, values }]);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Column">
      <div className="text-lg font-bold text-teal">Column</div>
      <div className="text-quiet">
        centre at {written(column.x)}, {written(column.y)}
      </div>
      <div className="mt-2 flex items-end gap-1.5">
        <div className="w-32">
          <Typed
            label="width × depth"
            value={`${typedAs(column.width)} × ${typedAs(column.depth)}`}
            set={async (text) => {
              const sides = await sidesOf(text);
              if (sides) set("Size of a column", { width: sides[0], depth: sides[1] });
            }}
          />
        </div>
        <Plain pressed={column.round} onClick={() => set("Shape of a column", { round: !column.round })}>
          Round
        </Plain>
        <Plain danger onClick={() => removeRow("column", id)}>
          Remove
        </Plain>
      </div>
      <Elsewhere things={[{ type: "column", id }]} />
    </section>
  );
}

export function SelectedDivider({ id }: { id: string }) {
  const divider = useProject((s) => s.rows.divider.get(id));
  if (!divider) return null;
  const { x1, y1, x2, y2, rise } = divider;
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Divider">
      <div className="text-lg font-bold text-teal">Divider</div>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <Typed
          label="length from end to end"
          value={typedAs(Math.hypot(x2 - x1, y2 - y1), 1)}
          set={(text) => void typed(text, (mm) => void setDividerLength(divider, mm))}
        />
        <Typed
          label="rise of an arc, left of it +"
          value={typedAs(rise, 1)}
          set={(text) =>
            void typedPlace(text, (mm) => {
              void change("Bow a divider", [{ do: "set", type: "divider", id, values: { rise: mm } }]);
            })
          }
        />
      </div>
      <p className="mt-1.5 text-quiet">Drag its ends, or pull a corner out of its middle.</p>
      <div className="mt-1.5">
        <Plain danger onClick={() => removeRow("divider", id)}>
          Remove
        </Plain>
      </div>
      <Elsewhere things={[{ type: "divider", id }]} />
    </section>
  );
}

export function SelectedRoom({ id }: { id: string }) {
  const rows = useProject((s) => s.rows);
  const derived = useProject((s) => s.derived);
  const { storey } = useDeskFields("storey");
  const heights = useHeights(storey, isCovered(rows));
  const room = rows.room.get(id);
  if (!room) return null;
  const region = [...(derived.get(storey ?? "")?.regions.values() ?? [])].find((r) => r.id === id);
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "room", id, values }]);
  const high = heights.get(region?.key ?? "");
  const [width = 0, depth = 0] = region?.clear ?? [];
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label={`Room ${room.name}`}>
      <div className="flex items-baseline justify-between text-teal">
        <span className="text-lg font-bold">
          {room.number} {room.name}
        </span>
        <span className="text-lg font-semibold">{region ? area(region.netAreaM2) : "open"}</span>
      </div>
      {region && (
        <div className="text-quiet">
          {written(width)} × {written(depth)} clear, through its label
          {high && <span className="block">{highInWords(high)}</span>}
          {high && <span className="block">{underStairsInWords(high)}</span>}
        </div>
      )}
      <div className="mt-2 grid grid-cols-2 gap-2">
        <Typed
          label="number and name"
          value={`${room.number} ${room.name}`.trim()}
          set={(text) => set("Rename a room", numberAndName(text))}
        />
        <Typed
          label={room.height === null ? "ceiling, storey’s" : "ceiling"}
          value={typedAs(room.height ?? rows.storey.get(room.storey)?.height ?? 0)}
          set={(text) =>
            void typed(text, (mm) =>
              change("Ceiling height", [{ do: "set", type: "room", id, values: { height: mm } }]),
            )
          }
        />
      </div>
      <div className="mt-2 flex gap-1.5">
        {room.height !== null && <Plain onClick={() => set("Ceiling height", { height: null })}>Storey’s height</Plain>}
        <Plain danger onClick={() => removeRow("room", id, "Remove a name")}>
          Remove the name
        </Plain>
      </div>
      <Elsewhere things={[{ type: "room", id }]} />
    </section>
  );
}
