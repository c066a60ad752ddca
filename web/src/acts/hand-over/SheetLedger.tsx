import { useState } from "react";
import { newId } from "../../api/ids";
import { change, projectId, useProject } from "../../store/project";
import { count } from "../../ui/numbers";
import { Choose, Head, Link, Plain } from "../../ui/parts";
import { Typed } from "../../ui/Typed";
import {
  lookAt,
  nameOf,
  newView,
  offered,
  PAPER_NAMES,
  type Paper,
  paperOf,
  type Sheet,
  sheetsInOrder,
  sizeOf,
  takeView,
  useSheets,
  viewsOf,
} from "./sheets";
import { ViewPanel } from "./ViewPanel";

const TITLE_FIELDS = [
  ["part", "What it shows"],
  ["number", "Number"],
  ["owner", "Owner"],
  ["creator", "Drawn by"],
  ["approved", "Approved by"],
  ["date", "Date of issue"],
] as const;

/** The sheet that is open: its paper, its title, what is on it, and its files. */
export function SheetLedger({ sheet }: { sheet: Sheet }) {
  const rows = useProject((s) => s.rows);
  const reads = useProject((s) => s.role === "read");
  const { view } = useSheets();
  const [chosen, setChosen] = useState("");
  const views = viewsOf(rows, sheet.id);
  const sheets = sheetsInOrder(rows);
  const at = sheets.findIndex((s) => s.id === sheet.id);
  const { paper, upright } = paperOf(sheet);
  const set = (title: string, values: Partial<Sheet>) =>
    void change(title, [{ do: "set", type: "printSheet", id: sheet.id, values }]);
  const paperTo = (to: Paper, isUpright: boolean) => set("Paper of a sheet", sizeOf(to, isUpright));
  const add = async () => {
    const id = newId();
    await change("Put a view on a sheet", [{ do: "add", type: "sheetView", id, values: newView(sheet, chosen) }]);
    setChosen("");
    takeView(id);
  };
  const inHand = views.find((v) => v.id === view);
  const beside = (step: number) => sheets[at + step]?.id;
  return (
    <>
      <Head title={sheet.part || "Sheet without a name"}>
        Sheet {at + 1} of {sheets.length}, {paper ?? `${sheet.width} × ${sheet.height} mm`}
        {paper && (upright ? " upright" : " lying")}, {count(views.length, "view")}.
      </Head>
      <div className="min-h-0 flex-1 overflow-y-auto text-[13px]">
        <div className="flex flex-wrap gap-1.5 border-b border-line px-4 py-2">
          <Plain onClick={() => lookAt(null)}>Back to the board</Plain>
          {beside(-1) && <Plain onClick={() => lookAt(beside(-1) ?? null)}>The one before</Plain>}
          {beside(1) && <Plain onClick={() => lookAt(beside(1) ?? null)}>The next one</Plain>}
        </div>
        {inHand ? (
          <ViewPanel key={inHand.id} view={inHand} />
        ) : (
          <>
            <section className="border-b border-line p-4" aria-label="On this sheet">
              <h3 className="text-[15px] font-bold">On this sheet</h3>
              <ul>
                {views.map((v) => (
                  <li key={v.id}>
                    <Link onClick={() => takeView(v.id)}>{nameOf(rows, v)}</Link>
                  </li>
                ))}
              </ul>
              {!reads && (
                <div className="mt-1.5 flex items-end gap-1.5">
                  <Choose label="Put on it" value={chosen} of={[["", "choose"], ...offered(rows)]} set={setChosen} />
                  {chosen !== "" && <Plain onClick={() => void add()}>Add it</Plain>}
                </div>
              )}
            </section>
            <section className="border-b border-line p-4" aria-label="Title block">
              <h3 className="text-[15px] font-bold">Title block</h3>
              <div className="mt-1 grid grid-cols-2 gap-1.5">
                {TITLE_FIELDS.map(([key, label]) => (
                  <Typed
                    key={key}
                    label={label}
                    value={sheet[key]}
                    mayBeEmpty
                    set={(text) => set("Title of a sheet", { [key]: text.trim() })}
                  />
                ))}
              </div>
              {!reads && (
                <div className="mt-1.5 flex flex-wrap gap-1">
                  {PAPER_NAMES.map((p) => (
                    <Plain key={p} pressed={p === paper} onClick={() => paperTo(p, upright)}>
                      {p}
                    </Plain>
                  ))}
                  <Plain
                    pressed={upright}
                    onClick={() => set("Paper of a sheet", { width: sheet.height, height: sheet.width })}
                  >
                    Upright
                  </Plain>
                </div>
              )}
            </section>
            <Files sheet={sheet.id} />
            {!reads && (
              <div className="p-4">
                <Plain
                  danger
                  onClick={() => {
                    lookAt(null);
                    void change("Remove a sheet", [{ do: "remove", type: "printSheet", id: sheet.id }]);
                  }}
                >
                  Remove this sheet
                </Plain>
              </div>
            )}
          </>
        )}
      </div>
    </>
  );
}

/** What can be taken of one sheet. */
function Files({ sheet }: { sheet: string }) {
  const base = `/api/projects/${projectId()}/sheets/${sheet}`;
  const files = [
    ["PDF", "sheet.pdf"],
    ["SVG", "sheet.svg"],
    ["PNG", "sheet.png"],
    ["in pieces of A4", "tiles.pdf?paper=A4"],
    ["of A3", "tiles.pdf?paper=A3"],
  ] as const;
  return (
    <section className="border-b border-line p-4" aria-label="Take this sheet">
      <h3 className="text-[15px] font-bold">Take this sheet</h3>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        {files.map(([words, file]) => (
          <a
            key={file}
            className="rounded border border-ink bg-white px-2 py-0.5 font-semibold"
            href={`${base}/${file}`}
            download={file.split("?")[0]}
          >
            {words}
          </a>
        ))}
      </div>
    </section>
  );
}
