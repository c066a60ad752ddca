import { useDesk } from "../../../board/desk";
import { TEAL } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import { useProject } from "../../../store/project";
import { height, plusMinus } from "../../../ui/measures";

/** Heights: a line across the drawing, and at the right its name, height and ±, the stated one heavier. */
export function Levels({ screen }: { screen: Map2 }) {
  const side = useDesk((s) => s.side);
  if (side === null) return null;
  return (
    <>
      <Of screen={screen} part="lines" />
      <Of screen={screen} part="words" />
    </>
  );
}

function Of({ screen, part }: { screen: Map2; part: "lines" | "words" }) {
  const drawing = useDesk((s) => s.drawing);
  const size = useDesk((s) => s.size);
  const marks = useProject((s) => s.rows.levelMark);
  const report = useProject((s) => (drawing === null ? undefined : s.fits.get(drawing)));
  const picks = useProject((s) => s.rows.pick);
  return (
    <g>
      {report?.levels.map((level) => {
        const mark = marks.get(level.id);
        const pick = mark && picks.get(mark.pick);
        if (!mark || !pick) return null;
        const y = apply(screen, [0, level.heightMm])[1];
        const right = size.width - 16;
        const words = `${mark.name} ${height(level.heightMm)}${level.statedMm !== null ? "" : level.plusMinusMm === null ? " by guess" : ` ${plusMinus(level.plusMinusMm)}`}`;
        const width = words.length * 7.2 + 22;
        return (
          <g key={level.id}>
            {part === "lines" ? (
              <line x1={12} x2={right - width} y1={y} y2={y} stroke={TEAL} strokeWidth={1.4} strokeDasharray="24 5" />
            ) : (
              <>
                <path
                  d={`M${right - width} ${y - 10}H${right}V${y + 10}H${right - width}L${right - width - 9} ${y}Z`}
                  fill="#faf8f3"
                  stroke={TEAL}
                  strokeWidth={level.statedMm !== null ? 2.4 : 1.4}
                />
                <text x={right - width + 10} y={y + 4.5} fontSize="13" fontWeight="600" fill={TEAL}>
                  {words}
                </text>
              </>
            )}
          </g>
        );
      })}
    </g>
  );
}
