import { typed, typedPlace } from "../../store/lengths";
import { change, useProject } from "../../store/project";
import { typedAs } from "../../ui/measures";
import { Plain } from "../../ui/parts";
import { Typed } from "../../ui/Typed";
import { useHidden } from "../SideView";

/** What stands for a depth that is not bound, and is typed to bind none. */
const ALL = "all there is";

/** A side or section by itself: its name, how deep it is looked into, and where a section cuts. */
export function LineOfSide({ side }: { side: string }) {
  const row = useProject((s) => s.rows.side.get(side));
  if (!row || row.fromX === null || row.fromY === null || row.toX === null || row.toY === null) return null;
  const { fromX, fromY, toX, toY } = row;
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "side", id: side, values }]);
  /** So far further behind its line, all of it. */
  const move = (mm: number) => {
    const length = Math.max(1, Math.hypot(toX - fromX, toY - fromY));
    const [dx, dy] = [(-(toY - fromY) / length) * mm, ((toX - fromX) / length) * mm];
    const jogs = row.jogs
      .split(";")
      .filter((p) => p.trim() !== "")
      .map((p) => {
        const [x = 0, y = 0] = p.trim().split(/\s+/).map(Number);
        return `${x + dx} ${y + dy}`;
      });
    set("Move a section", {
      fromX: fromX + dx,
      fromY: fromY + dy,
      toX: toX + dx,
      toY: toY + dy,
      jogs: jogs.join("; "),
    });
  };
  return (
    <section className="border-b border-line px-4 py-3 text-[13px]" aria-label="Its line">
      <div className="grid grid-cols-2 gap-2">
        <Typed label="name" value={row.name} set={(name) => set("Name a side", { name })} />
        <Typed
          label="shown behind it"
          value={row.depth === null ? ALL : typedAs(row.depth)}
          set={(text) => {
            if (text.trim() === ALL || text.trim() === "all") return set("Depth of a side", { depth: null });
            void typed(text, (depth) => set("Depth of a side", { depth }));
          }}
        />
        {row.cut && (
          <Typed
            label="cut further behind by"
            value={typedAs(0)}
            set={(text) => void typedPlace(text, (mm) => move(mm))}
          />
        )}
      </div>
      <div className="mt-2 flex flex-wrap gap-1.5">
        <Plain
          onClick={() =>
            set(row.cut ? "Look from outside" : "Cut along its line", { cut: !row.cut, jogs: row.cut ? "" : row.jogs })
          }
        >
          {row.cut ? "Look from outside" : "Cut along its line"}
        </Plain>
        <Plain
          onClick={() =>
            set("Look the other way", { fromX: toX, fromY: toY, toX: fromX, toY: fromY, jogs: turned(row.jogs) })
          }
        >
          Look the other way
        </Plain>
        <HiddenLines />
      </div>
    </section>
  );
}

/** Whether what stands behind something is drawn too, dashed. */
export function HiddenLines() {
  const hidden = useHidden((s) => s.hidden);
  return (
    <Plain pressed={hidden} onClick={() => useHidden.setState({ hidden: !hidden })}>
      Hidden lines
    </Plain>
  );
}

/** Jogs from the other end. */
function turned(jogs: string): string {
  return jogs
    .split(";")
    .map((p) => p.trim())
    .filter((p) => p !== "")
    .reverse()
    .join("; ");
}
