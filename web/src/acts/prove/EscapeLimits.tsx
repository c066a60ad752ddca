import { useState } from "react";
import type { Schemas } from "../../api/client";
import { newId } from "../../api/ids";
import { typed } from "../../store/lengths";
import { change, useProject } from "../../store/project";
import type { Thing } from "../../store/rows";
import { typedAs } from "../../ui/measures";
import { Plain } from "../../ui/parts";
import { Typed } from "../../ui/Typed";

type Measure = Schemas["EscapeMeasure"];

const NAMES: readonly (readonly [Measure, string])[] = [
  ["toExit", "to an exit, at most"],
  ["toFinal", "into the open air, at most"],
  ["single", "with one way only, at most"],
  ["angle", "between two ways, at least"],
  ["door", "narrowest door, at least"],
];

/** What stands for a limit that is not set, and is typed to set none. */
const NONE = "none";
/** What a limit says of where it comes from until its author does. */
const OWN = "the project’s own";

/** What the project asks of its ways out: nothing until somebody types it. */
export function EscapeLimits() {
  const [isOpen, setOpen] = useState(false);
  const limits = useProject((s) => s.rows.escapeLimit);
  return (
    <div className="mt-1 mb-1.5">
      <Plain pressed={isOpen} onClick={() => setOpen(!isOpen)}>
        {isOpen ? "Close the limits of ways" : "What ways are held against"}
      </Plain>
      {isOpen && limits.size === 0 && <p className="mt-1 text-quiet">Nothing yet: type what this project asks for.</p>}
      {isOpen &&
        NAMES.map(([measure, name]) => (
          <Limit
            key={measure}
            measure={measure}
            name={name}
            own={[...limits.values()].find((l) => l.measure === measure)}
          />
        ))}
    </div>
  );
}

function Limit({ measure, name, own }: { measure: Measure; name: string; own: Thing<"escapeLimit"> | undefined }) {
  const title = `A limit of ways out: ${name}`;
  const set = (values: { bound: number } | { standing: string }) =>
    void change(title, [
      own
        ? { do: "set", type: "escapeLimit", id: own.id, values }
        : { do: "add", type: "escapeLimit", id: newId(), values: { measure, standing: OWN, ...values } },
    ]);
  const isAngle = measure === "angle";
  return (
    <div className="mt-1.5 grid grid-cols-2 gap-2">
      <Typed
        label={name}
        value={own ? (isAngle ? `${own.bound}°` : typedAs(own.bound)) : NONE}
        set={(text) => {
          if (text.trim().toLowerCase() === NONE) {
            if (own) void change(title, [{ do: "remove", type: "escapeLimit", id: own.id }]);
          } else if (isAngle) {
            const bound = Number.parseFloat(text.replace(",", "."));
            if (bound > 0) set({ bound });
          } else void typed(text, (bound) => set({ bound }));
        }}
      />
      {own && <Typed label="by whose word" value={own.standing} set={(to) => set({ standing: to.trim() || OWN })} />}
    </div>
  );
}
