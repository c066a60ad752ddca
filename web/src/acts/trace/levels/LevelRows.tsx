import { useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { height, plusMinus } from "../../../ui/measures";
import { Link } from "../../../ui/parts";
import { removeStatement } from "../../statements";

/** Heights of the drawing at hand, the highest first, each with its ± or that it was stated. */
export function LevelRows() {
  const drawing = useDesk((s) => s.drawing);
  const marks = useProject((s) => s.rows.levelMark);
  const report = useProject((s) => (drawing === null ? undefined : s.fits.get(drawing)));
  return [...(report?.levels ?? [])].reverse().map((level) => {
    const mark = marks.get(level.id);
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
  });
}
