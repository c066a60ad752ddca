import type { Schemas } from "../../api/client";
import { NOTHING_SELECTED, useDesk } from "../../board/desk";
import { change, useProject } from "../../store/project";
import { storeysInOrder } from "../../store/storeys";

/** Things that were drawn on a storey, moved or copied to another one, with what stands on them; nothing where there is none. */
export function Elsewhere({ things }: { things: readonly Schemas["Drawn"][] }) {
  const storey = useDesk((s) => s.storey);
  useProject((s) => s.rows.storey);
  const others = storeysInOrder().filter((s) => s.id !== storey);
  if (storey === null || others.length === 0) return null;
  return (
    <div className="mt-2 flex items-center gap-1.5 text-quiet">
      <To words="Move to" others={others} go={(to) => void move(things, to)} />
      <To words="Copy to" others={others} go={(to) => void copy(things, to)} />
    </div>
  );
}

function To(props: { words: string; others: readonly { id: string; name: string }[]; go: (storey: string) => void }) {
  return (
    <select
      className="min-w-0 flex-1 rounded border border-line bg-white px-1 py-0.5 text-ink"
      aria-label={`${props.words} another storey`}
      value=""
      onChange={(e) => props.go(e.target.value)}
    >
      <option value="">{props.words} …</option>
      {props.others.map((s) => (
        <option key={s.id} value={s.id}>
          {s.name}
        </option>
      ))}
    </select>
  );
}

const nameOf = (storey: string) => useProject.getState().rows.storey.get(storey)?.name ?? "another storey";

/** What is moved is not here any more, and not selected. */
export async function move(things: readonly Schemas["Drawn"][], storey: string): Promise<void> {
  const refused = await change(`Move to ${nameOf(storey)}`, [
    { do: "toStorey", toStorey: { things: [...things], storey } },
  ]);
  if (!refused) useDesk.setState(NOTHING_SELECTED);
}

export async function copy(things: readonly Schemas["Drawn"][], to: string): Promise<void> {
  await change(`Copy to ${nameOf(to)}`, [{ do: "copy", copy: { things: [...things], to } }]);
}
