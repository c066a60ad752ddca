import { useDesk, useDrafted } from "../../../board/desk";
import { usualSizes } from "../../../store/usual";
import { typedAs, written } from "../../../ui/measures";
import { OneOf, Plain } from "../../../ui/parts";
import { useOpeningOptions } from "./openings";

/** What a click in a wall makes: as the ink shows it, or what is chosen. */
export function OpeningOptions() {
  const { kind, leaf: openingLeaf } = useOpeningOptions();
  const door = useDrafted("jamb");
  const sizes = usualSizes(kind === "as drawn" ? "door" : kind).slice(0, 4);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Openings">
      <OneOf
        label="A click makes"
        value={kind}
        of={[
          ["as drawn", "as drawn"],
          ["door", "a door"],
          ["window", "a window"],
          ["opening", "an opening"],
        ]}
        set={(of) => useOpeningOptions.setState({ kind: of })}
      />
      {(kind === "door" || kind === "as drawn") && (
        <div className="mt-2">
          <OneOf
            label="Doors have"
            value={openingLeaf}
            of={[
              ["single", "one leaf"],
              ["double", "two leaves"],
              ["sliding", "sliding"],
            ]}
            set={(leaf) => useOpeningOptions.setState({ leaf })}
          />
        </div>
      )}
      <p className="mt-2 text-quiet">
        Click in the middle of a gap: width, kind and swing are taken from the ink. At an edge, the first of two clicks,
        or type the width. Alt holds the ink off.
      </p>
      {door && sizes.length > 0 && (
        <div className="mt-2 flex flex-wrap items-center gap-1.5">
          <span className="text-quiet">usual here</span>
          {sizes.map((s) => (
            <Plain
              key={`${s.width} ${s.sill} ${s.height}`}
              onClick={() => useDesk.setState({ slip: typedAs(s.width) })}
            >
              {written(s.width)}
            </Plain>
          ))}
        </div>
      )}
    </section>
  );
}
