import { useState } from "react";
import { ask, change, projectId, say, useProject } from "../../store/project";
import { isUnderWay, workKey } from "../../store/work";
import { NextThing, OneOf, Plain } from "../../ui/parts";
import { Work } from "../../ui/Work";
import { addSheet, lookAt, PAPER_NAMES, propose, sheetsInOrder, useSheets } from "./sheets";

const PUT_TOGETHER = "It is being put together…";

/** Print sheets of the project: proposed as a set, opened one by one, printed into one document. */
export function SheetsCard() {
  const rows = useProject((s) => s.rows);
  const reads = useProject((s) => s.role === "read");
  const { paper, upright } = useSheets();
  const [busy, setBusy] = useState(false);
  const sheets = sheetsInOrder(rows);
  const set = useSheets.setState;
  const take = async (what: () => Promise<string | null>) => {
    setBusy(true);
    try {
      const first = await what();
      if (first !== null) lookAt(first);
    } catch (error) {
      say((error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  const begin = () => void take(() => propose(paper, upright));
  return (
    <section className="border-b border-line p-4" aria-label="Print sheets">
      <h3 className="text-lg font-bold">Print sheets</h3>
      <p className="mt-1 text-[14px]">
        {sheets.length === 0
          ? "Plans, sides and sections at their scales with chains of dimensions that add up, tables, key, notes and title: a set to be submitted."
          : "Open one to move its views and dimensions. Whatever is corrected in the plan is on its sheets at once."}
      </p>
      {sheets.length > 0 && (
        <ol className="mt-2 border-t border-line">
          {sheets.map((sheet, i) => (
            <li key={sheet.id} className="border-b border-line">
              <button type="button" className="w-full py-1 text-left text-[14px]" onClick={() => lookAt(sheet.id)}>
                <span className="mr-2 inline-block w-11 text-quiet">{sheet.number || i + 1}</span>
                {sheet.part || "Sheet without a name"}
              </button>
            </li>
          ))}
        </ol>
      )}
      {!reads && (
        <div className="mt-2 text-[13px]">
          <OneOf
            label="Paper"
            value={paper}
            of={PAPER_NAMES.map((p) => [p, p] as const)}
            set={(p) => set({ paper: p })}
          />
          <div className="mt-1.5 flex flex-wrap gap-1.5">
            <Plain pressed={upright} onClick={() => set({ upright: !upright })}>
              Upright
            </Plain>
            {sheets.length > 0 && <Plain onClick={begin}>{busy ? PUT_TOGETHER : "Propose another set"}</Plain>}
            {rows.enclosure.size > 0 && (
              <Plain onClick={() => void take(() => propose(paper, upright, "fire"))}>Fire plans</Plain>
            )}
            <Plain onClick={() => void take(() => addSheet(paper, upright))}>Empty sheet</Plain>
            {sheets.length > 0 && (
              <Plain
                danger
                onClick={() =>
                  void change("Remove all sheets", [
                    { do: "removeMany", type: "printSheet", ids: sheets.map((s) => s.id) },
                  ])
                }
              >
                Remove all
              </Plain>
            )}
          </div>
        </div>
      )}
      {sheets.length === 0 && !reads && (
        <NextThing onClick={begin}>{busy ? PUT_TOGETHER : "Propose a planning set"}</NextThing>
      )}
      {sheets.length > 0 && <TheSet reads={reads} />}
    </section>
  );
}

/** All of them as one PDF. */
function TheSet({ reads }: { reads: boolean }) {
  const id = projectId();
  const revision = useProject((s) => s.revision);
  const work = useProject((s) => s.work.get(workKey("print-sheets", id)));
  // Of which revision it was asked for here: a change since makes it one of yesterday.
  const [asked, setAsked] = useState<number | null>(null);
  const ready = work?.state === "done" && asked === revision;
  return (
    <div className="mt-2">
      {!reads && !ready && !isUnderWay(work) && (
        <Plain
          onClick={() => {
            setAsked(revision);
            void ask("print-sheets", id);
          }}
        >
          Print the set as one PDF
        </Plain>
      )}
      <Work kind="print-sheets" about={id} />
      {ready && (
        <a
          className="inline-block rounded-lg border border-ink bg-white px-3 py-1.5 font-semibold"
          href={`/api/projects/${id}/sheets/set.pdf`}
          download="sheets.pdf"
        >
          Take the set
        </a>
      )}
    </div>
  );
}
