import { useState } from "react";
import { setAct } from "../../desk/desk";
import { inkOffGrid } from "../../desk/snap";
import { squareBy } from "../../desk/squaring";
import { useProject } from "../../store/project";
import { Field, Plain } from "../parts";

/** Below this the ink tells its direction too weakly to be offered as the thing to do. */
const SURE = 0.25;

/** What the ink says of the turn: by how much, which way, and how sure. */
export function useInkSkew(drawing: string) {
  const project = useProject();
  const row = project.rows.drawing.get(drawing);
  const skew = row && project.pages.get(row.page)?.made?.skew;
  const report = project.fits.get(drawing);
  if (!skew || !report) return null;
  // Of the four directions a grid has, the one nearest to how the drawing lies now.
  const present = -report.rotationDegrees;
  const degrees = skew.degrees + 90 * Math.round((present - skew.degrees) / 90);
  return {
    degrees,
    sigmaDegrees: skew.sigmaDegrees,
    /** turn still to be given, counter-clockwise */
    turn: -degrees - report.rotationDegrees,
    sure: skew.confidence >= SURE,
    confidence: skew.confidence,
    stated: [...project.rows.gridPick.values()].some((g) => g.drawing === drawing && g.hand === "ink"),
  };
}

export function turnWords(degrees: number): string {
  return `${Math.abs(degrees).toFixed(2)}° ${degrees >= 0 ? "left" : "right"}`;
}

/** The drawing is turned to its grid: by its ink, by a picked line, or by so many degrees. */
export function SquarePanel({ drawing }: { drawing: string }) {
  const ink = useInkSkew(drawing);
  const report = useProject((s) => s.fits.get(drawing));
  const [typed, setTyped] = useState("");
  const given = Number.parseFloat(typed.replace(",", ".").replace("−", "-"));
  const step = /[.,](\d+)/.exec(typed)?.[1]?.length ?? 0;
  const off = useProject((s) => inkOffGrid(s, drawing));
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Square">
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
