import { useProject } from "../../store/project";
import { DRAWING_KINDS, type DrawingKind, inOrder } from "../../store/rows";
import { basementBelow, placeFor, stands, type Wanted } from "./places";

/** What a drawing shows and where it goes; places that are not there yet are made when it goes. */
export function PlaceFields(props: {
  kind: DrawingKind;
  place: Wanted;
  name: string;
  /** told to readers, such as "of drawing 2" */
  of: string;
  set: (kind: DrawingKind, place: Wanted) => void;
}) {
  const { kind, place, name, of, set } = props;
  const rows = useProject((s) => s.rows);
  const storeys = [...rows.storey.values()].sort((a, b) => a.elevation - b.elevation);
  const highest = storeys.filter((s) => s.alternativeOf === null).at(-1);
  const chosen: Wanted[] = "newStorey" in place || "newSide" in place ? [place] : [];
  const options: [string, Wanted][] = stands(kind)
    ? [
        ...inOrder(rows.side.values()).map((s): [string, Wanted] => [`side ${s.name}`, { side: s.id }]),
        [`a side of its own`, { newSide: name }],
      ]
    : [
        ...storeys.map((s): [string, Wanted] => [s.name, { storey: s.id }]),
        [
          `a new storey above${highest ? ` ${highest.name}` : ""}`,
          { newStorey: `Storey ${storeys.length + 1}`, level: null },
        ],
        ["a new storey below", { newStorey: basementBelow(rows), level: -1 }],
      ];
  for (const wanted of chosen) {
    if (!options.some(([, o]) => JSON.stringify(o) === JSON.stringify(wanted))) {
      options.push([
        "newStorey" in wanted ? `${wanted.newStorey} (new)` : "newSide" in wanted ? `side ${wanted.newSide} (new)` : "",
        wanted,
      ]);
    }
  }
  const field = "min-w-0 rounded border border-line bg-white px-1.5 py-1 text-[13px]";
  return (
    <div className="flex gap-2">
      <select
        className={field}
        aria-label={`Kind ${of}`}
        value={kind}
        onChange={(e) => {
          const to = e.target.value as DrawingKind;
          set(to, placeFor(rows, to, place, name));
        }}
      >
        {DRAWING_KINDS.map((k) => (
          <option key={k}>{k}</option>
        ))}
      </select>
      <select
        className={`flex-1 ${field}`}
        aria-label={`Place ${of}`}
        value={JSON.stringify(place)}
        onChange={(e) => set(kind, JSON.parse(e.target.value) as Wanted)}
      >
        {options.map(([words, wanted]) => (
          <option key={JSON.stringify(wanted)} value={JSON.stringify(wanted)}>
            {words}
          </option>
        ))}
      </select>
    </div>
  );
}
