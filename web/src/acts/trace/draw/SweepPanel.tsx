import { newId } from "../../../api/ids";
import { useDesk } from "../../../board/desk";
import { typedPlace } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { inOrder } from "../../../store/rows";
import { storeysInOrder } from "../../../store/storeys";
import { typedAs } from "../../../ui/measures";
import { OneOf, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { SelectRow } from "../../SelectRow";
import { removeRow } from "../removing";
import { lineName } from "./DrawnRows";
import { useSweeps } from "./Sweeps";

/** Where a shape becomes a body along a path, and where it is one already. */
export function SweepsOf({ profile }: { profile: Thing<"drawnLine"> }) {
  const sweeps = useProject((s) => s.rows.sweep);
  useProject((s) => s.rows.storey);
  const storeys = storeysInOrder();
  const make = (storey: string) => {
    const row = storeys.find((s) => s.id === storey);
    const id = newId();
    const name = profile.name === "" ? "Moulding" : profile.name;
    const values = {
      storey,
      name,
      profile: profile.id,
      heldX: 0,
      heldY: 1,
      outline: null,
      path: null,
      level: row?.height ?? 0,
    };
    void change("Take a shape along the walls", [{ do: "add", type: "sweep", id, values }]).then((refused) => {
      if (!refused) useDesk.setState({ selected: { type: "sweep", id }, group: [], things: [] });
    });
  };
  return (
    <fieldset className="mt-2 border-t border-line pt-2" aria-label="As a moulding">
      {inOrder(sweeps.values())
        .filter((s) => s.profile === profile.id)
        .map((s) => (
          <SelectRow key={s.id} type="sweep" id={s.id} slim>
            <span>{s.name}</span>
            <span className="text-quiet">moulding</span>
          </SelectRow>
        ))}
      <label className="mt-1 block text-xs text-quiet">
        take it along, as a moulding
        <select
          className="mt-0.5 h-7 w-full rounded border border-line bg-white px-1 text-[13px] text-ink"
          value=""
          onChange={(e) => make(e.target.value)}
        >
          <option value="">the walls of …</option>
          {storeys.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </select>
      </label>
    </fieldset>
  );
}

/** A profile along its path: which path, how high, and how it is held to it. */
export function SweepPanel({ id }: { id: string }) {
  const sweep = useProject((s) => s.rows.sweep.get(id));
  return sweep ? <Moulding sweep={sweep} /> : null;
}

const SIDES = [
  ["0", "its back"],
  ["0.5", "its middle"],
  ["1", "its front"],
] as const;

const HEIGHTS = [
  ["0", "its foot"],
  ["0.5", "half way"],
  ["1", "its top"],
] as const;

/** The nearest of the three places that are offered. */
const third = (part: number) => (part < 0.25 ? "0" : part > 0.75 ? "1" : "0.5");

function Moulding({ sweep }: { sweep: Thing<"sweep"> }) {
  const { id, storey } = sweep;
  const outlines = useProject((s) => s.rows.outline);
  const refused = useSweeps(storey).refused.find((r) => r.id === id)?.message;
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "sweep", id, values }]);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Selected moulding">
      <div className="text-lg font-bold text-teal">{sweep.name}</div>
      {refused && <p className="text-rust">{refused}</p>}
      <div className="mt-2 grid grid-cols-2 gap-2">
        <Typed label="name" value={sweep.name} set={(name) => set("Name a moulding", { name })} />
        <Typed
          label={levelOf(sweep, outlines)}
          value={typedAs(sweep.level)}
          set={(text) => void typedPlace(text, (level) => set("Height of a moulding", { level }))}
        />
      </div>
      <PathOf sweep={sweep} />
      <div className="mt-2 text-xs text-quiet">held to the path by</div>
      <OneOf
        label="Across"
        value={third(sweep.heldX)}
        of={SIDES}
        set={(to) => set("Hold a moulding", { heldX: Number(to) })}
      />
      <div className="mt-1">
        <OneOf
          label="Up"
          value={third(sweep.heldY)}
          of={HEIGHTS}
          set={(to) => set("Hold a moulding", { heldY: Number(to) })}
        />
      </div>
      <div className="mt-2 flex gap-1.5">
        <Plain pressed={sweep.inward} onClick={() => set("Turn a moulding", { inward: !sweep.inward })}>
          Points the other way
        </Plain>
        <Plain
          onClick={() =>
            useDesk.setState({ selected: { type: "drawnLine", id: sweep.profile }, group: [], things: [] })
          }
        >
          Its profile
        </Plain>
        <Plain danger onClick={() => removeRow("sweep", id, "Remove a moulding")}>
          Remove
        </Plain>
      </div>
    </section>
  );
}

/** What its height counts from. */
function levelOf({ outline, path }: Thing<"sweep">, outlines: ReadonlyMap<string, Thing<"outline">>): string {
  if (outlines.get(outline ?? "")?.kind === "roof") return "above the eaves";
  const line = path === null ? undefined : useProject.getState().rows.drawnLine.get(path);
  return line?.side != null ? "before the side" : "above the floor";
}

/** The walls, an outline or the eaves of a roof of its storey, or a line that was drawn there or on a side. */
function PathOf({ sweep }: { sweep: Thing<"sweep"> }) {
  const outlines = useProject((s) => s.rows.outline);
  const lines = useProject((s) => s.rows.drawnLine);
  const sides = useProject((s) => s.rows.side);
  const value = sweep.outline ?? sweep.path ?? "";
  const onSide = (side: string | null) => {
    const row = side === null ? undefined : sides.get(side);
    return row !== undefined && row.fromX !== null ? row.name : null;
  };
  const set = (to: string) => {
    const isOutline = outlines.has(to);
    const values = { outline: isOutline ? to : null, path: to === "" || isOutline ? null : to };
    // Eaves are told from their own edge, and walls from their floor.
    const isRoof = outlines.get(to)?.kind === "roof";
    void change("Path of a moulding", [
      {
        do: "set",
        type: "sweep",
        id: sweep.id,
        values: { ...values, ...(isRoof || onSide(lines.get(to)?.side ?? null) ? { level: 0 } : {}) },
      },
    ]);
  };
  return (
    <label className="mt-2 block text-xs text-quiet">
      along
      <select
        className="mt-0.5 h-7 w-full rounded border border-line bg-white px-1 text-[13px] text-ink"
        value={value}
        onChange={(e) => set(e.target.value)}
      >
        <option value="">the outer faces of the walls</option>
        {inOrder(outlines.values())
          .filter((o) => o.storey === sweep.storey)
          .map((o) => (
            <option key={o.id} value={o.id}>
              {o.kind === "roof" ? `the eaves of ${o.name}` : o.name}
            </option>
          ))}
        {inOrder(lines.values())
          .filter((l) => l.id !== sweep.profile && (l.storey === sweep.storey || onSide(l.side)))
          .map((l) => (
            <option key={l.id} value={l.id}>
              {lineName(l)}
              {l.side !== null && `, on ${onSide(l.side)}`}
            </option>
          ))}
      </select>
    </label>
  );
}
