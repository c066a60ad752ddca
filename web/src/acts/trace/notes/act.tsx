import type { Act, Shown } from "../../../board/act";
import { drafted } from "../../../board/desk";
import type { XY } from "../../../geometry/plane";
import { isTracing } from "../../isTracing";
import { removeRow } from "../removing";
import { NoteRows, SelectedNote } from "./NotePanel";
import { Notes } from "./Notes";
import { noteDrag, notePoint, notePoints, noteUnder, writeNote } from "./notes";

const INK = { colour: "#1c2a26", width: 1.4 };

/** Words on the board, and what they point at. */
const act: Act = {
  name: "notes",
  click: ({ pointer, snap }) => notePoint(snap?.at ?? pointer),
  slip() {
    const note = drafted("note");
    const hint = "Enter writes it. A question mark first makes it an assumption.";
    return note && { at: note.at, label: "note", hint, send: writeNote };
  },
  words: () => (drafted("note") ? ["click what it points at, or type"] : []),
  draws(pen) {
    const note = drafted("note");
    if (!note?.to) return;
    const [from, to] = [pen.at(note.at), pen.at(note.to)];
    const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
    const barb = (turn: number): XY => [to[0] - 11 * Math.cos(angle + turn), to[1] - 11 * Math.sin(angle + turn)];
    pen.path([from, to], INK);
    pen.path([barb(0.42), to, barb(-0.42)], INK);
  },
  Rows: { of: NoteRows, rank: 60 },
  selects: {
    note: {
      Panel: SelectedNote,
      remove: (id) => removeRow("note", id),
      hit: { rank: 5, at: noteUnder },
      handles: notePoints,
      drag: noteDrag,
    },
  },
};

export default act;

export const shows: readonly Shown[] = [{ in: isTracing, Marks: Notes }];
