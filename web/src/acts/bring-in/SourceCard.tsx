import { useRef, useState } from "react";
import { goTo } from "../../board/desk";
import { chooseDrawing } from "../../board/place";
import { showWholePage } from "../../board/views";
import { pagesOf } from "../../store/drawings";
import { ask, change, projectId, useProject, useProjectFields } from "../../store/project";
import type { Thing } from "../../store/rows";
import { isUnderWay, workKey } from "../../store/work";
import { said } from "../../ui/measures";
import { count } from "../../ui/numbers";
import { Plain } from "../../ui/parts";
import { Work } from "../../ui/Work";
import { putThere } from "./belonging";
import { beginCut, drawingsOfPage, isWhole } from "./cutting";
import { NewerVersion } from "./NewerVersion";
import { PlaceFields } from "./PlaceFields";
import { placeOf, stands } from "./places";
import { size, statement } from "./removal";
import { bringIn } from "./uploads";
import { wayUpWords } from "./wayUp";

/** A source with its pages, the drawings cut from them, and what can be done with it. */
export function SourceCard({ source }: { source: Thing<"source"> }) {
  const rows = useProject((s) => s.rows);
  const [asking, setAsking] = useState(false);
  const [about, setAbout] = useState(false);
  const pages = pagesOf(rows, source.id);
  const words = asking ? statement(rows, { source: source.id }) : null;
  const when = source.broughtAt ? new Date(source.broughtAt) : null;
  return (
    <article className="mt-3 overflow-hidden rounded-lg border border-line bg-white" aria-label={source.name}>
      <div className="px-3 pt-2.5">
        <div className="flex items-baseline justify-between gap-2">
          <span className="min-w-0 font-semibold break-words">{source.name}</span>
          <button
            type="button"
            className="text-[13px] whitespace-nowrap text-quiet underline"
            aria-expanded={about}
            onClick={() => setAbout(!about)}
          >
            about
          </button>
        </div>
        <div className="text-[13px] text-quiet">
          {count(pages.length, "page")} · {size(source.bytes)}
          {when ? ` · ${when.toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" })}` : ""}
          {source.broughtBy ? `, ${source.broughtBy}` : ""}
        </div>
        {about && <About source={source} />}
      </div>
      {pages.map((page) => (
        <PageRow key={page.id} page={page} many={pages.length > 1} />
      ))}
      {words ? (
        <div className="border-t border-line p-3 text-[13px]" role="alert">
          <p>
            With it {words.goes.startsWith("1 ") && !words.goes.includes(" and ") ? "goes" : "go"} {words.goes}.
            {words.stays ? ` ${words.stays} stay where they are.` : ""} Undo brings it all back.
          </p>
          <div className="mt-1.5 flex gap-1.5">
            <Plain
              danger
              onClick={() =>
                void change(`Remove ${source.name}`.slice(0, 110), [{ do: "remove", type: "source", id: source.id }])
              }
            >
              Remove it
            </Plain>
            <Plain onClick={() => setAsking(false)}>Keep it</Plain>
          </div>
        </div>
      ) : (
        <div className="flex justify-end px-3 pb-2.5">
          <Plain danger onClick={() => setAsking(true)}>
            Remove
          </Plain>
        </div>
      )}
    </article>
  );
}

/** Where a source came from: kept with it for the life of the project. */
function About({ source }: { source: Thing<"source"> }) {
  const save = (key: "origin" | "address", value: string) => {
    if (value !== source[key]) {
      void change("Where a source came from", [{ do: "set", type: "source", id: source.id, values: { [key]: value } }]);
    }
  };
  return (
    <div className="mt-1.5 space-y-1.5 text-[13px]">
      {(["origin", "address"] as const).map((key) => (
        <label key={key} className="flex items-center gap-2">
          <span className="w-14 text-quiet">{key}</span>
          <input
            className="min-w-0 flex-1 rounded border border-line px-1.5 py-0.5"
            defaultValue={source[key]}
            maxLength={400}
            placeholder={key === "origin" ? "who gave it, from where" : "web page or shelf"}
            onBlur={(e) => save(key, e.target.value.trim())}
            onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
          />
        </label>
      ))}
    </div>
  );
}

function PageRow({ page, many }: { page: Thing<"page">; many: boolean }) {
  const project = useProjectFields("rows", "pages", "work", "fits");
  const file = useRef<HTMLInputElement>(null);
  const made = project.pages.get(page.id);
  const drawings = drawingsOfPage(project.rows, page.id);
  const newer = [...project.rows.page.values()].filter((p) => p.replaces === page.id);
  const [first] = drawings;
  const turns = first?.turns ?? 0;
  const proposed = made?.made?.cuts.length ?? 0;
  const looking = project.work.get(workKey("find-way-up", page.id));
  const reading = project.work.get(workKey("read-figures", first?.id ?? ""));
  const wayUp = wayUpWords(made?.made?.wayUp, turns);
  const uncut = first !== undefined && drawings.length === 1 && isWhole(first, page);
  const report = first && project.fits.get(first.id);
  const turn = (by: number) =>
    void change(
      "Turn a page",
      drawings.map((d) => ({ do: "set", type: "drawing", id: d.id, values: { turns: (d.turns + by + 4) % 4 } })),
    );
  const show = () => {
    if (!first) return;
    chooseDrawing(first.id);
    showWholePage();
  };
  return (
    <div className="border-t border-line px-3 py-2.5 first:border-t-0">
      <div className="flex gap-2.5">
        <button
          type="button"
          className="flex size-[92px] shrink-0 items-center justify-center overflow-hidden rounded border border-line bg-stone"
          aria-label={`Show page ${page.number}`}
          onClick={show}
        >
          {made?.hasPreview ? (
            <img
              className="max-h-full max-w-full"
              style={{ rotate: `${-90 * turns}deg` }}
              src={`/api/projects/${projectId()}/pages/${page.id}/preview`}
              alt=""
              loading="lazy"
            />
          ) : (
            <span className="text-[13px] text-quiet">not yet</span>
          )}
        </button>
        <div className="min-w-0 flex-1 text-[13px]">
          <div className="text-quiet">
            {many ? `page ${page.number} · ` : ""}
            {page.width} × {page.height} px
            {page.resolution ? `, ${Math.round(page.resolution)} per inch` : ""}
          </div>
          {first && (
            <div className="mt-1 flex flex-wrap gap-1">
              <Plain onClick={() => turn(1)}>Turn left</Plain>
              <Plain onClick={() => turn(-1)}>Turn right</Plain>
              {made?.made?.wayUp === undefined && made?.made && !isUnderWay(looking) && (
                <Plain onClick={() => void ask("find-way-up", page.id)}>Way up?</Plain>
              )}
              <Plain onClick={() => beginCut(page.id)}>{drawings.length > 1 ? "Recut" : "Cut"}</Plain>
              <Plain onClick={() => file.current?.click()}>Replace</Plain>
            </div>
          )}
          <input
            ref={file}
            type="file"
            className="sr-only"
            tabIndex={-1}
            aria-label={`Newer version of page ${page.number}`}
            onChange={(e) => {
              bringIn(e.target.files ?? [], page.id);
              e.target.value = "";
            }}
          />
        </div>
      </div>
      {page.remark && <p className="mt-1.5 text-[13px] font-medium text-ochre">{page.remark}</p>}
      {page.hintFrom && (
        <p className="mt-1.5 text-[13px] text-quiet">Its first size comes from the {page.hintFrom}: check it.</p>
      )}
      <Work kind="import-page" about={page.id} />
      <Work kind="find-way-up" about={page.id} />
      {reading?.state === "working" && first && <Work kind="read-figures" about={first.id} />}
      {wayUp !== null && <p className="mt-1.5 text-[13px] text-quiet">{wayUp}</p>}
      {uncut && proposed > 1 && (
        <button
          type="button"
          className="mt-1.5 w-full rounded-md border border-zest-edge bg-zest px-2 py-1.5 text-left text-[13px] font-semibold"
          onClick={() => beginCut(page.id)}
        >
          This page seems to hold {proposed} drawings: cut it
        </button>
      )}
      {report && !stands(first.kind) && (
        <p className="mt-1.5 text-[13px] text-quiet">
          {said(report.legibility.words)}
          {report.basis === "paper"
            ? " Taken for 1:100 on A3."
            : report.basis === "resolution"
              ? " Taken for 1:100."
              : ""}
        </p>
      )}
      {drawings.map((drawing) => (
        <DrawingRow key={drawing.id} drawing={drawing} canGo={drawings.length > 1} />
      ))}
      {newer.map((n) => (
        <NewerVersion key={n.id} page={n} />
      ))}
    </div>
  );
}

function DrawingRow({ drawing, canGo }: { drawing: Thing<"drawing">; canGo: boolean }) {
  const rows = useProject((s) => s.rows);
  const trued = useProject((s) => s.fits.get(drawing.id)?.determined.scale ?? false);
  const go = () => {
    chooseDrawing(drawing.id);
    showWholePage();
    goTo("true-up", "calibrate");
  };
  return (
    <section className="mt-1.5 text-[13px]" aria-label={drawing.name}>
      <div className="mb-1 flex items-center justify-between gap-2">
        <span className="min-w-0">
          <button
            type="button"
            className="block max-w-full truncate font-medium underline decoration-line underline-offset-2"
            title={`${drawing.name}: name, kind, place, outline`}
            onClick={() => beginCut(drawing.page)}
          >
            {drawing.name}
          </button>
          <span className="text-quiet">
            {[drawing.hidden && "hidden", trued && "trued"].filter(Boolean).join(" · ")}
          </span>
        </span>
        <span className="flex gap-1 whitespace-nowrap">
          <Plain onClick={go}>True up</Plain>
          {canGo && (
            <Plain
              danger
              onClick={() => void change("Remove a drawing", [{ do: "remove", type: "drawing", id: drawing.id }])}
            >
              Remove
            </Plain>
          )}
        </span>
      </div>
      <PlaceFields
        kind={drawing.kind}
        place={placeOf(drawing)}
        name={drawing.name}
        of={`of ${drawing.name}`}
        set={(kind, place) => void putThere(rows, [{ drawing, kind, place }]).then(() => chooseDrawing(drawing.id))}
      />
    </section>
  );
}
