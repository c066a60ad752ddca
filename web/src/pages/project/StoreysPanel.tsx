import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { useState } from "react";
import type { Operation } from "../../api/client";
import { newId } from "../../api/ids";
import { type ActName, goTo, useDesk, useDeskFields } from "../../board/desk";
import { choosePlace } from "../../board/place";
import { drawingsOn } from "../../store/drawings";
import { typed } from "../../store/lengths";
import { sideOfFloor } from "../../store/levels";
import { others } from "../../store/presence";
import { change, useProject } from "../../store/project";
import type { Thing } from "../../store/rows";
import { storeysInOrder } from "../../store/storeys";
import { usualStoreyHeight } from "../../store/usual";
import { typedAs, unitWord } from "../../ui/measures";
import { count } from "../../ui/numbers";
import { Link, Plain } from "../../ui/parts";
import { Typed } from "../../ui/Typed";
import { goesWith } from "./goesWith";

/** Pixels of the section per metre of height. */
const PX_PER_M = 21;

/** Storeys one on the other with their heights, the one drawn on, and those that show through. */
export function StoreysPanel() {
  const { storey, through } = useDeskFields("storey", "through");
  useProject((s) => s.rows.storey);
  const storeys = storeysInOrder();
  return (
    <Popover className="relative">
      <PopoverButton className="rounded border border-line bg-white px-2 py-0.5">Storeys</PopoverButton>
      <PopoverPanel className="absolute top-full left-0 z-30 mt-1.5 w-[500px] whitespace-normal rounded-lg border border-line bg-sheet p-3 text-[13px] shadow-sm">
        <div className="flex justify-between">
          <Plain onClick={() => addStorey("above")}>Add above</Plain>
          <span className="text-quiet">heights floor to floor{unitWord() && `,${unitWord()}`}</span>
        </div>
        <div className="my-2">
          {[...storeys].reverse().map((s) => (
            <Slice key={s.id} storey={s} here={s.id === storey} through={s.id === through} />
          ))}
          <div className="h-1.5 border-t-2 border-ink" />
        </div>
        <div className="flex justify-between">
          <Plain onClick={() => addStorey("below")}>Add below</Plain>
          <span className="flex gap-1.5">
            <Plain onClick={() => addSide("Details")}>A side for details</Plain>
            <Plain onClick={() => addSide("Street", "street")}>A row of sides</Plain>
          </span>
        </div>
      </PopoverPanel>
    </Popover>
  );
}

function Slice({ storey, here, through }: { storey: Thing<"storey">; here: boolean; through: boolean }) {
  const rows = useProject((s) => s.rows);
  const derived = useProject((s) => s.derived.get(storey.id));
  const isComing = useProject((s) => s.missing.has(storey.id));
  const present = others(useProject((s) => s.present));
  const throughPicture = useDesk((s) => s.throughPicture);
  const [asks, setAsks] = useState(false);
  const goes = asks ? goesWith(rows, storey.id) : "";
  const walls = derived?.walls.size ?? 0;
  const base = rows.storey.get(storey.alternativeOf ?? "");
  // A height that no side shows was typed by hand.
  const fits = useProject((s) => s.fits);
  const above = storeysInOrder().find((s) => s.alternativeOf === null && s.elevation > storey.elevation);
  const from = sideOfFloor(rows, fits, storey);
  const ceiling = from && above ? sideOfFloor(rows, fits, above) : null;
  const set = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "set", type: "storey", id: storey.id, values }]);
  return (
    <div
      className={`border-x-4 border-t-2 border-ink px-2 pb-1 ${here ? "bg-white" : ""}`}
      style={{ minHeight: Math.max(56, (storey.height / 1000) * PX_PER_M) }}
    >
      <div className="flex items-center gap-2">
        <button
          type="button"
          aria-pressed={here}
          className={`w-24 shrink-0 text-left leading-tight ${here ? "font-bold" : "underline"}`}
          onClick={() => choosePlace({ storey: storey.id, side: null })}
        >
          {storey.name}
          <span className="block text-xs font-normal text-quiet no-underline">
            {base
              ? `alternative of ${base.name}`
              : isComing
                ? "is loading"
                : walls === 0
                  ? "empty"
                  : count(walls, "wall")}
          </span>
          <span className="block text-xs font-normal text-teal no-underline">
            {present
              .filter((p) => p.place === storey.id)
              .map((p) => p.name)
              .join(", ")}
          </span>
        </button>
        <div className="w-24">
          <Typed label="name" value={storey.name} set={(name) => set("Name a storey", { name })} />
        </div>
        <div className="w-28">
          <Typed
            label={ceiling ? `height, as on ${ceiling}` : "height, typed"}
            value={typedAs(storey.height)}
            set={(text) => void typed(text, (mm) => void setHeight(storey, mm))}
          />
        </div>
        <div className="flex flex-1 flex-col items-start gap-0.5">
          {!here && (
            <label className="flex items-center gap-1 whitespace-nowrap">
              <input
                type="checkbox"
                checked={through}
                onChange={(e) => useDesk.setState({ through: e.target.checked ? storey.id : null })}
              />
              shows through
            </label>
          )}
          {!here && through && (
            <label className="flex items-center gap-1 whitespace-nowrap">
              <input
                type="checkbox"
                checked={throughPicture}
                onChange={(e) => useDesk.setState({ throughPicture: e.target.checked })}
              />
              its drawings too
            </label>
          )}
          {here && !base && <Link onClick={() => void makeAlternative(storey)}>an alternative</Link>}
          {!isComing && !here && !asks && <Link onClick={() => setAsks(true)}>remove</Link>}
        </div>
      </div>
      {asks && (
        <p role="alert">
          {goes === "" ? `Nothing lies on ${storey.name}.` : `${storey.name} goes with ${goes}.`}{" "}
          <Plain
            danger
            onClick={() => void change(`Remove ${storey.name}`, [{ do: "remove", type: "storey", id: storey.id }])}
          >
            Remove it
          </Plain>{" "}
          <Plain onClick={() => setAsks(false)}>Keep it</Plain>
        </p>
      )}
    </div>
  );
}

/** The storeys above go along. */
async function setHeight(storey: Thing<"storey">, height: number): Promise<void> {
  const by = height - storey.height;
  const above = storeysInOrder().filter((s) => s.elevation > storey.elevation);
  await change("Storey height", [
    { do: "set", type: "storey", id: storey.id, values: { height } },
    ...above.map((s): Operation => ({ do: "set", type: "storey", id: s.id, values: { elevation: s.elevation + by } })),
  ]);
}

function addStorey(where: "above" | "below"): void {
  const storeys = storeysInOrder().filter((s) => s.alternativeOf === null);
  const next = where === "above" ? storeys.at(-1) : storeys[0];
  const height = next?.height ?? usualStoreyHeight();
  const elevation = !next ? 0 : where === "above" ? next.elevation + next.height : next.elevation - height;
  const id = newId();
  const values = { name: `Storey ${storeys.length + 1}`, elevation, height, alternativeOf: null };
  void change("Add a storey", [{ do: "add", type: "storey", id, values }]).then((refused) => {
    if (!refused) choosePlace({ storey: id, side: null });
  });
}

/** A side that has no line on the plan: details stand on one, and others in a row. */
function addSide(name: string, act: ActName | null = null): void {
  const id = newId();
  const known = [...useProject.getState().rows.side.values()].filter((s) => s.name.startsWith(name)).length;
  const values = { name: known === 0 ? name : `${name} ${known + 1}` };
  void change("Add a side", [{ do: "add", type: "side", id, values }]).then((refused) => {
    if (refused) return;
    choosePlace({ storey: null, side: id });
    goTo("trace", act);
  });
}

/** Another way for the same storey over the same drawings, which are locked: it begins as a copy. */
async function makeAlternative(storey: Thing<"storey">): Promise<void> {
  const known = storeysInOrder().filter((s) => s.alternativeOf === storey.id).length;
  const id = newId();
  const values = {
    name: `${storey.name} ${String.fromCharCode(66 + known)}`,
    elevation: storey.elevation,
    height: storey.height,
    alternativeOf: storey.id,
  };
  const refused = await change("Make an alternative", [
    { do: "add", type: "storey", id, values },
    { do: "copy", copy: { storey: storey.id, to: id } },
    ...drawingsOn(useProject.getState().rows, { storey: storey.id, side: null })
      .filter((d) => !d.locked)
      .map((d): Operation => ({ do: "set", type: "drawing", id: d.id, values: { locked: true } })),
  ]);
  if (!refused) choosePlace({ storey: id, side: null });
}
