import { useDesk } from "../../../board/desk";
import type { Place } from "../../../store/drawings";
import { typedPitch, typedPlace } from "../../../store/lengths";
import { useProject } from "../../../store/project";
import type { OutlineKind, Thing } from "../../../store/rows";
import { inOrder } from "../../../store/rows";
import { area, inWords, pitchWords, typedAs, written } from "../../../ui/measures";
import { OneOf, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { SelectRow } from "../../SelectRow";
import { outlinesFromWalls, useOutlineKind } from "./outline";
import { useOutline } from "./useOutline";

/** What one act makes of the enclosed plan. */
const FROM_WALLS: Partial<Record<OutlineKind, string>> = {
  slab: "Floor, to the walls’ outer faces",
  ceiling: "A ceiling in every room",
  roof: "Roof over the walls’ outer faces",
};

/** What the next outline on a storey goes round. */
export function OutlineOptions() {
  const side = useDesk((s) => s.side);
  const kind = useOutlineKind((s) => s.kind);
  const set = (to: typeof kind) => useOutlineKind.setState({ kind: to });
  const hint = "Click from corner to corner; Enter closes it. After two opposite corners Enter makes a rectangle.";
  // On a side it goes round a face.
  if (side !== null) return <p className="border-b border-line bg-white px-4 py-3 text-[13px] text-quiet">{hint}</p>;
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
          label="or over it"
          value={kind}
          of={[
            ["roof", "a roof"],
            ["dormer", "a dormer"],
            ["chimney", "a chimney"],
          ]}
          set={set}
        />
      </div>
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
      {kind === "roof" && <RoofFields />}
      {FROM_WALLS[kind] && (
        <div className="mt-2">
          <Plain onClick={() => void outlinesFromWalls()}>{FROM_WALLS[kind]}</Plain>
        </div>
      )}
      <p className="mt-2 text-quiet">{hint} Corners of walls hold.</p>
    </section>
  );
}

/** How the next roof rises; each of its edges can be changed once it stands. */
function RoofFields() {
  const { pitch, overhang } = useOutlineKind();
  return (
    <div className="mt-1.5 grid grid-cols-2 gap-2">
      <Typed
        label="pitch all round"
        value={pitchWords(pitch)}
        set={(text) => void typedPitch(text, (to) => useOutlineKind.setState({ pitch: to }))}
      />
      <Typed
        label="overhang"
        value={typedAs(overhang)}
        set={(text) => void typedPlace(text, (to) => useOutlineKind.setState({ overhang: Math.max(0, to) }))}
      />
    </div>
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

/** An outline with what it encloses. */
function OutlineRow({ outline }: { outline: Thing<"outline"> }) {
  const { answer } = useOutline(outline);
  return (
    <SelectRow type="outline" id={outline.id}>
      <span>
        <span className="font-semibold">{outline.name}</span>
        <span className={`block text-[13px] ${answer?.refusal ? "text-rust" : "text-quiet"}`}>
          {answer?.refusal ?? `${written(answer?.widthMm ?? 0)} × ${inWords(answer?.heightMm ?? 0)}`}
        </span>
      </span>
      <span className="whitespace-nowrap">{answer?.areaM2 ? area(answer.areaM2) : ""}</span>
    </SelectRow>
  );
}
