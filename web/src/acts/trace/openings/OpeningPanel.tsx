import { typed } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import { wallLine } from "../../../store/walls";
import { typedAs } from "../../../ui/measures";
import { OneOf, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { removeOpening } from "./openings";

/** A selected opening: its figures, each of which may be typed, and its kind. */
export function SelectedOpening({ id }: { id: string }) {
  const rows = useProject((s) => s.rows);
  const opening = rows.opening.get(id);
  const line = wallLine(rows, opening?.wall);
  if (!opening || !line) return null;
  const { length } = line;
  const set = (title: string, values: Record<string, unknown>) =>
    void change(`${title} ${opening.number}`, [{ do: "set", type: "opening", id, values }]);
  const { offset, width, sill, height } = opening;
  const figure = (mm: number) => typedAs(mm);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label={`Opening ${opening.number}`}>
      <div className="mb-2 text-lg font-bold text-teal">{opening.number}</div>
      <OneOf
        label="It is"
        value={opening.kind}
        of={[
          ["door", "a door"],
          ["window", "a window"],
          ["opening", "an opening"],
        ]}
        set={(kind) => set("Kind of", { kind })}
      />
      <div className="mt-2 grid grid-cols-3 gap-2">
        <Typed
          label="width"
          value={figure(width)}
          // Its middle stays.
          set={(text) => void typed(text, (mm) => set("Width of", { width: mm, offset: offset + (width - mm) / 2 }))}
        />
        <Typed
          label="from one end"
          value={figure(offset)}
          set={(text) => void typed(text, (mm) => set("Move", { offset: mm }))}
        />
        <Typed
          label="from the other"
          value={figure(length - offset - width)}
          set={(text) => void typed(text, (mm) => set("Move", { offset: length - width - mm }))}
        />
        <Typed
          label="sill"
          value={figure(sill)}
          set={(text) => void typed(text, (mm) => set("Sill of", { sill: mm, height: (height ?? 0) + sill - mm }))}
        />
        <Typed
          label="head"
          value={height === null ? "full height" : figure(sill + height)}
          set={(text) => void typed(text, (mm) => set("Head of", { height: mm - sill }))}
        />
        <Typed label="number" value={opening.number} set={(number) => set("Number of", { number })} />
      </div>
      {opening.kind === "door" && (
        <div className="mt-2">
          <OneOf
            label="Leaves"
            value={opening.leaf}
            of={[
              ["single", "one leaf"],
              ["double", "two leaves"],
              ["sliding", "sliding"],
            ]}
            set={(leaf) => set("Leaves of", { leaf })}
          />
        </div>
      )}
      {opening.kind !== "window" && (
        <div className="mt-2 space-y-2">
          <OneOf
            label="For who escapes"
            value={opening.exit}
            of={[
              ["none", "no exit"],
              ["storey", "storey exit"],
              ["final", "final exit"],
            ]}
            set={(exit) => set("Exit by", { exit })}
          />
          <div className="w-1/3">
            <Typed
              label="fire rated"
              value={opening.rated}
              set={(rated) => set("Rating of", { rated: rated.trim() })}
            />
          </div>
        </div>
      )}
      {height !== null && (
        <div className="mt-2">
          <OneOf
            label="Above it is"
            value={opening.head}
            of={[
              ["level", "level"],
              ["segment", "bowed"],
              ["semicircle", "half round"],
              ["round", "round"],
            ]}
            // A bow usually rises a tenth of its width; common practice, no source.
            set={(head) => set("Head of", { head, ...(head === "segment" ? { rise: Math.round(width / 10) } : {}) })}
          />
          {opening.head === "segment" && (
            <Typed
              label="the bow rises"
              value={figure(opening.rise)}
              set={(text) => void typed(text, (mm) => set("Bow of", { rise: mm }))}
            />
          )}
        </div>
      )}
      <div className="mt-2 flex flex-wrap gap-1.5">
        {opening.kind === "door" && (
          <>
            <Plain onClick={() => set("Hand of", { hand: opening.hand === "left" ? "right" : "left" })}>
              Other jamb
            </Plain>
            <Plain onClick={() => set("Swing of", { swing: opening.swing === "left" ? "right" : "left" })}>
              Other side
            </Plain>
          </>
        )}
        <Plain
          pressed={height === null}
          onClick={() => set("Height of", { height: height === null ? 2040 - sill : null })}
        >
          Full height
        </Plain>
        <Plain danger onClick={() => removeOpening(id)}>
          Remove
        </Plain>
      </div>
    </section>
  );
}
