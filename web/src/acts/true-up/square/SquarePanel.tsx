import { useState } from "react";
import { setAct, useDesk } from "../../../board/desk";
import { inkOffGrid } from "../../../store/fits";
import { useProject } from "../../../store/project";
import { Field, Link, Plain } from "../../../ui/parts";
import { turnWords, useInkSkew } from "../inkSkew";
import { leaningWords } from "../Proportions";
import { squareBy } from "../squaring";

/** The drawing is turned to its grid: by its ink, by a picked line, or by so many degrees. */
export function SquarePanel() {
  const drawing = useDesk((s) => s.drawing);
  return drawing === null ? null : <Of drawing={drawing} />;
}

function Of({ drawing }: { drawing: string }) {
  const ink = useInkSkew(drawing);
  const report = useProject((s) => s.fits.get(drawing));
  const [typed, setTyped] = useState("");
  const given = Number.parseFloat(typed.replace(",", ".").replace("−", "-"));
  const step = /[.,](\d+)/.exec(typed)?.[1]?.length ?? 0;
  const row = useProject((s) => s.rows.drawing.get(drawing));
  const leaning = useProject((s) => leaningWords(s.pages.get(row?.page ?? "")?.made?.skew?.leans));
  const off = useProject((s) => inkOffGrid(s, drawing));
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Square">
      {leaning && row?.model !== "perspective" && (
        <p className="mb-2">
          {leaning} Turning does not mend that: <Link onClick={() => setAct("unstretch")}>Copy, camera</Link>{" "}
          straightens it.
        </p>
      )}
      {ink && !ink.stated && (
        <div className="mb-2">
          <p>
            The ink would turn the picture <b>{turnWords(ink.turn)}</b>, ±{(2 * ink.sigmaDegrees).toFixed(3)}°
            {ink.sure ? "." : `; few lines agree on it (${Math.round(ink.confidence * 100)} %).`}
          </p>
          <Plain
            onClick={() => {
              void squareBy(ink.degrees, Math.max(0.001, ink.sigmaDegrees), "ink");
              setAct(null);
            }}
          >
            Square by the ink
          </Plain>
        </div>
      )}
      {ink?.stated && <p className="mb-2">Squared by the ink, ±{(2 * ink.sigmaDegrees).toFixed(3)}°.</p>}
      <p className="text-quiet">Or pick a long line that runs with the grid or on a known bearing.</p>
      <form
        className="mt-2 flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (!report || !Number.isFinite(given)) return;
          void squareBy(-(report.rotationDegrees + given), 10 ** -step / Math.sqrt(12), "typed");
          setTyped("");
        }}
      >
        <Field label="or turn it by, left is +" value={typed} onChange={setTyped} />
        <button
          type="submit"
          className="rounded border border-line bg-white px-2 py-1 whitespace-nowrap"
          disabled={!Number.isFinite(given)}
        >
          {Number.isFinite(given) ? `Turn ${turnWords(given)}` : "Turn"}
        </button>
      </form>
      {off !== null && Math.abs(off) > 0.005 && report?.determined.turn === false && (
        <p className="mt-2 text-quiet">Lines are held to the grid of the ink until then.</p>
      )}
    </section>
  );
}
