import { newId } from "../api/ids";
import { distance, type XY } from "../board/geometry";
import { useDesk } from "./desk";
import { sendDraft } from "./draft";

/** Screen pixels beyond which a second click is where the arrow points. */
const ARROW_PX = 20;

/** The first click says where the words stand, a second one what they point at; then they are typed. */
export function notePoint(at: XY): void {
  const { noteAt, view } = useDesk.getState();
  if (!noteAt) return useDesk.setState({ noteAt: { at, to: null }, slip: "", slipError: null });
  const to = distance(noteAt.at, at) * view.k > ARROW_PX ? at : null;
  useDesk.setState({ noteAt: { at: noteAt.at, to } });
}

/** An assumption begins with a question mark: `? wall below is load-bearing`. */
export async function writeNote(text: string): Promise<void> {
  const { noteAt, storey } = useDesk.getState();
  const words = text.trim().replace(/^\?\s*/, "");
  if (!noteAt || storey === null || words === "") return;
  await sendDraft("Write a note", [
    {
      do: "add",
      type: "note",
      id: newId(),
      values: {
        storey,
        x: noteAt.at[0],
        y: noteAt.at[1],
        toX: noteAt.to?.[0] ?? null,
        toY: noteAt.to?.[1] ?? null,
        words,
        assumption: text.trim().startsWith("?"),
      },
    },
  ]);
}
