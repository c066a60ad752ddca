import { entriesOf, useActs, useCurrentAct } from "../../board/act";
import { useDeskFields } from "../../board/desk";
import { useProject } from "../../store/project";
import { wallLines } from "../../store/walls";
import { area, unitWord } from "../../ui/measures";
import { count } from "../../ui/numbers";
import { Head, NextThing } from "../../ui/parts";
import { useSelectableSelected } from "../selected";
import { FromBelow } from "./FromBelow";
import { SideLedger } from "./SideLedger";

/** What is traced on the storey or side: how much, what comes next, what the act at hand asks, and all rows by kind. */
export function TraceLedger() {
  const { storey, side } = useDeskFields("storey", "side");
  if (storey !== null) return <OfStorey storey={storey} />;
  return side === null ? null : <SideLedger side={side} />;
}

/** What is said of a thing stands above the rows: chosen far down in them, it would not be seen. */
const intoSight = (node: HTMLElement | null) => node?.scrollIntoView?.({ block: "nearest" });

function OfStorey({ storey }: { storey: string }) {
  const { drawing, selected } = useDeskFields("drawing", "selected", "group", "act");
  const rows = useProject((s) => s.rows);
  const shapes = useProject((s) => s.derived.get(storey));
  const guess = useProject((s) => drawing !== null && s.fits.get(drawing)?.plusMinusMmPer10m == null);
  const reads = useProject((s) => s.role === "read");
  const acts = useActs((s) => s.acts);
  const Panel = useCurrentAct()?.Panel;
  const Selected = useSelectableSelected()?.Panel;
  const lines = wallLines(rows, storey);
  const regions = shapes?.regions.size ?? 0;
  // Where nothing is built on it yet, a site is its boundaries.
  const boundariesHere = [...rows.boundary.values()].filter((b) => b.storey === storey).length;
  const isOfSite = boundariesHere > 0 || rows.drawing.get(drawing ?? "")?.kind === "site";
  const isSite = lines.length === 0 && isOfSite;
  const here = entriesOf("trace", false).flatMap(({ act }) => acts.get(act) ?? []);
  const [next] = here.flatMap((act) => act.next?.(storey) ?? []).sort((a, b) => a.rank - b.rank);
  const kinds = here.flatMap((act) => act.Rows ?? []).sort((a, b) => a.rank - b.rank);
  return (
    <>
      <Head
        title={isSite ? count(boundariesHere, "boundary") : `${count(lines.length, "wall")}, ${count(regions, "room")}`}
        next={next && !reads && <NextThing onClick={next.go}>{next.words}</NextThing>}
      >
        {guess
          ? "The drawing is not trued up yet: what is traced now is carried along when it is."
          : !shapes || regions === 0
            ? isSite
              ? "A site: nothing is built on it yet."
              : "Nothing is enclosed yet."
            : `${area(shapes.areas.netFloorM2)} net floor area, ${area(shapes.areas.grossFloorM2)} gross.`}
      </Head>
      <div className="min-h-0 flex-1 overflow-y-auto">
        {/* Who only reads sees what is selected, and can change nothing of it. */}
        <fieldset disabled={reads} className="contents">
          {Panel && <Panel />}
          {Selected && (
            <div key={selected?.id} ref={intoSight}>
              <Selected id={selected?.id ?? ""} />
            </div>
          )}
        </fieldset>
        {lines.length === 0 && !reads && <FromBelow storey={storey} />}
        {kinds.map((kind) => (
          <kind.of key={kind.rank} storey={storey} side={null} />
        ))}
      </div>
      <footer className="border-t border-line px-4 py-2.5 text-[13px] text-quiet">
        Net areas to inner faces. Lengths along centre lines{unitWord() && `,${unitWord()}`}. Esc puts the act down: a
        click selects then, Shift and drag selects walls.
      </footer>
    </>
  );
}
