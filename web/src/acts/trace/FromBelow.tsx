import { change, useProject } from "../../store/project";
import { storeysInOrder } from "../../store/storeys";
import { wallLines } from "../../store/walls";
import { Plain } from "../../ui/parts";
import { copyWalls, outerWalls } from "./copying";

/** An empty storey begins with the walls of one below or above it. */
export function FromBelow({ storey }: { storey: string }) {
  const rows = useProject((s) => s.rows);
  const others = storeysInOrder().filter((s) => s.id !== storey && wallLines(rows, s.id).length > 0);
  if (others.length === 0) return null;
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Walls of another storey">
      {others.map((s) => (
        <div key={s.id} className="py-1">
          <div className="text-quiet">What is drawn on {s.name}:</div>
          <div className="mt-1 flex flex-wrap gap-1.5">
            <Plain
              onClick={() => {
                const outer = outerWalls(s.id);
                void copyWalls(s.id, storey, (id) => outer.has(id));
              }}
            >
              Copy outer walls
            </Plain>
            <Plain onClick={() => void copyWalls(s.id, storey, () => true)}>Copy all walls</Plain>
            <Plain onClick={() => void change(`Copy ${s.name}`, [{ do: "copy", copy: { storey: s.id, to: storey } }])}>
              Copy everything
            </Plain>
            <Plain
              onClick={() =>
                void change(`Move all of ${s.name}`, [{ do: "toStorey", toStorey: { from: s.id, storey } }])
              }
            >
              Move everything here
            </Plain>
          </div>
        </div>
      ))}
    </section>
  );
}
