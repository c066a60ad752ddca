import type { FitReport } from "../../api/client";
import { useCurrentAct } from "../../board/act";
import { setAct, useDeskFields } from "../../board/desk";
import { isTestedOneWayOnly, testedPlusMinus } from "../../store/fits";
import { change, useProject } from "../../store/project";
import type { Thing } from "../../store/rows";
import { inOrder } from "../../store/rows";
import { isUnderWay, workKey } from "../../store/work";
import { fine, fineInWords, overSpan, plusMinus, plusMinusBeside, said, unitWord } from "../../ui/measures";
import { besideQuarters } from "../../ui/numbers";
import { Head, NextThing, Plain } from "../../ui/parts";
import { Work } from "../../ui/Work";
import { useNextLength } from "../nextLength";
import { useReadings } from "../searches";
import { audit } from "./audit";
import { EarlierFits } from "./EarlierFits";
import { sizeByFigures } from "./figures";
import { turnWords, useInkSkew } from "./inkSkew";
import { LengthRow } from "./LengthRow";
import { OtherRows } from "./OtherRows";
import { PendingFitCard, PendingSlipCard } from "./Pending";
import { isLensKnown, Proportions } from "./Proportions";
import { useTruthPlot } from "./plot";
import { squareBy, straightenByInk } from "./squaring";
import { UnitOffer } from "./UnitOffer";

/** How good the fit is, what to do next, and all that is stated with how far each is off. */
export function TrueUpLedger() {
  const { drawing, act } = useDeskFields("drawing", "act");
  const Panel = useCurrentAct()?.Panel;
  const reads = useProject((s) => s.role === "read");
  const truthPlot = useTruthPlot((s) => s.shown);
  const rows = useProject((s) => s.rows);
  const tolerance = useProject((s) => s.tolerance);
  const report = useProject((s) => (drawing === null ? undefined : s.fits.get(drawing)));
  const row = drawing === null ? undefined : rows.drawing.get(drawing);
  const lensKnown = useProject((s) => isLensKnown(s.pages.get(row?.page ?? "")?.made));
  const told = useReadings(drawing);
  const figures = told?.figures.length ?? 0;
  // What was read and what was taken of it already.
  const texts = [
    ...(told?.figures ?? []).map((f) => f.text),
    ...[...rows.knownLength.values()].filter((l) => l.drawing === drawing).map((l) => l.text),
  ];
  const reading = useProject((s) => s.work.get(workKey("read-figures", drawing ?? "")));
  if (drawing === null || !report || !row) {
    return <Head title="Nothing to true up">Bring in a drawing of this storey first.</Head>;
  }
  const page = row.page;
  const lengths = inOrder(rows.knownLength.values()).filter(
    (l) => l.drawing === drawing || (l.wholePage && rows.drawing.get(l.drawing)?.page === page),
  );
  const { mm, along } = testedPlusMinus(report);
  // What disagrees comes first.
  const suspects = new Set(report.lengths.filter((r) => r.suspect).map((r) => r.id));
  lengths.sort((a, b) => Number(suspects.has(b.id)) - Number(suspects.has(a.id)));
  return (
    <>
      <Head
        title={
          mm === null
            ? "The scale is a guess"
            : `${plusMinusBeside(mm, tolerance)}${unitWord()} over ${overSpan()}${along ? ` along\u00a0${along}` : ""}`
        }
        next={
          !row.locked &&
          !reads &&
          (mm === null && figures > 1 && (act === null || act === "calibrate") ? (
            <NextThing onClick={() => void sizeByFigures()}>Size it by the {figures} figures written on it</NextThing>
          ) : (
            act === null && <Next drawing={drawing} report={report} />
          ))
        }
      >
        {row.locked ? "Locked: nothing moves it. " : ""}
        {sentence(report, tolerance, row, lensKnown)}
        {act === "calibrate" && mm !== null && mm > tolerance && <b>{` ${adviceWords(report)}`}</b>}
      </Head>
      <div className="min-h-0 flex-1 overflow-y-auto" data-testid="known-lengths">
        {mm === null && act === null && isUnderWay(reading) && (
          <div className="border-b border-line px-4 py-2.5 text-[13px]">
            Meanwhile what is written on it is read.
            <Work kind="read-figures" about={drawing} />
          </div>
        )}
        <fieldset disabled={reads} className="contents">
          <UnitOffer texts={texts} />
          <PendingSlipCard />
          <PendingFitCard />
          {!row.locked && Panel && <Panel />}
          <Proportions drawing={drawing} report={report} open={!row.locked && act === "unstretch"} />
          {lengths.map((length) => (
            <LengthRow key={length.id} length={length} report={report} />
          ))}
          <OtherRows drawing={drawing} report={report} />
          <EarlierFits drawing={drawing} />
        </fieldset>
      </div>
      <footer className="border-t border-line px-4 py-2.5 text-[13px] text-quiet">
        <div className="mb-1.5 flex gap-2">
          <Plain pressed={truthPlot} onClick={() => useTruthPlot.setState({ shown: !truthPlot })}>
            Truth plot <kbd>V</kbd>
          </Plain>
          <Plain
            pressed={row.locked}
            onClick={() =>
              void change(row.locked ? "Unlock a drawing" : "Lock a drawing", [
                { do: "set", type: "drawing", id: drawing, values: { locked: !row.locked } },
              ])
            }
          >
            {row.locked ? "Locked: unlock it" : "Lock it"}
          </Plain>
        </div>
        1 px is {fineInWords(report.mmPerPixel, 2)}
        {report.determined.scale ? "" : " by guess"}. {said(report.legibility.words)}
      </footer>
    </>
  );
}

/** The same in words, while something is being stated already. */
function adviceWords(report: FitReport): string {
  const [next] = report.offers.length > 0 ? [] : report.advice;
  return next ? said(next.message) : "";
}

/** The one next thing to do, as computed. */
function Next({ drawing, report }: { drawing: string; report: FitReport }) {
  const ink = useInkSkew(drawing);
  // While a larger model would bring the statements together, no single one of them is blamed.
  const tolerance = useProject((s) => s.tolerance);
  const { mm } = testedPlusMinus(report);
  const [next] = report.offers.length > 0 ? [] : report.advice;
  if (!next || (next.code === "no-single" && mm !== null && mm <= tolerance)) return null;
  if (next.code === "no-grid-line" && ink?.sure && !ink.stated) {
    return (
      <NextThing onClick={() => void squareBy(ink.degrees, Math.max(0.001, ink.sigmaDegrees), "ink")}>
        Square it by its ink: the picture turns {turnWords(ink.turn)}
      </NextThing>
    );
  }
  if (next.code === "slanted")
    return (
      <NextThing onClick={() => void straightenByInk()}>
        A photograph, by its lines that converge: straighten it by them
      </NextThing>
    );
  const go = () => {
    if (next.code === "suspect" && report.blamed) audit(report.blamed.id);
    else {
      setAct(next.code === "no-grid-line" ? "square" : "calibrate");
      useNextLength.setState({ by: "length", heldOut: next.code === "no-check" });
    }
  };
  return <NextThing onClick={go}>{said(next.message)}</NextThing>;
}

const BASIS: Record<FitReport["basis"], string> = {
  paper: "Taken for 1:100 on A3 until a known length says better.",
  resolution: "Taken for 1:100 at the scan's resolution until a known length says better.",
  page: "Taken from a drawing of the same page that is trued: check it with one length.",
  file: "Taken from what the file says of itself: check it with one length.",
  lengths: "",
};

function sentence(report: FitReport, tolerance: number, row: Thing<"drawing">, lensKnown: boolean): string {
  const { statedScale, turns: quarters } = row;
  const parts: string[] = [];
  const pm = report.plusMinusMmPer10m;
  const { mm, along } = testedPlusMinus(report);
  const isEnough = mm !== null && mm <= tolerance;
  if (mm === null) parts.push(BASIS[report.basis]);
  else if (!report.holds) parts.push("The statements disagree by more than they claim.");
  else if (isEnough && isTestedOneWayOnly(report))
    parts.push(`Good enough for this purpose (±${fine(tolerance)}) the way that was measured.`);
  else if (isEnough) parts.push(`Good enough for this purpose (±${fine(tolerance)}).`);
  else parts.push(`This purpose asks for ±${fine(tolerance)}.`);
  if (along && report.plusMinusAlong) {
    const across = along === "y" ? "width" : row.kind === "elevation" || row.kind === "section" ? "height" : "depth";
    const open = plusMinus(report.plusMinusAlong[along === "x" ? "y" : "x"]);
    const known = report.model === "perspective" && !lensKnown ? "as lenses differ" : "as copiers leave it";
    parts.push(`The ${across} is not tested yet: ${open} there, ${known}.`);
  } else if (isEnough && isTestedOneWayOnly(report)) parts.push("The other way nothing has tested.");
  if (report.determined.turn) {
    const turn = besideQuarters(report.rotationDegrees, quarters);
    parts.push(`The page is turned ${Math.abs(turn).toFixed(2)}° to the ${turn >= 0 ? "left" : "right"}.`);
  }
  if (pm !== null) {
    const percent = statedScale === null ? null : (100 * statedScale) / report.scale;
    parts.push(
      percent === null || statedScale === null
        ? `It shows about 1 : ${report.scale.toFixed(1)} on its paper.`
        : `It shows 1 : ${report.scale.toFixed(1)}, so its 1 : ${statedScale} comes out at ${percent.toFixed(1)} %.`,
    );
  }
  return parts.join(" ");
}
