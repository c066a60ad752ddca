import { newId } from "../../../api/ids";
import { drafted, useDesk } from "../../../board/desk";
import { sendDraft } from "../../../board/slip";
import { distance, type XY } from "../../../geometry/plane";

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
  const { storey } = useDesk.getState();
  const note = drafted("note");
  const words = text.trim().replace(/^\?\s*/, "");
  if (!note || storey === null || words === "") return;
  await sendDraft("Write a note", [
    {
      do: "add",
      type: "note",
      id: newId(),
      values: {
        storey,
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
