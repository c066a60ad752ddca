import { useQuery } from "@tanstack/react-query";
import { api, settled } from "../../../api/client";
import { useDesk } from "../../../board/desk";
import { distance } from "../../../geometry/plane";
import { cornersIn, dimensionLine } from "../../../store/drawn";
import { typed, typedPlace } from "../../../store/lengths";
import { change, inProject, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { area, inWords, typedAs } from "../../../ui/measures";
import { count } from "../../../ui/numbers";
import { OneOf, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { Arrange } from "../../Arrange";
import { removeThings } from "../../arranging";
import { Elsewhere } from "../Elsewhere";
import { lineName } from "./DrawnRows";
import { setCorners } from "./editing";
import { FillOf, KindOf } from "./LineFields";
import { SweepsOf } from "./SweepPanel";

/** A selected line or shape, or several things that were drawn. */
export function LinePanel({ id }: { id: string }) {
  const things = useDesk((s) => s.things);
  const line = useProject((s) => s.rows.drawnLine.get(id));
  if (things.length > 0) return <SeveralPanel />;
  return line ? <OneLine line={line} /> : null;
}

function SeveralPanel() {
  const things = useDesk((s) => s.things);
  const lines = useProject((s) => s.rows.drawnLine);
  const chosen = things.flatMap(({ id }) => lines.get(id) ?? []);
  const [first] = chosen;
  const same = <T,>(of: (line: Thing<"drawnLine">) => T): T | null =>
    first && chosen.every((l) => of(l) === of(first)) ? of(first) : null;
  const set = (values: Record<string, unknown>) =>
    void change("Lines", [{ do: "setMany", type: "drawnLine", ids: chosen.map((l) => l.id), values }]);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Selected lines">
      <div className="text-lg font-bold text-teal">{count(things.length, "thing")}</div>
      {first && (
        <div className="mt-2 grid grid-cols-2 gap-2">
          <KindOf value={same((l) => l.kind)} set={(kind) => set({ kind })} />
          <FillOf value={same((l) => l.fill)} set={(fill) => set({ fill })} />
        </div>
      )}
      <Arrange things={things} />
      <div className="mt-2">
        <Plain danger onClick={() => void removeThings()}>
          Remove
        </Plain>
      </div>
    </section>
  );
}

function OneLine({ line }: { line: Thing<"drawnLine"> }) {
  const { id, closed } = line;
  const revision = line.revision;
  const { data } = useQuery({
    queryKey: ["drawn-line", id, revision],
    queryFn: () => settled(api.GET("/api/projects/{project}/drawn-lines/{id}", { params: { path: inProject(id) } })),
  });
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "drawnLine", id, values }]);
  const corners = cornersIn(line.line);
  const last = corners.length - (closed ? 0 : 1);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Selected line">
      <div className="flex items-baseline justify-between text-teal">
        <span className="text-lg font-bold">{lineName(line)}</span>
        <span className="text-lg font-semibold">
          {data && (data.areaM2 === null ? inWords(data.lengthMm) : area(data.areaM2))}
        </span>
      </div>
      {data?.areaM2 != null && <div className="text-quiet">{inWords(data.lengthMm)} round it</div>}
      <div className="mt-2 grid grid-cols-3 gap-2">
        <Typed
          label="name"
          value={line.name === "" ? "none" : line.name}
          set={(name) => set("Name a line", { name })}
        />
        <KindOf value={line.kind} set={(kind) => set("Kind of a line", { kind })} />
        <FillOf value={line.fill} set={(fill) => set("Fill of a shape", { fill })} />
      </div>
      <div className="mt-2 flex gap-1.5">
        <Plain pressed={closed} onClick={() => set(closed ? "Open a shape" : "Close a line", { closed: !closed })}>
          Closed
        </Plain>
        <Plain danger onClick={() => void removeThings()}>
          Remove
        </Plain>
      </div>
      <details className="mt-2">
        <summary className="cursor-pointer text-quiet">Its corners, by figures</summary>
        <ol aria-label="Corners">
          {corners.map((corner, i) => {
            const next = corners[(i + 1) % corners.length] ?? corner;
            const put = (title: string, changed: Partial<typeof corner>, of = i) =>
              void setCorners(
                id,
                title,
                corners.map((c, k) => (k === of ? { ...c, ...changed } : c)),
              );
            const [x, y] = corner.at;
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: corners have their place alone
              <li key={i} className="grid grid-cols-4 gap-1.5 border-t border-line py-1">
                <Typed
                  label="x"
                  value={typedAs(x, 1)}
                  set={(t) => void typedPlace(t, (mm) => put("Move a corner", { at: [mm, y] }))}
                />
                <Typed
                  label="y"
                  value={typedAs(y, 1)}
                  set={(t) => void typedPlace(t, (mm) => put("Move a corner", { at: [x, mm] }))}
                />
                {i < last && (
                  <>
                    <Typed
                      label="to the next"
                      value={typedAs(distance(corner.at, next.at), 1)}
                      set={(t) =>
                        void typed(t, (mm) => {
                          const part = mm / distance(corner.at, next.at);
                          const at = [x + part * (next.at[0] - x), y + part * (next.at[1] - y)] as const;
                          put("Length of a stretch", { at }, (i + 1) % corners.length);
                        })
                      }
                    />
                    <Typed
                      label="rise, left +"
                      value={typedAs(corner.rise, 1)}
                      set={(t) => void typedPlace(t, (rise) => put("Bow a stretch", { rise }))}
                    />
                  </>
                )}
              </li>
            );
          })}
        </ol>
      </details>
      <Arrange things={[{ type: "drawnLine", id }]} />
      {closed && <SweepsOf profile={line} />}
      {line.storey !== null && <Elsewhere things={[{ type: "drawnLine", id }]} />}
    </section>
  );
}

const WAYS = [
  ["straight", "straight"],
  ["level", "level"],
  ["upright", "upright"],
] as const;

export function DimensionPanel({ id }: { id: string }) {
  const dimension = useProject((s) => s.rows.dimension.get(id));
  if (!dimension) return null;
  const { direction, off } = dimension;
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "dimension", id, values }]);
  const way = direction === null ? "straight" : direction % 180 === 0 ? "level" : "upright";
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Selected dimension">
      <div className="text-lg font-bold text-teal">{inWords(dimensionLine(dimension).mm)}</div>
      <div className="mt-2">
        <OneOf
          label="Measured"
          value={way}
          of={WAYS}
          set={(to) => set("Way of a dimension", { direction: to === "straight" ? null : to === "level" ? 0 : 90 })}
        />
      </div>
      <div className="mt-2 grid grid-cols-3 gap-2">
        <Typed
          label="beside by, left +"
          value={typedAs(off, 1)}
          set={(text) => void typedPlace(text, (mm) => set("Move a dimension", { off: mm }))}
        />
      </div>
      <Arrange things={[{ type: "dimension", id }]} />
      {dimension.storey !== null && <Elsewhere things={[{ type: "dimension", id }]} />}
      <div className="mt-2">
        <Plain danger onClick={() => void removeThings()}>
          Remove
        </Plain>
      </div>
    </section>
  );
}
