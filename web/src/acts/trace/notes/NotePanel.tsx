import type { Place } from "../../../store/drawings";
import { change, useProject } from "../../../store/project";
import { Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { Arrange } from "../../Arrange";
import { SelectRow } from "../../SelectRow";
import { Elsewhere } from "../Elsewhere";
import { removeRow } from "../removing";
import { notesHere } from "./notes";

export function NoteRows(place: Place) {
  const notes = useProject((s) => s.rows.note);
  return (
    <>
      {notesHere(notes.values(), place).map((n) => (
        <SelectRow key={n.id} type="note" id={n.id}>
          <span className="min-w-0 truncate text-[13px]">
            <span className={n.assumption ? "text-ochre" : "text-quiet"}>{n.assumption ? "assumed" : "note"}</span>{" "}
            {n.words}
          </span>
        </SelectRow>
      ))}
    </>
  );
}

export function SelectedNote({ id }: { id: string }) {
  const note = useProject((s) => s.rows.note.get(id));
  if (!note) return null;
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "note", id, values }]);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Note">
      <Typed label="words" value={note.words} set={(words) => set("Words of a note", { words })} />
      <div className="mt-2 flex gap-1.5">
        <Plain pressed={note.assumption} onClick={() => set("Assumption", { assumption: !note.assumption })}>
          An assumption
        </Plain>
        <Plain danger onClick={() => removeRow("note", id)}>
          Remove
        </Plain>
      </div>
      <Arrange things={[{ type: "note", id }]} />
      {note.storey !== null && <Elsewhere things={[{ type: "note", id }]} />}
    </section>
  );
}
