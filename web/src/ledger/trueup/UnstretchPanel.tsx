import type { FitReport, Schemas } from "../../api/client";
import { sendStatement } from "../../desk/statements";
import { useProject } from "../../project/store";
import { Plain } from "../parts";
import { Typed } from "./CalibratePanel";

/** Own factors of a stretched or leaning copy: offered with their evidence, typed, and taken back. */
export function UnstretchPanel({ drawing, report, open }: { drawing: string; report: FitReport; open: boolean }) {
  const [offer] = report.offers;
  const row = useProject((s) => s.rows.drawing.get(drawing));
  const set = (title: string, model: Schemas["Model"], ownFactor: number | null = null) =>
    void sendStatement(title, [{ do: "set", type: "drawing", id: drawing, values: { model, ownFactor } }]);
  if (!open && report.model === "similar" && !offer) return null;
  return (
    <section
      className="border-b border-line bg-white px-4 py-3 text-[13px]"
      data-testid="proportions"
      aria-label="Unstretch"
    >
      {report.model !== "similar" ? (
        <div className="flex items-center justify-between gap-2">
          <span>
            <span className="block font-semibold">
              {report.model === "sheared" ? "Slanted" : row?.ownFactor ? "Own factors, as typed" : "Own factors"}
            </span>
            x {report.stretch.x.toFixed(4)}, y {report.stretch.y.toFixed(4)}
            {report.model === "sheared" ? `, axes off square by ${Math.abs(report.slantDegrees).toFixed(2)}°` : ""}
          </span>
          <Plain onClick={() => set("True proportions", "similar")}>True proportions</Plain>
        </div>
      ) : (
        open &&
        !offer && (
          <p>
            Proportions are taken for true.{" "}
            <span className="text-quiet">
              Lengths along both axes, checked by others, would show it if they are not.
            </span>
          </p>
        )
      )}
      {offer && (
        <>
          <p className="text-ochre">{offer.sentence}</p>
          <div className="mt-1.5 flex items-center gap-2">
            <Plain onClick={() => set(offer.model === "stretched" ? "Own factors" : "Slanted fit", offer.model)}>
              {offer.model === "stretched" ? "Use own factors" : "Use a slanted fit"}
            </Plain>
            <span className="text-quiet">
              x {offer.stretch.x.toFixed(4)}, y {offer.stretch.y.toFixed(4)} · moves a corner by{" "}
              {offer.effectPx.toFixed(1)} px
            </span>
          </div>
        </>
      )}
      {open && (
        <div className="mt-2 flex w-40 items-end gap-2">
          <Typed
            label="or x's factor over y's"
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
