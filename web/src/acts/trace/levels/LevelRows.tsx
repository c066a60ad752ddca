import type { FitReport } from "../../../api/client";
import { useDesk } from "../../../board/desk";
import { change, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { height, inWords, plusMinus } from "../../../ui/measures";
import { Link, Plain } from "../../../ui/parts";
import { removeStatement } from "../../statements";
import { differing, takeOf } from "./takes";

/** Heights of the drawing at hand, the highest first, each with its ± or that it was stated. */
export function LevelRows() {
  const drawing = useDesk((s) => s.drawing);
  const marks = useProject((s) => s.rows.levelMark);
  const report = useProject((s) => (drawing === null ? undefined : s.fits.get(drawing)));
  return [...(report?.levels ?? [])].reverse().map((level) => {
    const mark = marks.get(level.id);
    if (!mark) return null;
    return (
      <div key={level.id} className="border-b border-line px-4 py-2">
        <div className="flex items-baseline justify-between gap-2">
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
        <Says mark={mark} level={level} />
      </div>
    );
  });
}

/** What the level says of the building, taken by one click; and which other side says something else. */
function Says({ mark, level }: { mark: Thing<"levelMark">; level: FitReport["levels"][number] }) {
  const rows = useProject((s) => s.rows);
  const fits = useProject((s) => s.fits);
  const reads = useProject((s) => s.role === "read");
  const take = takeOf(rows, mark, level);
  return (
    <>
      {take && (
        <p className="mt-1 flex items-baseline justify-between gap-2 text-[13px]">
          <span className="text-quiet">
            {take.of} {take.agrees ? "is there" : `is at ${height(take.nowMm)}`}
          </span>
          {!take.agrees && !reads && <Plain onClick={() => void change(take.title, take.operations)}>Set it</Plain>}
        </p>
      )}
      {differing(rows, fits, mark, level).map(({ side, byMm }) => (
        <p key={side} className="mt-1 text-[13px] text-rust">
          {side} has it {inWords(Math.abs(byMm))} {byMm > 0 ? "higher" : "lower"}
        </p>
      ))}
    </>
  );
}
