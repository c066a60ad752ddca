import { useDeskFields, useDrafted } from "../../../board/desk";
import { typed } from "../../../store/lengths";
import { useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { inOrder } from "../../../store/rows";
import { wallLine } from "../../../store/walls";
import { inWords, typedAs, written } from "../../../ui/measures";
import { Link, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { type Asked, ask } from "../../asked";
import { Elsewhere } from "../Elsewhere";
import { setBuildUp } from "./buildUps";
import { removeWalls, reverse, setLength, setOfWalls, setThickness } from "./editing";
import { thicknesses } from "./options";

/** One selected wall, or several that are changed at once. */
export function SelectedWalls() {
  const { selected, group } = useDeskFields("selected", "group");
  const ids = group.length > 0 ? group : selected ? [selected.id] : [];
  const rows = useProject((s) => s.rows);
  const walls = ids.flatMap((id) => rows.wall.get(id) ?? []);
  const [first] = walls;
  if (!first) return null;
  const line = walls.length === 1 ? wallLine(rows, first.id) : undefined;
  const height = rows.storey.get(first.storey)?.height ?? 0;
  const same = <T,>(of: (wall: Thing<"wall">) => T): T | undefined =>
    walls.every((w) => of(w) === of(first)) ? of(first) : undefined;
  const thickness = same((w) => w.thickness);
  const own = same((w) => w.height);
  const enclosing = same((w) => w.enclosing);
  const toCeiling = same((w) => w.toCeiling);
  const railing = same((w) => w.railing);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Selected walls">
      <div className="flex items-baseline justify-between text-teal">
        <span className="text-lg font-bold">{line ? titleOf(first) : `${walls.length} walls`}</span>
        <span className="text-lg font-semibold">{line ? written(line.length) : inWords(sum(walls, rows))}</span>
      </div>
      {line && (
        <div className="text-quiet">
          traced along its {first.line === "centre" ? "centre" : `${first.line} face`} · rests on {first.evidence}
        </div>
      )}
      <div className="mt-2 grid grid-cols-3 gap-2">
        <Typed
          label="thickness"
          value={thickness === undefined ? "several" : typedAs(thickness, 1)}
          set={(text) => void typed(text, (mm) => setThickness(ids, mm))}
        />
        <Typed
          label={own === null ? "height, storey’s" : "height"}
          value={own === undefined ? "several" : typedAs(own ?? height)}
          set={(text) => void typed(text, (mm) => setOfWalls("Height", ids, { height: mm }))}
        />
        {line && first.rise !== 0 ? (
          <Typed
            label="rise"
            value={typedAs(Math.abs(first.rise))}
            set={(text) => void typed(text, (mm) => setOfWalls("Rise", ids, { rise: first.rise < 0 ? -mm : mm }))}
          />
        ) : (
          <BuildUpOf ids={ids} value={same((w) => w.buildUp)} />
        )}
      </div>
      {line && first.rise === 0 && (
        <div className="mt-2 grid grid-cols-3 gap-2">
          <Typed
            label="length"
            value={typedAs(line.length, 1)}
            set={(text) => void typed(text, (mm) => setLength(first.id, mm))}
          />
        </div>
      )}
      <div className="mt-2 flex flex-wrap gap-1.5">
        {thicknesses().map((mm) => (
          <Plain key={mm} pressed={thickness === mm} onClick={() => void setThickness(ids, mm)}>
            {written(mm)}
          </Plain>
        ))}
        {own !== null && <Link onClick={() => void setOfWalls("Height", ids, { height: null })}>storey’s height</Link>}
      </div>
      <div className="mt-2 flex flex-wrap gap-1.5">
        {line && (
          <>
            <Ask kind="split" wall={first.id}>
              Split
            </Ask>
            <Ask kind="join" wall={first.id}>
              Merge with…
            </Ask>
            <Ask kind="end" wall={first.id}>
              End it at…
            </Ask>
            <Ask kind="beside" wall={first.id}>
              Copy beside
            </Ask>
          </>
        )}
        <Plain onClick={() => void reverse(ids)}>Turn round</Plain>
        <Plain
          pressed={enclosing === true}
          onClick={() => void setOfWalls("Encloses", ids, { enclosing: enclosing !== true })}
        >
          Bounds rooms
        </Plain>
        <Plain
          pressed={toCeiling === true}
          onClick={() => void setOfWalls("Ends under the ceiling", ids, { toCeiling: toCeiling !== true })}
        >
          Up to the ceiling
        </Plain>
        <Plain
          pressed={railing === true}
          onClick={() =>
            void setOfWalls("A railing", ids, railing ? { railing: false } : { railing: true, enclosing: false })
          }
        >
          A railing
        </Plain>
        <Plain danger onClick={() => void removeWalls(ids)}>
          Remove
        </Plain>
      </div>
      <Elsewhere things={ids.map((id) => ({ type: "wall", id }))} />
    </section>
  );
}

function titleOf({ railing, rise }: Thing<"wall">): string {
  if (railing) return rise === 0 ? "Railing" : "Curved railing";
  return rise === 0 ? "Wall" : "Curved wall";
}

function Ask({ kind, wall, children }: { kind: Asked; wall: string; children: string }) {
  const asked = useDrafted("asked");
  return (
    <Plain pressed={asked?.kind === kind && asked.wall === wall} onClick={() => ask(kind, wall)}>
      {children}
    </Plain>
  );
}

function BuildUpOf({ ids, value }: { ids: readonly string[]; value: string | null | undefined }) {
  const kinds = inOrder(useProject((s) => s.rows.buildUp).values());
  return (
    <label className="block min-w-0 text-xs text-quiet">
      build-up
      <select
        className="mt-0.5 w-full rounded border border-line bg-white px-1 py-1.5 text-[13px] text-ink"
        value={value ?? ""}
        onChange={(e) => void setBuildUp(ids, e.target.value === "" ? null : e.target.value)}
      >
        <option value="">{value === undefined ? "several" : "none"}</option>
        {kinds.map((k) => (
          <option key={k.id} value={k.id}>
            {k.name}
          </option>
        ))}
      </select>
    </label>
  );
}

function sum(walls: readonly Thing<"wall">[], rows: Parameters<typeof wallLine>[0]): number {
  return walls.reduce((total, w) => total + (wallLine(rows, w.id)?.length ?? 0), 0);
}
