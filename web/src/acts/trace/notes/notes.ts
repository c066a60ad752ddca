import { newId } from "../../../api/ids";
import type { Drag } from "../../../board/act";
import { drafted, useDesk } from "../../../board/desk";
import { sendDraft } from "../../../board/slip";
import { TAG_HEIGHT, tagWidth } from "../../../board/tags";
import { distance, type XY } from "../../../geometry/plane";
import type { Place } from "../../../store/drawings";
import { change, useProject } from "../../../store/project";
import { inOrder, type Thing } from "../../../store/rows";

declare module "../../../board/desk" {
  interface Drafts {
    /** where words stand, and what they point at */
    note: { at: XY; to: XY | null };
  }
}

/** Screen pixels beyond which a second click is where the arrow points. */
const ARROW_PX = 20;

/** The first click says where the words stand, a second one what they point at; then they are typed. */
export function notePoint(at: XY): void {
  const { view } = useDesk.getState();
  const note = drafted("note");
  if (!note) return useDesk.setState({ draft: { of: "note", at, to: null }, slip: "", slipError: null });
  const to = distance(note.at, at) * view.k > ARROW_PX ? at : null;
  useDesk.setState({ draft: { ...note, to } });
}

/** An assumption begins with a question mark: `? wall below is load-bearing`. */
export async function writeNote(text: string): Promise<void> {
  const { storey, side } = useDesk.getState();
  const note = drafted("note");
  const words = text.trim().replace(/^\?\s*/, "");
  if (!note || (storey === null && side === null) || words === "") return;
  await sendDraft("Write a note", [
    {
      do: "add",
      type: "note",
      id: newId(),
      values: {
        ...(side === null ? { storey, side: null } : { storey: null, side }),
        x: note.at[0],
        y: note.at[1],
        toX: note.to?.[0] ?? null,
        toY: note.to?.[1] ?? null,
        words,
        assumption: text.trim().startsWith("?"),
      },
    },
  ]);
}

/** Notes of the storey or side at hand. */
export function notesHere(notes: Iterable<Thing<"note">>, { storey, side }: Place): Thing<"note">[] {
  return inOrder(notes).filter((n) => (side === null ? n.storey === storey : n.side === side));
}

/** Where its words stand, and what it points at. */
export function notePoints(id: string): XY[] {
  const note = useProject.getState().rows.note.get(id);
  if (!note) return [];
  return [[note.x, note.y], ...(note.toX === null || note.toY === null ? [] : [[note.toX, note.toY] as XY])];
}

/** The note whose words lie under a point, as they are drawn. */
export function noteUnder(pointer: XY): string | null {
  const { view, storey, side } = useDesk.getState();
  const over = notesHere(useProject.getState().rows.note.values(), { storey, side }).findLast((note) => {
    const half = tagWidth(noteWords(note)) / 2;
    const [dx, dy] = [Math.abs(pointer[0] - note.x) * view.k, Math.abs(pointer[1] - note.y) * view.k];
    return dx <= half && dy <= TAG_HEIGHT / 2;
  });
  return over?.id ?? null;
}

/** As it is written on the board: long ones end in an ellipsis. */
export function noteWords({ words, assumption }: Pick<Thing<"note">, "words" | "assumption">): string {
  const short = words.length > 46 ? `${words.slice(0, 44)}…` : words;
  return assumption ? `assumed: ${short}` : short;
}

/** A drag of the words, which leaves the arrow where it points, or of the arrow's head. */
export function noteDrag(id: string, at: XY, reach: number): Drag | null {
  const [words, head] = notePoints(id);
  const ofHead = head !== undefined && distance(at, head) < reach;
  if (!words || (!ofHead && noteUnder(at) !== id)) return null;
  const [from, stays] = ofHead ? [head, words] : [words, head];
  let to = from;
  return {
    move(start, pointer) {
      to = [from[0] + pointer[0] - start[0], from[1] + pointer[1] - start[1]];
      useDesk.setState({ draft: { of: "moved", lines: [[stays ?? from, to]], told: false } });
    },
    async drop() {
      useDesk.setState({ draft: null });
      const [x, y] = to;
      const values = ofHead ? { toX: x, toY: y } : { x, y };
      await change(ofHead ? "What a note points at" : "Move a note", [{ do: "set", type: "note", id, values }]);
    },
  };
}
