import { useActs } from "../../board/act";
import { goTo, setView, useDesk, useDeskFields } from "../../board/desk";
import { useProject, useProjectFields } from "../../store/project";
import { inOrder } from "../../store/rows";
import type { Finding } from "../../store/shapes";
import { wallLines } from "../../store/walls";
import { difference, fine, plusMinus, said } from "../../ui/measures";
import { Head, NextThing, Plain } from "../../ui/parts";
import { EnclosureFindings } from "../EnclosureFindings";
import { useEnclosed } from "../enclosed";
import { useNextLength } from "../nextLength";
import { MENDS, mendOverlap } from "../overlaps";
import { RoomsTable } from "../RoomsTable";
import { useSelectableSelected } from "../selected";
import { useStairs } from "../useStairs";
import { Doubts, useDoubts } from "./Doubts";
import { ITS_TRACING, MisfitPanel, useMisfit } from "./MisfitPanel";
import { verdictOf } from "./verdict";
import { WaysOut } from "./WaysOut";

/** What the walls of the storey rest on, by length, each with the edge it is drawn with. */
function StandsOn({ storey }: { storey: string }) {
  const rows = useProject((s) => s.rows);
  const lines = wallLines(rows, storey);
  const whole = lines.reduce((sum, l) => sum + l.length, 0);
  if (whole === 0) return null;
  const sorts = [
    ["figure", "figures", "7 0"],
    ["ink", "the ink", "none"],
    ["free hand", "a free hand", "2 4"],
  ] as const;
  return (
    <section className="border-b border-line px-4 py-3 text-[13px]" aria-label="What the plan stands on">
      {sorts.map(([evidence, words, dash]) => {
        const part = lines.filter((l) => l.wall.evidence === evidence).reduce((sum, l) => sum + l.length, 0) / whole;
        return (
          <div key={evidence} className="flex items-center gap-2 py-0.5">
            <svg width="44" height="14" viewBox="0 0 44 14" aria-hidden="true">
              <title>{words}</title>
              <rect x="0" y="2" width="44" height="10" fill="rgba(15, 79, 75, 0.34)" stroke="#0f4f4b" />
              {dash !== "none" && <line x1="0" x2="44" y1="7" y2="7" stroke="#0f4f4b" strokeDasharray={dash} />}
            </svg>
            <span className="flex-1">rests on {words}</span>
            <span className="tabular-nums">{Math.round(part * 100)} %</span>
          </div>
        );
      })}
    </section>
  );
}

/** A flaw of the plan, its place, and the act that mends it where there is one. */
function FindingRow({ finding }: { finding: Finding }) {
  const mayEdit = useProject((s) => s.role !== "read");
  const [x = 0, y = 0] = finding.at;
  return (
    <div className="border-b border-line px-4 py-3 text-rust">
      <p>{said(finding.message)}</p>
      <div className="flex gap-2">
        <Plain onClick={() => setView({ x, y, k: Math.max(useDesk.getState().view.k, 0.15) })}>Show the place</Plain>
        {mayEdit && finding.mend !== null && (
          <Plain onClick={() => void mendOverlap(finding)}>{MENDS[finding.mend]}</Plain>
        )}
      </div>
    </div>
  );
}

/** Check lengths against the fit, and what the plan itself shows to be wrong. */
export function ProveLedger() {
  const desk = useDeskFields("storey", "drawing", "selected");
  const { rows, derived, fits } = useProjectFields("rows", "derived", "fits");
  const Figures = useActs((s) => s.acts.get("figures")?.Rows);
  const Selected = useSelectableSelected()?.Panel;
  const shapes = desk.storey === null ? undefined : derived.get(desk.storey);
  const report = desk.drawing === null ? undefined : fits.get(desk.drawing);
  const checks = inOrder(rows.knownLength.values()).filter((l) => l.heldOut && l.drawing === desk.drawing);
  const findings = shapes?.findings ?? [];
  const { open: doubts } = useDoubts(desk.storey);
  const isTraced = wallLines(rows, desk.storey).length > 0;
  const { off } = useMisfit(desk.storey === null ? undefined : (desk.drawing ?? undefined), ITS_TRACING, isTraced);
  const told = useStairs(desk.storey);
  const ofStairs = [
    ...told.stairs.flatMap((s) => s.findings.map((f) => ({ ...f, stair: s.id }))),
    ...told.refused.map((r) => ({ code: "refused", stair: r.id, at: null, message: r.message })),
  ];
  const enclosed = useEnclosed();
  const verdict = verdictOf({
    findings: findings.length + ofStairs.length + enclosed.findings.length,
    checksOff: checks.filter((c) => {
      const result = report?.lengths.find((r) => r.id === c.id);
      return result !== undefined && Math.abs(result.residualMm) > result.plusMinusMm;
    }).length,
    figures: [...rows.figure.values()].filter((f) => f.storey === desk.storey && f.decided === "open").length,
    beside: off.length,
    doubts: doubts.length,
    checks: checks.length,
  });
  return (
    <>
      <Head
        title={verdict.title}
        next={
          checks.length === 0 && (
            <NextThing
              onClick={() => {
                goTo("true-up", "calibrate");
                useNextLength.setState({ heldOut: true });
              }}
            >
              Pick a length that has not been used yet, as a check
            </NextThing>
          )
        }
      >
        {verdict.words}
      </Head>
      <div className="min-h-0 flex-1 overflow-y-auto">
        {checks.map((check) => {
          const result = report?.lengths.find((r) => r.id === check.id);
          return (
            <div key={check.id} className="border-b border-line px-4 py-3">
              <div className={`flex justify-between ${result?.suspect ? "text-rust" : "text-ochre"}`}>
                <span className="text-lg font-bold">{check.text}</span>
                <span className="font-semibold">{result ? difference(result.residualMm) : ""}</span>
              </div>
              <div className="text-[13px] text-quiet">
                {result && `reads ${fine(result.fittedMm, 1)}, expected within ${plusMinus(result.plusMinusMm)}`}
              </div>
            </div>
          );
        })}
        {findings.map((finding) => (
          <FindingRow key={finding.code + finding.things.join()} finding={finding} />
        ))}
        {ofStairs.map((finding) => (
          <div key={finding.code + finding.stair} className="border-b border-line px-4 py-3 text-rust">
            <p>{said(finding.message)}</p>
            <Plain
              onClick={() =>
                useDesk.setState({ selected: { type: "stair", id: finding.stair }, group: [], things: [] })
              }
            >
              Show the stair
            </Plain>
          </div>
        ))}
        {enclosed.findings.length > 0 && (
          <section className="divide-y divide-line border-b border-line px-4 py-2" aria-label="Enclosures">
            <EnclosureFindings findings={enclosed.findings} />
          </section>
        )}
        {desk.storey !== null && <Doubts storey={desk.storey} />}
        {desk.storey !== null && <WaysOut storey={desk.storey} />}
        {desk.storey !== null && <StandsOn storey={desk.storey} />}
        <RoomsTable />
        {Figures && <Figures.of storey={desk.storey} side={null} />}
        {Selected && desk.selected && <Selected key={desk.selected.id} id={desk.selected.id} />}
        {inOrder(rows.note.values())
          .filter((n) => n.assumption && n.storey === desk.storey)
          .map((n) => (
            <div key={n.id} className="border-b border-line px-4 py-2.5">
              <p>
                <span className="text-ochre">Assumed:</span> {n.words}
              </p>
              <Plain onClick={() => setView({ x: n.x, y: n.y, k: Math.max(useDesk.getState().view.k, 0.15) })}>
                Show the place
              </Plain>
            </div>
          ))}
        <MisfitPanel />
      </div>
    </>
  );
}
