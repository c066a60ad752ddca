import type { FitReport, Schemas } from "../api/client";
import { removeGridLine, removeKnownLength } from "../desk/acts";
import { setAct, useDesk } from "../desk/desk";
import { difference, grouped, plusMinus } from "../desk/numbers";
import { inOrder } from "../desk/selectors";
import type { Thing } from "../project/rows";
import { change, useProject } from "../project/store";
import { Head, NextThing, Plain } from "./parts";

export function TrueUpLedger() {
  const drawing = useDesk((s) => s.drawing);
  const rows = useProject((s) => s.rows);
  const tolerance = useProject((s) => s.tolerance);
  const report = useProject((s) => (drawing === null ? undefined : s.fits.get(drawing)));
  if (drawing === null || !report) {
    return <Head title="Nothing to true up">Bring in a drawing of this storey first.</Head>;
  }
  const lengths = inOrder(rows.knownLength.values()).filter((l) => l.drawing === drawing);
  const lines = inOrder(rows.gridPick.values()).filter((l) => l.drawing === drawing);
  const pm = report.plusMinusMmPer10m;
  // While a larger model would bring the statements together, no single one of them is blamed.
  const [next] = report.offers.length > 0 ? [] : report.advice;
  const onNext = () => {
    if (next?.code === "no-check") useDesk.setState({ heldOut: true });
    setAct(next?.code === "no-grid-line" ? "square" : "calibrate");
  };
  return (
    <>
      <Head
        title={pm === null ? "The scale is a guess" : `${plusMinus(pm)} mm over 10 m`}
        next={next && <NextThing onClick={onNext}>{next.message}</NextThing>}
      >
        {sentence(report, tolerance)}
      </Head>
      <div className="min-h-0 flex-1 overflow-y-auto" data-testid="known-lengths">
        <Proportions drawing={drawing} report={report} />
        {lengths.map((length) => (
          <LengthRow key={length.id} length={length} result={report.lengths.find((r) => r.id === length.id)} />
        ))}
        {lines.map((line) => {
          const result = report.grid.find((g) => g.id === line.id);
          return (
            <div key={line.id} className="flex items-center justify-between border-b border-line px-4 py-2.5">
              <div>
                <div className="font-semibold text-teal">Runs with {line.axis}</div>
                <div className="text-[13px] text-quiet">off by {(result?.residualDegrees ?? 0).toFixed(3)}°</div>
              </div>
              <Plain onClick={() => void removeGridLine(line.id)} danger>
                Remove
              </Plain>
            </div>
          );
        })}
      </div>
      <footer className="border-t border-line px-4 py-3 text-[13px] text-quiet">
        1 px is {report.mmPerPixel.toFixed(2)} mm{report.determined.scale ? "" : " by guess"}. {report.legibility.words}
      </footer>
    </>
  );
}

/** A copy that is stretched or leans: offered with its evidence, told while it is in force, and taken back. */
function Proportions({ drawing, report }: { drawing: string; report: FitReport }) {
  const [offer] = report.offers;
  const setModel = (title: string, model: Schemas["Model"]) =>
    void change(title, [{ do: "set", type: "drawing", id: drawing, values: { model } }]);
  if (report.model === "similar" && !offer) return null;
  return (
    <div className="border-b border-line bg-white px-4 py-3 text-[13px]" data-testid="proportions">
      {report.model !== "similar" && (
        <div className="flex items-center justify-between gap-2">
          <span>
            <span className="block font-semibold">{report.model === "stretched" ? "Own factors" : "Slanted"}</span>x{" "}
            {report.stretch.x.toFixed(4)}, y {report.stretch.y.toFixed(4)}
            {report.model === "sheared" ? `, axes off square by ${Math.abs(report.slantDegrees).toFixed(2)}°` : ""}
          </span>
          <Plain onClick={() => setModel("True proportions", "similar")}>True proportions</Plain>
        </div>
      )}
      {offer && (
        <>
          <p className="text-ochre">{offer.sentence}</p>
          <div className="mt-1.5 flex items-center gap-2">
            <Plain onClick={() => setModel(offer.model === "stretched" ? "Own factors" : "Slanted fit", offer.model)}>
              {offer.model === "stretched" ? "Use own factors" : "Use a slanted fit"}
            </Plain>
            <span className="text-quiet">
              x {offer.stretch.x.toFixed(4)}, y {offer.stretch.y.toFixed(4)} · moves a corner by{" "}
              {offer.effectPx.toFixed(1)} px
            </span>
          </div>
        </>
      )}
    </div>
  );
}

const BASIS: Record<FitReport["basis"], string> = {
  paper: "Taken for 1:100 on A3 until a known length says better.",
  resolution: "Taken for 1:100 at the scan's resolution until a known length says better.",
  page: "Taken from a drawing of the same page that is trued: check it with one length.",
  file: "Taken from what the file says of itself: check it with one length.",
  lengths: "",
};

function sentence(report: FitReport, tolerance: number): string {
  const parts: string[] = [];
  const pm = report.plusMinusMmPer10m;
  if (pm === null) parts.push(BASIS[report.basis]);
  else if (!report.holds) parts.push("The statements disagree by more than they claim.");
  else if (pm <= tolerance) parts.push(`Good enough for this purpose (±${tolerance}).`);
  else parts.push(`This purpose asks for ±${tolerance}.`);
  if (report.determined.turn) {
    parts.push(
      `The page is turned ${Math.abs(report.rotationDegrees).toFixed(2)}° to the ${report.rotationDegrees >= 0 ? "left" : "right"}.`,
    );
  }
  if (pm !== null) parts.push(`It shows about 1 : ${report.scale.toFixed(1)} on its paper.`);
  return parts.join(" ");
}

function LengthRow({ length, result }: { length: Thing<"knownLength">; result: Schemas["LengthResult"] | undefined }) {
  const colour = result?.suspect ? "text-rust" : length.heldOut ? "text-ochre" : "text-plum";
  return (
    <div
      className="border-b border-line px-4 py-3"
      onPointerEnter={() => useDesk.setState({ selected: { type: "knownLength", id: length.id } })}
      onPointerLeave={() => useDesk.setState({ selected: null })}
    >
      <div className={`flex items-baseline justify-between ${colour}`}>
        <span className="text-xl font-bold">{length.text}</span>
        <span className="text-base font-semibold">{result ? difference(result.residualMm) : "…"}</span>
      </div>
      <div className="flex justify-between gap-2 text-[13px] text-quiet">
        <span>
          {length.standing} · {length.ends}
        </span>
        <span>{result ? `${length.heldOut ? "reads" : "fits"} ${grouped(result.fittedMm, 1)}` : ""}</span>
      </div>
      {result && <ResidualBar result={result} heldOut={length.heldOut} />}
      <div className="mt-1.5 flex gap-2">
        <Plain
          onClick={() =>
            void change(length.heldOut ? "Use a check length" : "Hold a length out", [
              { do: "set", type: "knownLength", id: length.id, values: { heldOut: !length.heldOut } },
            ])
          }
        >
          {length.heldOut ? "Use in the fit" : "Hold out as check"}
        </Plain>
        <Plain onClick={() => void removeKnownLength(length.id)} danger>
          Remove
        </Plain>
      </div>
    </div>
  );
}

/** The residual in units of its own ±: ticks stand at ±, the bar breaks beyond four. */
function ResidualBar({ result, heldOut }: { result: Schemas["LengthResult"]; heldOut: boolean }) {
  const ratio = result.plusMinusMm > 0 ? result.residualMm / result.plusMinusMm : 0;
  const unit = 32;
  const reach = Math.max(-4, Math.min(4, ratio)) * unit;
  const colour = result.suspect ? "#9c3414" : heldOut ? "#855400" : "#6d2a63";
  return (
    <svg
      width="100%"
      height="14"
      viewBox="-140 0 280 14"
      role="img"
      aria-label={`${difference(result.residualMm)} mm where ${plusMinus(result.plusMinusMm)} is expected`}
    >
      <line x1={0} x2={0} y1={1} y2={13} stroke="#5a645f" />
      {[-unit, unit].map((x) => (
        <line key={x} x1={x} x2={x} y1={2} y2={12} stroke="#a49c88" />
      ))}
      <rect x={Math.min(0, reach)} y={4} width={Math.max(1, Math.abs(reach))} height={6} fill={colour} />
      {Math.abs(ratio) > 4 && <path d={`M${reach - 5} 2l4 10m3 -10l4 10`} stroke="#faf8f3" strokeWidth="2" />}
    </svg>
  );
}
