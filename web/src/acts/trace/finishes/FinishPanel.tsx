import { useDesk } from "../../../board/desk";
import type { Place } from "../../../store/drawings";
import { sidesOf, typed, typedPlace } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import { inOrder } from "../../../store/rows";
import { area, inWords, typedAs, written } from "../../../ui/measures";
import { OneOf, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { SelectRow } from "../../SelectRow";
import { removeRow } from "../removing";
import {
  addFinish,
  type Finish,
  isUpright,
  nextFinish,
  patterned,
  removeFinish,
  type Surface,
  surfacesHere,
  useNextFinish,
  whereInWords,
} from "./finishes";
import { useAreas } from "./useAreas";

/** The finishes of the project, what the chosen one is, and what the next click lays it on. */
export function FinishOptions() {
  const { on, bottom, top } = useNextFinish();
  const rows = useProject((s) => s.rows);
  const finishes = inOrder(rows.finish.values());
  const chosen = nextFinish(rows);
  const upright = on === "walls" || on === "face";
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Finishes">
      <div className="flex flex-wrap gap-1.5">
        {finishes.map((f) => (
          <Plain key={f.id} pressed={f.id === chosen?.id} onClick={() => useNextFinish.setState({ finish: f.id })}>
            <Swatch colour={f.colour} /> {f.name}
          </Plain>
        ))}
      </div>
      <div className={`flex items-center gap-1.5 ${finishes.length > 0 ? "mt-2" : ""}`}>
        <span className="text-quiet">new:</span>
        {(["plain", "tiles", "boards"] as const).map((pattern) => (
          <Plain key={pattern} onClick={() => void addFinish(pattern)}>
            {pattern}
          </Plain>
        ))}
      </div>
      {chosen && <FinishFields finish={chosen} />}
      <div className="mt-3">
        <OneOf
          label="What a click lays it on"
          value={on}
          of={[
            ["floor", "floor"],
            ["ceiling", "ceiling"],
            ["walls", "walls"],
            ["face", "face"],
          ]}
          set={(next) => useNextFinish.setState({ on: next })}
        />
      </div>
      {upright && <Heights bottom={bottom} top={top} set={(values) => useNextFinish.setState(values)} />}
    </section>
  );
}

function Swatch({ colour }: { colour: string }) {
  return (
    <span
      className="mr-0.5 inline-block size-3 rounded-sm border border-line align-[-1px]"
      style={{ backgroundColor: colour }}
    />
  );
}

function FinishFields({ finish }: { finish: Finish }) {
  const reads = useProject((s) => s.role === "read");
  const set = (values: Record<string, unknown>) =>
    void change("Change a finish", [{ do: "set", type: "finish", id: finish.id, values }]);
  const { pattern } = finish;
  return (
    <div className="mt-2 border-t border-line pt-2">
      <div className="grid grid-cols-[1fr_auto] items-end gap-2">
        <Typed label="name" value={finish.name} set={(name) => set({ name })} />
        <label className="text-xs text-quiet">
          colour
          <input
            type="color"
            className="mt-0.5 block h-7 w-12 rounded border border-line bg-white p-0.5"
            value={finish.colour}
            disabled={reads}
            onChange={(e) => set({ colour: e.target.value })}
          />
        </label>
      </div>
      <div className="mt-2">
        <OneOf
          label="Pattern"
          value={pattern}
          of={[
            ["plain", "plain"],
            ["tiles", "tiles"],
            ["boards", "boards"],
          ]}
          set={(to) => set(patterned(finish, to))}
        />
      </div>
      {pattern !== "plain" && (
        <div className="mt-2 grid grid-cols-3 gap-2">
          {pattern === "tiles" ? (
            <Typed
              label="width × height"
              value={`${written(finish.width)} × ${written(finish.height)}`}
              set={(text) =>
                void sidesOf(text).then((sides) => {
                  if (sides) set({ width: sides[0], height: sides[1] });
                })
              }
            />
          ) : (
            <>
              <Typed
                label="width"
                value={typedAs(finish.width, 1)}
                set={(text) => void typed(text, (width) => set({ width }))}
              />
              <Typed
                label="length"
                value={finish.height === 0 ? "no end" : typedAs(finish.height)}
                set={(text) => void typedPlace(text, (height) => set({ height }))}
              />
            </>
          )}
          <Typed
            label="joint"
            value={typedAs(finish.joint, 1)}
            set={(text) => void typedPlace(text, (joint) => set({ joint }))}
          />
          {(pattern === "tiles" || finish.height > 0) && (
            <label className="block min-w-0 text-xs text-quiet">
              rows
              <select
                className="mt-0.5 h-7 w-full rounded border border-line bg-white px-1 text-[13px] text-ink"
                value={finish.bond}
                disabled={reads}
                onChange={(e) => set({ bond: e.target.value })}
              >
                <option value="stacked">in line</option>
                <option value="half">by halves</option>
                <option value="third">by thirds</option>
              </select>
            </label>
          )}
        </div>
      )}
      <div className="mt-2">
        <Plain danger onClick={() => void removeFinish(finish.id)}>
          Remove this finish
        </Plain>
      </div>
    </div>
  );
}

function Heights(props: {
  bottom: number | null;
  top: number | null;
  set: (values: { bottom?: number | null; top?: number | null }) => void;
}) {
  const { bottom, top, set } = props;
  return (
    <div className="mt-2 grid grid-cols-2 gap-2">
      <Typed
        label="from, above the floor"
        value={bottom === null ? "floor" : typedAs(bottom)}
        set={(text) => place(text, "floor", (mm) => set({ bottom: mm }))}
      />
      <Typed
        label="up to"
        value={top === null ? "all the way" : typedAs(top)}
        set={(text) => place(text, "all the way", (mm) => set({ top: mm }))}
      />
    </div>
  );
}

/** A place as typed, or the word for none. */
function place(text: string, none: string, take: (mm: number | null) => void): void {
  if (text.trim().toLowerCase() === none) take(null);
  else void typedPlace(text, take);
}

/** What has a finish on the storey, with its net area. */
export function SurfaceRows({ storey }: Place) {
  const rows = useProject((s) => s.rows);
  const isAtHand = useDesk((s) => s.act === "finishes");
  const surfaces = surfacesHere(rows, storey);
  const areas = useAreas(storey, isAtHand && surfaces.length > 0);
  if (!isAtHand) return null;
  return surfaces.map((s) => (
    <SelectRow key={s.id} type="surface" id={s.id}>
      <span>
        <Swatch colour={rows.finish.get(s.finish)?.colour ?? "#ffffff"} />{" "}
        <span className="font-semibold">{rows.finish.get(s.finish)?.name}</span>
        <span className="block text-[13px] text-quiet">{whereInWords(rows, s)}</span>
      </span>
      <span className="shrink-0">{areas.has(s.id) ? area(areas.get(s.id) ?? 0) : ""}</span>
    </SelectRow>
  ));
}

export function SelectedSurface({ id }: { id: string }) {
  const rows = useProject((s) => s.rows);
  const surface = rows.surface.get(id);
  const storey = rows.room.get(surface?.room ?? "")?.storey ?? rows.wall.get(surface?.wall ?? "")?.storey ?? null;
  const size = useAreas(storey, surface !== undefined).get(id);
  if (!surface) return null;
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "surface", id, values }]);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Surface">
      <div className="flex items-baseline justify-between text-teal">
        <span className="text-lg font-bold">{whereInWords(rows, surface)}</span>
        <span className="text-lg font-semibold">{size === undefined ? "" : area(size)}</span>
      </div>
      <label className="mt-1 block text-xs text-quiet">
        finish
        <select
          className="mt-0.5 h-7 w-full rounded border border-line bg-white px-1 text-[13px] text-ink"
          value={surface.finish}
          onChange={(e) => set("Another finish", { finish: e.target.value })}
        >
          {inOrder(rows.finish.values()).map((f) => (
            <option key={f.id} value={f.id}>
              {f.name}
            </option>
          ))}
        </select>
      </label>
      {isUpright(surface) && (
        <Heights bottom={surface.bottom} top={surface.top} set={(values) => set("How high a finish goes", values)} />
      )}
      {surface.wall !== null && <Stretch surface={surface} set={(values) => set("How far a finish goes", values)} />}
      <div className="mt-2 grid grid-cols-3 gap-2">
        <Typed
          label="begins at"
          value={typedAs(surface.x, 1)}
          set={(text) => void typedPlace(text, (x) => set("Where a pattern begins", { x }))}
        />
        <Typed
          label={isUpright(surface) ? "and at height" : "and at"}
          value={typedAs(surface.y, 1)}
          set={(text) => void typedPlace(text, (y) => set("Where a pattern begins", { y }))}
        />
        <Typed
          label="turned by, °"
          value={String(surface.degrees)}
          set={(text) => {
            const degrees = Number.parseFloat(text.replace(",", "."));
            if (Number.isFinite(degrees)) set("Turn a pattern", { degrees: degrees % 360 });
          }}
        />
      </div>
      <div className="mt-2 flex gap-1.5">
        <Plain onClick={() => set("Turn a pattern", { degrees: (surface.degrees + 45) % 360 })}>45° on</Plain>
        <Plain danger onClick={() => removeRow("surface", id, "Remove a finish from a surface")}>
          Remove
        </Plain>
      </div>
    </section>
  );
}

function Stretch({ surface, set }: { surface: Surface; set: (values: Record<string, unknown>) => void }) {
  return (
    <div className="mt-2 grid grid-cols-2 gap-2">
      <Typed
        label="along the wall from"
        value={surface.start === null ? "its start" : inWords(surface.start)}
        set={(text) => place(text, "its start", (start) => set({ start }))}
      />
      <Typed
        label="to"
        value={surface.end === null ? "its end" : inWords(surface.end)}
        set={(text) => place(text, "its end", (end) => set({ end }))}
      />
    </div>
  );
}
