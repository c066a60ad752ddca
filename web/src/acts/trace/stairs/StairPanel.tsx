import { useDeskFields } from "../../../board/desk";
import type { Place } from "../../../store/drawings";
import { typed } from "../../../store/lengths";
import { change, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { inWords, said, typedAs } from "../../../ui/measures";
import { OneOf, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { SelectRow } from "../../SelectRow";
import { useStairs } from "../../useStairs";
import { removeRow } from "../removing";
import { LimitsTable } from "./LimitsTable";
import { risersFor, type StairWay, stairsHere, useNextStair } from "./stairs";

const WAYS: readonly (readonly [StairWay, string])[] = [
  ["line", "a line"],
  ["box", "a box"],
  ["bend", "a bend"],
  ["risers", "riser by riser"],
];
const HINTS: Record<StairWay, string> = {
  line: "Click along the middle of the stair from its first riser up, a point at each corner. Enter ends it. It takes the risers that are drawn there.",
  box: "Click the corner at which it begins, and the opposite one: one flight along it, or two with a landing where there is room for them. It takes the risers that are drawn there.",
  bend: "Click the first riser's middle, a point halfway up, and the last riser's middle.",
  risers: "Click both ends of each drawn riser, from below. Treads lie between them; Enter ends it.",
};
const TURNS = [
  ["landing", "landings"],
  ["winders", "winders"],
] as const;
const BUILDS = [
  ["slab", "slab"],
  ["strings", "strings"],
  ["open", "open"],
  ["solid", "solid"],
] as const;
const RAILS = [
  ["none", "no rail"],
  ["left", "left"],
  ["right", "right"],
  ["both", "both"],
] as const;

const EDGES = [
  ["straight", "straight edges"],
  ["round", "round edges"],
] as const;
const POSTS = [
  ["gap", "close"],
  ["number", "so many"],
  ["treads", "by treads"],
] as const;
const POSTS_FIRST = { gap: 95, number: 4, treads: 3 };
const POSTS_BY = {
  gap: "clear between posts at most",
  number: "posts along each edge",
  treads: "a post on every so manieth tread",
};

/** How the next stair is drawn, and what it is like. */
export function StairOptions() {
  const { way, width, risers, turn, build, rails, edges } = useNextStair();
  const { storey } = useDeskFields("storey");
  useProject((s) => s.rows.storey);
  return (
    <section className="flex flex-col gap-2 border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Stairs">
      <OneOf label="drawn along" value={way} of={WAYS} set={(to) => useNextStair.setState({ way: to })} />
      <p className="text-quiet">{HINTS[way]}</p>
      {way !== "risers" && (
        <div className="grid grid-cols-2 gap-2">
          <Typed
            label="width"
            value={typedAs(width)}
            set={(text) => void typed(text, (mm) => useNextStair.setState({ width: mm }))}
          />
          <Typed
            label="risers"
            value={String(risers ?? (storey === null ? "" : risersFor(storey)))}
            set={(text) => useNextStair.setState({ risers: countOf(text) ?? risers })}
          />
        </div>
      )}
      {way === "risers" && (
        <OneOf label="edges" value={edges} of={EDGES} set={(to) => useNextStair.setState({ edges: to })} />
      )}
      {way === "line" && (
        <OneOf label="at corners" value={turn} of={TURNS} set={(to) => useNextStair.setState({ turn: to })} />
      )}
      <OneOf label="carried by" value={build} of={BUILDS} set={(to) => useNextStair.setState({ build: to })} />
      <OneOf label="rails" value={rails} of={RAILS} set={(to) => useNextStair.setState({ rails: to })} />
      <LimitsTable storey={storey} />
    </section>
  );
}

const countOf = (text: string) => (/^\d{1,3}$/.test(text.trim()) ? Number(text) : null);

/** A stair, with all of its treads changed at once. */
export function SelectedStair({ id }: { id: string }) {
  const stair = useProject((s) => s.rows.stair.get(id));
  const { stairs, refused } = useStairs(stair?.storey ?? null);
  if (!stair) return null;
  const shown = stairs.find((s) => s.id === id && s.goesUp);
  const set = (title: string, values: Partial<Thing<"stair">>) =>
    void change(title, [{ do: "set", type: "stair", id, values }]);
  const length = (label: string, key: "width" | "thickness" | "nosing" | "railHeight" | "headroom") => (
    <Typed
      label={label}
      value={typedAs(stair[key])}
      set={(text) => void typed(text, (mm) => set(`${label} of a stair`, { [key]: mm }))}
    />
  );
  const count = (risers: number) => set("Number of risers", { risers });
  const trouble = refused.find((r) => r.id === id);
  return (
    <section className="flex flex-col gap-2 border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Stair">
      <div className="flex items-baseline justify-between">
        <span className="text-lg font-bold text-teal">Stair</span>
        {shown && (
          <span className="text-[15px] font-semibold text-teal">
            {stair.risers} × {inWords(shown.riseMm)}
          </span>
        )}
      </div>
      {trouble && (
        <p role="alert" className="text-rust">
          {said(trouble.message)}
        </p>
      )}
      {shown && (
        <p className="text-quiet">
          Going {inWords(shown.goingMm)}, twice the rise and it {inWords(2 * shown.riseMm + shown.goingMm)}. Pitched at{" "}
          {shown.pitch.toFixed(1)}°, {inWords(shown.runMm)} on the walking line. Rises {inWords(shown.heightMm)}, in{" "}
          {shown.treads} treads.
        </p>
      )}
      {shown?.findings.map((f) => (
        <div key={f.code + f.at} role="status" className="border-l-2 border-rust pl-2 text-rust">
          {said(f.message)}
          {f.risers !== null && f.risers !== stair.risers && (
            <div className="mt-1">
              <Plain onClick={() => count(f.risers ?? stair.risers)}>Take {f.risers} risers</Plain>
            </div>
          )}
        </div>
      ))}
      <div className="flex items-end gap-1.5">
        <Plain onClick={() => count(stair.risers - 1)}>One less</Plain>
        <Typed label="risers" value={String(stair.risers)} set={(text) => count(countOf(text) ?? stair.risers)} />
        <Plain onClick={() => count(stair.risers + 1)}>One more</Plain>
      </div>
      <div className="grid grid-cols-2 gap-2">
        {stair.line !== "" && length("width", "width")}
        {length(stair.build === "slab" ? "slab" : "treads", "thickness")}
        {length("headroom", "headroom")}
        {stair.rails !== "none" && length("rail", "railHeight")}
        <Typed
          label="nosing"
          value={typedAs(stair.nosing)}
          set={(text) => void typed(text, (nosing) => set("Nosing of a stair", { nosing }))}
        />
      </div>
      <Arrival of={stair} set={(reaches) => set("Where a stair arrives", { reaches })} />
      {stair.line !== "" && (
        <OneOf label="at corners" value={stair.turn} of={TURNS} set={(turn) => set("Corners of a stair", { turn })} />
      )}
      <OneOf
        label="carried by"
        value={stair.build}
        of={BUILDS}
        set={(build) => set("What carries a stair", { build, thickness: build === "slab" ? 150 : 40 })}
      />
      <OneOf label="rails" value={stair.rails} of={RAILS} set={(rails) => set("Rails of a stair", { rails })} />
      {stair.rails !== "none" && (
        <>
          <OneOf
            label="posts"
            value={stair.posts}
            of={POSTS}
            set={(posts) => set("Posts of a stair’s rails", { posts, postsBy: POSTS_FIRST[posts] })}
          />
          <Typed
            label={POSTS_BY[stair.posts]}
            value={stair.posts === "gap" ? typedAs(stair.postsBy ?? POSTS_FIRST.gap) : String(stair.postsBy)}
            set={(text) =>
              stair.posts === "gap"
                ? void typed(text, (postsBy) => set("Posts of a stair’s rails", { postsBy }))
                : set("Posts of a stair’s rails", { postsBy: countOf(text) ?? stair.postsBy })
            }
          />
        </>
      )}
      <div>
        <Plain danger onClick={() => removeRow("stair", id, "Remove a stair")}>
          Remove
        </Plain>
      </div>
    </section>
  );
}

/** The storey where it arrives, where there is more than one above it. */
function Arrival({ of, set }: { of: Thing<"stair">; set: (reaches: string | null) => void }) {
  const storeys = useProject((s) => s.rows.storey);
  const own = storeys.get(of.storey)?.elevation ?? 0;
  const above = [...storeys.values()].filter((s) => s.elevation > own).sort((a, b) => a.elevation - b.elevation);
  if (above.length < 2) return null;
  return (
    <label className="block text-xs text-quiet">
      arrives at
      <select
        className="mt-0.5 block w-full rounded border border-line bg-white px-1.5 py-1 text-[14px] text-ink"
        value={of.reaches ?? ""}
        onChange={(e) => set(e.target.value === "" ? null : e.target.value)}
      >
        <option value="">the next storey above</option>
        {above.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </select>
    </label>
  );
}

export function StairRows({ storey }: Place) {
  const rows = useProject((s) => s.rows.stair);
  const { stairs } = useStairs(storey);
  return stairsHere(rows.values(), storey).map((stair) => {
    const shown = stairs.find((s) => s.id === stair.id && s.goesUp);
    const isWrong = (shown?.findings.length ?? 0) > 0;
    return (
      <SelectRow key={stair.id} type="stair" id={stair.id}>
        <span className={`font-semibold ${isWrong ? "text-rust" : ""}`}>Stair</span>
        <span className="text-[13px] text-quiet">
          {stair.risers} {shown ? `× ${inWords(shown.riseMm)}` : "risers"}
        </span>
      </SelectRow>
    );
  });
}
