import { newId } from "../../../api/ids";
import { clearDraft, useDesk } from "../../../board/desk";
import { typed } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { inOrder } from "../../../store/rows";
import { inWords, typedAs, written } from "../../../ui/measures";
import { count } from "../../../ui/numbers";
import { Link, OneOf, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { changeBuildUp, removeBuildUp } from "./buildUps";
import { GridOptions } from "./GridOptions";
import { steps, thicknesses, useWallOptions } from "./options";

/** How the next walls are traced. */
export function WallOptions() {
  const options = useWallOptions();
  const holdSquare = useDesk((s) => s.holdSquare);
  const kinds = inOrder(useProject((s) => s.rows.buildUp).values());
  const kind = kinds.find((k) => k.id === options.buildUp);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Walls to trace">
      <OneOf
        label="Shape"
        value={options.shape}
        of={[
          ["chain", "wall by wall"],
          ["rectangle", "a rectangle"],
          ["arc", "an arc"],
        ]}
        set={(shape) => {
          useWallOptions.setState({ shape });
          clearDraft();
        }}
      />
      <div className="mt-2 flex items-center justify-between gap-2">
        {kind ? (
          <span className="font-semibold">{written(kind.thickness)} thick</span>
        ) : (
          <div className="w-28">
            <Typed
              label="Thickness"
              value={typedAs(options.thickness, 1)}
              set={(text) =>
                void typed(text, (mm) => mm > 0 && mm <= 5000 && useWallOptions.setState({ thickness: mm }))
              }
            />
          </div>
        )}
        <select
          className="min-w-0 flex-1 rounded border border-line bg-white px-1 py-1"
          aria-label="Build-up"
          value={options.buildUp ?? ""}
          onChange={(e) => useWallOptions.setState({ buildUp: e.target.value === "" ? null : e.target.value })}
        >
          <option value="">no build-up</option>
          {kinds.map((k) => (
            <option key={k.id} value={k.id}>
              {k.name}
            </option>
          ))}
        </select>
      </div>
      {kind && <BuildUpFields kind={kind} />}
      {!kind && (
        <div className="mt-2 flex flex-wrap items-center gap-1.5">
          {thicknesses().map((mm) => (
            <Plain
              key={mm}
              pressed={options.thickness === mm}
              onClick={() => useWallOptions.setState({ thickness: mm })}
            >
              {written(mm)}
            </Plain>
          ))}
          <Link onClick={() => keepBuildUp(options.thickness)}>keep as a build-up</Link>
        </div>
      )}
      <fieldset className="mt-2 flex items-center gap-3">
        <legend className="sr-only">Line that is traced</legend>
        {(["left", "centre", "right"] as const).map((l) => (
          <label key={l} className="flex items-center gap-1">
            <input
              type="radio"
              name="line"
              checked={options.line === l}
              onChange={() => useWallOptions.setState({ line: l })}
            />
            {l === "centre" ? "centre" : `${l} face`}
          </label>
        ))}
        <kbd>X</kbd>
      </fieldset>
      <fieldset className="mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1">
        <legend className="sr-only">What corners hold to</legend>
        <label className="flex items-center gap-1">
          <input
            type="checkbox"
            checked={holdSquare}
            onChange={(e) => useDesk.setState({ holdSquare: e.target.checked })}
          />
          square <kbd>Q</kbd>
        </label>
        {(
          [
            ["tracing", "tracing"],
            ["ink", "ink"],
            ["lines", "exact lines"],
          ] as const
        ).map(([key, words]) => (
          <label key={key} className="flex items-center gap-1">
            <input
              type="checkbox"
              checked={options.snapTo[key]}
              onChange={(e) => useWallOptions.setState({ snapTo: { ...options.snapTo, [key]: e.target.checked } })}
            />
            {words}
          </label>
        ))}
      </fieldset>
      <label className="mt-1.5 flex items-center gap-2">
        clicked lengths
        <select
          className="rounded border border-line bg-white px-1 py-0.5"
          value={options.roundTo}
          onChange={(e) => useWallOptions.setState({ roundTo: Number(e.target.value) })}
        >
          {steps().map((mm) => (
            <option key={mm} value={mm}>
              {mm === 0 ? "as they fall" : `in steps of ${inWords(mm)}`}
            </option>
          ))}
        </select>
      </label>
      <GridOptions />
    </section>
  );
}

/** The build-up at hand: what is changed here changes every wall that has it. */
function BuildUpFields({ kind }: { kind: Thing<"buildUp"> }) {
  const walls = useProject((s) => [...s.rows.wall.values()].filter((w) => w.buildUp === kind.id).length);
  return (
    <>
      <div className="mt-2 grid grid-cols-3 gap-2">
        <Typed label="name" value={kind.name} set={(name) => void changeBuildUp(kind.id, { name })} />
        <Typed
          label="its thickness"
          value={typedAs(kind.thickness, 1)}
          set={(text) => void typed(text, (thickness) => changeBuildUp(kind.id, { thickness }))}
        />
        <Typed
          label="its height"
          value={kind.height === null ? "storey’s" : typedAs(kind.height)}
          set={(text) => void typed(text, (height) => changeBuildUp(kind.id, { height }))}
        />
      </div>
      <div className="mt-1.5 flex items-center gap-1.5">
        <Plain pressed={kind.enclosing} onClick={() => void changeBuildUp(kind.id, { enclosing: !kind.enclosing })}>
          Bounds rooms
        </Plain>
        <span className="flex-1 text-quiet">{walls === 0 ? "no wall has it yet" : count(walls, "wall")}</span>
        <Link onClick={() => void removeBuildUp(kind.id)}>remove</Link>
      </div>
    </>
  );
}

function keepBuildUp(thickness: number): void {
  const { rows } = useProject.getState();
  const same = [...rows.buildUp.values()].filter((k) => k.name.startsWith(`Wall ${thickness}`)).length;
  const id = newId();
  const name = same === 0 ? `Wall ${thickness}` : `Wall ${thickness}, ${same + 1}`;
  useWallOptions.setState({ buildUp: id });
  void change("Keep a build-up", [
    { do: "add", type: "buildUp", id, values: { name, thickness, height: null, enclosing: true } },
  ]);
}
