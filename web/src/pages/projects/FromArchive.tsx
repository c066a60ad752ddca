import { useState } from "react";
import { refusal, WRITE_HEADERS } from "../../api/client";

/** Makes a project of the file that one was taken as. */
export function FromArchive() {
  const [error, setError] = useState<string | null>(null);
  /** part of the file that has gone out; null while none is on its way */
  const [sent, setSent] = useState<number | null>(null);
  const [request, setRequest] = useState<XMLHttpRequest | null>(null);
  const bring = (file: File) => {
    setError(null);
    setSent(0);
    const going = new XMLHttpRequest();
    const over = (words: string | null) => {
      setSent(null);
      setRequest(null);
      setError(words);
    };
    going.upload.onprogress = (e) => setSent(e.lengthComputable ? e.loaded / e.total : 0);
    going.onload = () => {
      const body: unknown = JSON.parse(going.responseText || "null");
      if (going.status === 200) {
        window.location.hash = `#/project/${(body as { id: string }).id}`;
        return;
      }
      const { message, at } = refusal(going.status, body);
      over(at === "" || at === "file" || message.includes(at) ? message : `${message} (${at})`);
    };
    going.onerror = () => over("The server cannot be reached. Bring the archive in again.");
    going.onabort = () => over(null);
    going.open("POST", "/api/archives");
    for (const [name, value] of Object.entries(WRITE_HEADERS)) going.setRequestHeader(name, value);
    const form = new FormData();
    form.set("file", file);
    going.send(form);
    setRequest(going);
  };
  return (
    <section className="rounded-xl border border-line bg-sheet p-5" aria-label="From an archive">
      <h2 className="text-lg font-bold">From an archive</h2>
      <p className="mt-1 text-[13px] text-quiet">A project that was taken as a ZIP file comes back as it was.</p>
      {sent === null ? (
        <label className="mt-3 inline-block cursor-pointer rounded-lg border border-ink bg-white px-3 py-1.5 font-semibold focus-within:outline-2 focus-within:outline-offset-2">
          Choose an archive
          <input
            type="file"
            accept=".zip,application/zip"
            className="sr-only"
            onChange={(e) => {
              const file = e.target.files?.[0];
              e.target.value = "";
              if (file) bring(file);
            }}
          />
        </label>
      ) : (
        <p className="mt-3 flex items-center gap-3" role="status">
          {sent < 1 ? `${Math.floor(sent * 100)} % sent` : "Being put together"}
          {sent < 1 && (
            <button type="button" className="underline" onClick={() => request?.abort()}>
              Stop
            </button>
          )}
        </p>
      )}
      {error && (
        <p role="alert" className="mt-2 text-[13px] text-rust [overflow-wrap:anywhere]">
          {error}
        </p>
      )}
    </section>
  );
}
