import type { Schemas } from "../../api/client";
import { newId } from "../../api/ids";
import { change, useProject } from "../../store/project";
import type { Thing } from "../../store/rows";
import { isUnderWay, workKey } from "../../store/work";
import { Plain } from "../../ui/parts";
import { Work } from "../../ui/Work";
import { leaveCut } from "./cutting";
import { useMatching } from "./matching";

/** A newer version of a page that waits to take its place: how it lies on the older one, and the decision. */
export function NewerVersion({ page }: { page: Thing<"page"> }) {
  const rows = useProject((s) => s.rows);
  const found = useProject((s) => s.pages.get(page.id)?.registration);
  const matching = useProject((s) => s.work.get(workKey("match-pages", page.id)));
  const mmPerPixel = useProject((s) => {
    const drawing = [...rows.drawing.values()].find((d) => d.page === page.replaces);
    return drawing ? s.fits.get(drawing.id)?.mmPerPixel : undefined;
  });
  const source = rows.source.get(page.source);
  return (
    <div className="mt-2 rounded-md border border-ochre p-2 text-[13px]" data-testid="newer-version">
      <div className="font-semibold text-ochre">Newer version: {source?.name}</div>
      <Work kind="import-page" about={page.id} />
      {isUnderWay(matching) && <p className="text-quiet">Looking how it lies on the older page…</p>}
      {found && !isUnderWay(matching) && <p>{difference(found, mmPerPixel)}</p>}
      {matching?.state === "failed" && <p className="text-rust">{matching.words}</p>}
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        {found && (
          <Plain
            onClick={() => void change("Replace by a newer version", [{ do: "replace", replace: { page: page.id } }])}
          >
            Take its place
          </Plain>
        )}
        {(found ? !found.samePixels : matching?.state === "failed") && (
          <Plain
            onClick={() => {
              leaveCut();
              useMatching.setState({ page: page.id, pairs: [], key: newId() });
            }}
          >
            Pick the same points
          </Plain>
        )}
        <Plain onClick={() => void putAside(page)}>Put aside</Plain>
      </div>
    </div>
  );
}

function putAside(page: Thing<"page">) {
  return change("Put a newer version aside", [{ do: "remove", type: "source", id: page.source }]);
}

/** How the newer page differs, in words and figures. */
export function difference(found: Schemas["Registration"], mmPerPixel: number | undefined): string {
  if (found.samePixels) return "The same pixels: everything stays as it is.";
  const turn = found.turnDegrees;
  const [x, y] = [found.scaleX, found.scaleY];
  const parts: string[] = [];
  parts.push(
    Math.abs(turn) < 0.005 ? "not turned" : `turned ${Math.abs(turn).toFixed(2)}° ${turn > 0 ? "left" : "right"}`,
  );
  parts.push(`${Math.sqrt(x * y).toFixed(3)} × as fine`);
  if (Math.abs(x / y - 1) > 0.0005) parts.push(`${(Math.abs(x / y - 1) * 100).toFixed(2)} % wider than high`);
  const mm = mmPerPixel === undefined ? "" : ` (${(found.greatestPx * mmPerPixel).toFixed(1)} mm)`;
  return `It is ${parts.join(", ")}. ${found.points} places agree within ${found.rmsPx.toFixed(2)} px; the greatest difference is ${found.greatestPx.toFixed(2)} px${mm}.`;
}
