import { useDesk } from "../../../board/desk";
import type { Place } from "../../../store/drawings";
import { typed } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { inOrder } from "../../../store/rows";
import { area, inWords, typedAs, written } from "../../../ui/measures";
import { Link, OneOf } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { useOutlineKind } from "./outline";
import { useOutline } from "./useOutline";

/** What the next outline on a storey goes round. */
export function OutlineOptions() {
  const side = useDesk((s) => s.side);
  const kind = useOutlineKind((s) => s.kind);
  const set = (to: typeof kind) => useOutlineKind.setState({ kind: to });
  // On a side it goes round a face.
  if (side !== null) return null;
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Outlines">
      <OneOf
        label="It goes round"
        value={kind}
        of={[
          ["slab", "a floor"],
          ["ceiling", "a ceiling"],
          ["void", "a void"],
        ]}
        set={set}
      />
      <div className="mt-1">
        <OneOf
          label="or round"
          value={kind}
          of={[
            ["roof edge", "a roof edge"],
            ["kerb", "a kerb"],
            ["plinth", "a plinth"],
          ]}
          set={set}
        />
      </div>
      <p className="mt-2 text-quiet">Click from corner to corner; corners of walls hold. Enter closes it.</p>
    </section>
  );
}

export function OutlineRows({ storey, side }: Place) {
  const outlines = useProject((s) => s.rows.outline);
  return (
    <>
      {inOrder(outlines.values())
        .filter((o) => (side === null ? o.storey === storey : o.side === side))
        .map((o) => (
          <OutlineRow key={o.id} outline={o} />
        ))}
    </>
  );
}

/** An outline with what it encloses; on a storey with its thickness and the height of its top as well. */
function OutlineRow({ outline }: { outline: Thing<"outline"> }) {
  const { answer } = useOutline(outline);
  const reads = useProject((s) => s.role === "read");
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "outline", id: outline.id, values }]);
  const mm = (value: number | null) => (value === null ? "none" : typedAs(value));
  return (
    <fieldset disabled={reads} className="border-b border-line px-4 py-2">
      <div className="flex items-baseline justify-between gap-2">
        <span>
          <input
            className="w-32 bg-transparent font-semibold"
            aria-label="Name of the outline"
            defaultValue={outline.name}
            onBlur={(e) => {
              const name = e.target.value.trim();
              if (name !== "" && name !== outline.name)
                void change("Name an outline", [{ do: "set", type: "outline", id: outline.id, values: { name } }]);
            }}
          />
          <span className={`block text-[13px] ${answer?.refusal ? "text-rust" : "text-quiet"}`}>
            {answer?.refusal ?? `${written(answer?.widthMm ?? 0)} × ${inWords(answer?.heightMm ?? 0)}`}
          </span>
        </span>
        <span className="text-right whitespace-nowrap">
          {answer?.areaM2 ? area(answer.areaM2) : ""}{" "}
          <Link onClick={() => void change("Remove an outline", [{ do: "remove", type: "outline", id: outline.id }])}>
            Remove
          </Link>
        </span>
      </div>
      {outline.storey !== null && outline.kind !== "void" && (
        <div className="mt-1 grid grid-cols-2 gap-2">
          <Typed
            label="thickness"
            value={mm(outline.thickness)}
            set={(text) => void typed(text, (thickness) => set("Thickness of an outline", { thickness }))}
          />
          <Typed
            label="top above the floor"
            value={mm(outline.top)}
            set={(text) => void typed(text, (top) => set("Top of an outline", { top }))}
          />
        </div>
      )}
    </fieldset>
  );
}
