import { useState } from "react";
import { distance } from "../../../geometry/plane";
import { typed, typedPitch, typedPlace } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { area, inWords, pitchWords, typedAs, written } from "../../../ui/measures";
import { Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { Arrange } from "../../Arrange";
import { Elsewhere } from "../Elsewhere";
import { removeRow } from "../removing";
import { halveEdge, removeCorner, setEdge } from "./corners";
import { RoofTold } from "./RoofTold";
import { useOutline } from "./useOutline";

/** A selected outline: its name and sizes, and its corners and edges, each of which may be typed. */
export function SelectedOutline({ id }: { id: string }) {
  const outline = useProject((s) => s.rows.outline.get(id));
  return outline ? <Outline outline={outline} /> : null;
}

function Outline({ outline }: { outline: Thing<"outline"> }) {
  const { id } = outline;
  const { corners, answer } = useOutline(outline);
  const [open, setOpen] = useState<string | null>(null);
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "outline", id, values }]);
  const isRoof = outline.kind === "roof";
  const none = isRoof ? "storey’s" : "none";
  const mm = (value: number | null) => (value === null ? none : typedAs(value));
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label={`Outline ${outline.name}`}>
      <div className="flex items-baseline justify-between text-teal">
        <span className="text-lg font-bold">{answer?.areaM2 ? area(answer.areaM2) : outline.name}</span>
        {answer?.widthMm != null && `${written(answer.widthMm)} × ${inWords(answer.heightMm ?? 0)}`}
      </div>
      {answer?.refusal && <p className="text-rust">{answer.refusal}</p>}
      <div className="mt-1 grid grid-cols-3 gap-2">
        <Typed label="name" value={outline.name} set={(name) => set("Name an outline", { name })} />
        {outline.storey !== null && outline.kind !== "void" && (
          <>
            <Typed
              label="thickness"
              value={mm(outline.thickness)}
              set={(text) => void typed(text, (thickness) => set("Thickness of an outline", { thickness }))}
            />
            <Typed
              label={outline.kind === "roof" ? "eaves" : "top above floor"}
              value={mm(outline.top)}
              set={(text) => void typedPlace(text, (top) => set("Top of an outline", { top }))}
            />
            {outline.kind === "slab" && (
              <Typed
                label="of it finish"
                value={mm(outline.finish)}
                set={(text) =>
                  void typedPlace(text, (finish) => set("Finish of a floor", { finish: finish > 0 ? finish : null }))
                }
              />
            )}
          </>
        )}
      </div>
      {isRoof && <RoofTold outline={outline} corners={corners} />}
      <ol className="mt-2" aria-label="Corners">
        {corners.map((corner, i) => {
          const next = corners[(i + 1) % corners.length] ?? corner;
          const edge = distance([corner.x, corner.y], [next.x, next.y]);
          return (
            <li key={corner.id} className="border-t border-line">
              <button
                type="button"
                aria-expanded={open === corner.id}
                className="grid w-full grid-cols-[1.5rem_1fr_1fr] gap-2 py-1 text-left"
                onClick={() => setOpen(open === corner.id ? null : corner.id)}
              >
                <span className="text-quiet">{i + 1}</span>
                <span>
                  {written(corner.x)}, {written(corner.y)}
                </span>
                <span className="text-right text-quiet">
                  {isRoof ? `${pitchWords(corner.pitch)} over` : corner.rise === 0 ? "then" : "then an arc over"}{" "}
                  {written(edge)}
                </span>
              </button>
              {open === corner.id && <CornerFields outline={outline} corner={corner} edge={edge} />}
            </li>
          );
        })}
      </ol>
      <Arrange things={[{ type: "outline", id }]} />
      {outline.storey !== null && <Elsewhere things={[{ type: "outline", id }]} />}
      <div className="mt-2">
        <Plain danger onClick={() => removeRow("outline", id, "Remove an outline")}>
          Remove
        </Plain>
      </div>
    </section>
  );
}

function CornerFields(props: { outline: Thing<"outline">; corner: Thing<"outlineCorner">; edge: number }) {
  const { outline, corner, edge } = props;
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "outlineCorner", id: corner.id, values }]);
  const onSide = outline.side !== null;
  return (
    <div className="pb-2">
      <div className="grid grid-cols-2 gap-2">
        <Typed
          label={onSide ? "along the side" : "x"}
          value={typedAs(corner.x, 1)}
          set={(text) => void typedPlace(text, (x) => set("Move a corner", { x }))}
        />
        <Typed
          label={onSide ? "height" : "y"}
          value={typedAs(corner.y, 1)}
          set={(text) => void typedPlace(text, (y) => set("Move a corner", { y }))}
        />
        <Typed
          label="to the next corner"
          value={typedAs(edge, 1)}
          set={(text) => void typed(text, (length) => void setEdge(outline.id, corner.id, length))}
        />
        {outline.kind === "roof" && (
          <>
            <Typed
              label="pitch over this edge"
              value={pitchWords(corner.pitch)}
              set={(text) =>
                /^\s*gable\s*$/i.test(text)
                  ? set("Make an edge a gable", { pitch: null })
                  : void typedPitch(text, (pitch) => set("Pitch of an edge", { pitch }))
              }
            />
            <Typed
              label="overhang"
              value={typedAs(corner.overhang)}
              set={(text) => void typedPlace(text, (overhang) => set("Overhang of an edge", { overhang }))}
            />
          </>
        )}
        <Typed
          label="rise of an arc, left of it +"
          value={typedAs(corner.rise, 1)}
          set={(text) => void typedPlace(text, (rise) => set("Bow an edge", { rise }))}
        />
      </div>
      <div className="mt-1.5 flex gap-1.5">
        {outline.kind === "roof" && corner.pitch !== null && (
          <Plain onClick={() => set("Make an edge a gable", { pitch: null })}>A gable</Plain>
        )}
        <Plain onClick={() => void halveEdge(outline.id, corner.id)}>Halve the edge</Plain>
        <Plain danger onClick={() => void removeCorner(outline.id, corner.id)}>
          Remove the corner
        </Plain>
      </div>
    </div>
  );
}
