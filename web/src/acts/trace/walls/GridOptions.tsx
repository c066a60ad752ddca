import { clearDraft, useDesk } from "../../../board/desk";
import { useGrid } from "../../../board/grid";
import { typed } from "../../../store/lengths";
import { useProject } from "../../../store/project";
import { typedAs, written } from "../../../ui/measures";
import { Link, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { useWallOptions } from "./options";
import { setWing } from "./wing";

/** What directions and corners are held to beside the building's own grid: a wing's, and a regular one of any spacing. */
export function GridOptions() {
  const storey = useDesk((s) => s.storey);
  const wing = useProject((s) => s.rows.storey.get(storey ?? "")?.wing ?? null);
  const asks = useWallOptions((s) => s.asks);
  const { spacing, origin, holds } = useGrid();
  const ask = (what: "wing" | "origin") => {
    clearDraft();
    useWallOptions.setState({ asks: asks === what ? null : what });
  };
  return (
    <details className="mt-2" open={wing !== null || spacing > 0 || asks !== null}>
      <summary className="cursor-pointer text-quiet">Grids: a wing’s, a regular one</summary>
      <div className="mt-1.5 flex items-end gap-2">
        <div className="w-28">
          <Typed
            label="a wing runs at"
            value={wing === null ? "none" : `${wing}°`}
            set={(text) => {
              const degrees = Number.parseFloat(text.replace(",", "."));
              void setWing(Number.isFinite(degrees) ? degrees : null);
            }}
          />
        </div>
        <Plain pressed={asks === "wing"} onClick={() => ask("wing")}>
          Point at it
        </Plain>
        {wing !== null && <Link onClick={() => void setWing(null)}>no wing</Link>}
      </div>
      <div className="mt-1.5 flex items-end gap-2">
        <div className="w-28">
          <Typed
            label="grid every"
            value={spacing > 0 ? typedAs(spacing) : "none"}
            set={(text) =>
              /^\s*(0|none)?\s*$/.test(text)
                ? useGrid.setState({ spacing: 0 })
                : void typed(text, (mm) => useGrid.setState({ spacing: mm, holds: true }))
            }
          />
        </div>
        <Plain pressed={asks === "origin"} onClick={() => ask("origin")}>
          {spacing > 0 && (origin[0] !== 0 || origin[1] !== 0)
            ? `from ${written(origin[0])}, ${written(origin[1])}`
            : "from the origin"}
        </Plain>
      </div>
      {spacing > 0 && (
        <label className="mt-1.5 flex items-center gap-1">
          <input type="checkbox" checked={holds} onChange={(e) => useGrid.setState({ holds: e.target.checked })} />
          corners hold to its crossings
        </label>
      )}
      {asks !== null && (
        <p className="mt-1.5 text-quiet">
          {asks === "wing" ? "Click a wall or a line of the drawing that runs with it." : "Click where it begins."}
        </p>
      )}
    </details>
  );
}
