import type { Act, Shown } from "../../../board/act";
import { drafted, setAct, useDesk } from "../../../board/desk";
import { held as heldHere } from "../../../board/held";
import { TEAL } from "../../../board/marks";
import { regionUnder, wallUnder } from "../../../board/snap";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { fineInWords } from "../../../ui/measures";
import { count } from "../../../ui/numbers";
import { isTracing } from "../../isTracing";
import { RoomsTable } from "../../RoomsTable";
import { removeRow } from "../removing";
import { Dividers } from "./Dividers";
import { dividerDrag, dividerEnds, dividerMiddle, dividerUnder } from "./dividers";
import { Leaks } from "./Leaks";
import { NamesRead } from "./NamesRead";
import { RoomLabels } from "./RoomLabels";
import { RoomOptions, SelectedColumn, SelectedDivider, SelectedRoom } from "./RoomPanel";
import { RoomRows } from "./RoomRows";
import { columnDrag, columnUnder, mendLeak, nameRoom, roomPoint, useRoomOptions } from "./rooms";

/** Rooms by their names, dividers where they meet without a wall, and columns in them. */
const act: Act = {
  name: "rooms",
  click: roomPoint,
  snap(pointer, reach, free) {
    const { mode } = useRoomOptions.getState();
    if (mode === "divider") return dividerSnap(pointer, reach, free);
    if (mode === "column") return { at: pointer, words: "centre of a column, by hand" };
    const region = regionUnder(pointer);
    if (!region) return { at: pointer, words: "name a room here; nothing closes round it yet" };
    const name = useProject.getState().rows.room.get(region.id ?? "")?.name;
    return { at: pointer, words: name ? `rename ${name}` : "name this room" };
  },
  asksInk: () => useRoomOptions.getState().mode === "column",
  takesInk: (found) => (found.kind === "column centre" ? found : null),
  slip() {
    const named = drafted("name");
    const hint = "Number and name, such as 3 Tank room. Enter names it.";
    return named && { at: named.at, label: "name", hint, send: nameRoom };
  },
  draws(pen) {
    const { snap, pointer } = useDesk.getState();
    const divider = drafted("divider");
    const to = snap?.at ?? pointer;
    if (divider && to) pen.path([pen.at(divider.from), pen.at(to)], { colour: TEAL, width: 1.6, dash: [9, 4, 2, 4] });
  },
  Panel() {
    return (
      <>
        <RoomOptions />
        <NamesRead />
        <RoomsTable />
      </>
    );
  },
  Rows: { of: RoomRows, rank: 10 },
  selects: {
    column: {
      Panel: SelectedColumn,
      remove: (id) => removeRow("column", id),
      hit: { rank: 20, at: (pointer) => columnUnder(pointer)?.id ?? null },
      drag: columnDrag,
    },
    divider: {
      Panel: SelectedDivider,
      remove: (id) => removeRow("divider", id),
      hit: { rank: 40, at: dividerUnder },
      handles: dividerEnds,
      pulls: dividerMiddle,
      drag: dividerDrag,
    },
    room: {
      Panel: SelectedRoom,
      remove: (id) => removeRow("room", id),
      hit: { rank: 50, at: (pointer) => regionUnder(pointer)?.id ?? null },
    },
  },
  next(storey) {
    const shapes = useProject.getState().derived.get(storey);
    const [leak] = shapes?.leaks ?? [];
    if (leak) {
      const words = `Close the leak: ${fineInWords(leak.gapMm)} are open`;
      return { rank: 10, words, go: () => void mendLeak(leak) };
    }
    const unnamed = [...(shapes?.regions.values() ?? [])].filter((r) => r.id === null).length;
    if (unnamed === 0) return null;
    return { rank: 40, words: `Name ${count(unnamed, "room")}`, go: () => setAct("rooms") };
  },
};

export default act;

export const shows: readonly Shown[] = [
  { in: () => true, Marks: Leaks },
  { in: isTracing, Marks: Dividers, Labels: RoomLabels },
];

/** A divider runs from wall to wall, square where it is nearly so. */
function dividerSnap(pointer: XY, reach: number, free: boolean) {
  const { holdSquare } = useDesk.getState();
  const from = drafted("divider")?.from;
  const held = from && holdSquare && !free ? heldHere(from, pointer) : null;
  const hit = free ? null : wallUnder(held?.at ?? pointer, reach);
  if (!hit) return held ?? { at: pointer, words: from ? "the divider ends here" : "a divider begins here" };
  return { at: held?.at ?? hit.at, words: held ? `on this wall, ${held.words}` : "on this wall", wall: hit.id };
}
