import { useState } from "react";
import { useDesk } from "../../../board/desk";
import type { Place } from "../../../store/drawings";
import { change, useProject } from "../../../store/project";
import { inOrder } from "../../../store/rows";
import { area, inWords } from "../../../ui/measures";
import { Choose, Field, OneOf, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { EnclosureFindings } from "../../EnclosureFindings";
import {
  classSpelled,
  type Enclosed,
  type FireClass,
  type Hatch,
  roomsOf,
  useEnclosed,
  whatItEncloses,
} from "../../enclosed";
import { SelectRow } from "../../SelectRow";
import { removeRow } from "../removing";
import { HatchSwatch } from "./Enclosures";
import {
  allowTogether,
  encloseRoom,
  HATCHES,
  mergeClasses,
  nextClass,
  partners,
  removeClass,
  select,
  takeClass,
  useNextEnclosure,
} from "./enclosures";

/** The key: every class once, with what it encloses; which one comes next, and how. */
export function EnclosureOptions() {
  const { by } = useNextEnclosure();
  const rows = useProject((s) => s.rows);
  const enclosed = useEnclosed();
  const chosen = nextClass(rows);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Enclosures">
      {inOrder(rows.fireClass.values()).map((c) => (
        <button
          key={c.id}
          type="button"
          aria-pressed={c.id === chosen?.id}
          className={`flex w-full items-center gap-2 rounded border px-2 py-1 text-left ${c.id === chosen?.id ? "border-ink bg-sheet font-semibold" : "border-transparent"}`}
          onClick={() => useNextEnclosure.setState({ fireClass: c.id })}
        >
          <HatchSwatch fireClass={c} wide />
          <span className="flex-1">{c.name}</span>
          <span className="text-quiet tabular-nums">{area(totalOf(enclosed, c.id))}</span>
        </button>
      ))}
      <NewClass />
      {chosen && <ClassFields key={chosen.id} fireClass={chosen} enclosed={enclosed} />}
      <div className="mt-3">
        <OneOf
          label="What a click encloses"
          value={by}
          of={[
            ["rooms", "rooms"],
            ["faces", "along faces"],
            ["free", "free"],
          ]}
          set={(next) => useNextEnclosure.setState({ by: next })}
        />
      </div>
      {enclosed.findings.length > 0 && (
        <div className="mt-2 divide-y divide-line border-t border-line">
          <EnclosureFindings findings={enclosed.findings} />
        </div>
      )}
    </section>
  );
}

function totalOf({ totals }: Enclosed, fireClass: string, storey?: string): number {
  return totals
    .filter((t) => t.fireClass === fireClass && (storey === undefined || t.storey === storey))
    .reduce((sum, t) => sum + t.areaM2, 0);
}

/** A class is typed once; typed again, however it is spelled, it is the one that is there. */
function NewClass() {
  const [text, setText] = useState("");
  const rows = useProject((s) => s.rows);
  const there = text.trim() === "" ? undefined : classSpelled(rows, text);
  const take = () => {
    if (text.trim() === "") return;
    setText("");
    void takeClass(text);
  };
  return (
    <form
      className="mt-1 flex items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        take();
      }}
    >
      <Field label="a class, as REI 60" value={text} onChange={setText} maxLength={60} />
      <Plain onClick={take}>{there ? `Take ${there.name}` : "Add the class"}</Plain>
    </form>
  );
}

function ClassFields({ fireClass, enclosed }: { fireClass: FireClass; enclosed: Enclosed }) {
  const [merging, setMerging] = useState<FireClass | null>(null);
  const { rows, role } = useProject.getState();
  const others = inOrder(rows.fireClass.values()).filter((c) => c.id !== fireClass.id);
  const over = partners(rows, fireClass.id);
  const set = (values: Partial<FireClass>) =>
    void change("Change a class", [{ do: "set", type: "fireClass", id: fireClass.id, values }]);
  const storeys = inOrder(rows.storey.values()).filter((s) => totalOf(enclosed, fireClass.id, s.id) > 0);
  return (
    <div className="mt-2 border-t border-line pt-2">
      <div className="grid grid-cols-[1fr_auto_auto] items-end gap-2">
        <Typed
          label="name"
          value={fireClass.name}
          set={(name) => {
            const there = classSpelled(rows, name);
            if (there && there.id !== fireClass.id) setMerging(there);
            else set({ name });
          }}
        />
        <Choose
          label="hatch"
          value={fireClass.hatch}
          of={HATCHES.map((h): [Hatch, string] => [h, h])}
          set={(hatch) => set({ hatch })}
        />
        <label className="text-xs text-quiet">
          colour
          <input
            type="color"
            className="mt-0.5 block h-7 w-12 rounded border border-line bg-white p-0.5"
            value={fireClass.colour}
            disabled={role === "read"}
            onChange={(e) => set({ colour: e.target.value })}
          />
        </label>
      </div>
      {merging && (
        <p className="mt-1.5 text-rust" role="status">
          {merging.name} is in the key already.{" "}
          <Plain
            onClick={() => {
              setMerging(null);
              void mergeClasses(fireClass.id, merging.id);
            }}
          >
            Merge {fireClass.name} into it
          </Plain>{" "}
          <Plain onClick={() => setMerging(null)}>Leave both</Plain>
        </p>
      )}
      {storeys.length > 1 && (
        <p className="mt-1.5 text-quiet">
          {storeys.map((s) => `${s.name} ${area(totalOf(enclosed, fireClass.id, s.id))}`).join(", ")}
        </p>
      )}
      {others.length > 0 && (
        <fieldset className="mt-1.5 flex flex-wrap items-center gap-1.5">
          <legend className="float-left mr-1.5 text-quiet">may lie over</legend>
          {others.map((c) => (
            <Plain
              key={c.id}
              pressed={over.some((p) => p.other === c.id)}
              onClick={() => void allowTogether(fireClass.id, c.id)}
            >
              {c.name}
            </Plain>
          ))}
        </fieldset>
      )}
      <div className="mt-2">
        <Plain danger onClick={() => void removeClass(fireClass.id)}>
          Remove this class
        </Plain>
      </div>
    </div>
  );
}

/** What is enclosed on the storey. */
export function EnclosureRows({ storey }: Place) {
  const rows = useProject((s) => s.rows);
  const isAtHand = useDesk((s) => s.act === "enclosures");
  const { areas } = useEnclosed();
  if (!isAtHand) return null;
  return inOrder(rows.enclosure.values())
    .filter((e) => e.storey === storey)
    .map((e) => {
      const fireClass = rows.fireClass.get(e.fireClass);
      const covered = areas.find((a) => a.enclosure === e.id);
      return (
        <SelectRow key={e.id} type="enclosure" id={e.id}>
          <span>
            {fireClass && <HatchSwatch fireClass={fireClass} />}{" "}
            <span className="font-semibold">{fireClass?.name}</span>
            <span className="block text-[13px] text-quiet">{whatItEncloses(rows, e)}</span>
          </span>
          <span className="shrink-0">{covered ? area(covered.areaM2) : ""}</span>
        </SelectRow>
      );
    });
}

export function SelectedEnclosure({ id }: { id: string }) {
  const rows = useProject((s) => s.rows);
  const enclosed = useEnclosed();
  const enclosure = rows.enclosure.get(id);
  if (!enclosure) return null;
  const covered = enclosed.areas.find((a) => a.enclosure === id);
  const doors = enclosed.doors.filter((d) => d.enclosure === id);
  const own = roomsOf(rows, id);
  const rooms = inOrder(rows.room.values()).filter((r) => r.storey === enclosure.storey);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Enclosure">
      <div className="flex items-baseline justify-between text-teal">
        <span className="text-lg font-bold">{rows.fireClass.get(enclosure.fireClass)?.name}</span>
        <span className="text-lg font-semibold">{covered ? area(covered.areaM2) : ""}</span>
      </div>
      <Choose
        label="class"
        value={enclosure.fireClass}
        of={inOrder(rows.fireClass.values()).map((c): [string, string] => [c.id, c.name])}
        set={(fireClass) => {
          useNextEnclosure.setState({ fireClass });
          void change("Another class", [{ do: "set", type: "enclosure", id, values: { fireClass } }]);
        }}
      />
      {enclosure.line === "" && (
        <fieldset className="mt-2 flex flex-wrap gap-1.5" aria-label="Rooms of it">
          {rooms.map((r) => (
            <Plain
              key={r.id}
              pressed={own.includes(r.id)}
              onClick={() => {
                useNextEnclosure.setState({ fireClass: enclosure.fireClass });
                void encloseRoom(r.id);
              }}
            >
              {r.name}
            </Plain>
          ))}
        </fieldset>
      )}
      {doors.length > 0 && (
        <table className="mt-2 w-full">
          <caption className="text-left text-quiet">in what bounds it</caption>
          <tbody>
            {doors.map((d) => (
              <tr key={d.opening} className="border-t border-line">
                <td className="py-0.5">{rows.opening.get(d.opening)?.number || d.kind}</td>
                <td className="text-right tabular-nums">{inWords(d.widthMm)}</td>
                <td className={`pl-3 text-right ${d.rated === "" ? "text-rust" : ""}`}>{d.rated || "not rated"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className="mt-2 flex gap-1.5">
        <Plain onClick={() => select(null)}>Begin another</Plain>
        <Plain danger onClick={() => removeRow("enclosure", id, "Remove an enclosure")}>
          Remove
        </Plain>
      </div>
    </section>
  );
}
