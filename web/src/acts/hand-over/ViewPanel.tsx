import { change, say, useProject } from "../../store/project";
import { count } from "../../ui/numbers";
import { Choose, Plain } from "../../ui/parts";
import { Typed } from "../../ui/Typed";
import { chainOf, isOfChain, readWindow, windowOf } from "./onSheet";
import { isToScale, mark, marksOf, nameOf, SHOWS, takeView, useSheets, type View } from "./sheets";

const SCALES = [10, 20, 50, 100, 200, 500, 1000] as const;

/** A view in hand: its scale, its title, what it shows, and what was said of its dimensions. */
export function ViewPanel({ view }: { view: View }) {
  const rows = useProject((s) => s.rows);
  const reads = useProject((s) => s.role === "read");
  const figure = useSheets((s) => s.figure);
  const set = (title: string, values: Partial<View>) =>
    void change(title, [{ do: "set", type: "sheetView", id: view.id, values }]);
  const shown = view.shows === "" ? [] : view.shows.split(",");
  const toggle = (what: string) =>
    set("What a view shows", {
      shows: (shown.includes(what) ? shown.filter((s) => s !== what) : [...shown, what]).join(","),
    });
  const number = (title: string, key: "width" | "turn" | "tilt", text: string) => {
    const value = Number(text.replace(",", "."));
    if (Number.isFinite(value)) set(title, { [key]: value });
  };
  const scales = [...new Set([...SCALES, view.scale])].sort((a, b) => a - b);
  return (
    <section className="p-4" aria-label="The view in hand">
      <h3 className="text-[15px] font-bold">{nameOf(rows, view)}</h3>
      <p className="text-quiet">Drag it on the sheet, or move it with the arrow keys: a millimetre, ten with Shift.</p>
      {figure !== null && !reads && <FigurePanel view={view} figure={figure} />}
      <div className="mt-1.5 grid grid-cols-2 gap-1.5">
        {isToScale(view.kind) && (
          <Choose
            label="Scale"
            value={String(view.scale)}
            of={scales.map((s) => [String(s), `1:${s}`])}
            set={(scale) => set("Scale of a view", { scale: Number(scale) })}
          />
        )}
        <Typed
          label="Title"
          value={view.title}
          mayBeEmpty
          set={(title) => set("Title of a view", { title: title.trim() })}
        />
        {isToScale(view.kind) && (
          <Typed
            label="Only from – to, mm"
            value={windowOf(view)}
            mayBeEmpty
            set={(text) => {
              const values = readWindow(text);
              if (values) set("Window of a view", values);
              else
                say(
                  "A window is two corners: x y – x y in millimetres, the lower left one first; nothing for all of it.",
                );
            }}
          />
        )}
        {(view.kind === "picture" || view.kind === "notes") && (
          <Typed
            label="Width on paper, mm"
            value={String(view.width ?? (view.kind === "notes" ? 110 : 120))}
            set={(text) => number("Width of a view", "width", text)}
          />
        )}
        {view.kind === "standing" && (
          <>
            <Typed
              label="Looks to, degrees"
              value={String(view.turn)}
              set={(text) => number("Turn a view", "turn", text)}
            />
            <Typed label="and down" value={String(view.tilt)} set={(text) => number("Tilt a view", "tilt", text)} />
          </>
        )}
      </div>
      {view.kind === "notes" && (
        <label className="mt-1.5 block text-xs text-quiet">
          Notes, a line each
          <textarea
            className="mt-0.5 w-full rounded border border-line bg-white p-1.5 text-[13px] text-ink"
            rows={6}
            defaultValue={view.words}
            readOnly={reads}
            onBlur={(e) => e.target.value !== view.words && set("Notes on a sheet", { words: e.target.value })}
          />
        </label>
      )}
      {SHOWS[view.kind] && (
        <fieldset className="mt-2" disabled={reads}>
          <legend className="font-semibold">It shows</legend>
          {SHOWS[view.kind]?.map(([what, words]) => (
            <label key={what} className="flex items-center gap-1.5 leading-6">
              <input type="checkbox" checked={shown.includes(what)} onChange={() => toggle(what)} />
              {words}
            </label>
          ))}
        </fieldset>
      )}
      <Said view={view} reads={reads} />
      <div className="mt-2 flex flex-wrap gap-1.5">
        <Plain onClick={() => takeView(null)}>Back to the sheet</Plain>
        {!reads && (
          <Plain
            danger
            onClick={() => {
              takeView(null);
              void change("Take a view off a sheet", [{ do: "remove", type: "sheetView", id: view.id }]);
            }}
          >
            Take it off the sheet
          </Plain>
        )}
      </div>
    </section>
  );
}

/** The dimension in hand. */
function FigurePanel({ view, figure }: { view: View; figure: string }) {
  const hide = (of: string, title: string) => {
    useSheets.setState({ figure: null });
    void mark(view.id, of, { hidden: true }, title);
  };
  return (
    <fieldset
      className="mt-1.5 flex flex-wrap gap-1.5 rounded border border-teal p-1.5"
      aria-label="The dimension in hand"
    >
      <Plain onClick={() => hide(figure, "Leave a dimension out")}>Leave it out</Plain>
      {isOfChain(figure) && (
        <Plain onClick={() => hide(chainOf(figure), "Leave a chain out")}>Leave its chain out</Plain>
      )}
    </fieldset>
  );
}

/** What was moved and left out, and the way back. */
function Said({ view, reads }: { view: View; reads: boolean }) {
  const rows = useProject((s) => s.rows);
  const marks = marksOf(rows, view.id);
  const hidden = marks.filter((m) => m.hidden);
  const moved = marks.filter((m) => !m.hidden);
  if (marks.length === 0) return null;
  const forget = (of: typeof marks, title: string) =>
    void change(title, [{ do: "removeMany", type: "viewMark", ids: of.map((m) => m.id) }]);
  return (
    <div className="mt-2 flex flex-wrap items-center gap-1.5">
      {hidden.length > 0 && <span>{count(hidden.length, "thing")} left out.</span>}
      {hidden.length > 0 && !reads && (
        <Plain onClick={() => forget(hidden, "Bring back what was left out")}>Bring back</Plain>
      )}
      {moved.length > 0 && <span>{count(moved.length, "thing")} moved.</span>}
      {moved.length > 0 && !reads && (
        <Plain onClick={() => forget(moved, "Put back what was moved")}>Put back where they would stand</Plain>
      )}
    </div>
  );
}
