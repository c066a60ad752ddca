import { useDesk, useDeskFields } from "../../desk/desk";
import { typed } from "../../desk/draft";
import { area, grouped } from "../../desk/numbers";
import { numberAndName } from "../../desk/rooms";
import { change, useProject } from "../../project/store";
import { OneOf, Plain } from "../parts";
import { Typed } from "../trueup/CalibratePanel";

/** Names by a click, or lines that bound rooms where there is no wall. */
export function RoomOptions() {
  const mode = useDesk((s) => s.roomMode);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Rooms">
      <OneOf
        label="A click"
        value={mode}
        of={[
          ["name", "names a room"],
          ["divider", "draws a divider"],
        ]}
        set={(roomMode) => useDesk.setState({ roomMode, divider: null, roomAt: null, slip: null })}
      />
      <p className="mt-2 text-quiet">
        {mode === "name"
          ? "Click through the rooms: 3 Tank room. The number goes up by itself."
          : "From wall to wall where rooms meet without one. It has no thickness."}
      </p>
    </section>
  );
}

export function SelectedRoom({ id }: { id: string }) {
  const rows = useProject((s) => s.rows);
  const derived = useProject((s) => s.derived);
  const { storey } = useDeskFields("storey");
  const room = rows.room.get(id);
  if (!room) return null;
  const region = [...(derived.get(storey ?? "")?.regions.values() ?? [])].find((r) => r.id === id);
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "room", id, values }]);
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
          {grouped(width)} × {grouped(depth)} clear, through its label
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
          value={`${Math.round(room.height ?? rows.storey.get(room.storey)?.height ?? 0)} mm`}
          set={(text) =>
            void typed(text, (mm) =>
              change("Ceiling height", [{ do: "set", type: "room", id, values: { height: mm } }]),
            )
          }
        />
      </div>
      <div className="mt-2 flex gap-1.5">
        {room.height !== null && <Plain onClick={() => set("Ceiling height", { height: null })}>Storey’s height</Plain>}
        <Plain
          danger
          onClick={() => {
            useDesk.setState({ selected: null });
            void change("Remove a name", [{ do: "remove", type: "room", id }]);
          }}
        >
          Remove the name
        </Plain>
      </div>
    </section>
  );
}
