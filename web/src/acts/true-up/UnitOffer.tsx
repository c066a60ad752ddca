import { useState } from "react";
import { useProject } from "../../store/project";
import { showAllIn, writtenInFeet } from "../../store/units";
import { isImperial } from "../../ui/measures";
import { Link, Plain } from "../../ui/parts";

/** The drawing is in other units than sizes are shown in: one click, or never asked again for this project. */
export function UnitOffer({ texts }: { texts: readonly string[] }) {
  const [project] = useProject((s) => s.rows.project).values();
  const key = `plinth.unit-kept.${project?.id}`;
  const [kept, setKept] = useState(() => localStorage.getItem(key) !== null);
  const inFeet = writtenInFeet(texts);
  if (!project || kept || inFeet === null || inFeet === isImperial()) return null;
  return (
    <div className="flex items-center justify-between gap-2 border-b border-line bg-white px-4 py-2.5 text-[13px]">
      <span>Its figures are in {inFeet ? "feet and inches" : "metric units"}.</span>
      <span className="flex items-center gap-2">
        <Plain onClick={() => void showAllIn(project.id, inFeet ? "ft-in/16" : "mm")}>Show all sizes so</Plain>
        <Link
          onClick={() => {
            localStorage.setItem(key, "1");
            setKept(true);
          }}
        >
          Leave it
        </Link>
      </span>
    </div>
  );
}
