import type { Place } from "../../../store/drawings";
import { sidesOf, typed, typedPlace } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { inWords, typedAs, written } from "../../../ui/measures";
import { Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { SelectRow } from "../../SelectRow";
import { Elsewhere } from "../Elsewhere";
import { removeRow } from "../removing";
import { FINE, type ObjectKind, objectsHere, QUARTER, turnedBy, useNextObject } from "./objects";
import { formKey, useForms, useObjectKinds } from "./useObjects";

/** What is put down next, how large, and which way it faces. */
export function ObjectOptions() {
  const { kind, size, degrees } = useNextObject();
  const kinds = useObjectKinds();
  const choose = (to: ObjectKind) => {
    const usual = kinds.find((k) => k.kind === to);
    if (!usual) return;
    const { width, depth, height, base } = usual;
    useNextObject.setState({ kind: to, size: { width, depth, height, base } });
  };
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Objects">
      <label className="block text-xs text-quiet">
        what
        <select
          className="mt-0.5 block w-full rounded border border-line bg-white px-1.5 py-1 text-[14px] text-ink"
          value={kind}
          onChange={(e) => choose(e.target.value as ObjectKind)}
        >
          {kinds.map((k) => (
            <option key={k.kind}>{k.kind}</option>
          ))}
        </select>
      </label>
      <Sizes of={size} set={(values) => useNextObject.setState({ size: { ...size, ...values } })} />
      <div className="mt-2 flex items-center gap-1.5">
        <Plain onClick={() => useNextObject.setState({ degrees: turnedBy(degrees, QUARTER) })}>A quarter turn</Plain>
        <span className="text-quiet">turned by {degrees}°</span>
      </div>
      <p className="mt-2 text-quiet">A click puts it down by its middle. Its front is marked.</p>
    </section>
  );
}

/** From above and from the front, at one scale. */
function Seen({ of }: { of: Thing<"object"> }) {
  const faces = useForms([of]).get(formKey(of));
  if (!faces) return null;
  const { width: w, depth: d, height: h } = of;
  const across = w / 8;
  const box = [-w / 2, -Math.max(d, h), 2 * w + across, Math.max(d, h)];
  return (
    <svg
      className="mt-2 h-24 w-full text-teal"
      viewBox={box.join(" ")}
      role="img"
      aria-label={`${of.kind} from above and from the front`}
      stroke="currentColor"
      fill="#fdfcfa"
    >
      {faces.plan.map((ring) => (
        <polygon
          key={`a${ring}`}
          points={ring.map(([x, y]) => `${x},${-y - d / 2}`).join(" ")}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {faces.front.map((ring) => (
        <polygon
          key={`f${ring}`}
          points={ring.map(([x, z]) => `${x + w + across},${-z}`).join(" ")}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}

function Sizes(props: {
  of: Pick<Thing<"object">, "width" | "depth" | "height" | "base">;
  set: (values: Partial<Pick<Thing<"object">, "width" | "depth" | "height" | "base">>) => void;
}) {
  const { of, set } = props;
  return (
    <div className="mt-2 grid grid-cols-2 gap-2">
      <div className="col-span-2">
        <Typed
          label="width × depth"
          value={`${written(of.width)} × ${inWords(of.depth)}`}
          set={(text) =>
            void sidesOf(text).then((sides) => {
              if (sides) set({ width: sides[0], depth: sides[1] });
            })
          }
        />
      </div>
      <Typed label="height" value={typedAs(of.height)} set={(text) => void typed(text, (height) => set({ height }))} />
      <Typed
        label="above the floor"
        value={typedAs(of.base)}
        set={(text) => void typedPlace(text, (base) => set({ base }))}
      />
    </div>
  );
}

/** How many there are of each kind and size. */
export function ObjectRows({ storey }: Place) {
  const rows = useProject((s) => s.rows.object);
  const counted = new Map<string, Thing<"object">[]>();
  for (const o of objectsHere(rows.values(), storey)) {
    const key = `${o.kind} ${o.width} ${o.depth} ${o.height}`;
    counted.set(key, [...(counted.get(key) ?? []), o]);
  }
  return [...counted.values()].map((same) => {
    const [first] = same;
    if (!first) return null;
    return (
      <SelectRow key={first.id} type="object" id={first.id}>
        <span>
          {same.length > 1 && <span className="text-quiet">{same.length} × </span>}
          <span className="font-semibold">{first.kind}</span>
        </span>
        <span className="text-[13px] text-quiet">
          {written(first.width)} × {written(first.depth)} × {inWords(first.height)}
        </span>
      </SelectRow>
    );
  });
}

export function SelectedObject({ id }: { id: string }) {
  const object = useProject((s) => s.rows.object.get(id));
  if (!object) return null;
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "object", id, values }]);
  const turn = (by: number) => set(`Turn a ${object.kind}`, { degrees: turnedBy(object.degrees, by) });
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label={`Object ${object.kind}`}>
      <span className="text-lg font-bold text-teal">{object.kind}</span>
      <Seen of={object} />
      <Sizes of={object} set={(values) => set(`Size of a ${object.kind}`, values)} />
      <div className="mt-2 flex flex-wrap items-center gap-1.5">
        <Plain onClick={() => turn(QUARTER)}>A quarter turn</Plain>
        <Plain onClick={() => turn(FINE)}>{FINE}°</Plain>
        <Plain danger onClick={() => removeRow("object", id, `Remove a ${object.kind}`)}>
          Remove
        </Plain>
      </div>
      <Elsewhere things={[{ type: "object", id }]} />
    </section>
  );
}
