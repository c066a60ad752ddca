import { useRef, useState } from "react";
import { useCurrentAct } from "../../board/act";
import { useDesk } from "../../board/desk";
import { chooseDrawing } from "../../board/place";
import { showWholePage } from "../../board/views";
import { pagesOf } from "../../store/drawings";
import { change, useProject } from "../../store/project";
import { inOrder } from "../../store/rows";
import { count } from "../../ui/numbers";
import { Progress } from "../../ui/Progress";
import { Head, NextThing, Plain } from "../../ui/parts";
import { belongings, belongingWords, putThere } from "./belonging";
import { DropInList } from "./DropInList";
import { size, storage } from "./removal";
import { SourceCard } from "./SourceCard";
import { bringIn, putAside, useUploads } from "./uploads";
import { lying, wrongWayUp } from "./wayUp";

export function BringInLedger() {
  const rows = useProject((s) => s.rows);
  const pages = useProject((s) => s.pages);
  const act = useCurrentAct();
  useDesk((s) => s.draft);
  if (act?.Panel && act.onPage?.()) return <act.Panel />;
  // A newer version stands with the page it is to replace.
  const sources = inOrder(rows.source.values())
    .filter((s) => !pagesOf(rows, s.id).some((p) => p.replaces !== null))
    .reverse();
  const used = storage(rows.source.values(), pages.values());
  return (
    <>
      <Head title={sources.length === 0 ? "Bring in a drawing" : count(sources.length, "source")}>
        Scans, photographs, PDF, SVG, DXF, plan documents. Drop or paste them anywhere; they land where you are working.
      </Head>
      <div className="min-h-0 flex-1 overflow-y-auto p-4 pt-3">
        <DropArea large={sources.length === 0} />
        <Uploads />
        <DropInList />
        {sources.map((source) => (
          <SourceCard key={source.id} source={source} />
        ))}
      </div>
      {/* At the foot: what is found later moves nothing under the pointer, and is in sight wherever the list is. */}
      <div className="max-h-[45%] shrink-0 overflow-y-auto border-t border-line bg-white px-4 pb-3 empty:hidden">
        <WayUp />
        <Belong />
      </div>
      {sources.length > 0 && (
        <footer className="border-t border-line px-4 py-2.5 text-[13px] text-quiet">
          {count(used.files, "file")}, {size(used.bytes)} · pictures made from them {size(used.made)}
        </footer>
      )}
    </>
  );
}

function DropArea({ large }: { large: boolean }) {
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  return (
    <>
      <button
        type="button"
        className={`flex w-full flex-col items-center justify-center rounded-xl border-2 border-dashed ${large ? "h-36" : "h-[72px]"} ${over ? "border-ink bg-white" : "border-quiet"}`}
        onClick={() => input.current?.click()}
        onDragOver={() => setOver(true)}
        onDragLeave={() => setOver(false)}
        onDrop={() => setOver(false)}
      >
        <span className="text-lg font-bold">Drop a drawing here</span>
        <span className="text-quiet">or choose some from disk</span>
      </button>
      <input
        ref={input}
        type="file"
        className="sr-only"
        tabIndex={-1}
        aria-label="Drawing file"
        multiple
        onChange={(e) => {
          bringIn(e.target.files ?? []);
          e.target.value = "";
        }}
      />
    </>
  );
}

/** What its writing says of how a page lies, and one click that turns all of them. */
function WayUp() {
  const rows = useProject((s) => s.rows);
  const pages = useProject((s) => s.pages);
  const placed = new Set(belongings({ rows, pages }).map((b) => b.drawing.id));
  const wrong = wrongWayUp(rows, pages).filter((w) => !placed.has(w.drawing.id));
  if (wrong.length === 0) return null;
  const turn = () =>
    void change(
      wrong.length === 1 ? "Turn a page" : "Turn pages",
      wrong.map((w) => ({ do: "set", type: "drawing", id: w.drawing.id, values: { turns: w.turns } })),
    );
  return (
    <div role="status">
      <p className="mt-3 text-[13px]">{lying(wrong)}</p>
      <NextThing onClick={turn}>Turn {wrong.length === 1 ? "it" : "them"} the right way up</NextThing>
    </div>
  );
}

/** What drawings seem to be and where they belong by that, and one click that puts all of them there. */
function Belong() {
  const rows = useProject((s) => s.rows);
  const pages = useProject((s) => s.pages);
  const found = belongings({ rows, pages });
  if (found.length === 0) return null;
  const put = async () => {
    if (await putThere(rows, found)) return;
    const [first] = found;
    if (found.length === 1 && first) chooseDrawing(first.drawing.id);
    showWholePage();
  };
  return (
    <div role="status" className="text-[13px]">
      {found.map((b) => (
        <p key={b.drawing.id} className="mt-3 mb-1.5">
          {belongingWords(rows, b)}
        </p>
      ))}
      <NextThing onClick={put}>
        {found.length === 1 ? "Put it there" : `Put ${count(found.length, "drawing")} there`}
      </NextThing>
    </div>
  );
}

function Uploads() {
  const uploads = useUploads((s) => s.uploads);
  return uploads.map((upload) => (
    <div key={upload.id} className="mt-3 rounded-lg border border-line bg-white p-3">
      <div className="font-semibold break-words">{upload.name}</div>
      {upload.error || upload.remark ? (
        <p role="alert" className={`text-[13px] ${upload.error ? "text-rust" : "text-ochre"}`}>
          {upload.error ?? upload.remark} <Plain onClick={() => putAside(upload.id)}>Put aside</Plain>
        </p>
      ) : (
        <Progress
          part={upload.sent}
          words={upload.sent < 1 ? `${Math.round(upload.sent * 100)} % sent` : "Being looked at"}
          stop={upload.sent < 1 ? upload.stop : null}
        />
      )}
    </div>
  ));
}
