import { entriesOf, useActs, useCurrentAct } from "../../board/act";
import { setAct, useDeskFields } from "../../board/desk";
import { useProject } from "../../store/project";
import { streetParts } from "../../store/street";
import { count } from "../../ui/numbers";
import { Head, NextThing } from "../../ui/parts";
import { useSelectableSelected } from "../selected";
import { FacadeOpenings } from "./FacadeOpenings";
import { HiddenLines, LineOfSide } from "./LineOfSide";
import { SideOpenings } from "./SideOpenings";

/** What is marked and traced on a side: heights with their ±, and outlines with their sizes. */
export function SideLedger({ side }: { side: string }) {
  const { drawing, act, selected } = useDeskFields("drawing", "act", "selected");
  const rows = useProject((s) => s.rows);
  const report = useProject((s) => (drawing === null ? undefined : s.fits.get(drawing)));
  const reads = useProject((s) => s.role === "read");
  const Panel = useCurrentAct()?.Panel;
  const Selected = useSelectableSelected()?.Panel;
  const acts = useActs((s) => s.acts);
  const row = rows.side.get(side);
  const isRow = streetParts(rows, side).length > 0;
  const levels = report?.levels ?? [];
  const outlines = [...rows.outline.values()].filter((o) => o.side === side);
  const kinds = entriesOf("trace", true)
    .flatMap(({ act }) => acts.get(act)?.Rows ?? [])
    .sort((a, b) => a.rank - b.rank);
  const isDetail = rows.drawing.get(drawing ?? "")?.kind === "detail";
  const isPlaced = levels.some((l) => l.statedMm !== null);
  return (
    <>
      <Head
        title={
          drawing === null || isDetail
            ? (row?.name ?? "")
            : `${count(levels.length, "level")}, ${count(outlines.length, "outline")}`
        }
        next={
          act === null &&
          drawing !== null &&
          !isDetail &&
          !isPlaced && (
            <NextThing onClick={() => setAct("levels")}>
              Mark the ground floor’s finished level: it is zero for all sides
            </NextThing>
          )
        }
      >
        {drawing === null
          ? isRow
            ? "Sides in a row, each trued up by itself, joined at shared corners."
            : row?.cut
              ? "Cut through what stands, and what lies behind it."
              : "What stands, as it is seen from here. A drawing that is brought in for it lies behind it."
          : report?.plusMinusMmPer10m == null
            ? "The drawing is not trued up yet: heights are a guess until courses or a length say better."
            : isDetail
              ? "A detail at its own size. A shape drawn over it can be taken along a path."
              : isPlaced
                ? "Heights count from the finished level that was stated."
                : "Heights count from where the drawing happens to lie: no level is stated yet."}
      </Head>
      <div className="min-h-0 flex-1 overflow-y-auto" data-testid="levels">
        <fieldset disabled={reads} className="contents">
          {Panel && <Panel />}
          {Selected && <Selected key={selected?.id} id={selected?.id ?? ""} />}
        </fieldset>
        {drawing !== null && !isDetail && <FacadeOpenings side={side} drawing={drawing} />}
        <SideOpenings side={side} />
        {drawing === null && act === null && <LineOfSide side={side} />}
        {drawing !== null && act === null && row?.fromX != null && (
          <div className="border-b border-line px-4 py-3 text-[13px]">
            <HiddenLines />
          </div>
        )}
        {kinds.map((kind) => (
          <kind.of key={kind.rank} storey={null} side={side} />
        ))}
      </div>
    </>
  );
}
