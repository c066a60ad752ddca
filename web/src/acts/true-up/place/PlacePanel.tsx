import { useState } from "react";
import type { Operation, Refused } from "../../../api/client";
import { api, settled } from "../../../api/client";
import { newId } from "../../../api/ids";
import { clearDraft, useDesk, useDeskFields, useDrafted } from "../../../board/desk";
import { read } from "../../../board/slip";
import { projectUnit } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import { difference, unitWord, written } from "../../../ui/measures";
import { Field, OneOf, Plain } from "../../../ui/parts";
import { sendStatement } from "../../statements";
import { usePlanCorners } from "./corners";
import { type NudgeStep, nudgeMm, nudgePlace, placeAlong, usePlacing } from "./placing";
import { foursides } from "./sides";

/** A point of the drawing goes onto the origin, a place, or a crossing of the setting-out grid; the grid itself is typed or picked. */
export function PlacePanel() {
  const placing = usePlacing((s) => s.placing);
  const axes = useProject((s) => s.rows.gridAxis);
  const { storey, side, drawing } = useDeskFields("storey", "side", "drawing");
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Place">
      <OneOf
        label="The next pick is"
        value={placing}
        of={[
          ["point", "a point"],
          ["axis x", "axis up"],
          ["axis y", "axis across"],
          ...(storey === null ? [] : [["side", "a side"] as const, ["section", "a section"] as const]),
        ]}
        set={(value) => {
          usePlacing.setState({ placing: value });
          clearDraft();
        }}
      />
      <p className="mt-2 text-quiet">
        {placing === "point"
          ? `Point near a corner or column, then type where it lies${axes.size > 0 ? ", B/2 for a crossing," : ""} or click what it belongs onto: a traced corner, another drawing’s point, or what shows through of another storey. Two give size and turn as well.`
          : placing === "side"
            ? "Pick the left end of the side and then its right end, as you look at it from outside, and say which side it is."
            : placing === "section"
              ? "Pick where the cut begins and where it ends, from left to right as you look at what lies behind it, and name it: A, for one."
              : "Point at the axis on the drawing and give its label."}
      </p>
      {storey !== null && placing === "point" && <ShowsThrough storey={storey} />}
      {drawing !== null && <KeepsSize drawing={drawing} />}
      {storey !== null && <FourSides storey={storey} />}
      {side !== null && <SideState side={side} />}
      <Nudge />
      <SpacedAxes along="x" first="1" />
      <SpacedAxes along="y" first="A" />
      <Columns />
    </section>
  );
}

/** The other storeys, each to show through or not: what a drawing is placed onto. Where nothing is traced its drawings show. */
function ShowsThrough({ storey }: { storey: string }) {
  const { through } = useDeskFields("through");
  const storeys = useProject((s) => s.rows.storey);
  const others = [...storeys.values()].filter((s) => s.id !== storey).sort((a, b) => a.elevation - b.elevation);
  if (others.length === 0) return null;
  const toggle = (id: string) => {
    const isTraced = (useProject.getState().derived.get(id)?.walls.size ?? 0) > 0;
    useDesk.setState(through === id ? { through: null } : { through: id, throughPicture: !isTraced });
  };
  return (
    <fieldset className="mt-2 flex flex-wrap gap-1" aria-label="What shows through">
      {others.map(({ id, name }) => (
        <Plain key={id} pressed={through === id} onClick={() => toggle(id)}>
          {name} shows through
        </Plain>
      ))}
    </fieldset>
  );
}

/** Whether points only move and turn the drawing, or say its size as well. */
function KeepsSize({ drawing }: { drawing: string }) {
  const row = useProject((s) => s.rows.drawing.get(drawing));
  return (
    <label className="mt-2 flex items-center gap-1.5">
      <input
        type="checkbox"
        checked={row?.keepsSize ?? false}
        onChange={(e) =>
          void sendStatement(e.target.checked ? "Points keep its size" : "Points say its size", [
            { do: "set", type: "drawing", id: drawing, values: { keepsSize: e.target.checked } },
          ])
        }
      />
      points keep its size: they move and turn it only
    </label>
  );
}

function FourSides({ storey }: { storey: string }) {
  const nodes = useProject((s) => s.rows.node);
  const sides = useProject((s) => s.rows.side);
  if (![...nodes.values()].some((n) => n.storey === storey)) return null;
  const lines = [...sides.values()].filter((s) => s.fromX !== null).length;
  return (
    <div className="mt-2 flex items-center justify-between gap-2 border-t border-line pt-2">
      <span className="text-quiet">{lines === 0 ? "No side has a line yet." : `${lines} sides have their line.`}</span>
      <Plain onClick={() => void foursides(storey)}>All four round the tracing</Plain>
    </div>
  );
}

/** On a side: whether it stands anywhere yet. */
function SideState({ side }: { side: string }) {
  const row = useProject((s) => s.rows.side.get(side));
  const corners = usePlanCorners(side);
  const picked = useDrafted("picks")?.picks.length === 1;
  return (
    <div className={`mt-2 border-t border-line pt-2 ${row?.fromX === null ? "text-rust" : "text-quiet"}`}>
      {row?.fromX === null
        ? "This side has no line on the plan yet, so nothing of the plan shows here: go to a storey, Place, and draw it there."
        : "Dotted lines are the plan’s corners: pick a corner of this drawing, then click the line it belongs onto, or take it here. Its height comes from a level mark."}
      {picked && corners.length > 0 && (
        <div className="mt-1.5 flex flex-wrap items-center gap-1.5">
          onto the plan’s corner at
          {corners.map((along) => (
            <Plain key={along} onClick={() => void placeAlong(along)}>
              {written(along)}
            </Plain>
          ))}
        </div>
      )}
    </div>
  );
}

const STEPS = ["1 px", "1 mm", "10 mm"] as const;

/** The whole drawing a little to one side, with how far it has gone since. */
function Nudge() {
  const [step, setStep] = useState<NudgeStep>("1 mm");
  const [shift, setShift] = useState<readonly [number, number]>([0, 0]);
  const go = async (dx: number, dy: number) => {
    const mm = nudgeMm(step);
    await nudgePlace(dx * mm, dy * mm);
    setShift(([x, y]) => [x + dx * mm, y + dy * mm]);
  };
  const arrow = (words: string, sign: string, dx: number, dy: number) => (
    <button
      type="button"
      className="size-7 rounded border border-line bg-white"
      aria-label={`Nudge ${words}`}
      onClick={() => void go(dx, dy)}
    >
      {sign}
    </button>
  );
  return (
    <fieldset className="mt-2 flex items-center gap-1.5 border-t border-line pt-2" aria-label="Nudge">
      {arrow("left", "←", -1, 0)}
      {arrow("right", "→", 1, 0)}
      {arrow("up", "↑", 0, 1)}
      {arrow("down", "↓", 0, -1)}
      <select
        className="rounded border border-line bg-white px-1 py-1"
        aria-label="Nudge by"
        value={step}
        onChange={(e) => setStep(e.target.value as NudgeStep)}
      >
        {STEPS.map((s) => (
          <option key={s}>{s}</option>
        ))}
      </select>
      <span className="text-quiet" data-testid="nudged">
        {shift[0] === 0 && shift[1] === 0
          ? "nudge it"
          : `${difference(shift[0])}, ${difference(shift[1])}${unitWord()}`}
      </span>
    </fieldset>
  );
}

/** Axes by their spacings, in one go. */
function SpacedAxes({ along, first }: { along: "x" | "y"; first: string }) {
  const axes = useProject((s) => s.rows.gridAxis);
  const here = [...axes.values()].filter((a) => a.along === along).sort((a, b) => a.at - b.at);
  const [label, setLabel] = useState(first);
  const [text, setText] = useState("");
  const [error, setError] = useState<string | null>(null);
  const set = async () => {
    try {
      const query = { text, unit: projectUnit(), first: label };
      const { places, labels } = await settled(api.GET("/api/spacings", { params: { query } }));
      const operations: Operation[] = [
        ...here.map((a): Operation => ({ do: "remove", type: "gridAxis", id: a.id })),
        ...places.map(
          (at, i): Operation => ({
            do: "add",
            type: "gridAxis",
            id: newId(),
            values: { along, at, label: labels[i] ?? `${i + 1}` },
          }),
        ),
      ];
      setError(null);
      // What is said next may be typed meanwhile.
      setText("");
      const refusal = await change(`Axes along ${along}`, operations);
      if (refusal) setText((now) => now || text);
    } catch (refused) {
      setError((refused as Refused).message);
    }
  };
  return (
    <form
      className="mt-2 border-t border-line pt-2"
      onSubmit={(e) => {
        e.preventDefault();
        void set();
      }}
    >
      <div className="flex items-end gap-2">
        <div className="w-12">
          <Field label="from" value={label} onChange={setLabel} />
        </div>
        <Field label={`spacings along ${along}`} value={text} onChange={setText} placeholder="e.g. 5 x 6000" />
        <button type="submit" className="rounded border border-line bg-white px-2 py-1" disabled={text.trim() === ""}>
          Set
        </button>
      </div>
      {error && (
        <p role="alert" className="mt-1 text-rust">
          {error}
        </p>
      )}
      {here.length > 0 && (
        <p className="mt-1 text-quiet">
          {here.map((a) => a.label).join(" ")}{" "}
          <Plain
            onClick={() =>
              void change(
                `Remove axes along ${along}`,
                here.map((a): Operation => ({ do: "remove", type: "gridAxis", id: a.id })),
              )
            }
          >
            Remove
          </Plain>
        </p>
      )}
    </form>
  );
}

/** Columns at every crossing of the grid, or none. */
function Columns() {
  const { gridAxis, column } = useProject((s) => s.rows);
  const storey = useDesk((s) => s.storey);
  const [size, setSize] = useState("350");
  const along = (axis: "x" | "y") => [...gridAxis.values()].filter((a) => a.along === axis);
  const [xs, ys] = [along("x"), along("y")];
  const here = [...column.values()].filter((c) => c.storey === storey);
  if (storey === null || (xs.length * ys.length === 0 && here.length === 0)) return null;
  const set = async () => {
    const side = await read(size);
    if (side === null) return;
    const has = (x: number, y: number) => here.some((c) => Math.hypot(c.x - x, c.y - y) < 1);
    const operations = xs.flatMap((x) =>
      ys
        .filter((y) => !has(x.at, y.at))
        .map(
          (y): Operation => ({
            do: "add",
            type: "column",
            id: newId(),
            values: { storey, x: x.at, y: y.at, width: side, depth: side, round: false },
          }),
        ),
    );
    if (operations.length > 0) await change("Columns on the grid", operations);
  };
  return (
    <div className="mt-2 flex items-end gap-2 border-t border-line pt-2">
      <div className="w-20">
        <Field label="columns" value={size} onChange={setSize} />
      </div>
      <Plain onClick={() => void set()}>At every crossing</Plain>
      {here.length > 0 && (
        <Plain
          danger
          onClick={() =>
            void change(
              "Remove columns",
              here.map((c): Operation => ({ do: "remove", type: "column", id: c.id })),
            )
          }
        >
          Remove {here.length}
        </Plain>
      )}
    </div>
  );
}
