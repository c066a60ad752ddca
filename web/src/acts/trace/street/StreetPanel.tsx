import { useDesk, useDrafted } from "../../../board/desk";
import { typedPlace } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import { inOrder } from "../../../store/rows";
import { type StandingPart, streetParts } from "../../../store/street";
import { inWords, typedAs, written } from "../../../ui/measures";
import { Link, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { addAll, addPart, askRow, movePart } from "./street";

/** Sides and photographs in a row: which stretch of each, and how high it stands. */
export function StreetPanel() {
  const side = useDesk((s) => s.side);
  const row = useProject((s) => s.rows.side.get(side ?? ""));
  const sides = useProject((s) => s.rows.side);
  const parts = useProject((s) => streetParts(s.rows, side));
  if (!row) return null;
  if (row.fromX !== null) {
    return (
      <p className="border-b border-line bg-white px-4 py-3 text-[13px] text-quiet">
        {row.name} has a line of its own. A row of sides is a side that has none: begin one under Storeys.
      </p>
    );
  }
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Row of sides">
      {parts.length > 0 && (
        <div className="text-lg font-bold text-teal">{inWords(parts.at(-1)?.right ?? 0)} in a row</div>
      )}
      <ol className="mt-1">
        {parts.map((part) => (
          <Part key={part.part.id} standing={part} name={sides.get(part.part.side)?.name ?? ""} />
        ))}
      </ol>
      {parts.length === 0 && (
        <div className="mb-2">
          <Plain onClick={() => void addAll()}>All sides of the building, round the corner</Plain>
        </div>
      )}
      <label className="block text-xs text-quiet">
        at its right end
        <select
          className="mt-0.5 h-7 w-full rounded border border-line bg-white px-1 text-[13px] text-ink"
          value=""
          onChange={(e) => void addPart(e.target.value)}
        >
          <option value="">put a side …</option>
          {inOrder(sides.values())
            .filter((s) => s.id !== side)
            .map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
        </select>
      </label>
    </section>
  );
}

function Part({ standing, name }: { standing: StandingPart; name: string }) {
  const { part, left } = standing;
  const asked = useDrafted("row");
  const asks = (what: "corners" | "level") => asked?.part === part.id && asked.asks === what;
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "streetPart", id: part.id, values }]);
  return (
    <li className="border-t border-line py-1.5">
      <div className="flex items-baseline justify-between">
        <span className="font-semibold">{name}</span>
        <span className="flex gap-2">
          <Link onClick={() => movePart(part, -1)}>left</Link>
          <Link onClick={() => movePart(part, 1)}>right</Link>
          <Link
            onClick={() => void change("Take a side out of a row", [{ do: "remove", type: "streetPart", id: part.id }])}
          >
            take out
          </Link>
        </span>
      </div>
      <div className="text-quiet">
        from {written(left)}, {inWords(part.toX - part.fromX)} wide
      </div>
      <div className="mt-1 grid grid-cols-3 gap-2">
        <Typed
          label="left corner"
          value={typedAs(part.fromX)}
          set={(text) => void typedPlace(text, (fromX) => set("Corners of a side in a row", { fromX }))}
        />
        <Typed
          label="right corner"
          value={typedAs(part.toX)}
          set={(text) => void typedPlace(text, (toX) => set("Corners of a side in a row", { toX }))}
        />
        <Typed
          label="higher by"
          value={typedAs(part.rise)}
          set={(text) => void typedPlace(text, (rise) => set("Heights of a row at one zero", { rise }))}
        />
      </div>
      <div className="mt-1.5 flex flex-wrap items-center gap-1.5">
        <Plain pressed={asks("corners")} onClick={() => askRow("corners", part.id)}>
          Its corners…
        </Plain>
        <Plain pressed={asks("level")} onClick={() => askRow("level", part.id)}>
          As high as…
        </Plain>
      </div>
    </li>
  );
}
