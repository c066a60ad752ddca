import { height } from "../board/Elevation";
import { setAct, useDeskFields } from "../desk/desk";
import { plusMinus } from "../desk/numbers";
import { inOrder } from "../desk/selectors";
import { removeStatement } from "../desk/statements";
import { count } from "../steps/status";
import { useProject } from "../store/project";
import { Head, Link, NextThing } from "./parts";
import { OutlineRow } from "./trace/OutlinePanel";

/** What is marked and traced on a side: heights with their ±, and outlines with their sizes. */
export function SideLedger({ side }: { side: string }) {
  const { drawing, act } = useDeskFields("drawing", "act");
  const rows = useProject((s) => s.rows);
  const report = useProject((s) => (drawing === null ? undefined : s.fits.get(drawing)));
  const levels = [...(report?.levels ?? [])].reverse();
  const outlines = inOrder(rows.outline.values()).filter((o) => o.side === side);
  const isPlaced = levels.some((l) => l.statedMm !== null);
  return (
    <>
      <Head
        title={`${count(levels.length, "level")}, ${count(outlines.length, "outline")}`}
        next={
          act === null &&
          drawing !== null &&
          !isPlaced && (
            <NextThing onClick={() => setAct("levels")}>
              Mark the ground floor’s finished level: it is zero for all sides
            </NextThing>
          )
        }
      >
        {report?.plusMinusMmPer10m == null
          ? "The drawing is not trued up yet: heights are a guess until courses or a length say better."
          : isPlaced
            ? "Heights count from the finished level that was stated."
            : "Heights count from where the drawing happens to lie: no level is stated yet."}
      </Head>
      <div className="min-h-0 flex-1 overflow-y-auto" data-testid="levels">
        {levels.map((level) => {
          const mark = rows.levelMark.get(level.id);
          if (!mark) return null;
          return (
            <div key={level.id} className="flex items-baseline justify-between gap-2 border-b border-line px-4 py-2">
              <span>
                <span className="block font-semibold text-teal">{mark.name}</span>
                <span className="text-[13px] text-quiet">{mark.kind}</span>
              </span>
              <span className="text-right">
                <span className="block text-lg font-semibold">{height(level.heightMm)}</span>
                <span className="text-[13px] text-quiet">
                  {level.statedMm !== null
                    ? "stated"
                    : level.plusMinusMm === null
                      ? "by guess"
                      : plusMinus(level.plusMinusMm)}{" "}
                  <Link onClick={() => void removeStatement("levelMark", mark.id)}>Remove</Link>
                </span>
              </span>
            </div>
          );
        })}
        {outlines.map((outline) => (
          <OutlineRow key={outline.id} outline={outline} />
        ))}
      </div>
    </>
  );
}
