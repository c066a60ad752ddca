import { useEffect, useState } from "react";
import { newId } from "../../../api/ids";
import { clearDraft, useDesk, useDrafted } from "../../../board/desk";
import { isClash } from "../../../store/edits";
import { projectUnit } from "../../../store/lengths";
import { change, say, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { area, fineInWords, onSite } from "../../../ui/measures";
import { grouped } from "../../../ui/numbers";
import { Field, Link, Plain } from "../../../ui/parts";
import { legsOf, useBoundary } from "./boundary";

/** The legs of a site's boundary as they are written, and how it closes. */
export function BoundaryPanel() {
  const storey = useDesk((s) => s.storey);
  const boundaries = useProject((s) => s.rows.boundary);
  const legs = useProject((s) => s.rows.leg);
  const [boundary] = [...boundaries.values()].filter((b) => b.storey === storey);
  const answer = useBoundary(boundary);
  const [bearing, setBearing] = useState("");
  const [length, setLength] = useState("");
  const [error, setError] = useState<string | null>(null);
  const ink = useDrafted("bearing");
  useEffect(() => {
    if (ink) setBearing(ink.bearing);
  }, [ink]);
  const own = boundary ? legsOf(legs.values(), boundary.id) : [];
  const add = async () => {
    if (!boundary) return;
    const order = (own.at(-1)?.order ?? -1) + 1;
    // The hand goes on to the next leg at once; what is refused comes back, unless it has.
    setBearing("");
    setLength("");
    setError(null);
    clearDraft();
    const refused = await change("Boundary leg", [
      {
        do: "add",
        type: "leg",
        id: newId(),
        values: { boundary: boundary.id, order, length, bearing, unit: projectUnit() },
      },
    ]);
    if (!refused || isClash(refused)) return;
    setError(refused.message);
    setBearing((now) => now || bearing);
    setLength((now) => now || length);
    say(null);
  };
  if (!boundary) {
    return (
      <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Boundary">
        Click where the boundary begins: a corner of the site.
      </section>
    );
  }
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Boundary">
      {answer?.closed ? (
        <p>
          Closes within <b>{fineInWords(answer.closed.misclosureMm, 1)}</b>
          {answer.closed.precision === null
            ? ""
            : ` in ${onSite(answer.closed.lengthMm)}, 1 : ${grouped(answer.closed.precision)}`}
          . It encloses <b>{area(answer.closed.areaM2)}</b>.
        </p>
      ) : (
        <p className={own.length > 2 ? "text-rust" : "text-quiet"}>
          {own.length > 2 ? answer?.refusal : "Type each leg as it is written, in order round the site."}
        </p>
      )}
      <ol className="mt-2">
        {own.map((leg, i) => (
          <li key={leg.id} className="flex justify-between gap-2 py-0.5">
            <span>
              {i + 1}. {leg.bearing} · {leg.length}
            </span>
            <Link onClick={() => void change("Remove a leg", [{ do: "remove", type: "leg", id: leg.id }])}>Remove</Link>
          </li>
        ))}
      </ol>
      <form
        className="mt-2 flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          // The next leg begins with its bearing.
          e.currentTarget.querySelector("input")?.focus();
          void add();
        }}
      >
        <Field label="bearing" value={bearing} onChange={setBearing} placeholder={"N 36°15'20\" E"} />
        <Field label="length" value={length} onChange={setLength} placeholder="24.30 m" />
        <button
          type="submit"
          className="rounded border border-line bg-white px-2 py-1"
          disabled={bearing.trim() === "" || length.trim() === ""}
        >
          Add
        </button>
      </form>
      {ink && bearing === ink.bearing && (
        <p className="mt-1 text-quiet">
          Read off the ink, ±{ink.plusMinusDegrees.toFixed(2)}°: type the length that is written along it.
        </p>
      )}
      {!ink && own.length < 3 && (
        <p className="mt-1 text-quiet">No bearing written? Click along the leg: its direction is taken from the ink.</p>
      )}
      {error && (
        <p role="alert" className="mt-1 text-rust">
          {error}
        </p>
      )}
      <UpIs key={boundary.up} boundary={boundary} />
      <div className="mt-2">
        <Plain
          danger
          onClick={() => void change("Remove a boundary", [{ do: "remove", type: "boundary", id: boundary.id }])}
        >
          Remove the boundary
        </Plain>
      </div>
    </section>
  );
}

/** Where the drawing is squared to a building, up on the board is not north. */
function UpIs({ boundary }: { boundary: Thing<"boundary"> }) {
  const [up, setUp] = useState(boundary.up);
  return (
    <form
      className="mt-2 flex items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void change("Which way north is", [
          { do: "set", type: "boundary", id: boundary.id, values: { up: up.trim() } },
        ]);
      }}
    >
      <Field label="up on the board bears" value={up} onChange={setUp} placeholder="north" />
      <button
        type="submit"
        className="rounded border border-line bg-white px-2 py-1"
        disabled={up.trim() === boundary.up}
      >
        Set
      </button>
    </form>
  );
}
