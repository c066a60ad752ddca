import { useQuery } from "@tanstack/react-query";
import { api, type FitReport, type Schemas, settled } from "../../api/client";
import { isSlanted, mapOf } from "../../geometry/maps";
import { inProject, useProject } from "../../store/project";
import { said } from "../../ui/measures";
import { Plain } from "../../ui/parts";
import { Typed } from "../../ui/Typed";
import { Work } from "../../ui/Work";
import { sendStatement } from "../statements";
import { sidesOf, unheldWords } from "./heldSides";
import { leaveAsTaken, straightenByInk } from "./squaring";

/** Own factors of a stretched or leaning copy: offered with their evidence, typed, and taken back. */
export function Proportions({ drawing, report, open }: { drawing: string; report: FitReport; open: boolean }) {
  const [offer] = report.offers;
  const row = useProject((s) => s.rows.drawing.get(drawing));
  const set = (title: string, model: Schemas["Model"], ownFactor: number | null = null) =>
    void sendStatement(title, [{ do: "set", type: "drawing", id: drawing, values: { model, ownFactor } }]);
  const leaning = useProject((s) => leaningWords(s.pages.get(row?.page ?? "")?.made?.skew?.leans));
  const lens = useProject((s) => lensWords(s.pages.get(row?.page ?? "")?.made));
  const hasLens = useProject((s) => (s.rows.fit.get(drawing)?.lensK ?? null) !== null);
  const lacking = row !== undefined && row.model !== report.model;
  if (!open && report.model === "similar" && !offer && !lacking) return null;
  return (
    <section
      className="border-b border-line bg-white px-4 py-3 text-[13px]"
      data-testid="proportions"
      aria-label="What the copy or the camera did"
    >
      {lacking ? (
        <div className="flex items-start justify-between gap-2">
          <span>
            <span className="block font-semibold">
              {row.model === "perspective" ? "Photograph, not straightened yet" : "Not determined yet"}
            </span>
            {report.advice.find((a) => a.code.startsWith("more-for"))?.message}
          </span>
          <Plain onClick={() => void leaveAsTaken(drawing)}>Not so</Plain>
        </div>
      ) : report.model !== "similar" ? (
        <div className="flex flex-wrap items-center justify-between gap-x-2 gap-y-1">
          <span>
            <span className="block font-semibold">
              {report.model === "perspective"
                ? "Photograph, straightened"
                : report.model === "sheared"
                  ? "Slanted"
                  : row?.ownFactor
                    ? "Own factors, as typed"
                    : "Own factors"}
            </span>
            {report.model === "perspective"
              ? hasLens
                ? "Perspective and the lens’s bend are taken back."
                : `Perspective is taken back; no statement speaks for a bent lens, so ± allows for one. ${lens}`
              : `x ${report.stretch.x.toFixed(4)}, y ${report.stretch.y.toFixed(4)}`}
            {report.model === "sheared" ? `, axes off square by ${Math.abs(report.slantDegrees).toFixed(2)}°` : ""}
          </span>
          <Plain onClick={() => void leaveAsTaken(drawing)}>
            {report.model === "perspective" ? "As it was taken" : "True proportions"}
          </Plain>
        </div>
      ) : (
        open &&
        !offer &&
        !leaning && (
          <p>
            Proportions are taken for true.{" "}
            <span className="text-quiet">A length across and one down would show it if they are not.</span>
          </p>
        )
      )}
      {offer && (
        <>
          <p className="text-ochre">{offer.sentence}</p>
          <div className="mt-1.5 flex items-center gap-2">
            <Plain onClick={() => set(OFFERED[offer.model].title, offer.model)}>{OFFERED[offer.model].words}</Plain>
            <span className="text-quiet">
              {offer.model !== "perspective" && `x ${offer.stretch.x.toFixed(4)}, y ${offer.stretch.y.toFixed(4)} · `}
              moves a corner by {offer.effectPx.toFixed(1)} px
            </span>
          </div>
        </>
      )}
      <Straightening drawing={drawing} />
      {open && row?.model !== "perspective" && leaning && (
        <div className="flex items-center justify-between gap-2">
          <span>{leaning}</span>
          <Plain onClick={() => void straightenByInk()}>Straighten by its lines</Plain>
        </div>
      )}
      {open && row?.model !== "perspective" && (
        <div className="mt-2 flex items-center justify-between gap-2 border-t border-line pt-2">
          <span className="text-quiet">
            {leaning
              ? "Or by what you state yourself, without its lines."
              : "Taken at a slant? A known rectangle, or lengths on both sides of it and lines that should be level and plumb, say how."}
          </span>
          <Plain onClick={() => set("Straighten a photograph", "perspective")}>It is a photograph</Plain>
        </div>
      )}
      {open && (
        <div className="mt-2 flex w-40 items-end gap-2">
          <Typed
            label="or type its stretch, x over y"
            value={row?.ownFactor ? row.ownFactor.toFixed(4) : ""}
            set={(text) => {
              const factor = Number.parseFloat(text.replace(",", "."));
              if (factor > 0) set("Own factors, typed", "stretched", factor);
            }}
          />
        </div>
      )}
    </section>
  );
}

/** How much a picture leans by its own lines, in words; null where they run alongside each other. */
export function leaningWords(leans: { u: number; v: number } | null | undefined): string | null {
  const part = leans ? Math.hypot(leans.u, leans.v) : 0;
  return part === 0 ? null : `Its lines converge: one side is ${(200 * part).toFixed(1)} % nearer than the other.`;
}

/** Whether it is known by how much what recedes is foreshortened as well. */
export function isLensKnown(made: Schemas["Made"] | null | undefined): boolean {
  return !!made?.lensMm || !!made?.skew?.focal;
}

function lensWords(made: Schemas["Made"] | null | undefined): string {
  if (made?.lensMm) return `Its camera says that it took it at ${made.lensMm} mm, and so how far it is foreshortened.`;
  if (made?.skew?.focal) return "Its sheet has the proportions of ISO 216, which say how far it is foreshortened.";
  return "Its lens is not known: a length each way says how far it is foreshortened.";
}

const OFFERED: Record<Schemas["Model"], { title: string; words: string }> = {
  similar: { title: "True proportions", words: "True proportions" },
  stretched: { title: "Own factors", words: "Use own factors" },
  sheared: { title: "Slanted fit", words: "Use a slanted fit" },
  perspective: { title: "Straighten a photograph", words: "Straighten the photograph" },
};

/** How far the straightened picture is, and whether straight lines are straight on it. */
function Straightening({ drawing }: { drawing: string }) {
  const fit = useProject((s) => s.rows.fit.get(drawing));
  const lines = useProject((s) => s.rows.gridPick);
  const slanted = fit !== undefined && isSlanted(mapOf(fit));
  const own = [...lines.values()].filter((g) => g.drawing === drawing);
  const { data } = useQuery({
    queryKey: ["flatness", drawing, fit?.revision, ...own.map((g) => `${g.id}${g.revision}`)],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/drawings/{id}/flatness", { params: { path: inProject(drawing) } })),
    enabled: slanted && own.length > 0,
    retry: false,
    placeholderData: (old) => old,
  });
  const rows = useProject((s) => s.rows);
  if (!slanted) return null;
  const unheld = unheldWords(sidesOf(rows, drawing));
  return (
    <div className="mt-2">
      <Work kind="rectify-drawing" about={drawing} />
      {unheld && <p className="mt-1 text-ochre">{unheld}</p>}
      {data?.message && <p className="mt-1 text-rust">{said(data.message)}</p>}
    </div>
  );
}
