import { useDesk } from "../../../board/desk";
import { lookAt } from "../../../board/views";
import type { Place } from "../../../store/drawings";
import { useProject } from "../../../store/project";
import type { Derived } from "../../../store/shapes";
import { area, fineInWords } from "../../../ui/measures";
import { SelectRow } from "../../SelectRow";
import { mayBeOpen, useHeights } from "./heights";
import { openRooms } from "./rooms";

/** Rooms of a storey with their areas, those that are open last. */
export function RoomRows({ storey }: Place) {
  const shapes = useProject((s) => s.derived.get(storey ?? ""));
  return shapes ? <Of shapes={shapes} storey={storey} /> : null;
}

function Of({ shapes, storey }: { shapes: Derived; storey: string | null }) {
  const rows = useProject((s) => s.rows);
  const heights = useHeights(storey, mayBeOpen(rows, storey ?? ""));
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
            {(heights.get(region.key)?.openM2 ?? 0) > 0 && (
              <span className="block text-[13px] text-quiet">open to above</span>
            )}
          </span>
          <span className="shrink-0">{area(region.netAreaM2)}</span>
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
                useDesk.setState({ selected: { type: "room", id: room.id }, group: [], things: [] });
                lookAt(leak?.neck[0] ?? [room.x, room.y]);
              }}
            >
              {room.number} {room.name}
            </button>
            <span className="text-[13px]">
              {leak
                ? `${fineInWords(leak.gapMm)} open`
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
