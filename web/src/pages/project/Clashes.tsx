import { isRowEdit, type Row } from "../../api/client";
import { showTraced } from "../../board/views";
import type { Clash } from "../../store/edits";
import { decide, useProject } from "../../store/project";
import { fineInWords } from "../../ui/measures";
import { Plain } from "../../ui/parts";

/** Own edits that met somebody else's, each beside what is there now, until their author has decided. */
export function Clashes() {
  const clashes = useProject((s) => s.clashes);
  if (clashes.length === 0) return null;
  return (
    <section
      className="max-h-[60%] shrink-0 overflow-y-auto border-b border-rust bg-[#f8ebe4] p-4"
      aria-label="To decide"
    >
      <h2 className="text-[17px] leading-6 font-bold text-rust">
        {clashes.length === 1 ? "One change to decide" : `${clashes.length} changes to decide`}
      </h2>
      {clashes.map((clash) => (
        <Decision key={clash.edit.id} clash={clash} />
      ))}
    </section>
  );
}

function Decision({ clash }: { clash: Clash }) {
  const { edit, by, gone } = clash;
  const values = differences(clash);
  return (
    <article className="mt-2 border-t border-rust/40 pt-2 text-[14px] leading-5">
      <p>
        Yours, not saved: <b>{edit.title}</b>.{" "}
        {by ? (
          <>
            {by.name} {gone ? "removed it" : "was there first"} with <b>{by.title}</b> at {clock(by.at)}.
          </>
        ) : (
          clash.message
        )}
      </p>
      {values.length > 0 && (
        <table className="mt-1.5 w-full text-[13px]">
          <thead>
            <tr className="text-left text-quiet">
              <th className="font-normal" />
              <th className="font-normal">yours</th>
              <th className="font-normal">as it is now</th>
            </tr>
          </thead>
          <tbody>
            {values.map(({ key, words, mine, theirs }) => (
              <tr key={key}>
                <th className="pr-2 text-left font-normal text-quiet">{words}</th>
                <td className="font-semibold">{mine}</td>
                <td>{theirs}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-2 flex flex-wrap gap-1.5">
        {!gone && <Plain onClick={() => void decide(edit.id, true)}>Do mine over it</Plain>}
        <Plain onClick={() => void decide(edit.id, false)}>Let mine go</Plain>
        <Plain onClick={showTraced}>Show all</Plain>
      </p>
    </article>
  );
}

interface Difference {
  key: string;
  words: string;
  mine: string;
  theirs: string;
}

/** What the edit would set, beside what it is now. */
function differences({ edit, theirs }: Clash): Difference[] {
  return theirs.flatMap((row) =>
    Object.entries(wanted(edit.operations, row)).flatMap(([key, mine]) => {
      const now = (row.values as Record<string, unknown>)[key];
      if (now === undefined || now === mine) return [];
      return { key: `${row.id} ${key}`, words: spoken(key), mine: told(key, mine), theirs: told(key, now) };
    }),
  );
}

function wanted(operations: Clash["edit"]["operations"], row: Row): Record<string, unknown> {
  const found: Record<string, unknown> = {};
  for (const operation of operations) {
    if (isRowEdit(operation)) {
      const { id, ids, values } = operation;
      if (id === row.id || ids?.includes(row.id)) Object.assign(found, values);
    }
    const shift = operation.do === "shift" ? operation.shift : undefined;
    const node = shift?.nodes?.find((n) => n.id === row.id);
    if (node) Object.assign(found, { x: node.x, y: node.y });
    if (shift?.walls?.includes(row.id) && shift.thickness !== undefined) found.thickness = shift.thickness;
  }
  return found;
}

/** `ceilingHeight` as a reader says it. */
function spoken(key: string): string {
  return key.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);
}

/** Values that are lengths are told in the project's unit. */
const LENGTH = /^([xy][12]?|thickness|width|depth|height|offset|sill|rise|elevation|top|mm|(site|traced)Mm)$/;

function told(key: string, value: unknown): string {
  if (typeof value === "number") return LENGTH.test(key) ? fineInWords(value, 1) : String(Math.round(value * 10) / 10);
  return value === null || value === "" ? "none" : value === true ? "yes" : value === false ? "no" : String(value);
}

function clock(at: string): string {
  return new Date(at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
}
