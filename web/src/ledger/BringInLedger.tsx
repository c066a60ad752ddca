import { useRef, useState } from "react";
import { api } from "../api/client";
import { chooseStorey } from "../desk/acts";
import { goTo, useDesk } from "../desk/desk";
import { showWholePage } from "../desk/keys";
import { grouped } from "../desk/numbers";
import { inOrder } from "../desk/selectors";
import { bringIn, type Upload } from "../project/bringIn";
import { useProject } from "../project/store";
import { count } from "../steps/status";
import { Head, Plain } from "./parts";

export function BringInLedger() {
  const project = useProject();
  const storey = useDesk((s) => s.storey);
  const [uploads, setUploads] = useState<(Upload & { error?: string })[]>([]);
  const [over, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);

  const take = (files: Iterable<File>) => {
    for (const file of files) {
      if (project.id === null || storey === null) return;
      const upload: Upload = bringIn(project.id, storey, file, (sent) => {
        setUploads((all) => all.map((u) => (u.arrived === upload.arrived ? { ...u, sent } : u)));
      });
      setUploads((all) => [...all, upload]);
      void upload.arrived.then((refused) => {
        setUploads((all) =>
          refused
            ? all.map((u) => (u.arrived === upload.arrived ? { ...u, error: refused.message } : u))
            : all.filter((u) => u.arrived !== upload.arrived),
        );
        if (!refused) showNewest(storey);
      });
    }
  };

  const pages = inOrder(project.rows.page.values());
  return (
    <>
      <Head title={pages.length === 0 ? "Bring in a drawing" : count(pages.length, "page")}>
        A scan or photograph as JPEG or PNG, up to 200 MB. It lands on the storey you are on.
      </Head>
      <div className="min-h-0 flex-1 overflow-y-auto p-4">
        <button
          type="button"
          className={`flex h-36 w-full flex-col items-center justify-center rounded-xl border-2 border-dashed ${over ? "border-ink bg-white" : "border-quiet"}`}
          onClick={() => input.current?.click()}
          onDragOver={(e) => {
            e.preventDefault();
            setOver(true);
          }}
          onDragLeave={() => setOver(false)}
          onDrop={(e) => {
            e.preventDefault();
            setOver(false);
            take(e.dataTransfer.files);
          }}
        >
          <span className="text-lg font-bold">Drop a drawing here</span>
          <span className="text-quiet">or choose one from disk</span>
        </button>
        <input
          ref={input}
          type="file"
          className="sr-only"
          tabIndex={-1}
          aria-label="Drawing file"
          accept="image/jpeg,image/png,.jfif"
          multiple
          onChange={(e) => {
            take(e.target.files ?? []);
            e.target.value = "";
          }}
        />
        {uploads.map((upload, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: uploads have no name of their own
          <div key={i} className="mt-3 rounded-lg border border-line bg-white p-3">
            <div className="font-semibold break-words">{upload.name}</div>
            {upload.error ? (
              <p role="alert" className="text-[13px] text-rust">
                {upload.error}{" "}
                <Plain onClick={() => setUploads((all) => all.filter((u) => u !== upload))}>Put aside</Plain>
              </p>
            ) : (
              <Progress part={upload.sent} words={`${Math.round(upload.sent * 100)} % sent`} stop={upload.stop} />
            )}
          </div>
        ))}
        {pages.map((page) => {
          const source = project.rows.source.get(page.source);
          const progress = project.pages.get(page.id);
          const drawings = [...project.rows.drawing.values()].filter((d) => d.page === page.id);
          return (
            <article key={page.id} className="mt-3 overflow-hidden rounded-lg border border-line bg-white">
              {progress?.hasPreview && (
                <img
                  className="h-36 w-full border-b border-line object-cover object-center"
                  src={`/api/pages/${page.id}/preview`}
                  alt={`Page of ${source?.name ?? "a source"}`}
                />
              )}
              <div className="p-3">
                <div className="font-semibold break-words">{source?.name}</div>
                <div className="text-[13px] text-quiet">
                  {page.width} × {page.height} px · {grouped((source?.bytes ?? 0) / 1000)} kB
                  {page.resolution ? ` · ${Math.round(page.resolution)} per inch` : ""}
                </div>
                {progress && (progress.state === "waiting" || progress.state === "working") && (
                  <Progress
                    part={progress.tilesTotal ? progress.tilesDone / progress.tilesTotal : 0}
                    words={`${progress.tilesDone} of ${progress.tilesTotal} tiles`}
                    stop={() => void api.POST("/api/pages/{id}/stop", { params: { path: { id: page.id } } })}
                  />
                )}
                {(progress?.state === "failed" || progress?.state === "stopped") && (
                  <p role="alert" className="text-[13px] text-rust">
                    {progress.message || "Stopped."}{" "}
                    <Plain
                      onClick={() => void api.POST("/api/pages/{id}/retry", { params: { path: { id: page.id } } })}
                    >
                      Try again
                    </Plain>
                  </p>
                )}
                {drawings.map((drawing) => (
                  <div key={drawing.id} className="mt-1.5 flex items-center justify-between">
                    <span className="text-[13px]">
                      {drawing.kind} on {project.rows.storey.get(drawing.storey)?.name}
                    </span>
                    <Plain
                      onClick={() => {
                        useDesk.setState({ storey: drawing.storey, drawing: drawing.id });
                        showWholePage();
                        goTo("true-up", "calibrate");
                      }}
                    >
                      True up
                    </Plain>
                  </div>
                ))}
              </div>
            </article>
          );
        })}
      </div>
    </>
  );
}

function showNewest(storey: string): void {
  chooseStorey(storey);
  const newest = inOrder(useProject.getState().rows.drawing.values())
    .filter((d) => d.storey === storey)
    .at(-1);
  if (newest) useDesk.setState({ drawing: newest.id });
  showWholePage();
}

function Progress({ part, words, stop }: { part: number; words: string; stop: () => void }) {
  return (
    <div className="mt-1.5 flex items-center gap-2">
      <div
        className="h-2 flex-1 overflow-hidden rounded bg-stone"
        role="progressbar"
        aria-valuenow={Math.round(part * 100)}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-label={words}
      >
        <div className="h-full bg-teal" style={{ width: `${part * 100}%` }} />
      </div>
      <span className="text-[13px] whitespace-nowrap text-quiet">{words}</span>
      <Plain onClick={stop}>Stop</Plain>
    </div>
  );
}
