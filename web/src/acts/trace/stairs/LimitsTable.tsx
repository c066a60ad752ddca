import { useState } from "react";
import { newId } from "../../../api/ids";
import { typed, typedPitch } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import { typedAs } from "../../../ui/measures";
import { Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { type StairLimit, useStairs } from "../../useStairs";

const NAMES: Record<StairLimit["measure"], string> = {
  rise: "Rise",
  going: "Going",
  stride: "Twice the rise and a going",
  pitch: "Pitch",
  width: "Width",
  headroom: "Headroom",
  handrail: "Handrail",
  under: "Counted under it from",
};

/** What stands for a bound that is not set, and is typed to set none. */
const NONE = "none";

/** What a project’s own limit says of where it comes from until its author does. */
const OWN = "the project’s own";

/** What stairs are held against, with where it comes from; what is typed here is the project’s own. */
export function LimitsTable({ storey }: { storey: string | null }) {
  const [isOpen, setOpen] = useState(false);
  const { limits } = useStairs(storey);
  const own = useProject((s) => s.rows.stairLimit);
  if (limits.length === 0) return null;
  return (
    <div>
      <Plain pressed={isOpen} onClick={() => setOpen(!isOpen)}>
        {isOpen ? "Close the limits" : "What stairs are held against"}
      </Plain>
      {isOpen &&
        limits.map((limit) => (
          <Limit
            key={limit.measure}
            limit={limit}
            own={[...own.values()].filter((o) => o.measure === limit.measure).at(-1)?.id ?? null}
          />
        ))}
    </div>
  );
}

function Limit({ limit, own }: { limit: StairLimit; own: string | null }) {
  const { measure, least, most, standing } = limit;
  const isPitch = measure === "pitch";
  const title = `Limit of a stair’s ${NAMES[measure].toLowerCase()}`;
  const set = (values: Partial<StairLimit>) =>
    void change(title, [
      own === null
        ? { do: "add", type: "stairLimit", id: newId(), values: { ...limit, standing: OWN, ...values } }
        : { do: "set", type: "stairLimit", id: own, values },
    ]);
  const bound = (key: "least" | "most", value: number | null) => (
    <Typed
      label={key}
      value={value === null ? NONE : isPitch ? `${value}°` : typedAs(value)}
      set={(text) => {
        if (text.trim().toLowerCase() === NONE) return set({ [key]: null });
        void (isPitch ? typedPitch : typed)(text, (to) => set({ [key]: to }));
      }}
    />
  );
  return (
    <fieldset className="mt-2 border-t border-line pt-1.5">
      <legend className="sr-only">{NAMES[measure]}</legend>
      <div className="flex items-baseline justify-between">
        <span className="font-semibold">{NAMES[measure]}</span>
        {own !== null && (
          <Plain onClick={() => void change(title, [{ do: "remove", type: "stairLimit", id: own }])}>
            As is common
          </Plain>
        )}
      </div>
      <div className="grid grid-cols-2 gap-2">
        {measure !== "pitch" && bound("least", least)}
        {measure !== "under" && bound("most", most)}
      </div>
      {own === null ? (
        <p className="text-quiet">{standing}</p>
      ) : (
        <Typed label="by whose word" value={standing} set={(to) => set({ standing: to.trim() || OWN })} />
      )}
    </fieldset>
  );
}
