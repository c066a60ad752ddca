import { newId } from "../../api/ids";
import { change, useProject } from "../../store/project";
import { inOrder, type Thing } from "../../store/rows";

export type ViewValues = Omit<Thing<"savedView">, "id" | "revision" | "name">;

/** Views that were saved: one click goes there; the one at hand is kept with its cut and what is left out. */
export function Views(props: { now: () => ViewValues | null; go: (to: ViewValues) => void }) {
  const views = useProject((s) => s.rows.savedView);
  const reads = useProject((s) => s.role === "read");
  const save = () => {
    const values = props.now();
    if (!values) return;
    const name = `View ${views.size + 1}`;
    void change("Save a view", [{ do: "add", type: "savedView", id: newId(), values: { name, ...values } }]);
  };
  const box = "h-8 rounded-lg border border-line bg-sheet px-2.5 text-[13px]";
  return (
    <fieldset className="flex flex-wrap gap-1.5" aria-label="Saved views">
      {inOrder(views.values()).map((view) => (
        <span key={view.id} className="flex">
          <button type="button" className={`${box} ${reads ? "" : "rounded-r-none"}`} onClick={() => props.go(view)}>
            {view.name}
          </button>
          {!reads && (
            <button
              type="button"
              className={`${box} rounded-l-none border-l-0 text-quiet`}
              aria-label={`Remove ${view.name}`}
              onClick={() => void change("Remove a view", [{ do: "remove", type: "savedView", id: view.id }])}
            >
              ×
            </button>
          )}
        </span>
      ))}
      {!reads && (
        <button type="button" className={box} onClick={save}>
          save this view
        </button>
      )}
    </fieldset>
  );
}
